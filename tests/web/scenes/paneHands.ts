import { computed, ref, shallowRef } from 'vue'
import { pass, some } from '../scene'
import { makeComposer } from '@/Layout/composer/composer'
import { usePaneHands } from '@/Layout/composer/paneHands'
import type { PaneScale } from '@/Layout/composer/paneScale'
import type { Analysis, LayoutDocument, ZoneElement } from '@/Layout/designs'
import type { Rect } from '@/ui/shelf'

/** What a pointer does on the pane; the canvas of 800 x 600 px stands at 100, 50 of it, at half its size (web/src/Layout/composer/paneHands.ts). */

Object.assign(globalThis, { requestAnimationFrame: (frame: (at: number) => void) => setTimeout(() => frame(0), 16) })
const zone = (id: string, x: number, y: number, more: Partial<ZoneElement> = {}): ZoneElement => ({
  id,
  kind: 'zone',
  rect: { x, y, width: 100, height: 100 },
  playlist: { items: [] },
  ...more,
})
interface Keys extends Partial<PointerEvent> {
  handle?: string
}
const open = (elements: ZoneElement[], more: Partial<LayoutDocument> = {}) => {
  const document = shallowRef<LayoutDocument>({
    format: 'upper-pane/layout@1',
    id: 'x',
    name: 'x',
    canvas: { width: 800, height: 600 },
    elements,
    ...more,
  })
  const composer = makeComposer(
    document,
    ref(null),
    (next) => void (document.value = next),
    () => undefined,
  )
  const panned: number[][] = []
  const snapping = ref(false)
  const drawn: Rect[] = []
  const hands = usePaneHands({
    composer,
    view: some<PaneScale>({ scale: ref(0.5), left: ref(100), top: ref(50), pan: (x: number, y: number) => panned.push([x, y]) }),
    room: ref(some<HTMLElement>({ getBoundingClientRect: () => ({ left: 0, top: 0 }), setPointerCapture() {}, focus() {} })),
    drawn: (rect) => drawn.push(rect),
    analysis: () => some<Analysis>({ tracks: { columns: [], rows: [] }, match: null }),
    snapping: () => snapping.value,
    wall: () => null,
    settle: () => undefined,
    sizable: computed(() => composer.only.value),
  })
  // In px of the canvas.
  const at = (x: number, y: number, keys: Keys = {}) => {
    const target = { getAttribute: () => keys.handle ?? null }
    return some<PointerEvent>({ button: 0, pointerId: 1, clientX: 100 + x / 2, clientY: 50 + y / 2, target, preventDefault() {}, ...keys })
  }
  const drag = async (from: [number, number], to: [number, number], keys: Keys = {}) => {
    hands.down(at(...from, keys))
    hands.moved(at(...to, keys))
    await pass(20)
    const guides = hands.guides.value
    hands.up(at(...to, keys))
    return guides
  }
  return {
    composer,
    document,
    snapping,
    drawn,
    panned,
    drag,
    chosen: () => [...composer.chosen.value],
    places: () => document.value.elements.map((e) => [e.rect.x, e.rect.y]),
  }
}

export async function pressed() {
  const { drag, chosen, places } = open([zone('a', 0, 0), zone('b', 200, 200, { group: 'g' }), zone('c', 400, 200, { group: 'g' })])
  await drag([250, 250], [280, 290])
  const moved = [chosen(), places()]
  await drag([50, 50], [50, 50], { shiftKey: true })
  const more = chosen()
  await drag([260, 260], [260, 260], { shiftKey: true })
  const less = chosen()
  await drag([700, 500], [700, 500])
  return [...moved, more, less, chosen()]
}

export async function pressedThrough() {
  const { drag, chosen, places } = open([zone('a', 0, 0), zone('b', 0, 0, { locked: true }), zone('c', 0, 0, { hidden: true })])
  await drag([50, 50], [60, 60])
  const pressed = [chosen(), places()]
  await drag([600, 500], [5, 5])
  return [...pressed, chosen()]
}

export async function slips() {
  const { drag, places } = open([zone('a', 0, 0)])
  await drag([50, 50], [54, 50])
  const slip = places()
  await drag([50, 50], [58, 50])
  return [slip, places()]
}

export async function snapped() {
  const { drag, snapping, places, document } = open([zone('a', 0, 0), zone('b', 0, 300)], { guides: { x: [350] }, safe: 40 })
  snapping.value = true
  const to = async (x: number, y = 340, keys = {}) => {
    const from = document.value.elements[1]!.rect
    const guides = await drag([from.x + 50, from.y + 40], [x + 50, y], keys)
    return [places()[1]![0], guides.x]
  }
  const edge = await to(105)
  const guide = await to(345)
  const margin = await to(43)
  document.value = { ...document.value, guides: undefined, safe: undefined, elements: [zone('a', 0, 300), zone('b', 600, 300), zone('c', 120, 300)] }
  const row = async (x: number, keys = {}) => {
    const from = document.value.elements[1]!.rect
    const guides = await drag([from.x + 50, from.y + 40], [x, 340], keys)
    return [places()[1]![0], guides.gaps.length]
  }
  const gap = await row(287)
  return [edge, guide, margin, gap, await row(275, { altKey: true })]
}

export async function drawn() {
  const { drag, drawn, composer } = open([])
  composer.tool.value = 'text'
  await drag([300, 200], [100, 60])
  await drag([400, 300], [402, 301])
  return drawn
}

export async function sized() {
  const { drag, document, composer, panned } = open([zone('a', 0, 0)])
  composer.choose(['a'])
  await drag([100, 50], [160, 70], { handle: 'e' })
  const wider = document.value.elements[0]!.rect
  document.value = { ...document.value, elements: [zone('a', 0, 0)] }
  await drag([100, 100], [200, 130], { handle: 'se', shiftKey: true })
  await drag([0, 0], [30, 20], { button: 1 })
  return [wider, document.value.elements[0]!.rect, panned, composer.moving.value]
}
