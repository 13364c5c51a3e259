import type { ElementKind } from '../kinds'
import ProgrammeDetails from './ProgrammeDetails.vue'

export const programme: ElementKind = { kind: 'programme', key: 'o', Details: ProgrammeDetails, isWide: true, isOutlined: true }
