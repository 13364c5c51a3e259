import { type ComputedRef, type Ref, computed, shallowRef, watch } from 'vue'
import type { Wall } from '../../Display/survey'
import type { Rect } from '../../ui/shelf'
import type { Analysis, Element } from '../designs'
import type { Composer } from './composer'
import { type Handle, around, meets, sized, spanned, usual } from './gestures'
import type { PaneScale } from './paneScale'
import { type Gap, snap, snapGaps } from './snap'

interface Point {
  x: number
  y: number
}

/** Everything that draws, as it stood when the gesture began. */
interface Ground {
  x: number[]
  y: number[]
  others: Rect[]
}

type Gesture =
  | { kind: 'moving'; x: number; y: number; start: Map<string, Rect>; name: string; moved: boolean; ground?: Ground }
  | { kind: 'sizing'; x: number; y: number; start: Rect; id: string; handle: Handle; name: string; ground?: Ground }
  | { kind: 'drawing'; x: number; y: number }
  | { kind: 'marquee'; x: number; y: number; before: Set<string> }
  | { kind: 'panning'; px: number; py: number }

/** What the hands on the pane need to know. */
export interface PaneGround {
  composer: Composer
  view: PaneScale
  room: Readonly<Ref<HTMLElement | null>>
  analysis: () => Analysis | null
  snapping: () => boolean
  wall: () => Wall | null
  /** Ends what is being typed in place. */
  settle: () => void
  /** The one element that can be sized. */
  sizable: ComputedRef<Element | null>
  drawn: (rect: Rect) => void
}

const ALL = { left: true, right: true, top: true, bottom: true, centre: true }
const CORNER = { left: true, right: false, top: true, bottom: false, centre: false }
const NO_GUIDES: { x: number[]; y: number[]; gaps: Gap[] } = { x: [], y: [], gaps: [] }
/** px of the pane within which a line draws, and from which on a press counts as a move. */
const REACH = 6
const SLIP = 3
/** A hand that rests for so long has what it holds put into the document, so that the core can say what it thinks. */
const REST_MS = 80

