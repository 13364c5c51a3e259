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
  /** Its own, whatever stands before it; releases from before there were manifests have none. */
  id?: string
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
  progress?: { zone: string; of: 'item' | 'loop'; from: Side }
  /** Of a film, percent; without it, it is mute. At some hours of the day, s since local midnight, otherwise. */
  volume?: number
  levels?: [number, number, number][]
  offsets?: [number, number][]
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
  volume?: number
}

export interface Segment {
  start_ms: number
  length_ms: number | null
  fade_ms: number
  scene: number
  /** A transition that moves: what comes in from a side, over the segment before or pushing it out. */
  moves?: { kind: 'push' | 'wipe'; ms: number; from: Side }
}

export type Side = 'left' | 'right' | 'top' | 'bottom'

export interface LoopOf {
  period_ms: number | null
  segments: Segment[]
}

export interface ZoneLayer extends LoopOf {
  id?: string
  zone: string
  rect: Box
  scenes: Layer[][]
  /** Where items come and go: the loops, and from when which of them is gone through. */
  loops?: LoopOf[]
  turns?: { from_ms: number; anchor_ms: number | null; loop: number }[]
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
export const positionIn = (zone: LoopOf, since: number): number => (zone.period_ms === null ? Math.max(0, since) : mod(since, zone.period_ms))

export function segmentAt(zone: LoopOf, position: number): number {
  let due = zone.segments.length - 1
  while (due > 0 && zone.segments[due]!.start_ms > position) due--
  return due
}

/** What a zone goes through at an instant: ms since that loop began, since when and until when it is this one. */
function loopAt(zone: ZoneLayer, at: number, since: number): { loop: LoopOf; since: number; from: number; to: number } {
  const { turns, loops } = zone
  if (!turns || !loops) return { loop: zone, since, from: -Infinity, to: Infinity }
  // A zone of a nested layout keeps what was due when its item began.
  const nested = turns[0]!.anchor_ms === null
  const asked = nested ? at - since : at
  let i = turns.length - 1
  while (i > 0 && turns[i]!.from_ms > asked) i--
  const turn = turns[i]!
  const loop = loops[turn.loop]!
  return nested
    ? { loop, since, from: at - since, to: Infinity }
    : { loop, since: at - turn.anchor_ms!, from: turn.from_ms, to: turns[i + 1]?.from_ms ?? Infinity }
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
        part.clock || part.ticker || part.progress || part.levels
          ? { part, offset_ms: offset, opacity: own, now: nowOf(part, at, since, layers) }
          : { part, offset_ms: offset, opacity: own },
      )
      continue
    }
    const { loop, since: began, from } = loopAt(layer, at, since)
    if (loop.segments.length === 0) continue
    const position = positionIn(loop, began)
    const due = segmentAt(loop, position)
    const segment = loop.segments[due]!
    const into = position - segment.start_ms
    const { fade_ms, moves } = segment
    const scene = layer.scenes[segment.scene]!
    // At the very beginning there is nothing before, nor after what is due has changed.
    const changing = into < (moves?.ms ?? fade_ms) && into < at - from && (due > 0 || (loop.period_ms !== null && began >= loop.period_ms))
    if (!changing) {
      collect(scene, at, into, into, opacity, things)
      continue
    }
    const before = loop.segments[due > 0 ? due - 1 : loop.segments.length - 1]!
    const held = before.length_ms ?? 0
    const leaving: Due[] = []
    collect(layer.scenes[before.scene]!, at, held, held, opacity, leaving)
    if (!moves) {
      things.push(...leaving)
      collect(scene, at, into, into, (opacity * into) / fade_ms, things)
      continue
    }
    const coming: Due[] = []
    collect(scene, at, into, into, opacity, coming)
    things.push(...movedIn(moves, into / moves.ms, layer.rect, leaving, coming))
  }
}

const TOWARDS: Record<Side, [number, number]> = { left: [-1, 0], right: [1, 0], top: [0, -1], bottom: [0, 1] }

function movedIn({ kind, from }: { kind: 'push' | 'wipe'; from: Side }, gone: number, zone: Box, leaving: Due[], coming: Due[]): Due[] {
  const [x, y] = TOWARDS[from]
  if (kind === 'push') {
    const [dx, dy] = [x * zone.width, y * zone.height]
    return [
      ...leaving.map((due) => moved(due, -dx * gone, -dy * gone, zone)),
      ...coming.map((due) => moved(due, dx * (1 - gone), dy * (1 - gone), zone)),
    ]
  }
  const open = {
    x: x > 0 ? zone.x + zone.width * (1 - gone) : zone.x,
    y: y > 0 ? zone.y + zone.height * (1 - gone) : zone.y,
    width: x === 0 ? zone.width : zone.width * gone,
    height: y === 0 ? zone.height : zone.height * gone,
  }
  return [...leaving, ...coming.map((due) => moved(due, 0, 0, open))]
}

