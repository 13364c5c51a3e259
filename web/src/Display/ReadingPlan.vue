<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { type Reading, type SensorDocument, metres } from './survey'

/** The floor before a display, from above or from the side, to scale: from where what is on it can be read. */
const props = defineProps<{ reading: Reading; side: boolean; sensors: SensorDocument[] }>()
const room = useTemplateRef('room')
const { width, height } = useElementSize(room)
const M = { left: 96, right: 40, top: 62, bottom: 52 }

const half = computed(() => props.reading.size_mm.width / 2)
const limit = computed(() => props.reading.text?.limit_to_mm ?? 0)
const far = computed(
  () => Math.max(props.reading.viewing.farthest_mm, Math.min(limit.value, props.reading.viewing.farthest_mm * 1.6), ...reaches.value) * 1.08,
)
/** Sensors that tell distances: where they hang, and the far edge of each band with the number that it is called by. */
const presences = computed(() =>
  props.sensors
    .filter(({ kind, bands_mm: bands }) => kind === 'presence' && bands?.length)
    .map(({ id, bands_mm: bands = [], at_mm: at, numbering }) => ({
      id,
      at: at ?? { x: 0, y: 0 },
      bands: bands.map((to, n) => ({ to, from: bands[n - 1] ?? 0, sent: numbering === 'far-first' ? bands.length - n : n + 1 })),
    })),
)
const reaches = computed(() => presences.value.map(({ bands }) => bands.at(-1)!.to))
/** As far as that before a sensor, to both sides as wide as the display can be used. */
const band = (mm: number, across: number) => {
  const a = rad(props.reading.usable_angle)
  const [dx, dy, r] = [mm * Math.cos(a), mm * Math.sin(a), mm * scale.value]
  return `M${x(dx)} ${y(-across - dy)} A${r} ${r} 0 0 1 ${x(dx)} ${y(-across + dy)}`
}
const rad = (deg: number) => (deg * Math.PI) / 180
const reach = computed(() => {
  const spread = Math.min(far.value, far.value * Math.sin(rad(props.reading.usable_angle)) + half.value)
  return props.side
    ? Math.max(props.reading.viewing.centre_height_mm + props.reading.size_mm.height / 2, props.reading.viewing.eye_height_mm) * 1.12
    : spread * 2
})
const scale = computed(() => Math.max(1e-5, Math.min((width.value - M.left - M.right) / far.value, (height.value - M.top - M.bottom) / reach.value)))
const x = (mm: number) => M.left + Math.max(0, (width.value - M.left - M.right - far.value * scale.value) / 2) + mm * scale.value
/** From above the middle of the display is 0; from the side the floor is. */
const y = (mm: number) =>
  props.side
    ? height.value - M.bottom - Math.max(0, (height.value - M.top - M.bottom - reach.value * scale.value) / 2) - mm * scale.value
    : M.top + (height.value - M.top - M.bottom) / 2 + mm * scale.value

/** The floor within the usable angle of both ends of the display and so far from its middle: exactly, as an arc about the middle. */
const sector = (mm: number) => {
  const a = rad(props.reading.usable_angle)
  const under = mm ** 2 - (half.value * Math.cos(a)) ** 2
  const along = under > 0 ? Math.max(0, Math.sqrt(under) - half.value * Math.sin(a)) : 0
  const ends = along > 0 ? { x: along * Math.cos(a), y: half.value + along * Math.sin(a) } : { x: 0, y: Math.min(mm, half.value) }
  const r = mm * scale.value
  return `M${x(0)} ${y(-Math.min(half.value, ends.y))} L${x(ends.x)} ${y(-ends.y)} A${r} ${r} 0 0 1 ${x(ends.x)} ${y(ends.y)} L${x(0)} ${y(Math.min(half.value, ends.y))} Z`
}
const v = computed(() => props.reading.viewing)
const middle = computed(() => v.value.centre_height_mm)
const ticks = computed(() => {
  const step = [500, 1000, 2000, 5000, 10_000, 20_000, 50_000].find((s) => s * scale.value >= 60) ?? 100_000
  return Array.from({ length: Math.floor(far.value / step) + 1 }, (_, i) => i * step)
})
const inside = (mm: number) => Math.min(mm, far.value)
</script>

