import { ref } from 'vue'
import { mounted, pass } from '../scene'
import { offerActions, useActions } from '@/ui/actions'
import { useGrowing, useGrowingPlaces } from '@/ui/growing'

/** What Ctrl + K is offered (web/src/ui/actions.ts), and lists that grow (web/src/ui/growing.ts). */

export async function actions() {
  const redo = ref(false)
  const { it: store, unmount } = mounted(() => {
    offerActions(() => [{ kind: 'action', name: 'Undo' }, ...(redo.value ? [{ kind: 'action', name: 'Redo' }] : [])])
    offerActions(() => [{ kind: 'action', name: 'Draw' }])
    return useActions()
  })
  const names = () => store.here.map((a) => a.name)
  const seen = [names()]
  redo.value = true
  await pass(10)
  seen.push(names())
  unmount()
  return [...seen, names()]
}

export function grown() {
  globalThis.requestAnimationFrame = () => 0
  const list = ref([1, 2, 3, 4, 5])
  const { it } = mounted(() => useGrowing(list, 3))
  const seen: unknown[] = [[it.shown.value, it.left.value]]
  list.value = [7]
  seen.push([it.shown.value, it.left.value])
  const places = [
    { name: 'hall', displays: ['a', 'off', 'b', 'c', 'd'] },
    { name: 'pier', displays: ['off'] },
  ]
  const { it: estate } = mounted(() => useGrowingPlaces(places, (d) => d !== 'off', 2))
  const shown = estate.shown.value
  return [...seen, [shown.flatMap((p) => p.displays), estate.left.value, shown.map((p) => [p.name, p.displays, p.all.length])]]
}
