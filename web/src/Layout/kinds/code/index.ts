import type { ElementKind } from '../kinds'
import CodeDetails from './CodeDetails.vue'

export const code: ElementKind = { kind: 'code', leavesOpen: 'words', key: 'q', Details: CodeDetails }
