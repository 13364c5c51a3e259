import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** A part of the address that is typed or pressed: kept in the query of the page, so that it can be sent to somebody. */
export function useAsked(name: string) {
  const route = useRoute()
  const router = useRouter()
  return computed({
    get: () => (typeof route.query[name] === 'string' ? route.query[name] : ''),
    set: (value: string) => void router.replace({ query: { ...route.query, [name]: value || undefined } }),
  })
}
