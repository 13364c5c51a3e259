import type { MapSensor, MapSignal, TriggersMap } from '../formats/run-sheet'
import { lastBegun } from '../pane/sheet'

/**
 * A map of triggers as it runs on a player (docs/formats/run-sheet.md): pure functions of where it stands, what was said and when, so that it is run here as the
 * core runs it (core/src/Trigger/Machine.php; AnswersTest holds both over random maps).
 */
export type { MapSensor, MapSignal, TriggersMap }

export type Row = Record<string, string | number | boolean | null>

/** What was said, and when, Unix ms: one entry of formats-triggers. */
export interface Entry {
  at: number
  signal?: string
  sensor?: string
  mm?: number | null
  band?: number
  button?: string
  touch?: { x: number; y: number }
  key?: string
  source?: string
  field?: string
  value?: number | null
  row?: Row
  /** The signal that alone hears it: a figure of its own rows. */
  only?: string
}

interface Memory {
  is: boolean
  /** When its wait ends, Unix ms; null where nothing is waited for. */
  due: number | null
}

export interface Entered {
  at: number
  state: string
  /** The signal; `lapse` where the state before ended, `start` for the first. */
  why: string
  /** Number of the row that was carried; null where none was. */
  row: number | null
}

/** Where a map stands; instants are Unix ms. */
export interface Run {
  at: number
  state: string
  lapse: number | null
  /** When each way was taken last, by its place. */
  taken: Record<number, number>
  memories: Record<string, Memory>
  /** The band that is held, by sensor. */
  held: Record<string, number>
  /** The state that was entered last. */
  entered: Entered
}

const RANKS = [0, 1, 2, 3] as const

export function begun(map: TriggersMap, at: number): Run {
  const memories: Run['memories'] = {}
  for (const signal of map.signals) memories[signal.id] = beginsWith(signal, at)
  return { at, state: map.rest, lapse: null, taken: {}, memories, held: {}, entered: { at, state: map.rest, why: 'start', row: null } }
}

function beginsWith(signal: MapSignal, at: number): Memory {
  if (signal.kind === 'absence') return { is: true, due: at + signal.after_ms }
  if (signal.kind === 'value') return { is: true, due: null }
  return { is: false, due: signal.kind === 'time' ? nextAt(signal.at_ms, at - 1) : null }
}

/** The first of rising instants behind another; null where there is none. */
function nextAt(instants: number[], at: number): number | null {
  const last = lastBegun(instants, (one) => one, at)
  return (instants[last]! > at ? instants[last] : instants[last + 1]) ?? null
}

/** When something happens next by itself; null where nothing does. */
export function dueAt(run: Run): number | null {
  const due = [run.lapse, ...Object.values(run.memories).map((one) => one.due)].filter((one) => one !== null)
  return due.length ? Math.min(...due) : null
}

/** All that happens up to an instant, that included: what is due by itself, one after the other, and then what is said. */
export function until(map: TriggersMap, run: Run, at: number, entries: Entry[] = []): { run: Run; entered: Entered[] } {
  const entered: Entered[] = []
  const first = dueAt(run)
  if (entries.length === 0 && (first === null || first > at)) return { run: { ...run, at }, entered }
  for (let due = first; due !== null && due < at; due = dueAt(run)) run = step(map, run, due, [], entered)
  return { run: step(map, run, at, entries, entered), entered }
}

function step(map: TriggersMap, before: Run, at: number, entries: Entry[], entered: Entered[]): Run {
  const run = { ...before, at, taken: { ...before.taken }, memories: { ...before.memories }, held: { ...before.held } }
  const enter = (state: string, why: string, row: number | null) => {
    run.state = state
    linger(map, run)
    run.entered = { at, state, why, row }
    entered.push(run.entered)
  }
  const take = (signal: string, entry: Entry | null) => {
    const place = map.transitions.findIndex(
      ({ from, on, cooldown_ms: cooldown }, n) =>
        on === signal && (from.includes('*') || from.includes(run.state)) && !(run.taken[n] !== undefined && at - run.taken[n] < cooldown),
    )
    const way = map.transitions[place]
    if (!way) return
    run.taken[place] = at
    if (!way.again && way.to === run.state) linger(map, run)
    else enter(way.to, signal, way.carries ? rowOf(map, signal, entry, at) : null)
  }
  if (run.lapse !== null && run.lapse <= at) enter(map.states.find(({ id }) => id === run.state)?.then ?? map.rest, 'lapse', null)
  for (const rank of RANKS) {
    const signals = map.signals.filter((one) => one.rank === rank)
    for (const signal of signals) {
      const { due } = run.memories[signal.id]!
      if (due === null || due > at) continue
      run.memories[signal.id] = { is: signal.kind !== 'time', due: signal.kind === 'time' ? nextAt(signal.at_ms, at) : null }
      take(signal.id, null)
    }
    for (const entry of entries) {
      if (rankOf(map, entry) !== rank) continue
      if (entry.signal !== undefined) {
        take(entry.signal, entry)
        continue
      }
      const band = bandOf(map, run, entry)
      if (band !== null) {
        if ((run.held[entry.sensor!] ?? 0) === band) continue
        run.held[entry.sensor!] = band
      }
      for (const signal of signals) {
        const heard = hears(map, signal, run.memories[signal.id]!, entry, band, at)
        if (!heard) continue
        run.memories[signal.id] = heard.memory
        if (heard.comes) take(signal.id, entry)
      }
    }
  }
  return run
}

