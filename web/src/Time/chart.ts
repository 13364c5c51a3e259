import { DateTime } from 'luxon'
import { clock } from '../ui/format'
import { type Day, type Occurrence, type Play, type Row, type Told, hoursOf, keyOf, rowsOf, shareAt } from './schedule'

/** Where everything of a week or a month stands in its chart, worked out once for what the core has told. */

export interface Bar {
  /** The same for the same booking in its row, so that it keeps the focus when it is moved. */
  key: string
  booking: string
  name: string
  said: string
  rank: string
  occurrence: Occurrence
  left: number
  right: number
  begins: boolean
  ends: boolean
  /** px from the top of its row */
  top: number
  own: boolean
  /** Whether its name stands beside it. */
  named: boolean
  /** What is wrong with it, in a few words, and in a sentence. */
  wrong: string
  why: string
}

export interface ChartRow extends Row {
  key: string
  begin: number
  end: number
  name: string
  month: string
  hours: number
  odd: Day | null
  ticks: { share: number; label: string; again: boolean }[]
  cells: { date: string; left: number; width: number; day: number; other: boolean }[]
  bars: Bar[]
  height: number
  plays: { from: string; left: number; right: number; name: string; look: string; title: string }[]
}

/** A bar of a smaller share of the day has its label beside it. */
export const SHORT = 0.2
/** How much of a day such a label takes. */
const LABEL = 0.27
const DAY_TOP = 38
const LANE = 21
const DAY_LEAST = 65
const WEEKS_TOP = 52
const LANE_NAMED = 29
const LANE_PLAIN = 14

interface Timed<T> {
  of: T
  from: number
  to: number
}
const timed = <T extends { from: string; to: string }>(list: T[]): Timed<T>[] =>
  list.map((of) => ({ of, from: Date.parse(of.from), to: Date.parse(of.to) }))
const meets = (one: { from: number; to: number }, from: number, to: number) => one.from < to && one.to > from

export function chartRows(
  told: Told,
  { zone, each, month, own }: { zone: string | null; each: number; month?: string; own: Set<string> },
): ChartRow[] {
  const plays = timed(zone === null ? told.plays : (told.zones[zone] ?? []))
  const ranks = new Map(told.bookings.map((b) => [b.id, b.rank]))
  const bookings = told.bookings.filter((b) => (b.zone ?? null) === zone).map((b) => ({ ...b, times: timed(b.occurrences) }))
  const wrong = wrongs(told)
  const before = new Set<string>()
  const nameOf = (play: Play) => (play.plays === null ? (zone === null ? 'nothing' : 'its own list') : (told.names[keyOf(play.plays)] ?? ''))

  return rowsOf(told.days, each).map((row) => {
    const [begin, end] = [Date.parse(row.from), Date.parse(row.to)]
    const bars: Bar[] = []
    for (const b of bookings) {
      let n = 0
      for (const { of: occurrence, from, to } of b.times) {
        if (from >= end || to <= begin) continue
        bars.push({
          key: `${b.id} ${n++}`,
          booking: b.id,
          name: b.name,
          said: b.said,
          rank: b.rank,
          occurrence,
          left: shareAt(row, from),
          right: shareAt(row, to),
          begins: from >= begin,
          ends: to <= end,
          top: 0,
          own: own.has(b.id),
          named: true,
          ...wrong(b.id, occurrence),
        })
      }
    }
    bars.sort((a, b) => a.left - b.left || b.right - a.right)
    const height = each > 1 ? inWeeks(bars, before) : inDay(bars)
    const { days } = row
    const date = DateTime.fromISO(days[0]!.date)
    const last = DateTime.fromISO(days.at(-1)!.date)
    return {
      ...row,
      key: days[0]!.date,
      begin,
      end,
      name: days.length > 1 ? `${date.day} to ${last.day}` : date.toFormat('ccc d', { locale: 'en-GB' }),
      month: last.toFormat('LLL', { locale: 'en-GB' }),
      hours: (end - begin) / 3_600_000,
      odd: days.find((d) => d.steps.length > 1) ?? null,
      ticks: days.length > 1 ? [] : hoursOf(days[0]!),
      cells:
        days.length === 1
          ? []
          : days.map((d) => {
              const left = shareAt(row, Date.parse(d.from))
              const other = month !== undefined && !d.date.startsWith(month)
              return { date: d.date, left, width: shareAt(row, Date.parse(d.to)) - left, day: Number(d.date.slice(8)), other }
            }),
      bars,
      height,
      plays: plays
        .filter((p) => meets(p, begin, end))
        .map(({ of: play, from, to }) => ({
          from: play.from,
          left: shareAt(row, from),
          right: shareAt(row, to),
          name: nameOf(play),
          look: play.booking === null ? (play.plays === null ? 'dark' : 'standby') : (ranks.get(play.booking) ?? ''),
          title: `${nameOf(play)}, ${clock(from, told.timezone, false)} to ${clock(to, told.timezone, false)}: ${play.why}`,
        })),
    }
  })
}

/** Of a day each bar is in the first lane that is free. Gives the height of the row, px. */
function inDay(bars: Bar[]): number {
  const free: number[] = []
  for (const bar of bars) {
    const lane = free.findIndex((f) => f <= bar.left)
    const place = lane >= 0 ? lane : free.length
    bar.top = DAY_TOP + place * LANE
    free[place] = bar.right - bar.left < SHORT ? bar.right + LABEL : bar.right
  }
  return Math.max(DAY_LEAST, DAY_TOP + free.length * LANE + 6)
}

/** Of a week each booking has a lane of its own; its name is told where it comes first, and where something is wrong with it. */
function inWeeks(bars: Bar[], before: Set<string>): number {
  const lanes = new Map<string, Bar[]>()
  for (const bar of bars) {
    const lane = lanes.get(bar.booking)
    if (lane) lane.push(bar)
    else lanes.set(bar.booking, [bar])
  }
  let top = WEEKS_TOP
  for (const [booking, own] of lanes) {
    const told = own.find((b) => b.wrong) ?? (before.has(booking) ? null : own[0]!)
    before.add(booking)
    for (const bar of own) {
      bar.top = top
      bar.named = bar === told
    }
    top += told ? LANE_NAMED : LANE_PLAIN
  }
  return Math.max(WEEKS_TOP + LANE_PLAIN, top)
}

/** What the core says of a booking at one of its occurrences: lost in all its time, or claimed by two. */
function wrongs(told: Told): (id: string, occurrence: Occurrence) => { wrong: string; why: string } {
  const never = new Map(told.findings.filter((f) => f.code === 'booking.never').map((f) => [f.elements[0], f]))
  const clash = new Map(told.findings.filter((f) => f.code === 'booking.clash').map((f) => [f.elements[0], f]))
  return (id, occurrence) => {
    const lost = never.get(id)
    if (lost) return { wrong: 'never gets its turn', why: lost.message }
    if (occurrence.turn === false) return { wrong: 'no turn here', why: 'What goes before it plays all this time.' }
    if (occurrence.clash) return { wrong: `clashes with ${occurrence.clash}`, why: clash.get(id)?.message ?? '' }
    return { wrong: '', why: '' }
  }
}
