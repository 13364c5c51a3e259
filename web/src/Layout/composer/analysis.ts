import { type Ref, ref, shallowRef, watch } from 'vue'
import { api, sentence } from '../../ui/api'
import type { Analysis, LayoutDocument } from '../designs'

const BREATH_MS = 120

/** What the core says of the document as it stands; asked again after every change, the newest answer holds. */
export function useAnalysis(document: Ref<LayoutDocument | null>, display: Ref<string | null>) {
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
      analysis.value = await api.post<Analysis>('analysis', { document: document.value, display: display.value })
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

  return { analysis, trouble, ask }
}
