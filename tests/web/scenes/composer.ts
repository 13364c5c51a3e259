import { ref, shallowRef } from 'vue'
import { mounted, pass, server, some, storage } from '../scene'
import type { Asked } from '../scene'
import { makeComposer } from '@/Layout/composer/composer'
import { dueItems, makeHand, nextDue } from '@/Layout/composer/hand'
import type { Analysis, Element, LayoutDocument, TextElement, ZoneElement } from '@/Layout/designs'

/** Every way in which the composer changes a document, and the hand of the tide table (web/src/Layout/composer). */

const box = (x: number, y: number) => ({ x, y, width: 100, height: 50 })
const zone = (id: string, x = 0): ZoneElement => ({ id, kind: 'zone', rect: box(x, 0), playlist: { items: [] } })
const text = (id: string, x = 0): TextElement => ({ id, kind: 'text', rect: box(x, 0), text: 'x', style: { size_px: 20 } })
const layout = (...elements: Element[]): LayoutDocument => ({
  format: 'upper-pane/layout@1',
  id: 'x',
  name: 'x',
  canvas: { width: 800, height: 600 },
  elements,
})
// What the core does to a document, as far as a scene says: `acts` are what it was asked for.
const acts: Asked['act'][] = []
interface Done {
  document: LayoutDocument
  chosen?: string[]
  said?: string[]
}
let does: (document: LayoutDocument, act: Asked['act']) => Done = (document) => ({ document })
server.answer = ({ path, body }) => {
  if (path !== 'arrangement') return { status: 404, body: {} }
  acts.push(body.act)
  return { body: { variant: body.variant, said: [], ...does(body.document, body.act) } }
}
const composing = (...elements: Element[]) => {
  const document = shallowRef(layout(...elements))
  const gestures: unknown[] = []
  const change = (next: LayoutDocument, gesture?: string) => void ((document.value = next), gestures.push(gesture ?? null))
  const { it: composer } = mounted(() => makeComposer(document, ref(null), change, () => {}))
  return {
    composer,
    document,
    gestures,
    ids: () => document.value.elements.map((e) => e.id),
    chosen: () => [...composer.chosen.value],
    at: () => composer.elements.value.map((e) => [e.rect.x, e.rect.y]),
  }
}
const words = (document: LayoutDocument, n: number) => some<TextElement>(document.elements[n]).text

export async function inTurn() {
  const { composer, gestures, ids, chosen } = composing(zone('a'))
  does = (document, act) =>
    some<Record<string, Done>>({
      begin: { document: { ...document, elements: [...document.elements, text('new')] }, chosen: ['new'] },
      insert: { document: { ...document, elements: [...document.elements, text('copy')] }, chosen: ['copy'] },
      restack: { document: { ...document, name: 'stacked' } },
      remove: { document, chosen: [], said: ['What is locked stays.'] },
    })[act.do] ?? { document }
  server.ms = 30
  composer.tool.value = 'text'
  void composer.add('text', box(5, 0))
  composer.duplicate()
  composer.restack(Infinity)
  composer.remove()
  const tool = composer.tool.value
  await pass(500)
  return [
    acts.map((a) => (a.elements ? { ...a, elements: a.elements.map((e) => e.id ?? e) } : a)),
    tool,
    chosen(),
    ids(),
    composer.notice.value?.said,
    gestures.length,
  ]
}

export async function pasted() {
  const one = composing(zone('a', 5), zone('b', 9))
  one.composer.choose(['a'])
  one.composer.copy()
  const other = composing(zone('x', 300))
  other.composer.paste()
  other.composer.paste()
  await pass(50)
  const asked = acts.map((a) => [a.elements[0]!.id, a.elements[0]!.rect.x, a.dx])
  acts.length = 0
  storage.kept.clear()
  const empty = composing(zone('x'))
  empty.composer.paste()
  await pass(50)
  const nothing = acts.length
  empty.composer.copy()
  empty.composer.paste()
  await pass(50)
  return [asked, nothing, acts.length]
}

export async function meanwhile() {
  const { composer, document, ids } = composing(text('a'))
  does = (document) => ({ document: { ...document, elements: [...document.elements, text('b')] } })
  server.ms = 100
  const done = composer.add('text', box(0, 0))
  await pass(50)
  composer.retext('a', 'typed')
  await pass(500)
  await done
  const asked = acts.length
  server.answer = () => ({ status: 422, body: { error: { code: 'zone.unknown', message: 'Nothing here.' } } })
  composer.choose(['a'])
  composer.remove()
  await pass(500)
  return [ids(), words(document.value, 0), asked, composer.notice.value?.said[0], composer.notice.value?.wrong]
}

