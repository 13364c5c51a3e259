import type { ElementKind } from '../kinds'
import PictureDetails from './PictureDetails.vue'

export const picture: ElementKind = { kind: 'picture', key: 'p', Details: PictureDetails, begins: 'media', leavesOpen: 'picture' }