<template>
  <div ref="room" class="room">
    <svg
      v-if="width"
      :width="width"
      :height="height"
      role="img"
      :aria-label="side ? 'The display from the side' : 'The floor before the display, from above'"
    >
      <template v-if="!side">
        <path :d="sector(inside(far))" class="unreadable" />
        <template v-if="reading.text">
          <path :d="sector(inside(reading.text.limit_to_mm))" class="limit" />
          <path :d="sector(inside(reading.text.comfortable_to_mm))" class="good" />
        </template>
        <path :d="sector(v.farthest_mm)" class="range" />
        <path :d="sector(v.nearest_mm)" class="range near" />
        <line class="display" :x1="x(0)" :x2="x(0)" :y1="y(-half)" :y2="y(half)" />
        <line class="axis" :x1="x(0)" :x2="x(far)" :y1="y(0)" :y2="y(0)" />
        <text :x="x(0) - 8" :y="y(0) + 4" text-anchor="end">{{ metres(reading.size_mm.width, 2) }}</text>
        <g v-for="one in presences" :key="one.id" class="presence">
          <circle :cx="x(0)" :cy="y(-one.at.x)" r="4" />
          <template v-for="b in one.bands" :key="b.sent">
            <path :d="band(b.to, one.at.x)" />
            <g :transform="`translate(${x((b.from + b.to) / 2)} ${y(-one.at.x) - 12})`">
              <rect x="-9" y="-13" width="18" height="17" class="plate" />
              <text text-anchor="middle">{{ b.sent }}</text>
            </g>
          </template>
        </g>
      </template>
      <template v-else>
        <rect v-if="reading.text" class="unreadable" :x="x(0)" :y="y(v.eye_height_mm) - 5" :width="far * scale" height="10" />
        <template v-if="reading.text">
          <rect class="limit" :x="x(0)" :y="y(v.eye_height_mm) - 5" :width="inside(reading.text.limit_to_mm) * scale" height="10" />
          <rect class="good" :x="x(0)" :y="y(v.eye_height_mm) - 5" :width="inside(reading.text.comfortable_to_mm) * scale" height="10" />
        </template>
        <line class="floor" :x1="x(0) - 20" :x2="x(far)" :y1="y(0)" :y2="y(0)" />
        <line class="display" :x1="x(0)" :x2="x(0)" :y1="y(middle - reading.size_mm.height / 2)" :y2="y(middle + reading.size_mm.height / 2)" />
        <g v-for="mm in [v.nearest_mm, v.farthest_mm]" :key="mm">
          <line class="sight" :x1="x(mm)" :y1="y(v.eye_height_mm)" :x2="x(0)" :y2="y(middle)" />
          <line class="viewer" :x1="x(mm)" :x2="x(mm)" :y1="y(0)" :y2="y(v.eye_height_mm)" />
          <circle class="eye" :cx="x(mm)" :cy="y(v.eye_height_mm)" r="5" />
        </g>
        <text :x="x(0) - 8" :y="y(middle) + 4" text-anchor="end">{{ metres(middle, 2) }}</text>
        <g v-for="one in presences" :key="one.id" class="presence">
          <circle :cx="x(0)" :cy="y(middle - one.at.y)" r="4" />
          <path v-for="b in one.bands" :key="b.sent" :d="`M${x(b.to)} ${y(0)}V${y(v.eye_height_mm) + 8}`" />
          <g v-for="b in one.bands" :key="b.sent" :transform="`translate(${x((b.from + b.to) / 2)} ${y(0) - 6})`">
            <rect x="-9" y="-13" width="18" height="17" class="plate" />
            <text text-anchor="middle">{{ b.sent }}</text>
          </g>
        </g>
        <text :x="x(v.nearest_mm) + 8" :y="y(v.eye_height_mm) - 12">
          eyes at {{ metres(v.eye_height_mm, 2) }}, {{ Math.abs(reading.slant_at_nearest).toFixed(0) }}°
          {{ reading.slant_at_nearest >= 0 ? 'up' : 'down' }} from the nearest
          <template v-if="Math.abs(reading.slant_at_nearest) > reading.easy_slant">
            : more than {{ reading.easy_slant }}°, the head goes with it; easy from {{ metres(reading.easy_from_mm) }}
          </template>
        </text>
      </template>
      <g v-for="t in ticks" :key="t" class="tick">
        <line :x1="x(t)" :x2="x(t)" :y1="height - M.bottom + 8" :y2="height - M.bottom + 14" />
        <text :x="x(t)" :y="height - M.bottom + 30" text-anchor="middle">{{ t / 1000 }} m</text>
      </g>
      <g
        v-for="[mm, word] in [
          [v.nearest_mm, 'nearest'],
          [v.farthest_mm, 'farthest'],
        ] as const"
        :key="word"
      >
        <g v-if="!side" :transform="`translate(${x(mm)} ${y(0)})`">
          <rect x="-4" y="6" width="70" height="17" class="plate" />
          <text y="19">{{ word }}</text>
        </g>
      </g>
    </svg>
    <p class="key">
      <template v-if="reading.text">
        <span><i class="good"></i>comfortable, to {{ metres(reading.text.comfortable_to_mm) }}</span>
        <span><i class="limit"></i>at the limit, to {{ metres(reading.text.limit_to_mm) }}</span>
        <span><i class="unreadable"></i>unreadable</span>
      </template>
      <span v-else>Choose a layout or type the height of a capital below.</span>
      <span v-if="reading.led" class="figures"
        >LED pitch {{ reading.led.pitch_mm }} mm: comfortable from {{ metres(reading.led.comfortable_from_mm) }}, pixels merge at
        {{ metres(reading.led.merges_at_mm) }}</span
      >
      <span v-for="one in presences" :key="one.id" class="figures"
        ><i class="presence"></i>bands of {{ one.id }}: {{ one.bands.map(({ to }) => metres(to)).join(', ') }}</span
      >
      <span v-if="!side" class="figures">usable within {{ reading.usable_angle }}° of straight before it</span>
      <span class="figures">an element has to take {{ (reading.least_share * 100).toFixed(1) }} % of the height for the farthest</span>
    </p>
  </div>
