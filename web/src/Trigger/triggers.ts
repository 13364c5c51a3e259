import type { Rect, State, Transition, Triggers } from '../formats/triggers'
import type { MapSensor } from '../formats/run-sheet'
import type { Entry } from '../player/answers'
import type { Addresses } from '../Layout/designs'
import type { RunSheet } from '../pane/sheet'
import type { Finding } from '../ui/shelf'

export type { MapSensor, Rect, State, Transition, Triggers }
export type Signal = Triggers['signals'][number]
export type Kind = Signal['kind']
/** A signal that has no id yet. */
export type Unnamed = Signal extends infer S ? (S extends Signal ? Omit<S, 'id'> : never) : never
export type Played = NonNullable<State['plays']>

export interface Picture {
  run_sheet: RunSheet
  media: Addresses
}

/** What happened: an entry of a trace, ms from its beginning. */
export type Said = Omit<Entry, 'at' | 'row' | 'only'> & { at_ms: number }
export interface Trace {
  id: string
  name: string
  until_ms: number
  entries: Said[]
}

/** What the core says of a map on a display. */
export interface LookTriggers {
  findings: Finding[]
  on: {
    id: string
    raster: { width: number; height: number }
    active_mm: { width: number; height: number }
    mm_per_px: number
    nearest_mm: number
    sensors: MapSensor[]
  } | null
  base: Picture | null
  canvas: { width: number; height: number }
  zones: string[]
  states: { id: string; linger_ms: number | null; needed_ms: number; reads_to_mm: number | null; rect: Rect; picture: Picture | null }[]
  traces: (Trace & { reached: string[] })[]
}
export interface Tried {
  from: string
  states: { at_ms: number; state: string; why: string }[]
  picture: Picture
}

/** What is chosen: a state, a signal, or where a signal leads from a state. */
export type Chosen = { is: 'state'; id: string } | { is: 'signal'; id: string } | { is: 'way'; state: string; signal: string }

// --- in words ------------------------------------------------------------------------------------

export const nameOf = ({ id, name }: { id: string; name?: string }): string => name ?? id
export const metres = (mm: number): string => `${(mm / 1000).toFixed(mm % 100 === 0 ? 1 : 2)} m`
export const secs = (ms: number): string => `${Number((ms / 1000).toFixed(2))} s`

export const KINDS: { kind: Kind; name: string }[] = [
  { kind: 'presence', name: 'somebody is near' },
  { kind: 'absence', name: 'nobody is there' },
  { kind: 'press', name: 'a button is pressed' },
  { kind: 'touch', name: 'an area is touched' },
  { kind: 'key', name: 'a key is pressed' },
  { kind: 'value', name: 'a figure rises or falls' },
  { kind: 'time', name: 'it is time' },
  { kind: 'operator', name: 'an operator asks for it' },
]

const list = (bands: number[]) => (bands.length === 1 ? `band ${bands[0]}` : `bands ${bands.join(', ')}`)

/** A signal in a few words: what it listens to. */
export function saidOf(signal: Signal, sensors: MapSensor[]): string {
  switch (signal.kind) {
    case 'presence': {
      const ends = sensors.find(({ id }) => id === signal.sensor)?.bands_mm ?? []
      const sorted = [...signal.bands].sort((a, b) => a - b)
      const [first, last] = [sorted[0]!, sorted.at(-1)!]
      const isRow = sorted.every((band, n) => band === first + n) && ends.length >= last
      const where = !isRow
        ? list(sorted)
        : first === 1
          ? `nearer than ${metres(ends[last - 1]!)}`
          : `${metres(ends[first - 2]!).replace(' m', '')} to ${metres(ends[last - 1]!)}`
      return `${where}${signal.dwell_ms ? ` for ${secs(signal.dwell_ms)}` : ''}`
    }
    case 'absence':
      return `nobody for ${secs(signal.after_ms)}`
    case 'press':
      return `button ${signal.button}`
    case 'touch':
      return 'touched'
    case 'key':
      return `key ${signal.key === ' ' ? 'space' : signal.key}`
    case 'value':
      return signal.rises_to === undefined ? `${signal.field} below ${signal.falls_below}` : `${signal.field} from ${signal.rises_to} up`
    case 'time':
      return `${signal.start.slice(11, 16)}${signal.rrule ? ', again and again' : ''}`
    case 'operator':
      return 'by an operator'
  }
}

// --- changes: each makes a new document ----------------------------------------------------------

/** A name that nothing in a list has: of letters that ids are made of. */
export function freeId(wanted: string, taken: string[]): string {
  const plain = wanted
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/[^A-Za-z0-9_-]+/g, '-')
    .replace(/^[^A-Za-z_]+|-+$/g, '')
    .slice(0, 40)
    .toLowerCase()
  const base = plain || 'one'
  const isTaken = (id: string) => ['lapse', 'start', 'error', 'done'].includes(id) || taken.some((one) => one.toLowerCase() === id)
  for (let n = 1; ; n++) {
    const id = n === 1 ? base : `${base}-${n}`
    if (!isTaken(id)) return id
  }
}

