<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watchEffect } from 'vue'
import PictureNow from '../../pane/PictureNow.vue'
import { useAnswer } from '../../ui/answer'
import { api } from '../../ui/api'
import ChoiceBar from '../../ui/ChoiceBar.vue'
import type { Rect } from '../../ui/shelf'
import type { Analysis } from '../designs'
import { useComposer } from './composer'
import { useHand } from './hand'

/** The layout as its viewers see it: as large as it looks from where they stand, or with the contrast of its words drawn over it. */
const props = defineProps<{ analysis: Analysis; display: string | null; displayName: string }>()
const emit = defineEmits<{ close: [] }>()
const composer = useComposer()
const { at } = useHand()

type Level = 'enough' | 'nearly' | 'lost'
interface Seen {
  from: { distance_mm: number; width_px: number; height_px: number }[]
  texts: {
    element: string
    text: string
    arcmin: number | null
    verdict: 'comfortable' | 'limit' | 'unreadable' | null
    needed: number
    ratio: number | null
    over: string | null
    level: Level | null
    cells: (Rect & { level: Level })[]
  }[]
}
const { answer: seen, trouble } = useAnswer(
  () => ({ document: composer.whole.value, variant: composer.variant.value, display: props.display }),
  (asked, signal) => api.post<Seen>('as-seen', asked, signal),
)
const view = ref<'row' | 'map'>('row')
watchEffect(() => {
  if (seen.value && seen.value.from.length === 0) view.value = 'map'
})
const step = ref('0')
const place = computed(() => seen.value?.from[Number(step.value)] ?? seen.value?.from[0] ?? null)
const metres = (mm: number) => `${(mm / 1000).toFixed(1)} m`
const places = computed(() =>
  Object.fromEntries((seen.value?.from ?? []).map((f, i) => [String(i), `${['back row', 'halfway', 'front row'][i]}, ${metres(f.distance_mm)}`])),
)

const stand = useTemplateRef('stand')
const { width, height } = useElementSize(stand)
const canvas = computed(() => props.analysis.run_sheet.canvas)
const fit = computed(() => Math.max(0.01, Math.min((width.value - 40) / canvas.value.width, (height.value - 40) / canvas.value.height)))
const drawn = computed(() => (view.value === 'row' && place.value ? place.value.width_px : canvas.value.width * fit.value))
const WORDS = { comfortable: 'comfortable', limit: 'at the limit', unreadable: 'unreadable' }
</script>

<template>
  <section class="as-seen" aria-label="As viewers see it">
    <div class="seen-bar">
      <ChoiceBar v-model="view" label="What is drawn" :words="{ ...(seen?.from.length ? { row: 'from the back row' } : {}), map: 'contrast map' }" />
      <ChoiceBar v-if="view === 'row' && seen?.from.length" v-model="step" label="Where the viewer stands" :words="places" />
      <BButton class="ms-auto" size="sm" variant="outline-dark" @click="emit('close')">Back to the pane</BButton>
    </div>
    <div ref="stand" class="stand">
      <div v-if="seen" class="picture" :class="{ map: view === 'map' }" :style="{ width: `${drawn}px` }">
        <PictureNow :sheet="analysis.run_sheet" :media="analysis.media" :at="at" />
        <svg v-if="view === 'map'" :viewBox="`0 0 ${canvas.width} ${canvas.height}`" role="img" aria-label="Contrast of the words">
          <g v-for="t in seen.texts" :key="t.element">
            <rect
              v-for="(c, i) in t.cells"
              :key="i"
              :class="c.level"
              :x="c.x + c.width * 0.08"
              :y="c.y + c.height * 0.08"
              :width="c.width * 0.84"
              :height="c.height * 0.84"
            />
          </g>
        </svg>
      </div>
    </div>
    <div class="told">
      <p v-if="trouble" class="said-error m-0">{{ trouble }}</p>
      <p v-else-if="view === 'row' && place" class="m-0">
        As large as {{ displayName }} looks from {{ metres(place.distance_mm) }}, when this screen is at arm's length (71 cm) and shows a page at 100
        %.
      </p>
      <p v-else class="m-0 key">
        <span class="enough"></span> stands out enough <span class="nearly"></span> nearly <span class="lost"></span> lost; each text over the worst
        that plays under it
      </p>
      <table v-if="seen?.texts.length" class="figures">
        <thead>
          <tr>
            <th scope="col">text</th>
            <th v-if="seen.from.length" scope="col">from the back row</th>
            <th scope="col">contrast</th>
            <th scope="col">over</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="t in seen.texts" :key="t.element" :class="{ on: composer.chosen.value.has(t.element) }">
            <th scope="row">
              <button type="button" @click="composer.choose([t.element])">{{ t.element }}</button>
            </th>
            <td v-if="seen.from.length" :class="t.verdict">{{ t.arcmin?.toFixed(1) }}′ {{ t.verdict ? WORDS[t.verdict] : '' }}</td>
            <td :class="t.level">
              {{ t.ratio === null ? 'not known' : `${t.ratio.toFixed(1)} of ${t.needed}` }}
            </td>
            <td>{{ t.over ?? (t.ratio === null ? 'a layout, or what nobody looked at' : 'its ground') }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="seen" class="m-0 soft">There are no words on this layout.</p>
    </div>
  </section>
</template>

<style scoped>
.as-seen {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  min-width: 0;
}
.seen-bar {
  display: flex;
  gap: 12px;
  padding: 4px 10px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.stand {
  background: var(--ground);
  display: grid;
  place-items: center;
  overflow: auto;
  min-height: 0;
}
.picture {
  position: relative;
}
.picture.map :deep(.picture-now) {
  filter: grayscale(0.6) brightness(0.85);
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
svg .enough {
  fill: none;
  stroke: #ffffff;
  stroke-opacity: 0.25;
  vector-effect: non-scaling-stroke;
}
svg .nearly {
  fill: #f2b33d;
  fill-opacity: 0.75;
}
svg .lost {
  fill: #d3353b;
  fill-opacity: 0.8;
}
.told {
  background: var(--sheet);
  border-top: 1px solid var(--rule);
  padding: 8px 14px;
  font-size: 0.875rem;
  max-height: 190px;
  overflow: auto;
}
table {
  margin-top: 6px;
}
thead th {
  font-weight: 400;
  color: var(--soft);
  padding-right: 18px;
}
td,
tbody th {
  padding: 1px 18px 1px 0;
  font-weight: 400;
}
tbody th button {
  border: 0;
  background: none;
  padding: 0;
  color: var(--chalk);
  text-decoration: underline;
}
tr.on {
  background: var(--kelp-wash);
}
td.unreadable,
td.lost {
  color: var(--stop);
  font-weight: 700;
}
td.limit,
td.nearly {
  color: var(--warning);
  font-weight: 700;
}
.key span {
  display: inline-block;
  width: 11px;
  height: 11px;
  border: 1px solid var(--soft);
  margin-left: 12px;
}
.key span:first-child {
  margin-left: 0;
}
.key .nearly {
  background: #f2b33d;
}
.key .lost {
  background: #d3353b;
}
</style>
