import { DateTime } from 'luxon'
import type { Standby } from '../formats/layout'
import type { Booking, Played, Schedule as ScheduleDocument } from '../formats/schedule'
import { api } from '../ui/api'
import type { Finding, Fix } from '../ui/shelf'
import { mediaOf } from '../Layout/named'

export const RANKS = ['takeover', 'dated', 'weekly', 'everyday'] as const satisfies Rank[]
export type Rank = Booking['rank']
export type { Booking, Played, ScheduleDocument }

/** A day as the clock on the wall counts it; `steps`: from so many ms into it the clock shows so many minutes since midnight. */
export interface Day {
  date: string
  from: string
  to: string
  steps: [number, number][]
}

export interface Play {
  from: string
  to: string
  plays: Played | null
  booking: string | null
  why: string
}

export interface Occurrence {
  from: string
  to: string
  start: string
  end: string
  /** Whether it plays at all; what goes before it may play all its time. */
  turn?: boolean
  /** The name of another of its rank that is due as well, and plays instead of it. */
  clash?: string
}

/** What the core says of a schedule in a span. */
export interface Told {
  display: string | null
  timezone: string
  displays: { id: string; name: string; timezone: string }[]
  days: Day[]
  plays: Play[]
  zones: Record<string, Play[]>
  /** Those of the layouts that are booked, which can be booked as well. */
  zones_there: string[]
  bookings: { id: string; name: string; zone: string | null; rank: Rank; plays: Played; said: string; occurrences: Occurrence[] }[]
  names: Record<string, string>
  findings: Finding[]
}

/** The same as a layout or a playlist writes it: a layout also as a reference, a media also as a whole. */
export type { Standby }
export const standbyKey = (standby: Standby): string =>
  'layout' in standby
    ? `layout:${typeof standby.layout === 'string' ? standby.layout : standby.layout.ref}`
    : 'media' in standby
      ? `media:${typeof standby.media === 'string' ? standby.media : (mediaOf(standby.media).id ?? mediaOf(standby.media).name)}`
      : keyOf(standby)
export const keyOf = (played: Played): string => Object.entries(played).map(([kind, id]) => `${kind}:${id}`)[0]!
export const playedOf = (key: string): Played => {
  const [kind, ...id] = key.split(':')
  return { [kind!]: id.join(':') } as unknown as Played
}

/** Local times are counted on a clock that is never changed; the core says where they lie. */
export const plusMinutes = (local: string, minutes: number): string =>
  DateTime.fromISO(local, { zone: 'utc' }).plus({ minutes }).toFormat("yyyy-MM-dd'T'HH:mm:ss")

/** Days that stand side by side in one row of the chart. */
export interface Row {
  days: Day[]
  from: string
  to: string
}

/** Rows of so many days each. */
export function rowsOf(days: Day[], each: number): Row[] {
  const rows: Row[] = []
  for (let n = 0; n < days.length; n += each) {
    const own = days.slice(n, n + each)
    rows.push({ days: own, from: own[0]!.from, to: own.at(-1)!.to })
  }
  return rows
}

/** Where on the wall clock a share of a row lies, in minutes since its first midnight. */
export function minutesIn(row: Row, share: number): number {
  const at = Date.parse(row.from) + share * (Date.parse(row.to) - Date.parse(row.from))
  let n = row.days.length - 1
  while (n > 0 && Date.parse(row.days[n]!.from) > at) n--
  const day = row.days[n]!
  return n * 1440 + minutesAt(day, (at - Date.parse(day.from)) / (Date.parse(day.to) - Date.parse(day.from)))
}

/** Where on the wall clock a share of a day lies, in minutes since its midnight. */
export function minutesAt(day: Day, share: number): number {
  const ms = share * (Date.parse(day.to) - Date.parse(day.from))
  const step = [...day.steps].reverse().find(([at]) => at <= ms) ?? day.steps[0]!
  return step[1] + (ms - step[0]) / 60_000
}

export const shareAt = (day: { from: string; to: string }, instant: number): number => {
  const [from, to] = [Date.parse(day.from), Date.parse(day.to)]
  return Math.max(0, Math.min(1, (instant - from) / (to - from)))
}

/** The hours of a day with where each stands; one that comes twice stands twice. */
export function hoursOf(day: Day): { share: number; label: string; again: boolean }[] {
  const length = Date.parse(day.to) - Date.parse(day.from)
  const hours: { share: number; label: string; again: boolean }[] = []
  const seen = new Set<number>()
  day.steps.forEach(([at, minutes], n) => {
    const end = day.steps[n + 1]?.[0] ?? length
    for (let m = Math.ceil(minutes / 60) * 60; at + (m - minutes) * 60_000 < end; m += 60) {
      hours.push({ share: (at + (m - minutes) * 60_000) / length, label: `${String((m / 60) % 24).padStart(2, '0')}:00`, again: seen.has(m) })
      seen.add(m)
    }
  })
  return hours
}

export type BookingAct =
  /** Without times an hour that lies ahead, where it can be on that day. */
  | ({ do: 'make'; plays: Played; zone?: string } & ({ start: string; end: string } | { day: string }))
  /** Its end goes along. */
  | { do: 'begin'; booking: string; start: string }
  /** From midnight to midnight. */
  | { do: 'whole'; booking: string }
  | { do: 'repeat'; booking: string; rrule: string | null }
  | { do: 'cure'; fix: Fix }
/** What hands do to the bookings, done by the core; the booking that it is about comes back as well. */
export const booked = (document: ScheduleDocument, act: BookingAct) =>
  api.post<{ document: ScheduleDocument; booking: string }>('plays/act', { document, act })