function moved(due: Due, dx: number, dy: number, clip: Box): Due {
  const shifted = (box: Box): Box => ({ ...box, x: box.x + dx, y: box.y + dy })
  return {
    ...due,
    now: { ...due.now, rect: cut(shifted(due.now?.rect ?? due.part.rect), clip), drawn: shifted(due.now?.drawn ?? due.part.drawn) },
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
    const due = zone && loopAt(zone, at, since)
    return { rect: filled(part.rect, part.drawn, from, due ? gone(due.loop, due.since, of) : 0) }
  }
  if (part.levels) return { volume: volumeOf(part, at) }
  const { clock = {} } = part
  if (part.dial) return { local_ms: at + offsetAt(clock, at) }
  if (clock.until_ms === undefined) return { text: written(clock, fieldsOf(at + offsetAt(clock, at))) }
  if (at >= clock.until_ms && clock.after !== undefined) return { text: clock.after }
  return { text: written(clock, fieldsLeft(clock, clock.until_ms - at)) }
}

function volumeOf(part: Part, at: number): number {
  const s = Math.floor((at + offsetAt(part, at)) / 1000) % 86_400
  const level = part.levels?.find(([from, to]) => (from < to ? s >= from && s < to : s >= from || s < to))
  return level?.[2] ?? part.volume ?? 0
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

function filled(rect: Box, drawn: Box, from: Side, share: number): Box {
  const [width, height] = [drawn.width * share, drawn.height * share]
  const part = from === 'left' || from === 'right' ? { ...drawn, width } : { ...drawn, height }
  if (from === 'right') part.x = drawn.x + drawn.width - width
  if (from === 'bottom') part.y = drawn.y + drawn.height - height
  return cut(rect, part)
}

function gone(zone: LoopOf, since: number, of: 'item' | 'loop'): number {
  if (zone.segments.length === 0) return 0
  const position = positionIn(zone, since)
  if (of === 'loop') return zone.period_ms ? position / zone.period_ms : 0
  const segment = zone.segments[segmentAt(zone, position)]!
  return segment.length_ms ? Math.min(1, (position - segment.start_ms) / segment.length_ms) : 0
}

function offsetAt(clock: { offsets?: [number, number][] }, at: number): number {
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
  /** When its item began, what was cut off by a change of what is due included. */
  begun: number
  /** Which of the zone's scenes. */
  scene: number
  /** Whether a round of its loop begins with it. */
  first: boolean
  /** ms until it alone is seen. */
  fading: number
  endless: boolean
}

/** So many are drawn at once. */
const MOST_SLOTS = 2000

export function slotsBetween(zone: ZoneLayer, anchor: number, from: number, to: number): Slot[] {
  const slots: Slot[] = []
  let at = from
  while (at < to && slots.length < MOST_SLOTS) {
    const slot = slotAt(zone, anchor, at)
    if ('scene' in slot) slots.push(slot.endless ? { ...slot, from: Math.max(slot.from, from), to: Math.min(slot.to, to) } : slot)
    at = slot.to
  }
  return slots
}

/** What a zone goes through in [from, to): one stretch for each loop, however often that comes round. */
export interface Round {
  from: number
  to: number
  period_ms: number | null
  /** How many slots a round has. */
  slots: number
}

export function roundsBetween(zone: ZoneLayer, anchor: number, from: number, to: number): Round[] {
  const rounds: Round[] = []
  for (let at = from; at < to && rounds.length < MOST_SLOTS;) {
    const { loop, to: end } = loopAt(zone, at, at - anchor)
    rounds.push({ from: at, to: Math.min(end, to), period_ms: loop.segments.length === 0 ? 0 : loop.period_ms, slots: loop.segments.length })
    at = end
  }
  return rounds
}

/** What is written into a row of the tide table: a slot; where there is no room for these, a round of the loop; else how it goes round. */
export interface Piece {
  from: number
  to: number
  /** Which of the zone's scenes; null for a round, or for many. */
  scene: number | null
  first: boolean
  endless: boolean
  shade: boolean
  /** Set where rounds are too short to be told apart: how long one is. */
  period_ms?: number
}

/** A slot narrower than this is not drawn, px. */
const LEAST_PX = 5

export function piecesBetween(zone: ZoneLayer, anchor: number, from: number, to: number, pxPerMs: number): Piece[] {
  const pieces: Piece[] = []
  for (const round of roundsBetween(zone, anchor, from, to)) {
    const { period_ms: period, slots } = round
    if (period === 0) continue
    if (period === null || (period / Math.max(1, slots)) * pxPerMs >= LEAST_PX) {
      for (const slot of slotsBetween(zone, anchor, round.from, round.to)) {
        const { scene, first, endless } = slot
        pieces.push({ from: Math.max(slot.from, round.from), to: Math.min(slot.to, round.to), scene, first, endless, shade: scene % 2 === 0 })
      }
    } else if (period * pxPerMs >= LEAST_PX) {
      const start = loopAt(zone, round.from, round.from - anchor)
      let begin = round.from - positionIn(start.loop, start.since)
      for (let shade = false; begin < round.to && pieces.length < MOST_SLOTS; begin += period, shade = !shade) {
        const ends = Math.min(begin + period, round.to)
        pieces.push({ from: Math.max(begin, round.from), to: ends, scene: null, first: begin >= round.from, endless: false, shade })
      }
    } else {
      pieces.push({ from: round.from, to: round.to, scene: null, first: true, endless: false, shade: true, period_ms: period })
    }
  }
  return pieces
}

/** How far two loops are apart where the first begins anew: since when the other has run its round by then, ms; the nearer way round. */
export function driftsBetween(leader: ZoneLayer, other: ZoneLayer, anchor: number, from: number, to: number): { at: number; by: number }[] {
  const [period, otherPeriod] = [leader.period_ms, other.period_ms]
  if (!period || !otherPeriod || leader.turns || other.turns) return []
  const drifts: { at: number; by: number }[] = []
  for (let at = anchor + Math.ceil((from - anchor) / period) * period; at < to && drifts.length < 200; at += period) {
    const behind = mod(at - anchor, otherPeriod)
    drifts.push({ at, by: behind > otherPeriod / 2 ? behind - otherPeriod : behind })
  }
  return drifts
}

/** The slot that is due, or how long none is. One that never ends and always was begins before all time. */
export function slotAt(zone: ZoneLayer, anchor: number, at: number): Slot | { from: number; to: number } {
  const { loop, since, from, to } = loopAt(zone, at, at - anchor)
  if (loop.segments.length === 0 || loop.period_ms === 0) return { from, to }
  const position = positionIn(loop, since)
  const index = segmentAt(loop, position)
  const { scene, length_ms, start_ms, fade_ms, moves } = loop.segments[index]!
  const begun = at - (position - start_ms)
  const slot = { scene, begun, first: index === 0 && length_ms !== null, fading: moves?.ms ?? fade_ms, endless: length_ms === null }
  if (length_ms === null) return { ...slot, from: start_ms === 0 && since >= 0 ? from : Math.max(Math.min(at, begun), from), to }
  const waiting = loop.period_ms === null ? Math.max(0, -since) : 0
  return { ...slot, from: Math.max(begun, from), to: Math.min(begun + length_ms + waiting, to) }
}

/** Which of the zone's scenes is due; null for none. */
export function sceneAt(zone: ZoneLayer, anchor: number, at: number): number | null {
  const slot = slotAt(zone, anchor, at)
  return 'scene' in slot ? slot.scene : null
}

/** The next instant after `at` at which a zone changes, also one of a layout in it; null where none ever does. */
export function nextChange(sheet: RunSheet, at: number): number | null {
  const edges: number[] = []
  ends(sheet.layers, sheet.anchor_ms, at, Infinity, edges)
  return edges.length === 0 ? null : Math.min(...edges)
}

function ends(layers: Layer[], anchor: number, at: number, until: number, edges: number[]): void {
  for (const zone of layers) {
    if (!isZone(zone)) continue
    const slot = slotAt(zone, anchor, at)
    const to = Math.min(slot.to, until)
    if (Number.isFinite(to)) edges.push(to)
    if ('scene' in slot) ends(zone.scenes[slot.scene] ?? [], slot.begun, at, to, edges)
  }
}

/** The last instant before `at` at which a zone changed, also one of a layout in it. */
export function previousChange(sheet: RunSheet, at: number): number | null {
  const edges: number[] = []
  begins(sheet.layers, sheet.anchor_ms, at - 1, -Infinity, edges)
  return edges.length === 0 ? null : Math.max(...edges)
}

function begins(layers: Layer[], anchor: number, at: number, since: number, edges: number[]): void {
  for (const zone of layers) {
    if (!isZone(zone)) continue
    const slot = slotAt(zone, anchor, at)
    const from = Math.max(slot.from, since)
    if (Number.isFinite(from)) edges.push(from)
    if ('scene' in slot) begins(zone.scenes[slot.scene] ?? [], slot.begun, at, from, edges)
  }
}
