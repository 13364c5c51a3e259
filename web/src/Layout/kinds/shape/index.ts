import type { ElementKind } from '../kinds'
import ShapeDetails from './ShapeDetails.vue'

export const shape: ElementKind = { kind: 'shape', key: 's', Details: ShapeDetails }
