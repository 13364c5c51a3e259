<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed } from 'vue'
import type { Chosen } from './sources'

/** When each of the rows comes and goes by its own time, beside the instant that is looked at: drawn only where some do. */
const props = defineProps<{ chosen: Chosen; at: string; timezone: string }>()

const MOST = 9
const ROW = 22
const WIDE = 860
const LEFT = 208
const STEPS_MIN = [1, 2, 5, 10, 15, 30, 60, 120, 240, 480, 1440, 2880, 10_080]

const moving = computed(() =>
  props.chosen.rows
    .map((row, n) => ({ row, span: props.chosen.spans[n] ?? [null, null] }))
    .filter((one) => one.span[0] !== null || one.span[1] !== null)
    .slice(0, MOST),
)
const drawn = computed(() => {
  const at = Date.parse(props.at)
  const ends = moving.value.map((one) => one.span[1]).filter((one) => one !== null)
  const last = Math.max(at + 60_000, ...ends.map((one) => Date.parse(one)))
  const from = at - (last - at) * 0.06
  const to = last + (last - at) * 0.04
  const x = (ms: number) => LEFT + ((Math.min(Math.max(ms, from), to) - from) / (to - from)) * (WIDE - LEFT)
  const step = 60_000 * (STEPS_MIN.find((min) => (to - from) / (60_000 * min) <= 8) ?? 20_160)
  const marks: { x: number; text: string }[] = []
  const zone = { zone: props.timezone }
  const offset = DateTime.fromMillis(from, zone).offset * 60_000
  for (let ms = Math.ceil((from + offset) / step) * step - offset; ms < to; ms += step)
    marks.push({ x: x(ms), text: DateTime.fromMillis(ms, zone).toFormat(step >= 86_400_000 ? 'dd MMM' : 'HH:mm') })
  const first = moving.value.find((one) => one.span[1] !== null)?.span[1]
  return {
    hand: x(at),
    time: DateTime.fromMillis(at, zone).toFormat('HH:mm:ss'),
    marks,
    bars: moving.value.map(({ row, span }) => ({
      name: Object.values(row)
        .filter((value) => value !== null && typeof value !== 'boolean')
        .slice(0, 2)
        .map((value) => (typeof value === 'string' && /^\d{4}-.*Z$/.test(value) ? DateTime.fromISO(value, zone).toFormat('HH:mm') : String(value)))
        .join(' '),
      begin: span[0] === null ? x(from) : x(Date.parse(span[0])),
      end: span[1] === null ? x(to) : x(Date.parse(span[1])),
      isOpen: span[1] === null,
      isNext: span[1] !== null && span[1] === first,
    })),
  }
})
const height = computed(() => 22 + moving.value.length * ROW + 10)
</script>

<template>
  <div v-if="moving.length" class="spans">
    <div class="strip">
      <h2>When each row comes and goes</h2>
      <span class="soft small">by its own time, also on a player without contact</span>
    </div>
    <svg :viewBox="`0 0 ${WIDE + 20} ${height}`" :height="height" role="img" :aria-label="`Until when ${moving.length} rows are chosen`">
      <g v-for="mark in drawn.marks" :key="mark.x">
        <line :x1="mark.x" :x2="mark.x" y1="16" :y2="height" class="mark" />
        <text :x="mark.x + 4" y="12" class="figures">{{ mark.text }}</text>
      </g>
      <g v-for="(bar, n) in drawn.bars" :key="n" :class="{ next: bar.isNext }">
        <text x="16" :y="22 + n * ROW + 12" class="name">{{ bar.name.length > 29 ? `${bar.name.slice(0, 28)}…` : bar.name }}</text>
        <rect :x="bar.begin" :y="22 + n * ROW + 2" :width="Math.max(1, bar.end - bar.begin)" height="13" />
        <line v-if="!bar.isOpen" :x1="bar.end" :x2="bar.end" :y1="22 + n * ROW" :y2="22 + n * ROW + 17" class="end" />
      </g>
      <line :x1="drawn.hand" :x2="drawn.hand" y1="0" :y2="height" class="hand" />
    </svg>
  </div>
</template>

<style scoped>
.spans {
  border-top: 1px solid var(--rule);
  flex: none;
  background: var(--sheet);
}
.strip {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 6px 16px;
  background: var(--paper);
  border-bottom: 1px solid var(--rule);
}
h2 {
  font-size: 0.9375rem;
}
svg {
  display: block;
  width: 100%;
  max-width: 100%;
}
text {
  font-size: 12px;
  fill: var(--ink);
}
text.figures {
  fill: var(--soft);
}
.mark {
  stroke: var(--rule);
}
rect {
  fill: #cde0d7;
}
.end {
  stroke: var(--kelp);
  stroke-width: 2;
}
.next rect {
  fill: #dcb5ae;
}
.next .end {
  stroke: var(--stop);
}
.hand {
  stroke: var(--stop);
  stroke-width: 1.5;
}
</style>