</template>

<style scoped>
.presence {
  fill: none;
  stroke: var(--chalk);
  stroke-dasharray: 5 4;
  stroke-width: 1.5;
}
.presence circle,
.presence text {
  fill: var(--chalk);
  stroke: none;
}
i.presence {
  border-bottom: 2px dashed var(--chalk);
}
.room {
  position: relative;
  overflow: hidden;
  background: var(--sheet);
  min-height: 0;
  min-width: 0;
}
svg {
  position: absolute;
  inset: 0;
}
.unreadable {
  fill: #f0d9d6;
  background: #f0d9d6;
}
.limit {
  fill: #f3e3c3;
  background: #f3e3c3;
}
.good {
  fill: #cfe3da;
  background: #cfe3da;
}
.range {
  fill: none;
  stroke: var(--kelp);
  stroke-width: 2;
}
.range.near {
  stroke-dasharray: 5 4;
}
.display {
  stroke: var(--ink);
  stroke-width: 7;
}
.axis,
.sight {
  stroke: var(--soft);
  stroke-dasharray: 2 4;
}
.floor,
.tick line {
  stroke: var(--ink);
}
.viewer {
  stroke: var(--soft);
  stroke-width: 2;
}
.eye {
  fill: var(--kelp);
}
.plate {
  stroke: none;
  fill: var(--sheet);
}
text {
  font-family: var(--figures);
  font-size: 13px;
  fill: var(--ink);
}
.key {
  position: absolute;
  left: 14px;
  right: 14px;
  top: 8px;
  margin: 0;
  display: flex;
  gap: 4px 18px;
  flex-wrap: wrap;
  font-size: 0.8125rem;
}
.key i {
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 5px;
  vertical-align: -1px;
}
</style>
