import { DateTime } from 'luxon'
import { clock } from '../../ui/format'

/** The scale of the tide table: from a second to a week. */

const S = 1000
const MIN = 60 * S
const H = 60 * MIN
export const SPANS = [S, 2 * S, 5 * S, 10 * S, 30 * S, MIN, 2.5 * MIN, 5 * MIN, 10 * MIN, 30 * MIN, H, 3 * H, 6 * H, 12 * H, 24 * H, 48 * H, 168 * H]
const STEPS = [
  50,
  100,
  200,
  500,
  S,
  2 * S,
  5 * S,
  10 * S,
  15 * S,
  30 * S,
  MIN,
  2 * MIN,
  5 * MIN,
  10 * MIN,
  15 * MIN,
  30 * MIN,
  H,
  2 * H,
  3 * H,
  6 * H,
  12 * H,
  24 * H,
]

export const spanWords = (ms: number): string => {
  if (ms < MIN) return `${ms / S} s`
  if (ms < H) return `${ms / MIN} min`
  return ms < 24 * H ? `${ms / H} h` : ms < 168 * H ? `${ms / (24 * H)} d` : '1 week'
}

/** An instant as somebody types it: `14:03`, `14:03:20`, or with its day before it; without one, on the day on which the hand stands. */
export function instantTyped(text: string, hand: number, timezone: string): number | null {
  const typed = text.trim().replace('T', ' ')
  const day = DateTime.fromMillis(hand, { zone: timezone }).toISODate()!
  const dated = /^\d{1,2}:/.test(typed) ? `${day} ${typed}` : typed
  const at = ['yyyy-MM-dd H:mm', 'yyyy-MM-dd H:mm:ss', 'yyyy-MM-dd']
    .map((f) => DateTime.fromFormat(dated, f, { zone: timezone }))
    .find((d) => d.isValid)
  return at?.toMillis() ?? null
}

/** The next span in a direction. */
export function zoomed(span: number, closer: boolean): number {
  const place = SPANS.findIndex((s) => s >= span)
  return SPANS[Math.max(0, Math.min(SPANS.length - 1, place + (closer ? -1 : 1)))]!
}

/** Where the scale is written, at whole steps of the wall clock. */
export function ticksBetween(from: number, to: number, width: number, timezone: string): { at: number; label: string }[] {
  const step = STEPS.find((s) => (s / (to - from)) * width >= (s < S ? 104 : 92)) ?? STEPS.at(-1)!
  const ahead = (t: number) => DateTime.fromMillis(t, { zone: timezone }).offset * MIN
  const ticks: { at: number; label: string }[] = []
  let local = Math.ceil((from + ahead(from)) / step) * step
  for (let n = 0; n < 200; n++, local += step) {
    // On the day on which the clocks change the steps keep to what they show.
    const near = local - ahead(from)
    const at = step >= H ? local - ahead(local - ahead(near)) : near
    if (at >= to) break
    if (at >= from) ticks.push({ at, label: label(at, step, timezone) })
  }
  return ticks
}

function label(at: number, step: number, timezone: string): string {
  if (step < S)
    return `${clock(at, timezone)}.${String(((at % S) + S) % S)
      .padStart(3, '0')
      .slice(0, step < 100 ? 2 : 1)}`
  if (step < MIN) return clock(at, timezone)
  const time = clock(at, timezone, false)
  return step < 3 * H || time !== '00:00' ? time : DateTime.fromMillis(at, { zone: timezone }).toFormat('ccc d LLL', { locale: 'en-GB' })
}
