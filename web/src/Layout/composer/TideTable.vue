<script setup lang="ts">
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { isZone, slotsBetween } from '../../pane/sheet'
import { clock, seconds } from '../../ui/format'
import StepBar from '../../ui/StepBar.vue'
import type { Analysis, Element } from '../designs'
import { useHand } from './hand'

/** Wall-clock time from left to right: a row for each zone, where loops meet, and the hand. */
const props = defineProps<{
  analysis: Analysis
  elements: Element[]
  timezone: string
  chosen: Set<string>
}>()
const emit = defineEmits<{ choose: [zone: string] }>()
const hand = useHand()
const { at, running } = hand

/** Folded to one line, the pane has the room. */
const folded = useLocalStorage('upper-pane:tide-folded', false)
const SPANS = [60_000, 150_000, 600_000]
const span = ref(150_000)
const from = ref(0)
const bed = useTemplateRef('bed')
const { width } = useElementSize(bed)
const to = computed(() => from.value + span.value)
const x = (t: number) => ((t - from.value) / span.value) * width.value

// The window stays where it is until the hand leaves it.
watch(
  () => [at.value, span.value] as const,
  ([now, s], old) => {
    if (!old || old[1] !== s || now < from.value || now > from.value + s * 0.92) from.value = Math.floor((now - s * 0.3) / 5000) * 5000
  },
  { immediate: true },
)

const step = computed(() => ({ 60_000: 10_000, 150_000: 15_000, 600_000: 60_000 })[span.value] ?? 15_000)
const ticks = computed(() => {
  const list: number[] = []
  for (let t = Math.ceil(from.value / step.value) * step.value; t < to.value; t += step.value) list.push(t)
  return list
})
const nameOf = (zone: string) => props.elements.find((e) => e.id === zone)?.name ?? zone
const rows = computed(() =>
  props.analysis.run_sheet.layers.filter(isZone).map((zone) => {
    const playing = props.analysis.playing[zone.zone]
    const names = (playing?.scenes ?? []).map((s) => s.name.replace(/\.\w+$/, ''))
    const loop = zone.segments.length === 0 ? 'nothing to play' : zone.period_ms === null ? 'without end' : seconds(zone.period_ms)
    return {
      id: zone.zone,
      // What a lane shows; as long as it stays the same the lane is not drawn anew, though the hand moves at every frame.
      key: `${zone.period_ms} ${zone.segments.map((s) => `${s.start_ms}:${names[s.scene]}`).join()} ${zone.turns?.length ?? 0}`,
      loop,
      slots: slotsBetween(zone, props.analysis.run_sheet.anchor_ms, from.value, to.value).map((slot) => ({
        ...slot,
        shade: slot.scene % 2 === 0,
        name: names[slot.scene] ?? '',
      })),
    }
  }),
)
/** Zones whose loops come round: one alone, or none, meets nothing. */
const looping = computed(() => props.analysis.run_sheet.layers.filter((l) => isZone(l) && l.segments.length > 0 && l.period_ms !== null).length)
const meets = computed(() => {
  const every = props.analysis.meets_every_ms
  const list: number[] = []
  if (!every || looping.value < 2 || every < span.value / 60) return list
  const anchor = props.analysis.run_sheet.anchor_ms
  for (let t = anchor + Math.ceil((from.value - anchor) / every) * every; t < to.value; t += every) list.push(t)
  return list
})
/** Whether there is room to write the time beside each line at which loops meet. */
const MEET_PX = 84
const roomy = computed(() => ((props.analysis.meets_every_ms ?? 0) / span.value) * width.value >= MEET_PX)
const meetsWords = computed(() => {
  if (looping.value < 2) return ''
  const every = props.analysis.meets_every_ms
  return every
    ? `loops meet every ${every >= 3_600_000 ? `${(every / 3_600_000).toFixed(1)} h` : every >= 120_000 ? `${(every / 60_000).toFixed(1)} min` : seconds(every)}`
    : 'loops never meet within a year'
})

function drag(event: PointerEvent) {
  const ground = bed.value!
  ground.setPointerCapture(event.pointerId)
  const follow = (e: PointerEvent) => {
    const left = ground.getBoundingClientRect().left
    hand.to(Math.round(from.value + (Math.max(0, Math.min(width.value, e.clientX - left)) / Math.max(1, width.value)) * span.value))
  }
  follow(event)
  ground.onpointermove = follow
  ground.onpointerup = ground.onpointercancel = () => (ground.onpointermove = ground.onpointerup = ground.onpointercancel = null)
}
function keys(event: KeyboardEvent) {
  const forward = event.key === 'ArrowRight'
  if (!forward && event.key !== 'ArrowLeft') return
  event.preventDefault()
  event.stopPropagation()
  if (event.shiftKey) hand.toChange(forward)
  else hand.to(at.value + (forward ? 1000 : -1000))
}
</script>

