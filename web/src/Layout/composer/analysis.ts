import { type Ref, ref, shallowRef, watch } from 'vue'
import { useAnswer } from '../../ui/answer'
import { api } from '../../ui/api'
import type { Finding } from '../../ui/shelf'
import type { Analysis, LayoutDocument } from '../designs'

type Light = Omit<Analysis, 'run_sheet' | 'media' | 'loops' | 'playing' | 'meets_every_ms'>

type Found = Pick<Analysis, 'findings' | 'stops' | 'warnings' | 'hints'>
const matterOf = (f: Finding) => [f.code, f.message, ...f.elements].join('\n')

/** Findings that were there before keep the cure that they had, until cures have been tried anew. */
function withCures(findings: Finding[], before: Finding[]): Finding[] {
  const cures = new Map(before.flatMap((f) => (f.fix ? [[matterOf(f), f.fix]] : [])))
  return cures.size === 0 ? findings : findings.map((f) => (cures.has(matterOf(f)) ? { ...f, fix: cures.get(matterOf(f))! } : f))
}

interface Asked {
  document: LayoutDocument
  variant: string | null
  display: string | null
  /** Rows of data as they may come some day. */
  stress?: string | number
  /** Without timing and pictures. */
  light?: true
}
/** Typing rests for so long; what a hand moves comes here only once it rests. */
const REST_MS = 80

/**
 * What the core says of the document as it stands. Cures, which it tries before it offers them, are asked for once it has answered and the
 * hand rests.
 *
 * @param at the instant that is looked at, Unix ms: from then on it is checked for a week
 * @param moving as long as a hand moves things about, timing and pictures stay as they are and are not asked for
 */
export function useAnalysis(
  document: Ref<LayoutDocument | null>,
  variant: Ref<string | null>,
  display: Ref<string | null>,
  moving: Ref<boolean>,
  at: () => number,
  stress: Ref<string | number | null> = ref(null),
) {
  const analysis = shallowRef<Analysis | null>(null)
  const post = <T extends object>(path: string, asked: Asked, signal: AbortSignal) =>
    api.post<T>(path, { ...asked, at: new Date(at()).toISOString() }, signal).then((found) => ({ asked, found }))
  /** What all was asked of last. */
  let whole: LayoutDocument | null = null
  const { answer, trouble, ask } = useAnswer<Asked, { asked: Asked; found: Analysis }>(
    () => {
      if (!document.value) return null
      const asked = { document: document.value, variant: variant.value, display: display.value, ...(stress.value ? { stress: stress.value } : {}) }
      return moving.value && analysis.value && document.value !== whole ? { ...asked, light: true } : asked
    },
    async (asked, signal) => {
      if (!asked.light) whole = asked.document
      const { found } = await post<Light | Analysis>('analysis', asked, signal)
      return { asked, found: { ...(asked.light && analysis.value), ...(found as Analysis) } }
    },
    () => (moving.value ? 0 : REST_MS),
  )
  const { answer: cured } = useAnswer(
    () => (answer.value && !answer.value.asked.light && !moving.value && answer.value.asked.document === document.value ? answer.value.asked : null),
    (asked, signal) => post<Found>('cures', asked, signal),
    () => 0,
  )
  watch(
    [answer, cured],
    () => {
      const { asked, found } = answer.value!
      const mine = cured.value?.asked === asked ? cured.value.found : { findings: withCures(found.findings, cured.value?.found.findings ?? []) }
      analysis.value = { ...found, ...mine }
    },
    { flush: 'sync' },
  )
  // Once the hand lets go, nothing is waited for.
  watch(moving, (now) => {
    if (!now && document.value !== whole) ask()
  })

  return { analysis, trouble, ask }
}
