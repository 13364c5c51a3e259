import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { MarkOverlay, NoticeOverlay, Overlay, TakeoverOverlay, TickerOverlay, WindowOverlay } from '../formats/overlay'
import { DAY_NAMES } from '../Layout/designs'
import type { Picture } from '../Layout/style'
import { api } from '../ui/api'
import type { Finding } from '../ui/shelf'

export { type Change, type Said, saidOf, saying } from './said'
export type { MarkOverlay, NoticeOverlay, Overlay, TakeoverOverlay, TickerOverlay, WindowOverlay }
export type Kind = Overlay['kind']
export type When = Overlay['when']
export type Times = Exclude<When, 'always'>

/** The kinds in the order in which they lie over one another, the lowest first, and what they are for. */
export const KINDS: { kind: Kind; name: string; says: string }[] = [
  { kind: 'mark', name: 'Mark', says: 'a picture in a corner, of every screen of a house' },
  { kind: 'ticker', name: 'Ticker', says: 'a line that runs along an edge, from words or from data' },
  { kind: 'notice', name: 'Notice', says: 'words that stand at one of nine places, or run along' },
  { kind: 'window', name: 'Window', says: 'a layout or picture through whose opening the programme goes on' },
  { kind: 'takeover', name: 'Takeover', says: 'stands in the place of all else, prepared for when it is needed' },
]
export const nameOfKind = (kind: Kind): string => KINDS.find((one) => one.kind === kind)!.name

/** What stands where. */
export interface Above {
  id: string
  kind: Kind
  /** Of its document, where on the screen and when. */
  says: Overlay
  displays: number
  zones: { timezone: string; displays: number }[]
  now: number
  until: string | null
  next: string | null
  is_over: boolean
  has_no_end: boolean
  trouble?: string
}

export function useAbove() {
  const query = useQuery({ queryKey: ['above'], queryFn: () => api.get<{ overlays: Above[] }>('above'), refetchInterval: 30_000 })
  return computed(() => new Map((query.data.value?.overlays ?? []).map((one) => [one.id, one])))
}

/** What stands in force since somebody put it up in a hurry. */
export interface InForce {
  id: string
  kind: 'notice' | 'takeover'
  name: string
  text: string | null
  reason: string | null
  place: string
  displays: number
  stands: boolean
  begun_at: string
  begun_by: string | null
  until: string
  until_first: string
  ended_at: string | null
  ended_by: string | null
}

/** How it would look on those of its displays that differ most. */
export interface LookAbove {
  displays: number
  dark: number
  zones: { timezone: string; displays: number }[]
  looks: {
    display: { id: string; name: string; timezone: string; raster: { width: number; height: number }; active_mm: { width: number; height: number } }
    at: string
    from: string | null
    local: string
    picture: Picture
    findings: Finding[]
  }[]
}

export const PLACES = [
  ['top-left', 'top', 'top-right'],
  ['middle-left', 'middle', 'middle-right'],
  ['bottom-left', 'bottom', 'bottom-right'],
] as const
export const CORNERS = [
  ['top-left', 'top-right'],
  ['bottom-left', 'bottom-right'],
] as const
export const EDGES = ['top', 'bottom', 'left', 'right'] as const

export const isStrip = (one: Overlay): one is TickerOverlay => 'edge' in one
const spoken = (place: string) => place.replace('-', ' ')
const whole = (says: string) => ({ lies: () => says, grid: undefined, at: () => ({}) })

/** Where those of a kind lie, in words; where they may be dragged to, and what that makes of them. */
const LYING: {
  [K in Kind]: {
    lies: (one: Extract<Overlay, { kind: K }>) => string
    grid?: readonly (readonly string[])[]
    at: (place: string) => Partial<Overlay>
  }
} = {
  mark: { lies: (one) => spoken(one.corner), grid: CORNERS, at: (place) => ({ corner: place }) as Partial<Overlay> },
  ticker: {
    lies: (one) => `${one.edge}, ${one.room === 'squeeze' ? 'squeezes' : 'covers'}`,
    grid: [['top'], ['left', 'right'], ['bottom']],
    at: (place) => ({ edge: place, direction: undefined }) as Partial<Overlay>,
  },
  notice: { lies: (one) => spoken(one.place), grid: PLACES, at: (place) => ({ place }) as Partial<Overlay> },
  window: whole('around the programme'),
  takeover: whole('the whole screen'),
}
export const liesAt = (one: Overlay): string => LYING[one.kind].lies(one as never)
export const gridOf = (one: Overlay) => LYING[one.kind].grid
export const movedTo = (one: Overlay, place: string) => LYING[one.kind].at(place)

/** As one of a kind begins, so that it can be shown as it is. */
export function begun(
  kind: Kind,
  picture: MarkOverlay['media'] | null,
  plays: TakeoverOverlay['plays'] | null,
): Omit<Overlay, 'id' | 'format' | 'name'> {
  const head = { kind, created: new Date().toISOString(), when: 'always' as const }
  const style = { size_px: 48, weight: 700, color: '#ffffff' }
  const own = {
    mark: { media: picture, corner: 'top-right', size: 0.08, inset: 0.03 },
    ticker: {
      edge: 'bottom',
      thickness: 0.07,
      text: 'What is to be said',
      style: { ...style, valign: 'middle' },
      ground: '#17272e',
      speed_px_s: 120,
    },
    notice: { text: 'What is to be said', style: { ...style, align: 'center' }, place: 'bottom', width: 0.7, plate: '#17272e', padding: 0.02 },
    window: { plays },
    takeover: { plays, reason: 'Why it takes over' },
  }[kind]
  return { ...head, ...own }
}

const shown = (moment: string) => moment.slice(0, 16).replace('T', ' ') + (moment.endsWith('Z') ? ' UTC' : '')

/** When, in words. */
export function saidWhen(when: When): string {
  if (when === 'always') return 'always'
  const parts: string[] = []
  for (const { start, end, rrule } of when.bookings ?? []) {
    const days = /BYDAY=([A-Z,]+)/
      .exec(rrule ?? '')?.[1]
      ?.split(',')
      .map((day) => DAY_NAMES[day] ?? day)
    const sameDay = start.slice(0, 10) === end.slice(0, 10)
    const hours = `${start.slice(11, 16)} to ${end.slice(11, 16)}`
    if (rrule && /^FREQ=(DAILY|WEEKLY)/.test(rrule)) parts.push(`${days ? days.join(', ') : 'every day'} ${hours}`)
    else parts.push(`${shown(start)} to ${sameDay ? end.slice(11, 16) : shown(end)}${rrule ? ', again and again' : ''}`)
  }
  if (when.after) parts.push(`after every ${when.after.every} items, for ${(when.lasts_ms ?? 0) / 1000} s`)
  if (when.until) parts.push(`until ${shown(when.until)}`)
  return parts.join('; ')
}

/** The display's own time zones. */
export const zoneWords = (zones: { timezone: string; displays: number }[]): string =>
  zones.map(({ timezone }) => timezone.split('/').pop()!.replaceAll('_', ' ')).join(' and ')
