/** A compiled run sheet (docs/formats/run-sheet.md), and the one thing that is looked up in it: what is due at an instant. */

import type { Layers, LoopOf, Media, Part, RunSheet as RunSheetFile, Side, Turn, ZoneLayer } from '../formats/run-sheet'

export type {
  Box,
  Clock,
  ClockPart,
  CodePart,
  LinePart,
  LoopOf,
  Mark,
  Media,
  MediaPart,
  Part,
  PlatePart,
  Segment,
  Side,
  TextPart,
  TextStyle,
  TickerPart,
  Token,
  Turn,
  ZoneLayer,
} from '../formats/run-sheet'
export type Layer = Layers[number]
/** What is drawn, be it read from one file or put together from several. */
export type RunSheet = Omit<RunSheetFile, 'format'>

export const isZone = (layer: Layer): layer is ZoneLayer => 'zone' in layer

export const mod = (value: number, period: number) => ((value % period) + period) % period

/** Position in the loop: before the anchor, one without end stands at its beginning. */
export const positionIn = (zone: LoopOf, since: number): number => (zone.period_ms === null ? Math.max(0, since) : mod(since, zone.period_ms))

/** The last of what begins one after the other that has begun; the first where none has; -1 where there is nothing. */
export function lastBegun<T>(list: readonly T[], begins: (one: T) => number, at: number): number {
  let [low, high] = [0, list.length - 1]
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (begins(list[middle]!) <= at) low = middle
    else high = middle - 1
  }
  return Math.min(low, list.length - 1)
}

export const segmentAt = (zone: LoopOf, position: number): number => lastBegun(zone.segments, (segment) => segment.start_ms, position)

/** What a zone goes through at an instant: ms since that loop began, since when and until when it is this one. */
function loopAt(zone: ZoneLayer, at: number, since: number): { loop: LoopOf; since: number; from: number; to: number } {
  const { turns, loops } = zone
  if (!turns || !loops) return { loop: zone, since, from: -Infinity, to: Infinity }
  // A zone of a nested layout keeps what was due when its item began; what tells data goes on from there.
  const nested = turns[0]!.anchor_ms === null
  if (nested && zone.walks) return walkedTo(turns, loops, at - since, at)
  const asked = nested ? at - since : at
  const i = lastBegun(turns, (turn) => turn.from_ms, asked)
  const turn = turns[i]!
  const loop = loops[turn.loop]!
  return nested
    ? { loop, since, from: at - since, to: Infinity }
    : { loop, since: at - turn.anchor_ms!, from: turn.from_ms, to: turns[i + 1]?.from_ms ?? Infinity }
}

/** What rows of data go through from an instant on: when others are chosen, what stands ends, and the loop of those begins. */
function walkedTo(turns: Turn[], loops: LoopOf[], begun: number, at: number): { loop: LoopOf; since: number; from: number; to: number } {
  let anchor = begun
  let i = lastBegun(turns, (turn) => turn.from_ms, begun)
  for (;;) {
    const loop = loops[turns[i]!.loop]!
    let ends = Infinity
    for (let next = i + 1; next < turns.length && turns[next]!.from_ms < ends; next++) {
      const { from_ms: from, loop: other } = turns[next]!
      // What has no end of its own stands there at once, also while another waits for the end.
      if (loops[other]!.period_ms === null && other !== turns[i]!.loop) ends = from
      else if (ends === Infinity && other !== turns[i]!.loop) ends = from + leftOf(loop, from - anchor)
    }
    if (at < ends) return { loop, since: at - anchor, from: anchor, to: ends }
    const then = lastBegun(turns, (turn) => turn.from_ms, ends)
    if (turns[then]!.loop !== turns[i]!.loop) anchor = ends
    i = then
  }
}

/** How long a segment still stands so many ms after its loop began; 0 where one has just ended, and where the loop has no end. */
function leftOf(loop: LoopOf, since: number): number {
  if (!loop.segments.length || loop.period_ms === null) return 0
  const position = positionIn(loop, since)
  const { start_ms: start, length_ms: length } = loop.segments[segmentAt(loop, position)]!
  return start === position ? 0 : start + (length ?? 0) - position
}

/** What a zone shows at an instant: the scene that is due, and while it changes the one before as well. */
export interface ZoneNow {
  /** The scene; when its item began, what was cut off by a change of what is due included; and how long ago that is. */
  scene: number
  begun: number
  into: number
  /** How long it stands; null for one that never ends. And how long a round of its loop is, and how far that is gone. */
  length: number | null
  period: number | null
  position: number
  /** The one before, held at its end. */
  before: { scene: number; begun: number; held: number } | null
  change: { kind: 'fade' | 'push' | 'wipe'; ms: number; from: Side } | null
  /** Until when it is just this. */
  until: number
}

