<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useElementVisibility } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { api } from '../ui/api'
import { useSecond } from '../ui/second'
import type { Finding } from '../ui/shelf'
import type { LayoutDocument } from './designs'
import type { Picture } from './style'

/** A template with a sample of what is filled in, on one of its rasters, and what is found there. */
const props = defineProps<{
  document: LayoutDocument
  variant: string | null
  sample: 'nothing' | 'least' | 'longest'
  canvas: { width: number; height: number }
}>()
const box = useTemplateRef('box')
const seen = useElementVisibility(box, { once: true })
const at = useSecond()
const look = useQuery({
  queryKey: ['sample', () => props.document, () => props.variant, () => props.sample],
  enabled: seen,
  queryFn: () => api.post<Picture & { findings: Finding[] }>(`templates/${props.sample}`, { document: props.document, variant: props.variant }),
})
const HIGH = 150
const WIDE = 270
const width = computed(() => Math.min(WIDE, (HIGH * props.canvas.width) / props.canvas.height))
/** What has to be filled in is missing as long as nobody has. */
const found = computed(() => (look.data.value?.findings ?? []).filter((f) => f.code !== 'slot.missing'))
</script>

<template>
  <div ref="box" class="sample" :style="{ width: `${width}px`, aspectRatio: `${canvas.width} / ${canvas.height}` }">
    <PictureNow v-if="look.data.value" :sheet="look.data.value.run_sheet" :media="look.data.value.media" :at="at" />
    <span v-else-if="look.error.value" class="small said-error">{{ look.error.value.message }}</span>
  </div>
  <p v-for="f in found.slice(0, 3)" :key="f.message" class="small m-0 found" :style="{ maxWidth: `${Math.max(180, width)}px` }">{{ f.message }}</p>
</template>

<style scoped>
.sample {
  background: var(--ground);
}
.found {
  color: var(--warning);
}
</style>
