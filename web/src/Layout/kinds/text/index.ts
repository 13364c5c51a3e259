import type { ElementKind } from '../kinds'
import TextDetails from './TextDetails.vue'

export const text: ElementKind = { kind: 'text', key: 't', Details: TextDetails, isTypedOver: true, leavesOpen: 'words' }
