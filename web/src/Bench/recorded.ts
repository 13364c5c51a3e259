import { useStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Trace } from '../Trigger/triggers'

/** What was recorded before a display: kept in this browser, played again on the Bench, and tried on a map of triggers. */
export interface Recorded extends Trace {
  display: string
}
/** So many are kept; the oldest goes. */
const MOST = 20

const all = useStorage<Recorded[]>('upper-pane:recorded', [])

export const useRecorded = (display: () => string | null) => ({
  recorded: computed(() => all.value.filter((one) => one.display === display())),
  keep: (one: Recorded) => (all.value = [...all.value.filter(({ id }) => id !== one.id), one].slice(-MOST)),
  drop: (id: string) => (all.value = all.value.filter((one) => one.id !== id)),
})
