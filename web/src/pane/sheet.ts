/** A compiled run sheet (docs/formats/run-sheet.md), and the one thing that is looked up in it: what is due at an instant. */

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

export interface TextStyle {
  family: string
  size_px: number
  weight: number
  color: string
  align: 'start' | 'center' | 'end'
  valign: 'top' | 'middle' | 'bottom'
  line_height: number
  outline?: { px: number; color: string }
  plate?: { px: number; color: string }
  shadow?: { x_px: number; y_px: number; blur_px: number; color: string }
}

export interface Part {
  element: string
  kind: 'zone' | 'text' | 'picture' | 'shape' | 'background' | 'clock' | 'code' | 'ticker'
  item?: string
  media?: { id?: string; name: string; width: number; height: number; length_ms?: number }
  rect: Box
  drawn: Box
  text?: string
  style?: TextStyle
  shape?: 'rectangle' | 'ellipse'
  fill?: string
  radius_px?: number
  opacity?: number
  flip?: 'across' | 'down' | 'both'
  /** The element's own rectangle, where this part is not all of it. */
  of?: Box
  marks?: Mark[]
  dial?: { color: string; ground?: string; seconds: boolean }
  code?: { modules: string[]; quiet: number; color: string }
  clock?: Clock
  ticker?: { pass_ms: number; from_px: number; speed_px_s: number; length_px: number }
  progress?: { zone: string; of: 'item' | 'loop'; from: 'left' | 'right' | 'top' | 'bottom' }
}

/** Characters of a text, counted as Unicode code points, that are set otherwise. */
export interface Mark {
  from: number
  to: number
  weight?: number
  size_px?: number
  color?: string
}

export type Token = { say: string } | { field: string; digits: number } | { field: string; names: string[] }

export interface Clock {
  tokens?: Token[]
  figures?: string[]
  offsets?: [number, number][]
  until_ms?: number
  after?: string
}

/** What a part says at one instant alone. */
export interface Now {
  text?: string
  local_ms?: number
  rect?: Box
  drawn?: Box
}

export interface Segment {
  start_ms: number
  length_ms: number | null
  fade_ms: number
  scene: number
}

export interface ZoneLayer {
  zone: string
  period_ms: number | null
  segments: Segment[]
  scenes: Layer[][]
}

export type Layer = { part: Part } | ZoneLayer

export interface RunSheet {
  canvas: { width: number; height: number }
  background: string
  anchor_ms: number
  layers: Layer[]
}

/** One drawn thing at an instant; `offset_ms` into its item. */
export interface Due {
  part: Part
  offset_ms: number | null
  opacity: number
  now?: Now
}

export const isZone = (layer: Layer): layer is ZoneLayer => 'zone' in layer

const mod = (value: number, period: number) => ((value % period) + period) % period

/** Position in the loop: before the anchor, one without end stands at its beginning. */
export const positionIn = (zone: ZoneLayer, since: number): number => (zone.period_ms === null ? Math.max(0, since) : mod(since, zone.period_ms))

export function segmentAt(zone: ZoneLayer, position: number): number {
  let due = zone.segments.length - 1
  while (due > 0 && zone.segments[due]!.start_ms > position) due--
  return due
}

export function dueAt(sheet: RunSheet, at: number): Due[] {
  const things: Due[] = []
  collect(sheet.layers, at, at - sheet.anchor_ms, null, 1, things)
  return things
}

function collect(layers: Layer[], at: number, since: number, offset: number | null, opacity: number, things: Due[]): void {
  for (const layer of layers) {
    if (!isZone(layer)) {
      const { part } = layer
      const own = opacity * (part.opacity ?? 1)
      things.push(
        part.clock || part.ticker || part.progress
          ? { part, offset_ms: offset, opacity: own, now: nowOf(part, at, since, layers) }
          : { part, offset_ms: offset, opacity: own },
      )
      continue
    }
    if (layer.segments.length === 0) continue
    const position = positionIn(layer, since)
    const due = segmentAt(layer, position)
    const segment = layer.segments[due]!
    const into = position - segment.start_ms
    let own = opacity
    const fading = into < segment.fade_ms && (due > 0 || (layer.period_ms !== null && since >= layer.period_ms))
    if (fading) {
      const before = layer.segments[due > 0 ? due - 1 : layer.segments.length - 1]!
      const held = before.length_ms ?? 0
      collect(layer.scenes[before.scene]!, at, held, held, opacity, things)
      own = (opacity * into) / segment.fade_ms
    }
    collect(layer.scenes[segment.scene]!, at, into, into, own, things)
  }
}

function nowOf(part: Part, at: number, since: number, layers: Layer[]): Now {
  if (part.ticker) {
    const { pass_ms, from_px, speed_px_s, length_px } = part.ticker
    return { drawn: { ...part.drawn, x: part.drawn.x + from_px + (speed_px_s * mod(since, pass_ms)) / 1000, width: length_px } }
  }
  if (part.progress) {
    const { zone: id, of, from } = part.progress
    const zone = layers.filter(isZone).find((z) => z.zone === id)
    return { rect: filled(part.rect, part.drawn, from, zone ? gone(zone, since, of) : 0) }
  }
  const { clock = {} } = part
  if (part.dial) return { local_ms: at + offsetAt(clock, at) }
  if (clock.until_ms === undefined) return { text: written(clock, fieldsOf(at + offsetAt(clock, at))) }
  if (at >= clock.until_ms && clock.after !== undefined) return { text: clock.after }
  return { text: written(clock, fieldsLeft(clock, clock.until_ms - at)) }
}

