import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { sentence } from './api'

/** Something that is done with the server: what it is about is asked anew after it, and what went wrong is said in a sentence. */
export function useGuarded(...keys: string[]) {
  const queries = useQueryClient()
  const trouble = ref('')
  const busy = ref(false)

  async function guarded(work: () => Promise<unknown>) {
    trouble.value = ''
    busy.value = true
    try {
      await work()
      await Promise.all(keys.map((key) => queries.invalidateQueries({ queryKey: [key] })))
    } catch (e) {
      trouble.value = sentence(e)
    } finally {
      busy.value = false
    }
  }
  return { trouble, busy, guarded }
}
