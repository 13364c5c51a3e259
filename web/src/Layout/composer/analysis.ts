import { type Ref, ref, shallowRef, watch } from 'vue'
import { api, sentence } from '../../ui/api'
import type { Finding } from '../../ui/shelf'
import type { Analysis, LayoutDocument } from '../designs'

type Light = Omit<Analysis, 'run_sheet' | 'media' | 'loops' | 'playing' | 'meets_every_ms'>

const BREATH_MS = 120

type Found = Pick<Analysis, 'findings' | 'stops' | 'warnings' | 'hints'>
const matterOf = (f: Finding) => [f.code, f.message, ...f.elements].join('\n')

/** Findings that were there before keep the cure that they had, until cures have been tried anew. */
function withCures(findings: Finding[], before: Finding[]): Finding[] {
  const cures = new Map(before.flatMap((f) => (f.fix ? [[matterOf(f), f.fix]] : [])))
  return cures.size === 0 ? findings : findings.map((f) => (cures.has(matterOf(f)) ? { ...f, fix: cures.get(matterOf(f))! } : f))
}

/**
 * What the core says of the document as it stands; asked again after every change, the newest answer holds. Cures, which it tries before it
 * offers them, are asked for once it has answered and the hand rests.
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
) {
  const analysis = shallowRef<Analysis | null>(null)
  const trouble = ref('')
  let running = false
  let again = false
  let turn = 0

  async function ask() {
    if (!document.value) return
    if (running) {
      again = true
      return
    }
    running = true
    const mine = ++turn
    try {
      const asked = { document: document.value, variant: variant.value, display: display.value, at: new Date(at()).toISOString() }
      const answer =
        moving.value && analysis.value
          ? { ...analysis.value, ...(await api.post<Light>('analysis', { ...asked, light: true })) }
          : await api.post<Analysis>('analysis', asked)
      if (mine !== turn) return
      analysis.value = { ...answer, findings: withCures(answer.findings, analysis.value?.findings ?? []) }
      trouble.value = ''
      if (!moving.value && !again) void cure(mine, asked)
    } catch (e) {
      if (mine === turn) trouble.value = sentence(e)
    } finally {
      if (mine === turn) running = false
      if (mine === turn && again) {
        again = false
        // A hand that drags asks at every frame: a breath between two answers leaves the machine free for drawing.
        setTimeout(() => void ask(), BREATH_MS)
      }
    }
  }
  async function cure(mine: number, asked: object) {
    const found = await api.post<Found>('cures', asked).catch(() => null)
    if (found && mine === turn && analysis.value) analysis.value = { ...analysis.value, ...found }
  }
  watch([document, variant, display], ask, { immediate: true })
  // Once the hand lets go, what is on its way is out of date: it is not waited for.
  watch(moving, (now) => {
    if (now) return
    running = again = false
    turn++
    void ask()
  })

  return { analysis, trouble, ask }
}
