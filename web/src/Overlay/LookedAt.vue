<script setup lang="ts">
import { computed, ref } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { moment, size } from '../ui/format'
import { useSecond } from '../ui/second'
import type { LookAbove } from './overlays'

/** An overlay on those of its displays that differ most, to one scale in mm, above what will really play: at the worst moment where it covers something. */
const props = defineProps<{
  look: LookAbove
  /** Px that the widest of them may take. */ widthPx: number
  /** Where it may lie, row by row; none where it lies over the whole. */ places?: readonly (readonly string[])[]
}>()
const emit = defineEmits<{ display: [id: string]; place: [place: string] }>()
const now = useSecond()
/** What lies under it is framed. */
const covers = (one: LookAbove['looks'][number]) =>
  one.findings.filter((f) => f.rect && ['overlay.covers', 'overlay.crowded', 'seam.crossed'].includes(f.code))
const worst = (findings: LookAbove['looks'][number]['findings']) => findings.some((one) => one.code === 'overlay.covers')
const at = (one: LookAbove['looks'][number]) => {
  const told = Date.parse(one.at)
  return worst(one.findings) || told > now.value ? told : now.value
}
/** To one scale, unless that leaves one too small to be seen. */
const widths = computed(() => {
  const mm = props.look.looks.map((one) => one.display.active_mm.width)
  const whole = mm.reduce((sum, one) => sum + one, 0)
  const room = props.widthPx - 20 * Math.max(0, mm.length - 1)
  return props.look.looks.map((one, n) => {
    const own = (room * mm[n]!) / whole
    const portrait = one.display.raster.height > one.display.raster.width
    return Math.round(Math.max(portrait ? 120 : 190, Math.min(own, portrait ? 220 : 460)))
  })
})
const zone = (timezone: string) => timezone.split('/').pop()!.replaceAll('_', ' ')

// --- put by hand: dragged over the picture, it goes to the place that is nearest -------------------

const over = ref<{ id: string; place: string } | null>(null)
function placeAt(event: PointerEvent, one: LookAbove['looks'][number]): string {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const cell = (at: number, of: number, count: number) => Math.min(count - 1, Math.max(0, Math.floor((at / of) * count)))
  const rows = props.places!
  const row = rows[cell(event.clientY - box.top, box.height, rows.length)]!
  return row[cell(event.clientX - box.left, box.width, row.length)] ?? one.display.id
}
let began: { x: number; y: number } | null = null
function take(event: PointerEvent) {
  began = { x: event.clientX, y: event.clientY }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent, one: LookAbove['looks'][number]) {
  if (!began || !props.places || Math.hypot(event.clientX - began.x, event.clientY - began.y) < 6) return
  over.value = { id: one.display.id, place: placeAt(event, one) }
}
function put() {
  if (over.value) emit('place', over.value.place)
  over.value = began = null
}
const cellOf = (place: string) => {
  const rows = props.places ?? []
  const y = rows.findIndex((row) => row.includes(place))
  const x = rows[y]?.indexOf(place) ?? 0
  const [w, h] = [100 / (rows[y]?.length ?? 1), 100 / rows.length]
  return { left: `${x * w}%`, top: `${y * h}%`, width: `${w}%`, height: `${h}%` }
}
</script>

<template>
  <div class="looks">
    <figure v-for="(one, n) in look.looks" :key="one.display.id" :style="{ width: `${widths[n]}px` }">
      <button
        type="button"
        class="picture"
        :aria-label="`${one.display.name}: measure on this display`"
        @click="emit('display', one.display.id)"
        @pointerdown="take"
        @pointermove="move($event, one)"
        @pointerup="put"
        @pointercancel="over = null"
        @keydown.esc="over = null"
      >
        <PictureNow :sheet="one.picture.run_sheet" :media="one.picture.media" :at="at(one)" :raster="one.display.raster" playing />
        <svg v-if="covers(one).length" :viewBox="`0 0 ${one.display.raster.width} ${one.display.raster.height}`" aria-hidden="true">
          <rect v-for="f in covers(one)" :key="f.message" v-bind="f.rect" />
        </svg>
        <span v-if="over?.id === one.display.id" class="cell" :style="cellOf(over.place)" aria-hidden="true"></span>
      </button>
      <figcaption>
        <b>{{ one.display.name }}</b>
        <span class="figures small soft">{{ size(one.display.raster) }} px</span>
        <span class="small soft figures">{{ moment(new Date(at(one)).toISOString(), one.display.timezone) }} {{ zone(one.display.timezone) }}</span>
        <span v-if="worst(one.findings)" class="small">the worst moment of the next day</span>
        <span v-else-if="one.from === null" class="small warn">not shown in the next eight weeks</span>
        <span v-else-if="Date.parse(one.from) > now" class="small">when it begins next</span>
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: 20px;
  align-items: flex-end;
}
figure {
  margin: 0;
}
figure svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
figure rect {
  fill: none;
  stroke: var(--stop);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.picture {
  position: relative;
  display: block;
  width: 100%;
  padding: 0;
  border: 2px solid var(--ink);
  background: none;
}
.picture {
  touch-action: none;
}
.cell {
  position: absolute;
  outline: 2px solid var(--kelp);
  background: rgb(20 102 91 / 22%);
}
figcaption {
  display: grid;
  line-height: 1.35;
  padding-top: 4px;
}
.warn {
  color: var(--warning);
}
</style>
