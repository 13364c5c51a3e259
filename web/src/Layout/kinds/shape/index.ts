import type { ElementKind } from '../kinds'
import ShapeDetails from './ShapeDetails.vue'

export const shape: ElementKind = { kind: 'shape', colourIn: 'fill', key: 's', Details: ShapeDetails }
