import type { ElementKind } from '../kinds'
import TickerDetails from './TickerDetails.vue'

export const ticker: ElementKind = { kind: 'ticker', leavesOpen: 'words', key: 'r', Details: TickerDetails }
