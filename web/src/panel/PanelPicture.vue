<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { loadFaces } from '../pane/faces'
import { type Manifest, type Sheet, type WholeRelease, identified, isManifest, sheetsOf, together } from '../pane/release'
import type { RunSheet } from '../pane/sheet'
import { put } from '../player/answered'
import type { Shown } from './panel'

/** What stands on a display now: what was handed over, and what its player says that it answered. */
const props = defineProps<{ shown: Shown }>()
interface Seen {
  sheet: RunSheet
  media: Record<string, { url: string; type: string }>
  target: { x: number; y: number; width: number; height: number }
}
const seen = shallowRef<Seen | null>(null)
const trouble = ref('')
const now = ref(Date.now())
const read = async <T,>(url: string): Promise<T> => {
  const answer = await fetch(url)
  if (!answer.ok) throw new Error('What was handed over cannot be read.')
  return (await answer.json()) as T
}
watch(
  () => props.shown.release?.url,
  async (url) => {
    if (!url) return (seen.value = null)
    try {
      const file = await read<WholeRelease | Manifest>(url)
      void loadFaces(file.faces)
      const sheet = isManifest(file)
        ? together(file.planes, await sheetsOf(file.planes, (one) => read<Sheet>(one.url)), Date.now()).sheet
        : identified(file.run_sheet)
      const media = Object.fromEntries(file.media.map((one) => [one.id, { url: one.url, type: one.type }]))
      if (url === props.shown.release?.url) seen.value = { sheet, media, target: file.match.target }
      trouble.value = ''
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : 'It cannot be drawn.'
    }
  },
  { immediate: true },
)
/** What its player answered lies where the player has it. */
const answered = computed(() => JSON.stringify(props.shown.answers))
const sheet = computed(() => {
  if (!seen.value) return null
  const own = structuredClone(seen.value.sheet)
  const entered = (JSON.parse(answered.value) as Shown['answers']).map(
    ({ map, state, why, since }) => [map, { at: Date.parse(since), state, why, row: null }] as const,
  )
  put(own, new Map(entered))
  return own
})
let ticking: ReturnType<typeof setInterval> | undefined
onMounted(() => (ticking = setInterval(() => (now.value = Date.now()), 1000)))
onBeforeUnmount(() => clearInterval(ticking))
</script>

<template>
  <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  <PictureNow v-else-if="sheet && seen" :key="answered" :sheet="sheet" :media="seen.media" :at="now" :raster="shown.raster" :target="seen.target" />
</template>
