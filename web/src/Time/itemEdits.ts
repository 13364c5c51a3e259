import type { Item, Transition } from '../Layout/designs'
import { api } from '../ui/api'
import { inTurn } from '../ui/inTurn'

/** What hands do to the items of a list: fields of one are changed here, all else is an act that the core does. */
export type ItemAct =
  | { do: 'add'; items: Partial<Item>[] }
  | { do: 'move'; item: string; by: 1 | -1 }
  | { do: 'put'; item: string; target: string }
  | { do: 'last'; item: string; ms: number }
  | { do: 'last'; item: string; typed: string }
  | { do: 'last'; item: string; how: 'stated' | NonNullable<Item['lasts']> }
  | { do: 'come'; item: string; kind: Transition['kind'] }

/**
 * Does them to a list, one after the other.
 *
 * @param items as they stand at the time
 * @param taken ids that nothing new may have beside theirs
 */
export function itemActs(items: () => Item[], put: (items: Item[]) => void, taken: () => string[] = () => []) {
  return inTurn(
    () => [items()] as const,
    ([list], act: ItemAct) => api.post<{ items: Item[] }>('items', { items: list, taken: taken(), act }),
    (answer, [before]) => JSON.stringify(answer.items) !== JSON.stringify(before) && put(answer.items),
  )
}

/** With some fields of one item changed; a field set to undefined is taken away, so that the document keeps only what is meant. */
export const withItem = (items: Item[], index: number, change: Partial<Item>): Item[] =>
  items.map(
    (item, i) =>
      Object.fromEntries(Object.entries(i === index ? { ...item, ...change } : item).filter(([, v]) => v !== undefined)) as unknown as Item,
  )
