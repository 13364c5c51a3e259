import { readFileSync } from 'node:fs'
import { marked, shifted } from '@/Layout/composer/marks'
import type { Mark } from '@/Layout/designs'

/** Parts of a text are marked and the text is typed anew, as often as the test says: shares of its length, a look, the next text. */
export function typedOver() {
  const steps = JSON.parse(readFileSync(process.env.SCENE_GIVEN!, 'utf8')) as [number, number, number, string][]
  let [now, text]: [Mark[], string] = [[], 'Sailings to Tolm']
  const looks = [{ weight: 700 }, { size: 2 }, { color: '#00ff00' }]
  return steps.map(([a, b, look, next]) => {
    const from = Math.floor(a * (text.length + 1))
    now = shifted(marked(now, from, from + Math.floor(b * (text.length + 1 - from)), looks[look]!), text, next)
    text = next
    return [text.length, now]
  })
}
