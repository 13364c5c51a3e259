import { ref } from 'vue'
import { mounted, pass, server } from '../scene'
import { useAnswer } from '../../../web/src/ui/answer'
import { api } from '../../../web/src/ui/api'

/** What the core is asked of something that is being typed (web/src/ui/answer.ts). */

interface Question {
  text: string
}
function begun(first: string | null = 'a') {
  const text = ref<string | null>(first)
  const heard: AbortSignal[] = []
  const { it, unmount } = mounted(() =>
    useAnswer<Question, Question>(
      () => (text.value === null ? null : { text: text.value }),
      (asked, signal) => (heard.push(signal), api.post<Question>('core', asked, signal)),
    ),
  )
  return { text, it, unmount, heard, asked: () => server.calls.map((call) => call.body.text) }
}
const says = (ms = 0) => {
  server.ms = ms
  server.answer = ({ body }) => ({ body: { text: `${body.text}!` } })
}

export async function rests() {
  says()
  const { text, it, asked } = begun()
  await pass(10)
  const seen: unknown[] = [it.answer.value?.text]
  for (const next of ['ab', 'abc', 'abcd']) {
    text.value = next
    await pass(50)
  }
  seen.push(it.answer.value?.text)
  await pass(100)
  // What says the same is asked no more.
  text.value = 'abcd'
  await pass(200)
  return [...seen, it.answer.value?.text, asked()]
}

export async function newest() {
  says(500)
  const { text, it, heard, unmount } = begun()
  await pass(100)
  text.value = 'b'
  await pass(700)
  const seen = [it.answer.value?.text, heard.map((signal) => signal.aborted)]
  text.value = 'c'
  await pass(200)
  unmount()
  await pass(1000)
  return [...seen, it.answer.value?.text, heard.map((signal) => signal.aborted)]
}

export async function troubles() {
  server.answer = () => 'away'
  const { text, it, asked } = begun(null)
  await pass(200)
  const seen: unknown[] = [asked(), it.trouble.value]
  text.value = 'a'
  await pass(100)
  seen.push(it.trouble.value, it.answer.value)
  says()
  await pass(3100)
  seen.push(it.trouble.value, it.answer.value?.text, asked())
  server.answer = () => ({ status: 422, body: { error: { code: 'value.range', message: '/name is empty.', path: '/name' } } })
  text.value = 'b'
  await pass(10_000)
  // What was answered stands; what is refused is not asked again.
  return [...seen, it.trouble.value, it.answer.value?.text, asked()]
}
