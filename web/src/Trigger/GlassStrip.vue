<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { type Chosen, type LookTriggers, type MapSensor, type Signal, type Triggers, metres, nameOf } from './triggers'

/** The distance from the glass to scale: the bands of a sensor as it numbers them, which signal hears each, how late an edge is left, and how far what is shown can be read. */
const props = defineProps<{
  map: Triggers
  look: LookTriggers
  sensor: MapSensor
  chosen: Chosen | null
  /** Whether whoever looks may change how the sensor counts. */ mayTurn: boolean
}>()
const emit = defineEmits<{ choose: [chosen: Chosen]; bands: [signal: string, bands: number[]]; turn: [] }>()
const room = useTemplateRef('room')
const { width } = useElementSize(room)
const LEFT = 34
const far = computed(() => props.sensor.bands_mm.at(-1) ?? 1000)
const px = (mm: number) => LEFT + (Math.min(mm, far.value * 1.14) / (far.value * 1.14)) * Math.max(10, width.value - LEFT - 8)
const presences = computed(() =>
  props.map.signals.filter((one): one is Signal & { kind: 'presence' } => one.kind === 'presence' && one.sensor === props.sensor.id),
)
const bands = computed(() =>
  props.sensor.bands_mm.map((to, n) => ({
    band: n + 1,
    from: n === 0 ? 0 : props.sensor.bands_mm[n - 1]!,
    to,
    sent: props.sensor.far_first ? props.sensor.bands_mm.length - n : n + 1,
    by: presences.value.filter((one) => one.bands.includes(n + 1)),
  })),
)
const hysteresis = computed(() => props.sensor.hysteresis_mm)
/** How far each state can be read that is entered because somebody is near. */
const reads = computed(() => {
  const near = new Set(presences.value.map(({ id }) => id))
  const entered = new Set(props.map.transitions.filter(({ on }) => near.has(on)).map(({ to }) => to))
  return props.look.states.filter(({ id, reads_to_mm: to }) => to !== null && entered.has(id)).slice(0, 3)
})
const chosenSignal = computed(() => presences.value.find((one) => props.chosen?.is === 'signal' && props.chosen.id === one.id) ?? null)
function press(band: number, by: Signal[]) {
  const signal = chosenSignal.value
  if (!signal) return by[0] && emit('choose', { is: 'signal', id: by[0].id })
  const next = signal.bands.includes(band) ? signal.bands.filter((one) => one !== band) : [...signal.bands, band].sort((a, b) => a - b)
  if (next.length) emit('bands', signal.id, next)
}
const tint = (by: Signal[]) =>
  by.length === 0 ? 'none' : presences.value.indexOf(by[0] as (typeof presences.value)[number]) % 2 === 0 ? 'one' : 'two'
const says = ({ by, from, to, sent }: (typeof bands.value)[number]) =>
  `${metres(from)} to ${metres(to)}, band ${sent} of the sensor: ${by.length ? by.map(nameOf).join(' and ') : 'no signal'}`
</script>

<template>
  <section class="glass" aria-label="From the glass">
    <div class="words">
      <h2>From the glass</h2>
      <span class="figures soft"
        >{{ sensor.id }} counts {{ sensor.far_first ? 'from afar' : 'from the glass'
        }}<button v-if="mayTurn" type="button" class="btn btn-link btn-sm p-0 ms-2" @click="emit('turn')">turn round</button></span
      >
      <span class="figures soft ms-auto">{{
        hysteresis > 0 ? `to scale · a band is left ${hysteresis} mm late, so that nobody flickers at an edge` : 'to scale · a band is left at once'
      }}</span>
    </div>
    <div ref="room" class="room">
      <button
        v-for="one in bands"
        :key="one.band"
        type="button"
        class="band"
        :class="[tint(one.by), { on: chosenSignal?.bands.includes(one.band) }]"
        :style="{ left: `${px(one.from)}px`, width: `${px(one.to) - px(one.from)}px` }"
        :aria-pressed="chosenSignal ? chosenSignal.bands.includes(one.band) : undefined"
        :aria-label="says(one)"
        :title="says(one)"
        @click="press(one.band, one.by)"
      >
        <b>{{ one.sent }}</b> <span v-if="one.by.length" class="by">{{ one.by.map(nameOf).join(', ') }}</span>
      </button>
      <svg :width="width" height="78" aria-hidden="true">
        <defs>
          <pattern id="late" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(20)">
            <path d="M0 0V6" stroke="#fffdf8" stroke-width="2" />
          </pattern>
        </defs>
        <path :d="`M${LEFT} 0V48`" stroke="#17272e" stroke-width="3" />
        <text :x="LEFT - 8" y="26" text-anchor="end">0</text>
        <g v-for="one in bands" :key="one.band">
          <rect
            v-if="hysteresis > 0"
            :x="px(Math.max(0, one.to - hysteresis))"
            y="6"
            :width="px(one.to + hysteresis) - px(Math.max(0, one.to - hysteresis))"
            height="34"
            fill="url(#late)"
          />
          <path :d="`M${px(one.to)} 2V46`" stroke="#52616a" />
          <text :x="px(one.to)" y="58" text-anchor="middle">{{ metres(one.to) }}</text>
        </g>
        <text :x="px(far * 1.02)" y="27" class="soft">nobody</text>
        <g v-for="(one, n) in reads" :key="one.id">
          <path :d="`M${LEFT} ${66 + 5 * n}H${px(one.reads_to_mm!)}`" class="read" :class="`n${n}`" />
        </g>
      </svg>
    </div>
    <p v-if="reads.length" class="figures reads">
      <span v-for="(one, n) in reads" :key="one.id" :class="`n${n}`">“{{ one.id }}” can be read to {{ metres(one.reads_to_mm!) }}</span>
    </p>
  </section>
</template>

<style scoped>
.glass {
  padding: 6px 16px 4px;
  border-bottom: 1px solid var(--ink);
}
.words {
  display: flex;
  align-items: baseline;
  gap: 12px;
}
h2 {
  font-size: 0.9375rem;
}
.room {
  position: relative;
  height: 78px;
}
svg {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
text {
  font-family: var(--figures);
  font-size: 0.8125rem;
  fill: var(--soft);
}
.band {
  position: absolute;
  top: 6px;
  height: 34px;
  border: 0;
  border-radius: 0;
  padding: 0 4px;
  color: var(--sheet);
  overflow: hidden;
  white-space: nowrap;
  font-size: 0.875rem;
}
.band.one {
  background: #14665b;
}
.band.two {
  background: #2f5d8a;
}
.band.none {
  background: none;
  border: 1px dashed var(--warning);
  color: var(--warning);
}
.band.on {
  box-shadow: inset 0 -5px 0 var(--ink);
}
.band:focus-visible {
  z-index: 1;
}
.by {
  font-size: 0.8125rem;
}
.read {
  stroke-width: 3;
}
.read.n0 {
  stroke: #14665b;
}
.read.n1 {
  stroke: #2f5d8a;
}
.read.n2 {
  stroke: #52616a;
}
.reads {
  display: flex;
  gap: 22px;
  margin: 2px 0 0;
}
.reads .n0 {
  color: #14665b;
}
.reads .n1 {
  color: #2f5d8a;
}
.reads .n2 {
  color: #52616a;
}
</style>