function linger(map: TriggersMap, run: Run): void {
  const ms = map.states.find(({ id }) => id === run.state)?.linger_ms ?? null
  run.lapse = ms === null ? null : run.at + ms
}

function rankOf(map: TriggersMap, { signal, sensor, button, source, only }: Entry): number {
  if (signal !== undefined) return map.signals.find(({ id }) => id === signal)?.rank ?? -1
  if (only !== undefined || source !== undefined) return 2
  return sensor !== undefined && button === undefined ? 1 : 3
}

/** The band that is held after a reading; null for what is no reading of a distance. */
function bandOf(map: TriggersMap, run: Run, { sensor: id, mm, band }: Entry): number | null {
  if (id === undefined || (mm === undefined && band === undefined)) return null
  const sensor = map.sensors.find((one) => one.id === id)
  const held = run.held[id] ?? 0
  if (!sensor) return held
  const { bands_mm: ends, hysteresis_mm: hysteresis } = sensor
  if (band !== undefined) return band === 0 || !sensor.far_first ? band : ends.length + 1 - band
  if (mm === null || mm === undefined) return 0
  const now = ends.findIndex((end) => mm < end) + 1
  if (now === held) return held
  if (held !== 0 && (now === 0 || now > held)) return mm >= ends[held - 1]! + hysteresis ? now : held
  const near = held === 0 ? (ends.at(-1) ?? 0) : held === 1 ? 0 : ends[held - 2]!
  return mm < near - hysteresis ? now : held
}

/** What a signal remembers of what was said, and whether it comes with it; null where that is nothing to it. */
function hears(
  map: TriggersMap,
  signal: MapSignal,
  memory: Memory,
  entry: Entry,
  band: number | null,
  at: number,
): { memory: Memory; comes: boolean } | null {
  const is = (it: boolean) => (it ? { memory, comes: true } : null)
  /** Whether it has come to be, or waits for it. */
  const within = (it: boolean, wait: number) => {
    if (it === memory.is) return null
    if (!it) return { memory: { is: false, due: null }, comes: false }
    return { memory: { is: true, due: wait === 0 ? null : at + wait }, comes: wait === 0 }
  }
  switch (signal.kind) {
    case 'presence':
      return band === null || entry.sensor !== signal.sensor ? null : within(signal.bands.includes(band), signal.dwell_ms)
    case 'absence':
      return band === null || entry.sensor !== signal.sensor ? null : within(band === 0, signal.after_ms)
    case 'press':
      return is(entry.button !== undefined && entry.sensor === signal.sensor && named(map, 'sensor', entry.sensor, entry.button) === signal.button)
    case 'key':
      return is(entry.key !== undefined && named(map, 'keys', null, entry.key) === signal.key)
    case 'touch': {
      const { x, y, width, height } = signal.rect
      const { touch } = entry
      return is(touch !== undefined && touch.x >= x && touch.x < x + width && touch.y >= y && touch.y < y + height)
    }
    case 'value': {
      const { value, only, source, field } = entry
      const isOwn = only === undefined ? source === signal.source && (field === undefined || field === signal.field) : only === signal.id
      if (value === undefined || value === null || !isOwn) return null
      const isBelow = value < signal.armed
      if (signal.rises_to === null) return { memory: { is: !isBelow, due: null }, comes: memory.is && isBelow }
      const comes = memory.is && value >= signal.rises_to
      return { memory: { is: isBelow || (memory.is && !comes), due: null }, comes }
    }
    default:
      return null
  }
}

