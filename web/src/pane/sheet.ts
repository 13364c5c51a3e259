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
  kind: 'zone' | 'text' | 'picture' | 'shape' | 'background'
  item?: string
  media?: { id?: string; name: string; width: number; height: number; length_ms?: number }
  rect: Box
  drawn: Box
  text?: string
  style?: TextStyle
  shape?: 'rectangle' | 'ellipse'
  fill?: string
  radius_px?: number
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
  collect(sheet.layers, at - sheet.anchor_ms, null, 1, things)
  return things
}

function collect(layers: Layer[], since: number, offset: number | null, opacity: number, things: Due[]): void {
  for (const layer of layers) {
    if (!isZone(layer)) {
      things.push({ part: layer.part, offset_ms: offset, opacity })
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
      collect(layer.scenes[before.scene]!, held, held, opacity, things)
      own = (opacity * into) / segment.fade_ms
    }
    collect(layer.scenes[segment.scene]!, into, into, own, things)
  }
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