export function groups() {
  const { composer, document, chosen, at } = composing(zone('a'), text('b', 100), zone('c', 300))
  const groups = () => document.value.elements.map((e) => e.group ?? null)
  composer.choose(['a', 'b'])
  composer.group()
  composer.chooseWhole(['b'])
  const whole = chosen()
  composer.choose([])
  composer.chooseWhole(['a'])
  const again = chosen()
  composer.nudge(10, 0)
  const together = groups()
  composer.ungroup()
  return [whole, again, at(), together, groups()]
}

export function locked() {
  const { composer, document, at } = composing(zone('a'), zone('b', 100))
  composer.choose(['a'])
  composer.toggle('locked')
  const locked = document.value.elements.map((e) => e.locked ?? null)
  composer.choose(['a', 'b'])
  composer.nudge(1, 0)
  composer.place(new Map([['a', box(7, 7)]]))
  const places = at()
  composer.toggle('locked')
  composer.toggle('locked')
  composer.choose(['b'])
  composer.toggle('locked')
  return [places, locked, document.value.elements.map((e) => e.locked ?? null)]
}

export function nudged() {
  const { composer, gestures, at } = composing(zone('a'), zone('b', 10), zone('c', 20))
  composer.nudge(5, 5)
  composer.choose(['b', 'c'])
  composer.nudge(1, 0)
  composer.nudge(0, -3)
  return [at(), gestures, gestures.length]
}

export function touched() {
  const { composer, document, gestures, at } = composing(zone('a'), text('b', 10))
  composer.place(
    new Map([
      ['a', box(7, 8)],
      ['gone', box(1, 1)],
    ]),
    'drag',
  )
  composer.edit<TextElement>('b', { text: 'words' })
  composer.set({ canvas: { width: 640, height: 480 } })
  return [at(), words(document.value, 1), document.value.name, document.value.canvas.width, gestures[0]]
}

export async function empty() {
  const { composer, gestures, ids } = composing()
  composer.remove()
  composer.duplicate()
  composer.nudge(1, 1)
  composer.choose(composer.elements.value.map((e) => e.id))
  await pass(50)
  return [ids(), gestures.length + acts.length, [...composer.chosen.value]]
}

export function due() {
  const sheet = {
    anchor_ms: 0,
    layers: [
      { part: { element: 'words' } },
      {
        zone: 'z',
        period_ms: 20000,
        segments: [
          { start_ms: 0, length_ms: 10000, fade_ms: 0, scene: 0 },
          { start_ms: 10000, length_ms: 10000, fade_ms: 1000, scene: 1 },
        ],
      },
    ],
  }
  const seen = some<Analysis>({ run_sheet: sheet, playing: { z: { scenes: [{ id: 'a' }, { id: 'b' }] } } })
  const next = (zoneId: string, item: string, at: number) => nextDue(seen, zoneId, item, at)
  return [
    dueItems(seen, 9999),
    dueItems(seen, 10000),
    [next('z', 'a', 15000), next('z', 'b', 0), next('z', 'b', 10500), next('z', 'b', 20000), next('z', 'off', 0), next('gone', 'a', 0)],
    dueItems(some({ run_sheet: { anchor_ms: 0, layers: [{ zone: 'z', period_ms: 0, segments: [], scenes: [] }] }, playing: {} }), 5),
  ]
}

export function steps() {
  globalThis.requestAnimationFrame = () => 0
  const analysis = shallowRef<Analysis | null>(null)
  const { it: hand } = mounted(() => makeHand(analysis))
  const seen: unknown[] = [hand.running.value]
  hand.toItem('z', 'b')
  hand.toChange(true)
  hand.to(3000)
  seen.push(hand.running.value)
  analysis.value = some({
    run_sheet: {
      anchor_ms: 0,
      layers: [
        { zone: 'z', period_ms: 20000, segments: [0, 1].map((n) => ({ start_ms: n * 10000, length_ms: 10000, fade_ms: 0, scene: n })), scenes: [] },
      ],
    },
    playing: { z: { scenes: [{ id: 'a' }, { id: 'b' }] } },
  })
  const stand = (act: () => void) => (act(), seen.push(hand.at.value))
  stand(() => hand.toChange(true))
  stand(() => hand.toChange(false))
  stand(() => (hand.toChange(true), hand.toChange(true)))
  hand.to(500)
  stand(() => hand.toItem('z', 'b'))
  return [...seen, hand.due.value.z]
}