/** The button or key that is meant by what a sensor, or the keyboard, sends. */
export function named(map: TriggersMap, of: 'sensor' | 'keys', sensor: unknown, sent: string): string {
  return map.sensors.filter((one) => (of === 'sensor' ? one.id === sensor : one.kind === 'keys')).reduce((name, one) => one.names[name] ?? name, sent)
}

/** The row that is carried: the one that came, as far as it is known here, else the first of the signal's; 0 where nothing is known of it. */
function rowOf(map: TriggersMap, signal: string, entry: Entry | null, at: number): number {
  const row = entry?.row
  if (row) return map.ofs[signal]?.find((n) => Object.entries(row).every(([field, value]) => map.rows[n]![field] === value)) ?? 0
  const firsts = map.firsts[signal] ?? []
  return firsts[lastBegun(firsts, ([from]) => from, at)]?.[1] ?? 0
}

/** Why an entry cannot be taken; null where it can. What sensors send may be anything. */
export function whyNot(maps: TriggersMap[], entry: Partial<Record<keyof Entry, unknown>>): string | null {
  const { signal, sensor, mm, band, button, touch, key, source, value } = entry
  const given = [signal, sensor, touch, key, source].filter((one) => one !== undefined)
  if (given.length !== 1) return 'one of signal, sensor, touch, key and source is right'
  if (signal !== undefined) return maps.some((map) => map.signals.some(({ id }) => id === signal)) ? null : `no map knows the signal ${text(signal)}`
  if (touch !== undefined) {
    const { x, y } = (touch ?? {}) as { x?: unknown; y?: unknown }
    return Number.isFinite(x) && Number.isFinite(y) ? null : 'a touch has x and y'
  }
  if (key !== undefined) return typeof key === 'string' ? null : 'a key is called by its name'
  if (source !== undefined) return value === null || Number.isFinite(value) ? null : `${text(value)} is no figure`
  const own = maps.flatMap((map) => map.sensors).find(({ id }) => id === sensor)
  if (!own) return `the display has no sensor ${text(sensor)}`
  if ([mm, band, button].filter((one) => one !== undefined).length !== 1) return 'one of mm, band and button is right'
  if (button !== undefined) return own.kind === 'buttons' && typeof button === 'string' ? null : `${text(sensor)} has no buttons`
  if (own.kind !== 'presence') return `${text(sensor)} tells no distance`
  if (band !== undefined)
    return Number.isInteger(band) && (band as number) >= 0 && (band as number) <= own.bands_mm.length ? null : `it has no band ${text(band)}`
  return mm === null || (Number.isFinite(mm) && (mm as number) >= 0) ? null : `${text(mm)} is no distance`
}

const text = (value: unknown) => JSON.stringify(value)?.slice(0, 40) ?? 'nothing'

/** The same where the clock was set by so many ms: nothing that waits ends sooner or later for it. */
export function shifted(map: TriggersMap, run: Run, by: number): Run {
  const moved = (at: number | null) => (at === null ? null : at + by)
  const isTime = (id: string) => map.signals.find((one) => one.id === id)?.kind === 'time'
  return {
    ...run,
    at: run.at + by,
    lapse: moved(run.lapse),
    taken: Object.fromEntries(Object.entries(run.taken).map(([place, at]) => [place, at + by])),
    memories: Object.fromEntries(
      Object.entries(run.memories).map(([id, memory]) => [
        id,
        isTime(id)
          ? beginsWith(
              map.signals.find((one) => one.id === id)!,
              run.at + by,
            )
          : { ...memory, due: moved(memory.due) },
      ]),
    ),
    entered: { ...run.entered, at: run.entered.at + by },
  }
}

/** The same in a map that was compiled anew: it goes on where it stands, unless that is no state of it any more. */
export function resumed(map: TriggersMap, run: Run, before: TriggersMap, at: number): Run {
  const fresh = begun(map, at)
  if (!map.states.some(({ id }) => id === run.state)) return fresh
  const known = new Map(before.signals.map((one) => [one.id, JSON.stringify({ ...one, at_ms: null })]))
  const isSame = (one: MapSignal) => known.get(one.id) === JSON.stringify({ ...one, at_ms: null })
  const memories = Object.fromEntries(
    map.signals.map((one) => [one.id, one.kind !== 'time' && isSame(one) ? run.memories[one.id]! : fresh.memories[one.id]!]),
  )
  const isSameWays = JSON.stringify(map.transitions) === JSON.stringify(before.transitions)
  return { ...run, memories, taken: isSameWays ? run.taken : {} }
}