<template>
  <section class="tide" aria-label="Tide table">
    <div class="top">
      <b>Tide table</b> <span class="figures soft">{{ timezone }}</span>
      <StepBar
        class="steps"
        :running="running"
        @change="hand.toChange"
        @second="(forward) => hand.to(at + (forward ? 1000 : -1000))"
        @run="running = !running"
      />
      <span class="choice"
        ><button v-for="s in SPANS" :key="s" type="button" :aria-pressed="span === s" @click="span = s">{{ s / 60_000 }} min</button></span
      >
      <button
        type="button"
        class="btn btn-link btn-sm p-0 fold"
        :aria-expanded="!folded"
        :title="folded ? 'Show the zones in time' : 'Leave the room to the pane'"
        @click="folded = !folded"
      >
        {{ folded ? 'unfold' : 'fold' }}
      </button>
    </div>
    <div v-if="!folded" class="rows">
      <div class="names">
        <div class="scale"></div>
        <button v-for="row in rows" :key="row.id" type="button" class="row-name" :class="{ on: chosen.has(row.id) }" @click="emit('choose', row.id)">
          <span>{{ nameOf(row.id) }}</span><span class="figures soft">{{ row.loop }}</span>
        </button>
        <div class="soft meets">{{ meetsWords }}</div>
      </div>
      <div ref="bed" class="bed" @pointerdown="drag">
        <div class="scale figures">
          <span v-for="t in ticks" :key="t" class="tick" :style="{ left: `${x(t)}px` }">{{ clock(t, timezone) }}</span>
        </div>
        <div v-for="row in rows" :key="row.id" v-memo="[row.key, from, span, width, timezone]" class="lane">
          <div
            v-for="slot in row.slots"
            :key="slot.from"
            class="slot"
            :class="{ shade: slot.shade, first: slot.first }"
            :style="{
              left: `${Math.max(0, x(slot.from))}px`,
              width: `${Math.min(width, x(slot.to)) - Math.max(0, x(slot.from))}px`,
            }"
            :title="`${slot.name}, ${clock(slot.from, timezone)}`"
          >
            <template v-if="Math.min(width, x(slot.to)) - Math.max(0, x(slot.from)) > 46">
              {{ slot.name }}<br /><span v-if="!slot.endless" class="figures">{{ clock(slot.from, timezone) }}</span>
            </template>
          </div>
        </div>
        <div v-for="t in meets" :key="t" class="meet" :style="{ left: `${x(t)}px` }">
          <span v-if="roomy" class="figures">{{ clock(t, timezone) }}</span>
        </div>
        <div
          class="hand"
          role="slider"
          tabindex="0"
          aria-label="Instant shown on the pane"
          :aria-valuemin="from"
          :aria-valuemax="to"
          :aria-valuenow="at"
          :aria-valuetext="clock(at, timezone)"
          :style="{ transform: `translateX(${x(at)}px)` }"
          @keydown="keys"
        >
          <span class="figures">{{ clock(at, timezone) }}</span>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.tide {
  background: var(--sheet);
  border-top: 1px solid var(--ink);
  display: flex;
  flex-direction: column;
  max-height: 232px;
  min-height: 0;
}
.top {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 3px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 0.875rem;
}
.steps {
  margin-left: auto;
}
.rows {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  overflow-y: auto;
  min-height: 0;
}
.names {
  border-right: 1px solid var(--rule);
}
.scale {
  height: 24px;
  border-bottom: 1px solid var(--rule);
  position: relative;
}
.row-name {
  height: 38px;
  width: 100%;
  display: flex;
  justify-content: space-between;
  align-items: center;
  border: 0;
  background: none;
  padding: 0 14px;
  font-size: 0.8125rem;
}
.row-name.on {
  background: var(--kelp-wash);
  font-weight: 650;
}
.bed {
  position: relative;
  overflow: hidden;
  touch-action: none;
  cursor: ew-resize;
}
.tick {
  position: absolute;
  padding-left: 4px;
  border-left: 1px solid var(--soft);
  height: 8px;
  bottom: 0;
  line-height: 0;
  color: var(--soft);
}
.lane {
  position: relative;
  height: 38px;
  border-bottom: 1px solid #efeadd;
  contain: strict;
}
.slot {
  position: absolute;
  top: 4px;
  bottom: 3px;
  background: #f0f3ef;
  border-left: 1px solid #fff;
  padding: 0 5px;
  font-size: 0.75rem;
  line-height: 15px;
  overflow: hidden;
  white-space: nowrap;
}
.slot.shade {
  background: #dfe8e4;
}
.slot.first {
  border-left: 2px solid var(--soft);
}
.slot .figures {
  color: var(--soft);
  font-size: 0.75rem;
}
.meets {
  padding: 1px 14px;
  white-space: nowrap;
  font-size: 0.8125rem;
  height: 20px;
}
.meet {
  position: absolute;
  top: 24px;
  bottom: 0;
  border-left: 1px dashed var(--chalk);
  pointer-events: none;
}
.meet span {
  position: absolute;
  bottom: 1px;
  left: 0;
  transform: translateX(-50%);
  border: 1px solid var(--chalk);
  color: var(--chalk);
  background: var(--sheet);
  padding: 0 4px;
  line-height: 15px;
}
.bed {
  padding-bottom: 20px;
}
.hand {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 0;
  left: 0;
  border-left: 2px solid var(--stop);
  margin-left: -1px;
  /* A layer of its own: it moves at every frame, and nothing below it has to be painted anew. */
  will-change: transform;
}
.hand:focus-visible {
  outline: none;
}
.hand:focus-visible span {
  outline: 2px solid var(--chalk);
}
.hand span {
  position: absolute;
  top: 3px;
  left: 6px;
  border: 1px solid var(--stop);
  color: var(--stop);
  background: var(--sheet);
  padding: 0 4px;
  line-height: 16px;
}
</style>
