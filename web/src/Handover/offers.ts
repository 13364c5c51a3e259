import type { ReleaseState } from '../Estate/estate'
import type { Finding } from '../ui/shelf'

/** What would be handed over to displays for which it means the same. */
export interface Offer {
  displays: string[]
  /** Null where nothing can be worked out; a finding says why. */
  match: { verdict: 'exact' | 'scaled' | 'padded' | 'crossed'; scale: number; used: number; swapped: boolean } | null
  changes: string[]
  unchanged: boolean
  current: ReleaseState | null
  new_bytes: number
  /** Until when it says what comes and goes, and the standby from then on. */
  planned: { until: string; then: string | null } | null
  /** The schedule that rules there, in whose place it would play. */
  instead_of: { id: string; name: string; handed_over: boolean } | null
  findings: Finding[]
  stops: number
  warnings: number
  hints: number
}

export const verdictWords = ({ verdict, scale, used, swapped }: NonNullable<Offer['match']>): string =>
  ({
    exact: 'exact',
    scaled: `scaled by ${scale.toFixed(3)}`,
    padded: `padded, ${(used * 100).toFixed(1)} % used`,
    crossed: swapped ? 'crossed: width and height swapped' : 'crossed: portrait on landscape, or the reverse',
  })[verdict]

export const countOf = (offers: Offer[]): number => offers.reduce((sum, o) => sum + o.displays.length, 0)