const cut = (box: Box, clip: Box): Box => {
  const x = Math.max(box.x, clip.x)
  const y = Math.max(box.y, clip.y)
  return {
    x,
    y,
    width: Math.max(0, Math.min(box.x + box.width, clip.x + clip.width) - x),
    height: Math.max(0, Math.min(box.y + box.height, clip.y + clip.height) - y),
  }
}

function filled(rect: Box, drawn: Box, from: 'left' | 'right' | 'top' | 'bottom', share: number): Box {
  const [width, height] = [drawn.width * share, drawn.height * share]
  const part = from === 'left' || from === 'right' ? { ...drawn, width } : { ...drawn, height }
  if (from === 'right') part.x = drawn.x + drawn.width - width
  if (from === 'bottom') part.y = drawn.y + drawn.height - height
  return cut(rect, part)
}

function gone(zone: ZoneLayer, since: number, of: 'item' | 'loop'): number {
  if (zone.segments.length === 0) return 0
  const position = positionIn(zone, since)
  if (of === 'loop') return zone.period_ms ? position / zone.period_ms : 0
  const segment = zone.segments[segmentAt(zone, position)]!
  return segment.length_ms ? Math.min(1, (position - segment.start_ms) / segment.length_ms) : 0
}

function offsetAt(clock: Clock, at: number): number {
  const table = clock.offsets ?? []
  let i = table.length - 1
  while (i > 0 && table[i]![0] > at) i--
  return table[i]?.[1] ?? 0
}

function fieldsOf(local: number): Record<string, number> {
  const date = new Date(local)
  const hour = date.getUTCHours()
  return {
    year: date.getUTCFullYear(),
    month: date.getUTCMonth() + 1,
    day: date.getUTCDate(),
    weekday: date.getUTCDay(),
    half: hour < 12 ? 0 : 1,
    hour,
    hour11: hour % 12,
    hour12: hour % 12 || 12,
    hour24: hour || 24,
    minute: date.getUTCMinutes(),
    second: date.getUTCSeconds(),
  }
}

const UNITS: [string, number][] = [
  ['days', 86_400_000],
  ['hours', 3_600_000],
  ['minutes', 60_000],
  ['seconds', 1000],
]

function fieldsLeft(clock: Clock, ms: number): Record<string, number> {
  const told = new Set((clock.tokens ?? []).map((t) => ('field' in t ? t.field : '')))
  const units = UNITS.filter(([name]) => told.has(name))
  const least = units.at(-1)?.[1] ?? 1000
  let left = Math.ceil(Math.max(0, ms) / least) * least
  const fields: Record<string, number> = {}
  for (const [field, unit] of units) {
    fields[field] = Math.floor(left / unit)
    left %= unit
  }
  return fields
}

function written(clock: Clock, fields: Record<string, number>): string {
  return (clock.tokens ?? [])
    .map((token) => {
      if ('say' in token) return token.say
      const value = fields[token.field] ?? 0
      if ('names' in token) return token.names[token.field === 'month' ? value - 1 : value] ?? ''
      const figures = String(token.field === 'year' && token.digits === 2 ? value % 100 : value).padStart(token.digits, '0')
      return clock.figures ? figures.replace(/\d/g, (figure) => clock.figures![Number(figure)]!) : figures
    })
    .join('')
}

/** Each slot of a zone that lies in [from, to), as it is written in the tide table. */
export interface Slot {
  from: number
  to: number
  segment: number
  endless: boolean
}

export function slotsBetween(zone: ZoneLayer, anchor: number, from: number, to: number): Slot[] {
  const slots: Slot[] = []
  if (zone.segments.length === 0 || zone.period_ms === 0) return slots
  let at = from
  while (at < to && slots.length < 2000) {
    const since = at - anchor
    const position = positionIn(zone, since)
    const index = segmentAt(zone, position)
    const segment = zone.segments[index]!
    if (segment.length_ms === null) {
      slots.push({ from: at, to, segment: index, endless: true })
      break
    }
    const begin = at - (position - segment.start_ms)
    const end = begin + segment.length_ms + (zone.period_ms === null ? Math.max(0, -since) : 0)
    slots.push({ from: begin, to: end, segment: index, endless: false })
    at = end
  }
  return slots
}

/** The next instant after `at` at which a zone changes; null where none ever does. */
export function nextChange(sheet: RunSheet, at: number): number | null {
  return best(
    sheet,
    (zone) => slotsBetween(zone, sheet.anchor_ms, at, at + 1)[0],
    (slot) => slot.to,
    Math.min,
  )
}

/** The last instant before `at` at which a zone changed. */
export function previousChange(sheet: RunSheet, at: number): number | null {
  return best(
    sheet,
    (zone) => slotsBetween(zone, sheet.anchor_ms, at - 1, at)[0],
    (slot) => slot.from,
    Math.max,
  )
}

function best(
  sheet: RunSheet,
  slotOf: (zone: ZoneLayer) => Slot | undefined,
  edge: (slot: Slot) => number,
  pick: (...edges: number[]) => number,
): number | null {
  const edges = sheet.layers
    .filter(isZone)
    .map(slotOf)
    .filter((slot): slot is Slot => slot !== undefined && !slot.endless)
    .map(edge)
  return edges.length === 0 ? null : pick(...edges)
}
