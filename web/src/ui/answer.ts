import { useEventListener } from '@vueuse/core'
import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import { Problem, sentence } from './api'

const AGAIN_MS = 3000

/**
 * What the core says of something that is being typed. It is asked once the hand rests; the newest question holds, and the one before is broken
 * off. What was answered last stands until then, and nothing of earlier questions is kept.
 *
 * @param question null as long as there is none
 * @param rest how long a hand rests before it is asked, ms; the first question is asked at once
 */
export function useAnswer<Q, A>(question: () => Q | null, ask: (question: Q, signal: AbortSignal) => Promise<A>, rest = () => 80) {
  const answer = shallowRef<A | null>(null)
  const trouble = ref('')
  let asked = ''
  let resting: ReturnType<typeof setTimeout> | undefined
  let running: AbortController | null = null

  function soon(ms: number) {
    clearTimeout(resting)
    resting = setTimeout(() => void now(), ms)
  }
  async function now() {
    clearTimeout(resting)
    const what = question()
    if (what === null) return
    asked = JSON.stringify(what)
    running?.abort()
    const mine = (running = new AbortController())
    try {
      const found = await ask(what, mine.signal)
      if (running !== mine) return
      running = null
      answer.value = found
      trouble.value = ''
    } catch (e) {
      if (running !== mine) return
      running = null
      trouble.value = sentence(e)
      if (e instanceof Problem && e.mayPass) soon(AGAIN_MS)
    }
  }

  watch(
    () => JSON.stringify(question()),
    (text) => {
      if (text !== asked) soon(asked === '' ? 0 : rest())
    },
    { immediate: true },
  )
  // Others may have changed what it depends on meanwhile.
  useEventListener('focus', () => asked !== '' && soon(0))
  onScopeDispose(() => {
    clearTimeout(resting)
    running?.abort()
    running = null
  })

  return { answer, trouble, ask: () => void now() }
}
