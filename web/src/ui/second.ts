import { useNow } from '@vueuse/core'
import { computed } from 'vue'

/** This instant in whole seconds, as ms since 1970: what lists of pictures are drawn at. */
export function useSecond() {
  const now = useNow({ interval: 1000 })
  return computed(() => Math.floor(now.value.getTime() / 1000) * 1000)
}
