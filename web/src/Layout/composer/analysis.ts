import { type Ref, ref, shallowRef, watch } from 'vue'
import { api, sentence } from '../../ui/api'
import type { Analysis, LayoutDocument } from '../designs'

type Light = Omit<Analysis, 'run_sheet' | 'media' | 'loops' | 'meets_every_ms'>

const BREATH_MS = 120

/**
 * What the core says of the document as it stands; asked again after every change, the newest answer holds.
 *
 * @param moving as long as a hand moves things about, timing and pictures stay as they are and are not asked for
 */
export function useAnalysis(document: Ref<LayoutDocument | null>, display: Ref<string | null>, moving: Ref<boolean>) {
  const analysis = shallowRef<Analysis | null>(null)
  const trouble = ref('')
  let running = false
  let again = false

  async function ask() {
    if (!document.value) return
    if (running) {
      again = true
      return
    }
    running = true
    try {
      const asked = { document: document.value, display: display.value }
      analysis.value =
        moving.value && analysis.value
          ? { ...analysis.value, ...(await api.post<Light>('analysis', { ...asked, light: true })) }
          : await api.post<Analysis>('analysis', asked)
      trouble.value = ''
    } catch (e) {
      trouble.value = sentence(e)
    } finally {
      running = false
      if (again) {
        again = false
        // A hand that drags asks at every frame: a breath between two answers leaves the machine free for drawing.
        setTimeout(ask, BREATH_MS)
      }
    }
  }
  watch([document, display], ask, { immediate: true })
  watch(moving, (now) => !now && ask())

  return { analysis, trouble, ask }
}
