import { nextTick } from 'vue'
import { mounted, pass, server } from '../scene'
import type { Item } from '@/Layout/designs'
import { itemActs, withItem } from '@/Time/itemEdits'

/** What hands do to the items of a list (web/src/Time/itemEdits.ts). */

export function withoutAField() {
  const items: Item[] = [{ id: 'a', weight: 3 }, { id: 'b' }]
  return withItem(withItem(items, 0, { weight: undefined }), 1, { weight: 2 })
}

export async function inTurn() {
  const asked: string[][] = []
  let list: Item[] = [{ id: 'a' }, { id: 'b' }]
  server.ms = 20
  server.answer = ({ body: { items, act } }) => {
    asked.push(items.map((i) => i.id))
    if (act.do === 'last') return { status: 422, body: { error: { code: 'ref.unknown', message: 'Nothing here.' } } }
    return { body: { items: act.do === 'move' ? [...items].reverse() : [...items, ...act.items] } }
  }
  const { it: ask } = mounted(() =>
    itemActs(
      () => list,
      (items) => void nextTick(() => (list = items)),
    ),
  )
  void ask({ do: 'move', item: 'b', by: -1 })
  void ask({ do: 'add', items: [{ id: 'c' }] })
  void ask({ do: 'add', items: [{ id: 'd' }] })
  await pass(200)
  let said = ''
  ask({ do: 'last', item: 'x', ms: 5 }).catch((e: Error) => (said = e.message))
  await pass(100)
  return [asked.slice(0, 3), list.map((i) => i.id), said]
}