/** @param since ms since the loops beside it began; @returns null, and until when, where nothing is due */
export function zoneAt(zone: ZoneLayer, at: number, since: number): ZoneNow | { scene: null; until: number } {
  const { loop, since: began, from, to } = loopAt(zone, at, since)
  if (loop.segments.length === 0 || loop.period_ms === 0) return { scene: null, until: to }
  const position = positionIn(loop, began)
  const due = segmentAt(loop, position)
  const segment = loop.segments[due]!
  const into = position - segment.start_ms
  const { scene, length_ms: length, fade_ms, moves } = segment
  const ms = moves?.ms ?? fade_ms
  // Before its anchor a loop without end stands at its beginning.
  const waiting = loop.period_ms === null ? Math.max(0, -began) : 0
  const end = length === null ? to : Math.min(to, at - into + length + waiting)
  const now = { scene, begun: at - into, into, length, period: loop.period_ms, position }
  // At the very beginning there is nothing before, nor after what is due has changed.
  const changing = into < ms && into < at - from && (due > 0 || (loop.period_ms !== null && began >= loop.period_ms))
  if (!changing) return { ...now, before: null, change: null, until: end }
  const last = loop.segments[due > 0 ? due - 1 : loop.segments.length - 1]!
  const held = last.length_ms ?? 0
  return {
    ...now,
    before: { scene: last.scene, begun: at - into - held, held },
    change: { kind: moves?.kind ?? 'fade', ms, from: moves?.from ?? 'left' },
    until: Math.min(end, at - into + ms),
  }
}

/** The first of the layers that is drawn: what stands alone hides all below it. */
export function lowestAt(layers: Layer[], at: number, since: number): number {
  for (let lowest = layers.length - 1; lowest > 0; lowest--) {
    const layer = layers[lowest]!
    if (!isZone(layer) || !layer.alone) continue
    const { scene } = zoneAt(layer, at, since)
    if (scene !== null && layer.scenes[scene]!.length) return lowest
  }
  return 0
}

/** All that is drawn at an instant, the lowest first. */
export function partsAt(sheet: RunSheet, at: number): Part[] {
  const parts: Part[] = []
  const collect = (layers: Layer[], since: number): void => {
    for (const layer of layers.slice(lowestAt(layers, at, since))) {
      if (!isZone(layer)) {
        parts.push(layer.part)
        continue
      }
      const now = zoneAt(layer, at, since)
      if (now.scene === null) continue
      if (layer.through) {
        collect(layer.scenes[now.scene]!, since)
        continue
      }
      if (now.before) collect(layer.scenes[now.before.scene]!, now.before.held)
      collect(layer.scenes[now.scene]!, now.into)
    }
  }
  collect(sheet.layers, at - sheet.anchor_ms)
  return parts
}

/** So many changes are looked at for what is due soon. */
const MOST_CHANGES = 200

/** Media of what is seen at an instant or within so many ms after it, in the order in which they are. */
export function mediaSoon(sheet: RunSheet, at: number, ms: number, most = MOST_CHANGES): Media[] {
  const soon = new Map<string, Media>()
  let moment: number | null = at
  for (let changes = 0; moment !== null && moment <= at + ms && changes < most; changes++) {
    for (const part of partsAt(sheet, moment)) if ('media' in part && part.media.id) soon.set(part.media.id, soon.get(part.media.id) ?? part.media)
    moment = nextChange(sheet, moment)
  }
  return [...soon.values()]
}

/** What local time is ahead of UTC by at an instant, ms. */
export function offsetAt({ offsets = [] }: { offsets?: [number, number][] }, at: number): number {
  return offsets[lastBegun(offsets, ([from]) => from, at)]?.[1] ?? 0
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

/** What is written into a row of the tide table: a slot, also where the row shows only a part of it; where there is no room for these, a round of the loop; else how it goes round. */
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
        const ends = endless ? { from: Math.max(slot.from, round.from), to: Math.min(slot.to, round.to) } : { from: slot.from, to: slot.to }
        pieces.push({ ...ends, scene, first, endless, shade: scene % 2 === 0 })
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
    if ('scene' in slot) ends(zone.scenes[slot.scene] ?? [], zone.through ? anchor : slot.begun, at, to, edges)
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
    if ('scene' in slot) begins(zone.scenes[slot.scene] ?? [], zone.through ? anchor : slot.begun, at, from, edges)
  }
}
