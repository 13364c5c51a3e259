import { some } from '../scene'
import { seenIn, withElements, withFields } from '@/Layout/composer/variants'
import type { Element, LayoutDocument, TextElement } from '@/Layout/designs'
import { leaderOf } from '@/Layout/kinds/zone/zone'

/** A layout and its variants under the hands of the composer (web/src/Layout/composer/variants.ts). */

const box = (x: number) => ({ x, y: 0, width: 100, height: 50 })
const both: LayoutDocument = {
  format: 'upper-pane/layout@1',
  id: 'both',
  name: 'Both',
  canvas: { width: 1920, height: 1080 },
  recipe: { columns: '7fr 3fr' },
  safe: 40,
  elements: [
    { id: 'main', kind: 'zone', rect: box(0), playlist: { items: [] } },
    { id: 'head', kind: 'text', rect: box(10), text: 'Welcome', style: { size_px: 72, weight: 600 } },
    { id: 'foot', kind: 'shape', rect: box(20), fill: '#000000' },
  ],
  variants: [{ id: 'portrait', canvas: { width: 1080, height: 1920 }, places: { main: { rect: box(5) }, head: { rect: box(6), size_px: 40 } } }],
}
const at = (d: LayoutDocument) => d.elements.map((e) => [e.id, e.rect.x, 'style' in e ? e.style?.size_px : 0])
const change = (whole: LayoutDocument, id: string, fields: Partial<Element>) => withElements(whole, 'portrait', new Map([[id, fields]]))

export function seenAsLayouts() {
  const portrait = seenIn(both, 'portrait')
  return [at(portrait), portrait.canvas.width, [portrait.recipe ?? null, portrait.safe ?? null], at(seenIn(both, null)), 'variants' in portrait]
}

export function shared() {
  let whole = change(both, 'head', { rect: box(300), text: 'Hello' })
  whole = change(whole, 'head', { style: { size_px: 44, weight: 700 } })
  whole = change(whole, 'foot', { fill: '#ffffff' })
  const head = some<TextElement>(whole.elements[1])
  const placed = { ...both, variants: [{ ...both.variants![0]!, places: { head: { rect: box(6) } } }] }
  const plain = change(placed, 'head', { style: { size_px: 72, color: '#ffffff' } })
  return [at(whole), at(seenIn(whole, 'portrait')), head.text, head.style.weight, 'size_px' in plain.variants![0]!.places.head! ? 0 : 72]
}

export function ownLines() {
  const said = (d: LayoutDocument) => [d.safe ?? null, d.variants![0]!.safe ?? null, d.name]
  const whole = withFields(both, 'portrait', { safe: 12, name: 'New' })
  const without = (d: LayoutDocument, variant: string | null) => withFields(d, variant, { safe: undefined })
  return [said(whole), said(without(without(whole, 'portrait'), null)), said(without(whole, null))]
}

export function unseenLeader() {
  const led: LayoutDocument = {
    ...both,
    elements: [...both.elements, { id: 'side', kind: 'zone', rect: box(30), playlist: { items: [] }, follows: 'main' }],
    variants: [{ id: 'portrait', canvas: both.canvas, places: { side: { rect: box(1) } } }],
  }
  const side = change(led, 'side', { name: 'Side' }).elements[3]!
  const seen = seenIn(led, 'portrait').elements
  return ['follows' in side && side.follows, side.name, seen[0]?.kind === 'zone' ? (leaderOf(seen[0], seen) ?? null) : 'no zone']
}
