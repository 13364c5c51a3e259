<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { MapSensor } from '../formats/run-sheet'
import { metres } from '../Trigger/triggers'
import { useDrag } from '../ui/drag'

/** Somebody before a display, to scale: moved by hand or by keys, and where the sensor takes them to be. */
const props = defineProps<{ sensor: MapSensor; /** The last readings, mm; null where it saw nobody. */ read: (number | null)[] }>()
/** Where somebody stands, mm from the glass; null for nobody. */
const mm = defineModel<number | null>({ required: true })
const HIGH = 132
const LEFT = 46
const room = useTemplateRef('room')
const { width } = useElementSize(room)
const far = computed(() => (props.sensor.bands_mm.at(-1) ?? 3000) * 1.25)
const scale = computed(() => Math.max(0.001, (width.value - LEFT - 20) / far.value))
const px = (one: number) => LEFT + Math.min(one, far.value) * scale.value
const bands = computed(() =>
  props.sensor.bands_mm.map((to, n) => ({
    from: n === 0 ? 0 : props.sensor.bands_mm[n - 1]!,
    to,
    sent: props.sensor.far_first ? props.sensor.bands_mm.length - n : n + 1,
  })),
)
const MAN_MM = 1750
/** As tall as it fits; to the scale of the distance where there is room. */
const tall = computed(() => Math.min(88, MAN_MM * scale.value))

/** Where there is no room beside it to the right. */
const isFar = computed(() => mm.value !== null && px(mm.value) > width.value - 100)

const { drag } = useDrag(0)
const to = (at: number) => (mm.value = at > far.value ? null : Math.max(0, Math.round(at)))
function take(event: PointerEvent) {
  event.preventDefault()
  room.value!.focus()
  const left = room.value!.getBoundingClientRect().left
  const move = (e: PointerEvent) => to((e.clientX - left - LEFT) / scale.value)
  const before = mm.value
  move(event)
  drag(event, { move, revert: () => (mm.value = before) })
}
function keys(event: KeyboardEvent) {
  const step = event.shiftKey ? 500 : 100
  const here = mm.value ?? far.value
  const next = { ArrowLeft: here - step, ArrowDown: here - step, ArrowRight: here + step, ArrowUp: here + step, Home: 0 }[event.key]
  if (next === undefined && event.key !== 'End') return
  event.preventDefault()
  if (next === undefined) mm.value = null
  else to(next)
}
</script>

<template>
  <div
    ref="room"
    class="room"
    role="slider"
    tabindex="0"
    aria-label="Where somebody stands"
    aria-valuemin="0"
    :aria-valuemax="Math.round(far)"
    :aria-valuenow="Math.round(mm ?? far)"
    :aria-valuetext="mm === null ? 'nobody' : `${metres(mm)} from the glass`"
    @pointerdown="take"
    @keydown="keys"
  >
    <svg :width="width" :height="HIGH" aria-hidden="true">
      <g v-for="(one, n) in bands" :key="n">
        <rect :x="px(one.from)" y="8" :width="px(one.to) - px(one.from)" height="92" :class="n % 2 ? 'even' : 'odd'" />
        <text :x="(px(one.from) + px(one.to)) / 2" y="24" text-anchor="middle">{{ one.sent }}</text>
        <path :d="`M${px(one.to)} 8V104`" class="edge" />
        <text :x="px(one.to)" y="120" text-anchor="middle">{{ metres(one.to) }}</text>
      </g>
      <path :d="`M${LEFT} 4V104`" class="glass" />
      <text :x="LEFT" y="120" text-anchor="middle">glass</text>
      <path d="M0 100.5H10000" class="floor" />
      <template v-for="(one, n) in read" :key="n">
        <path v-if="one !== null" :d="`M${px(one)} ${94 - 2 * (n % 3)}v7`" class="read" />
      </template>
      <g v-if="mm !== null" :transform="`translate(${px(mm)} 100)`" class="man">
        <circle :cy="-tall * 0.92" :r="tall * 0.075" />
        <path
          :d="`M0 ${-tall * 0.83}L${tall * 0.1} ${-tall * 0.78}L${tall * 0.09} ${-tall * 0.45}L${tall * 0.06} 0H${-tall * 0.06}L${-tall * 0.09} ${-tall * 0.45}L${-tall * 0.1} ${-tall * 0.78}Z`"
        />
      </g>
      <text v-if="mm !== null" :x="px(mm) + (isFar ? -1 : 1) * (tall * 0.13 + 4)" y="44" :text-anchor="isFar ? 'end' : 'start'" class="where">
        {{ metres(mm) }}
      </text>
      <text v-else :x="width - 12" y="60" text-anchor="end" class="where">nobody</text>
    </svg>
  </div>
</template>

<style scoped>
.room {
  height: 132px;
  touch-action: none;
  cursor: ew-resize;
  overflow: hidden;
}
svg {
  display: block;
}
text {
  font-family: var(--figures);
  font-size: 0.8125rem;
  fill: var(--soft);
}
text.where {
  font-size: 0.9375rem;
  fill: var(--ink);
}
.odd {
  fill: #dde8e2;
}
.even {
  fill: #edf0e8;
}
.edge,
.floor {
  stroke: var(--soft);
  fill: none;
}
.edge {
  stroke-dasharray: 2 3;
}
.glass {
  stroke: var(--ink);
  stroke-width: 4;
}
.man {
  fill: var(--ink);
}
.read {
  stroke: var(--chalk);
  stroke-width: 2;
}
</style>
