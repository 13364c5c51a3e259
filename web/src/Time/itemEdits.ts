import type { Item } from '../Layout/designs'

/** What hands do to the items of a list, wherever they stand: each gives the new list, or the same where nothing is to be done. */

/** The items that stay neighbours of this one: from the first of them to behind the last. */
export function tiedWith(items: Item[], index: number): [number, number] {
  let [from, to] = [index, index + 1]
  while (from > 0 && items[from]!.tied) from--
  while (items[to]?.tied) to++
  return [from, to]
}

/** One place earlier or later; items that are tied together move together. */
export function moved(items: Item[], index: number, up: boolean): Item[] {
  const [from, to] = tiedWith(items, index)
  if (up ? from === 0 : to === items.length) return items
  const [begin, end] = tiedWith(items, up ? from - 1 : to)
  const next = [...items]
  const group = next.splice(from, to - from)
  next.splice(up ? begin : from + end - to, 0, ...group)
  return next
}

/** To the place of another, so that it comes there instead. */
export function movedTo(items: Item[], id: string, target: string): Item[] {
  let next = items
  const place = () => [next.findIndex((i) => i.id === id), next.findIndex((i) => i.id === target)] as const
  const [first, goal] = place()
  if (first < 0 || goal < 0 || first === goal) return items
  const up = goal < first
  for (let [at, other] = [first, goal]; up ? at > other : at < other; [at, other] = place()) {
    const after = moved(next, at, up)
    if (after === next) break
    next = after
  }
  return next
}

/** Fields of an item that lasts so long; of a film as long as it is, nothing has to be stated. A transition lies inside the duration. */
export function lasting(item: Item, ms: number): Partial<Item> {
  const { transition } = item
  return {
    duration_ms: item.media?.length_ms === ms ? undefined : ms,
    lasts: undefined,
    ...(transition && transition.kind !== 'cut' ? { transition: { ...transition, ms: Math.min(transition.ms ?? 500, ms) } } : {}),
  }
}

/** With some fields of one item changed; a field set to undefined is taken away, so that the document keeps only what is meant. */
export const withItem = (items: Item[], index: number, change: Partial<Item>): Item[] =>
  items.map(
    (item, i) =>
      Object.fromEntries(Object.entries(i === index ? { ...item, ...change } : item).filter(([, v]) => v !== undefined)) as unknown as Item,
  )

/** A duration as it is typed, in seconds; null where it is none. */
export function typedMs(text: string): number | null {
  const s = Number(text.trim().replace(',', '.'))
  return text.trim() !== '' && Number.isFinite(s) && s >= 0.001 ? Math.round(s * 1000) : null
}
