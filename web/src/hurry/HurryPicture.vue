<script setup lang="ts">
import { nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { type Face, loadFaces } from '../pane/faces'
import type { RunSheet } from '../pane/sheet'
import { ask } from './server'

/** How it would look, on those of its displays that differ most, above what plays there now. */
const props = defineProps<{ /** The kind, and what would be sent, as JSON. */ asked: string }>()
interface Look {
  display: { id: string; name: string; raster: { width: number; height: number } }
  picture: { run_sheet: RunSheet; media: Record<string, { url: string; thumbnail: string | null; type: string }> }
  findings: { code: string; message: string }[]
}
const looks = ref<Look[]>([])
const trouble = ref('')
const drawn = useTemplateRef<HTMLElement[]>('drawn')
const now = ref(Date.now())
watch(
  () => props.asked,
  async (asked) => {
    const [kind, body] = JSON.parse(asked) as ['notice' | 'takeover', Record<string, unknown>]
    try {
      const { faces } = await ask<{ faces: Face[] }>('GET', 'faces')
      void loadFaces(faces)
      looks.value = (await ask<{ looks: Look[] }>('POST', `${kind}s/look`, body)).looks
      trouble.value = ''
      // It stands below what was pressed, often below the edge of a telephone.
      await nextTick()
      drawn.value?.[0]?.scrollIntoView({ block: 'nearest' })
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : 'It cannot be drawn.'
    }
  },
  { immediate: true },
)
let ticking: ReturnType<typeof setInterval> | undefined
onMounted(() => (ticking = setInterval(() => (now.value = Date.now()), 1000)))
onBeforeUnmount(() => clearInterval(ticking))
</script>

<template>
  <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  <figure v-for="one in looks" ref="drawn" :key="one.display.id" :class="{ upright: one.display.raster.height > one.display.raster.width }">
    <PictureNow :sheet="one.picture.run_sheet" :media="one.picture.media" :at="now" :raster="one.display.raster" playing />
    <figcaption>
      <b>{{ one.display.name }}</b>
      <span v-for="f in one.findings" :key="f.message">{{ f.message.replaceAll('"looked-at"', 'It') }}</span>
    </figcaption>
  </figure>
</template>