const swapped = <T extends { id: string }>(all: T[], id: string, next: T) => all.map((one) => (one.id === id ? next : one))
/** Without fields that are undefined: what is not said is not written. */
const said = <T extends object>(one: T): T => Object.fromEntries(Object.entries(one).filter(([, value]) => value !== undefined)) as T

export const withState = (map: Triggers, id: string, part: Partial<State>): Triggers => ({
  ...map,
  states: swapped(map.states, id, said({ ...map.states.find((one) => one.id === id)!, ...part })),
})
export const withSignal = (map: Triggers, id: string, part: Partial<Signal>): Triggers => ({
  ...map,
  signals: swapped(map.signals, id, said({ ...map.signals.find((one) => one.id === id)!, ...part } as Signal)),
})

export function renamed(map: Triggers, is: 'state' | 'signal', id: string, to: string): Triggers {
  const other = (one: string) => (one === id ? to : one)
  if (is === 'signal')
    return {
      ...map,
      signals: map.signals.map((one) => ({ ...one, id: other(one.id) })),
      transitions: map.transitions.map((one) => ({ ...one, on: other(one.on) })),
    }
  return {
    ...map,
    rest: other(map.rest),
    states: map.states.map((one) => ({ ...one, id: other(one.id), ...(one.then !== undefined && { then: other(one.then) }) })),
    transitions: map.transitions.map((one) => ({ ...one, from: one.from.map(other), to: other(one.to) })),
  }
}

export function without(map: Triggers, is: 'state' | 'signal', id: string): Triggers {
  if (is === 'signal')
    return { ...map, signals: map.signals.filter((one) => one.id !== id), transitions: map.transitions.filter(({ on }) => on !== id) }
  const transitions = map.transitions.flatMap((one) => {
    const from = one.from.filter((state) => state !== id)
    return one.to === id || from.length === 0 ? [] : [{ ...one, from }]
  })
  const states = map.states.filter((one) => one.id !== id).map((one) => (one.then === id ? said({ ...one, then: undefined }) : one))
  return { ...map, states, transitions }
}

/** Where in the list the way stands that a signal takes from a state; -1 for none. */
export const wayAt = (map: Triggers, state: string, signal: string): number =>
  map.transitions.findIndex(({ from, on }) => on === signal && (from.includes(state) || from.includes('*')))

/** The same where a signal leads elsewhere from a state; null for nowhere. What goes for every state goes on for all others. */
export function leading(map: Triggers, state: string, signal: string, to: string | null): Triggers {
  const others = map.states.map(({ id }) => id).filter((id) => id !== state)
  const rest = map.transitions.flatMap((one): Transition[] => {
    if (one.on !== signal) return [one]
    const from = one.from.includes('*') ? others : one.from.filter((id) => id !== state)
    return from.length ? [from.length === one.from.length && !one.from.includes('*') ? one : { ...one, from }] : []
  })
  if (to === null) return { ...map, transitions: rest }
  const same = rest.findIndex((one) => one.on === signal && one.to === to)
  const joined = same >= 0 && [...rest[same]!.from, state]
  // All of them: every state.
  const from = joined && joined.length === map.states.length ? ['*'] : joined
  return {
    ...map,
    transitions: from ? rest.map((one, n) => (n === same ? { ...one, from } : one)) : [...rest, { from: [state], on: signal, to }],
  }
}

export const withWay = (map: Triggers, place: number, part: Partial<Transition>): Triggers => ({
  ...map,
  transitions: map.transitions.map((one, n) => (n === place ? said({ ...one, ...part }) : one)),
})

/** What a new signal listens to on a display that has these sensors; null where it lacks one. */
export function signalBegun(kind: Kind, sensors: MapSensor[], canvas: { width: number; height: number }): Unnamed | null {
  const of = (wanted: string) => sensors.find((one) => one.kind === wanted)
  switch (kind) {
    case 'presence': {
      const sensor = of('presence')
      return sensor ? { kind, sensor: sensor.id, bands: [1], dwell_ms: 300 } : null
    }
    case 'absence': {
      const sensor = of('presence')
      return sensor ? { kind, sensor: sensor.id, after_ms: 3000 } : null
    }
    case 'press': {
      const sensor = of('buttons')
      return sensor ? { kind, sensor: sensor.id, button: sensor.buttons?.[0] ?? '1' } : null
    }
    case 'touch': {
      const [width, height] = [Math.round(canvas.width / 4), Math.round(canvas.height / 8)]
      return { kind, rect: { x: Math.round((canvas.width - width) / 2), y: Math.round((canvas.height - height) / 2), width, height } }
    }
    case 'key':
      return { kind, key: 'Enter' }
    case 'time':
      return { kind, start: `${new Date().toISOString().slice(0, 10)}T12:00:00`, rrule: 'FREQ=DAILY' }
    case 'operator':
      return { kind }
    case 'value':
      return null
  }
}
