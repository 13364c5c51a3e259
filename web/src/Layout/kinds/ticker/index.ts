import type { ElementKind } from '../kinds'
import TickerDetails from './TickerDetails.vue'

export const ticker: ElementKind = { kind: 'ticker', key: 'r', Details: TickerDetails }
