import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, onScopeDispose, ref, toValue, watch } from 'vue'
import { api } from '../ui/api'
import type { DesignSummary } from './designs'

/** A design that says something: as it is saved, on displays, or both. */
export interface Saying {
  id: string
  kind: DesignSummary['kind']
  name: string
  says: string
  saved: boolean
  displays: number
  some: string[]
}

const LEAST = 2
const PAUSE_MS = 150

/** The designs that say what is typed, once whoever types pauses. */
export function useWords(typed: MaybeRefOrGetter<string>) {
  const asked = ref('')
  let pause: ReturnType<typeof setTimeout> | undefined
  watch(
    () => toValue(typed).trim(),
    (text) => {
      clearTimeout(pause)
      pause = setTimeout(() => (asked.value = text.length < LEAST ? '' : text), PAUSE_MS)
    },
    { immediate: true },
  )
  onScopeDispose(() => clearTimeout(pause))
  const query = useQuery({
    queryKey: computed(() => ['words', asked.value]),
    enabled: computed(() => asked.value !== ''),
    queryFn: () => api.get<{ found: Saying[] }>(`words?search=${encodeURIComponent(asked.value)}`),
  })
  const wanted = computed(() => (toValue(typed).trim().length < LEAST ? '' : toValue(typed).trim()))
  return {
    // What was found for other words is none of these.
    saying: computed<Saying[]>(() => (wanted.value !== '' && asked.value === wanted.value ? (query.data.value?.found ?? []) : [])),
    looking: computed(() => wanted.value !== '' && (asked.value !== wanted.value || query.isFetching.value)),
  }
}

/** Where it says so: on displays, and whether it will go on saying it. */
export function whereSaid(one: Saying): string {
  const displays = one.displays > one.some.length ? `${one.displays} displays` : one.some.join(' and ')
  if (one.displays === 0) return 'on no display'
  return one.saved ? `on ${displays}` : `still on ${displays}, no longer in what is saved`
}

/** The part of a text around the first of the words. */
export function excerpt(text: string, typed: string, most = 60): string {
  if (text.length <= most) return text
  const first = typed.trim().split(/\s+/)[0]!.toLowerCase()
  const at = Math.max(0, text.toLowerCase().indexOf(first))
  const from = Math.max(0, Math.min(at - 12, text.length - most))
  return `${from > 0 ? '…' : ''}${text.slice(from, from + most).trim()}${from + most < text.length ? '…' : ''}`
}
