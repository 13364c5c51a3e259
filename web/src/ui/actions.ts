import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, shallowRef, watch } from 'vue'
import type { Findable } from './find'

/** What can be done or found in what is open now. */
export const useActions = defineStore('actions', () => {
  const offers = shallowRef(new Map<symbol, Findable[]>())
  return {
    here: computed(() => [...offers.value.values()].flat()),
    offer(by: symbol, actions: Findable[] | null) {
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
  watch(actions, (now) => store.offer(by, now), { immediate: true })
  onBeforeUnmount(() => store.offer(by, null))
}