/** Gestures of the pointer on the pane: drawing, choosing, moving, sizing, panning. One state object for each; a press begins it, its end forgets it. */
export function usePaneHands({ composer, view, room, analysis, snapping, wall, settle, sizable, drawn }: PaneGround) {
  const { scale, left, top } = view
  const gesture = shallowRef<Gesture | null>(null)
  watch(gesture, (g) => (composer.moving.value = g?.kind === 'moving' || g?.kind === 'sizing'))
  const box = shallowRef<Rect | null>(null)
  const guides = shallowRef(NO_GUIDES)
  /** Where the hand holds what it moves or sizes; the document learns of it when the hand rests. */
  const held = shallowRef<Map<string, Rect> | null>(null)
  let resting: ReturnType<typeof setTimeout> | undefined
  let gestures = 0

  function hold(rects: Map<string, Rect>, name: string) {
    held.value = rects
    clearTimeout(resting)
    resting = setTimeout(() => composer.place(rects, name), REST_MS)
  }

  const toCanvas = (e: PointerEvent | MouseEvent): Point => {
    const bounds = room.value!.getBoundingClientRect()
    return {
      x: Math.round((e.clientX - bounds.left - left.value) / scale.value),
      y: Math.round((e.clientY - bounds.top - top.value) / scale.value),
    }
  }
  const isFree = (e: Element) => !e.hidden && !e.locked
  const under = (p: Point) => [...composer.elements.value].reverse().find((e) => isFree(e) && meets(e.rect, { ...p, width: 1, height: 1 }))

  // --- what draws -----------------------------------------------------------------------

  /** Rectangles of the display in px of this canvas. */
  const onCanvas = (rects: Rect[]): Rect[] => {
    const match = analysis()?.match
    if (!match) return []
    const canvas = composer.document.value.canvas
    const [kx, ky] = [canvas.width / match.target.width, canvas.height / match.target.height]
    return rects.map((r) => ({ x: (r.x - match.target.x) * kx, y: (r.y - match.target.y) * ky, width: r.width * kx, height: r.height * ky }))
  }
  const ofWall = (rects: (wall: Wall) => Rect[]) => {
    const hung = wall()
    return hung && hung.panels.length > 1 ? onCanvas(rects(hung)) : []
  }
  /** The panels of the wall; none of a single screen. */
  const panels = computed(() => ofWall((w) => w.panels.map((p) => p.source)))
  const hidden = computed(() => ofWall((w) => [...w.strips, ...w.voids]))

  const others = (without: Set<string>) => composer.elements.value.filter((e) => !e.hidden && !without.has(e.id)).map((e) => e.rect)
  const lines = (without: Set<string>) => {
    const rects = [...others(without), ...panels.value]
    const { canvas, guides: own, safe = 0 } = composer.document.value
    const along = (axis: 'x' | 'y', side: 'width' | 'height', tracks: number[]) => {
      const length = canvas[side]
      const margins = safe > 0 ? [safe, length - safe] : []
      return [
        ...[0, Math.round(length / 2), length, ...(own?.[axis] ?? []), ...margins, ...tracks],
        ...rects.flatMap((r) => [Math.round(r[axis]), Math.round(r[axis] + r[side])]),
      ]
    }
    const tracks = analysis()?.tracks
    return { x: along('x', 'width', tracks?.columns ?? []), y: along('y', 'height', tracks?.rows ?? []) }
  }
  const ground = (without: Set<string>): Ground => ({ ...lines(without), others: others(without) })
  const reach = () => Math.round(REACH / scale.value)

  function snapPoint(p: Point, loose: boolean): Point {
    if (loose || !snapping()) return p
    const at = lines(new Set())
    const s = snap({ ...p, width: 0, height: 0 }, at.x, at.y, reach(), CORNER)
    guides.value = { x: s.linesX, y: s.linesY, gaps: [] }
    return { x: p.x + s.dx, y: p.y + s.dy }
  }

  /** Where a border of the zones is drawn to: an edge of what does not move with it, a panel, a track of the recipe. */
  function snappedBorder(side: 'x' | 'y', at: number, without: string[]): number {
    if (!snapping()) return at
    const near = lines(new Set(without))[side].reduce((best, line) => (Math.abs(line - at) < Math.abs(best - at) ? line : best), Infinity)
    return Math.abs(near - at) <= reach() ? near : at
  }

  // --- gestures -------------------------------------------------------------------------

  function down(e: PointerEvent) {
    if (e.button > 1) return
    settle()
    if (e.button === 1) {
      e.preventDefault()
      gesture.value = { kind: 'panning', px: e.clientX, py: e.clientY }
      return
    }
    room.value!.focus({ preventScroll: true })
    const p = toCanvas(e)
    const handle = (e.target as globalThis.Element).getAttribute('data-handle') as Handle | null
    gestures++
    if (composer.tool.value !== 'choose') gesture.value = { kind: 'drawing', ...snapPoint(p, e.altKey) }
    else if (handle && sizable.value) {
      const { id, rect } = sizable.value
      gesture.value = { kind: 'sizing', ...p, start: rect, id, handle, name: `size ${gestures}` }
    } else take(p, e.shiftKey)
  }

  /** A press on an element chooses it, with its group, and may move all that is chosen; beside all of them it draws a frame around some. */
  function take(p: Point, more: boolean) {
    const hit = under(p)
    if (!hit) {
      if (!more) composer.choose([])
      gesture.value = { kind: 'marquee', ...p, before: composer.chosen.value }
      return
    }
    if (more) toggle(hit)
    else if (!composer.chosen.value.has(hit.id)) composer.chooseWhole([hit.id])
    const start = new Map(composer.elements.value.filter((e) => composer.chosen.value.has(e.id) && !e.locked).map((e) => [e.id, e.rect]))
    gesture.value = { kind: 'moving', ...p, start, name: `move ${gestures}`, moved: false }
  }

  function toggle(hit: Element) {
    const there = composer.chosen.value.has(hit.id)
    const next = new Set(composer.chosen.value)
    const all = hit.group ? composer.elements.value.filter((e) => e.group === hit.group) : [hit]
    for (const { id } of all) {
      if (there) next.delete(id)
      else next.add(id)
    }
    composer.choose(next)
  }

  let waiting: PointerEvent | null = null
  function moved(e: PointerEvent) {
    if (!gesture.value) return
    if (waiting === null) requestAnimationFrame(() => waiting && (apply(waiting), (waiting = null)))
    waiting = e
  }

  function apply(e: PointerEvent) {
    const g = gesture.value
    if (!g) return
    const p = toCanvas(e)
    const loose = e.altKey || !snapping()
    if (g.kind === 'drawing') {
      const to = snapPoint(p, e.altKey)
      box.value = spanned(g.x, g.y, to.x, to.y)
    } else if (g.kind === 'marquee') {
      const frame = (box.value = spanned(g.x, g.y, p.x, p.y))
      composer.chooseWhole([...g.before, ...composer.elements.value.filter((el) => isFree(el) && meets(el.rect, frame)).map((el) => el.id)])
    } else if (g.kind === 'panning') {
      view.pan(e.clientX - g.px, e.clientY - g.py)
      gesture.value = { ...g, px: e.clientX, py: e.clientY }
    } else if (g.kind === 'moving') move(g, p.x - g.x, p.y - g.y, loose)
    else size(g, p.x - g.x, p.y - g.y, loose, e.shiftKey)
  }

  function move(g: Extract<Gesture, { kind: 'moving' }>, dx: number, dy: number, loose: boolean) {
    if (g.start.size === 0 || (!g.moved && Math.hypot(dx, dy) * scale.value < SLIP)) return
    g.moved = true
    guides.value = NO_GUIDES
    if (!loose) {
      const whole = around([...g.start.values()])
      const at = (g.ground ??= ground(new Set(g.start.keys())))
      const s = snap({ ...whole, x: whole.x + dx, y: whole.y + dy }, at.x, at.y, reach(), ALL)
      // Where no line draws it, a gap like another may.
      const gap = snapGaps({ ...whole, x: whole.x + dx + s.dx, y: whole.y + dy + s.dy }, at.others, reach())
      const [byX, byY] = [s.linesX.length ? 0 : gap.dx, s.linesY.length ? 0 : gap.dy]
      guides.value = { x: s.linesX, y: s.linesY, gaps: gap.gaps.filter((one) => (one.along === 'x' ? byX === gap.dx : byY === gap.dy)) }
      dx += s.dx + byX
      dy += s.dy + byY
    }
    hold(new Map([...g.start].map(([id, r]) => [id, { ...r, x: r.x + dx, y: r.y + dy }])), g.name)
  }

  function size(g: Extract<Gesture, { kind: 'sizing' }>, dx: number, dy: number, loose: boolean, keepAspect: boolean) {
    let rect = sized(g.start, g.handle, dx, dy, keepAspect)
    if (!loose && !keepAspect) {
      const at = (g.ground ??= ground(new Set([g.id])))
      const has = (side: string) => g.handle.includes(side)
      const s = snap(rect, at.x, at.y, reach(), { left: has('w'), right: has('e'), top: has('n'), bottom: has('s'), centre: false })
      guides.value = { x: s.linesX, y: s.linesY, gaps: [] }
      rect = sized(g.start, g.handle, dx + s.dx, dy + s.dy, false)
    }
    hold(new Map([[g.id, rect]]), g.name)
  }

  function up(e: PointerEvent) {
    if (waiting) {
      apply(waiting)
      waiting = null
    }
    const [g, frame] = [gesture.value, box.value]
    if (held.value && (g?.kind === 'moving' || g?.kind === 'sizing')) composer.place(held.value, g.name)
    end()
    if (g?.kind !== 'drawing' || !frame) return
    const small = frame.width * scale.value < REACH && frame.height * scale.value < REACH
    drawn(small ? usual(composer.document.value.canvas, toCanvas(e)) : frame)
  }
  function end() {
    clearTimeout(resting)
    gesture.value = box.value = held.value = null
    guides.value = NO_GUIDES
    waiting = null
  }
  /** Everything is where it was before. */
  function revert() {
    const g = gesture.value
    if (!g) return
    if (g.kind === 'moving' && g.moved) composer.place(g.start, g.name)
    if (g.kind === 'sizing') composer.place(new Map([[g.id, g.start]]), g.name)
    end()
  }

  return { gesture, held, box, guides, panels, hidden, under, toCanvas, snappedBorder, down, moved, up, revert }
}
