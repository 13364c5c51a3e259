import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, shallowRef } from 'vue'
import type { Findable } from './find'

/** What can be done or found in what is open now; worked out only when it is looked for. */
export const useActions = defineStore('actions', () => {
  const offers = shallowRef(new Map<symbol, () => Findable[]>())
  return {
    here: computed(() => [...offers.value.values()].flatMap((actions) => actions())),
    offer(by: symbol, actions: (() => Findable[]) | null) {
      const next = new Map(offers.value)
      if (actions) next.set(by, actions)
      else next.delete(by)
      offers.value = next
    },
  }
})

/** Offers these as long as the component stands. */
export function offerActions(actions: () => Findable[]): void {
  const store = useActions()
  const by = Symbol()
  store.offer(by, actions)
  onBeforeUnmount(() => store.offer(by, null))
}
