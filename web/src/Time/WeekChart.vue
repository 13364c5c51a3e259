<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed, nextTick, ref, watch } from 'vue'
import { useDrag } from '../ui/drag'
import { clock } from '../ui/format'
import LevelMark from '../ui/LevelMark.vue'
import { type Cell, nextCell } from '../ui/roving'
import { type Bar, type ChartRow, SHORT, chartRows } from './chart'
import { type Day, type Occurrence, type Told, minutesIn, plusMinutes, shareAt } from './schedule'

/**
 * Days as rows, or weeks: the thick line is what really plays, what is booked stands below it. Pressing and dragging makes, moves and
 * stretches.
 */
const props = defineProps<{
  told: Told
  zone: string | null
  chosen: string | null
  now: number
  own: Set<string>
  /** How many days stand side by side. */
  each: number
  /** The month that is meant, `2026-11`, where days of others are seen as well. */
  month?: string
}>()
const emit = defineEmits<{
  choose: [booking: string, occurrence: Occurrence]
  make: [start: string, end: string]
  move: [booking: string, occurrence: Occurrence, start: string, end: string]
  remove: [booking: string, occurrence: Occurrence]
  /** To the days before or behind these. */
  turn: [forward: boolean]
}>()

const SNAP_MIN = computed(() => (props.each > 1 ? 60 : 5))
const LEAST_MIN = 5
const rows = computed(() => chartRows(props.told, { zone: props.zone, each: props.each, month: props.month, own: props.own }))
const nowIn = (row: ChartRow) => (props.now >= row.begin && props.now < row.end ? shareAt(row, props.now) : null)
/** Where it stands in its day; over the hours, where it covers nothing that is booked. */
const nowAt = computed(() => rows.value.map(nowIn).find((share) => share !== null) ?? null)
const oddWords = (day: Day) => {
  const [, step] = day.steps
  if (!step) return ''
  const before = day.steps[0]![1] + step[0] / 60_000
  const at = (m: number) => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`
  return step[1] < before ? `${at(step[1])} to ${at(before)} comes twice` : `${at(before)} to ${at(step[1])} does not exist`
}

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const root = ref<HTMLElement | null>(null)
/** What a hand is at: a new booking, or one that is moved or stretched. */
const held = ref<{ row: number; left: number; width: number; words: string } | null>(null)

/** Minutes since the first midnight, on the wall clock, under the pointer. */
function under(event: PointerEvent): { row: number; minutes: number } {
  const beds = [...root.value!.querySelectorAll<HTMLElement>('.bed')]
  let row = beds.findIndex((bed) => event.clientY < bed.getBoundingClientRect().bottom + 1)
  if (row < 0) row = beds.length - 1
  const box = beds[row]!.getBoundingClientRect()
  const share = Math.max(0, Math.min(1, (event.clientX - box.left) / box.width))
  const exact = minutesIn(rows.value[row]!, share)
  const minutes = event.altKey ? Math.round(exact) : Math.round(exact / SNAP_MIN.value) * SNAP_MIN.value
  return { row, minutes: row * PER_ROW.value + minutes }
}
const PER_ROW = computed(() => 1440 * props.each)
const localOf = (minutes: number) => plusMinutes(`${props.told.days[0]!.date}T00:00:00`, minutes)
const minutesOf = (local: string) =>
  DateTime.fromISO(local, { zone: 'utc' }).diff(DateTime.fromISO(props.told.days[0]!.date, { zone: 'utc' }), 'minutes').minutes
const dated = (minutes: number) => DateTime.fromISO(localOf(minutes)).toFormat(props.each > 1 ? 'ccc d, HH:mm' : 'HH:mm', { locale: 'en-GB' })
const say = (start: number, end: number) => `${dated(start)} to ${dated(end)}`
function show(start: number, end: number) {
  const row = Math.max(0, Math.min(rows.value.length - 1, Math.floor(start / PER_ROW.value)))
  const left = (start - row * PER_ROW.value) / PER_ROW.value
  held.value = { row, left, width: Math.min(1 - left, (end - start) / PER_ROW.value), words: say(start, end) }
}
const { drag } = useDrag()
function follow(event: PointerEvent, go: (e: PointerEvent) => [number, number] | null, done: (start: number, end: number) => void) {
  let last: [number, number] | null = null
  const revert = () => (held.value = null)
  drag(event, {
    move(e) {
      last = go(e)
      if (last) show(...last)
    },
    end() {
      revert()
      if (last) done(...last)
    },
    revert,
  })
}

function make(event: PointerEvent) {
  if (event.button !== 0) return
  event.preventDefault()
  const { minutes: first } = under(event)
  follow(
    event,
    (e) => {
      const { minutes } = under(e)
      return Math.abs(minutes - first) < LEAST_MIN ? null : [Math.min(first, minutes), Math.max(first, minutes)]
    },
    (start, end) => emit('make', localOf(start), localOf(end)),
  )
}
function move(event: PointerEvent, bar: Bar, edge: 'whole' | 'start' | 'end') {
  if (event.button !== 0) return
  event.preventDefault()
  event.stopPropagation()
  ;(event.currentTarget as HTMLElement).closest<HTMLElement>('.bar')?.focus()
  emit('choose', bar.booking, bar.occurrence)
  if (!bar.own) return
  const [start, end] = [minutesOf(bar.occurrence.start), minutesOf(bar.occurrence.end)]
  const { minutes: first } = under(event)
  follow(
    event,
    (e) => {
      const by = under(e).minutes - first
      if (by === 0) return null
      if (edge === 'start') return [Math.min(start + by, end - LEAST_MIN), end]
      if (edge === 'end') return [start, Math.max(end + by, start + LEAST_MIN)]
      return [start + by, end + by]
    },
    (s, e) => emit('move', bar.booking, bar.occurrence, localOf(s), localOf(e)),
  )
}
/** What was moved by a key keeps the focus, wherever it stands then. */
let moved: string | null = null
watch(
  () => props.told,
  async () => {
    if (!moved) return
    await nextTick()
    const bar = root.value?.querySelector<HTMLElement>(`.bar.chosen[data-start="${moved}"]`)
    if (bar) moved = null
    bar?.focus()
  },
)
interface At extends Cell {
  key: string
  bar: Bar
}
const keyOf = (row: ChartRow, bar: Bar) => `${row.key} ${bar.key}`
const cells = computed(() =>
  rows.value.map((row, n) => row.bars.map((bar): At => ({ row: n, from: bar.left, to: bar.right, key: keyOf(row, bar), bar }))),
)
/** Tab leads to one of them: where one was last, else the chosen one, else the first. */
const last = ref('')
const tabbed = computed(() => {
  const all = cells.value.flat()
  return (all.find((cell) => cell.key === last.value) ?? all.find((cell) => cell.bar.booking === props.chosen) ?? all[0])?.key
})
function focus(key: string) {
  last.value = key
  root.value?.querySelector<HTMLElement>(`[data-key="${CSS.escape(key)}"]`)?.focus()
}
/**
 * Arrows go from one to the next. With Ctrl they move it by 5 minutes, with Shift as well by an hour, up and down by a day; with Alt they move
 * its end.
 */
function keys(event: KeyboardEvent, bar: Bar) {
  const moves = event.ctrlKey || event.metaKey || event.altKey
  const by = moves ? { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -1440, ArrowDown: 1440 }[event.key] : undefined
  const here = cells.value.flat().find((cell) => cell.bar === bar)!
  const next = by === undefined ? nextCell(cells.value, here, event.key, event.ctrlKey) : null
  if (event.key === 'Enter' || event.key === ' ') emit('choose', bar.booking, bar.occurrence)
  else if ((event.key === 'Delete' || event.key === 'Backspace') && bar.own) emit('remove', bar.booking, bar.occurrence)
  else if (event.key === 'PageUp' || event.key === 'PageDown') emit('turn', event.key === 'PageDown')
  else if (next) focus(next.key)
  else if (by !== undefined && bar.own) {
    const minutes = Math.abs(by) > 1 ? by : by * (event.shiftKey ? 60 : 5)
    const { start, end } = bar.occurrence
    if (event.altKey && minutesOf(end) + minutes <= minutesOf(start)) return
    moved = event.altKey ? start : plusMinutes(start, minutes)
    emit('move', bar.booking, bar.occurrence, moved, plusMinutes(end, minutes))
  } else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div ref="root" class="week">
    <div class="axis figures" aria-hidden="true">
      <template v-if="each > 1">
        <span v-for="(name, n) in WEEKDAYS" :key="name" :style="{ left: `${(n / 7) * 100}%` }">{{ name }}</span>
      </template>
      <template v-else>
        <span v-for="h in 12" :key="h" :style="{ left: `${((h - 1) / 12) * 100}%` }">{{ String((h - 1) * 2).padStart(2, '0') }}:00</span>
        <span v-if="nowAt !== null" class="now-at" :style="{ left: `${nowAt * 100}%` }">{{ clock(now, told.timezone, false) }}</span>
      </template>
    </div>
    <section v-for="(row, n) in rows" :key="row.key" class="day" :aria-label="`${row.name} ${row.month}`">
      <div class="date">
        <b>{{ row.name }}</b> <span class="soft small">{{ row.month }}</span>
        <div class="figures soft small">
          {{ row.hours }} h<template v-if="row.odd">: {{ oddWords(row.odd) }}</template>
        </div>
      </div>
      <div class="bed" :class="{ weeks: each > 1 }" :style="{ height: `${row.height}px` }" @pointerdown="make">
        <i v-for="t in row.ticks.filter((_, k) => k % 2 === 0)" :key="`${t.share}`" class="tick" :style="{ left: `${t.share * 100}%` }"></i>
        <span
          v-for="c in row.cells"
          :key="c.date"
          class="cell figures"
          :class="{ other: c.other }"
          :style="{ left: `${c.left * 100}%`, width: `${c.width * 100}%` }"
          >{{ c.day }}</span
        >
        <div
          v-for="p in row.plays"
          :key="p.from"
          class="play"
          :class="p.look"
          :style="{ left: `${p.left * 100}%`, width: `${(p.right - p.left) * 100}%` }"
          :title="p.title"
        >
          <span v-if="p.right - p.left > 0.035">{{ p.name }}</span>
        </div>
        <div
          v-for="bar in row.bars"
          :key="bar.key"
          class="bar"
          :class="[bar.rank, { chosen: bar.booking === chosen, other: !bar.own, short: bar.right - bar.left < SHORT, wrong: bar.wrong }]"
          :style="{ left: `${bar.left * 100}%`, width: `${(bar.right - bar.left) * 100}%`, top: `${bar.top}px` }"
          role="button"
          :tabindex="keyOf(row, bar) === tabbed ? 0 : -1"
          :data-key="keyOf(row, bar)"
          :data-booking="bar.booking"
          :data-start="bar.occurrence.start"
          :aria-label="`${bar.name}, ${bar.said}, ${bar.occurrence.start.slice(11, 16)} to ${bar.occurrence.end.slice(11, 16)}${bar.own ? '; Ctrl and arrows move it' : ''}`"
          @pointerdown="move($event, bar, 'whole')"
          @focus="last = keyOf(row, bar)"
          @keydown="keys($event, bar)"
        >
          <i v-if="bar.begins" class="edge start" @pointerdown="move($event, bar, 'start')"></i>
          <span v-if="bar.named" :title="bar.why || undefined"
            >{{ bar.name }}, {{ bar.said }}<em v-if="bar.wrong"> <LevelMark level="warning" /> {{ bar.wrong }}</em></span
          >
          <i v-if="bar.ends" class="edge end" @pointerdown="move($event, bar, 'end')"></i>
        </div>
        <div v-if="held?.row === n" class="held" :style="{ left: `${held.left * 100}%`, width: `${held.width * 100}%` }">
          <span class="figures">{{ held.words }}</span>
        </div>
        <div v-if="nowIn(row) !== null" class="now" :style="{ left: `${nowIn(row)! * 100}%` }"></div>
      </div>
    </section>
  </div>
</template>

<style scoped>
.week {
  touch-action: none;
  user-select: none;
}
.axis {
  position: sticky;
  top: 0;
  z-index: 3;
  height: 26px;
  margin-left: 118px;
  background: var(--paper);
  border-bottom: 1px solid var(--rule);
  font-size: 0.8125rem;
  color: var(--soft);
}
.axis span {
  position: absolute;
  top: 4px;
  padding-left: 3px;
}
.day {
  display: grid;
  grid-template-columns: 118px minmax(0, 1fr);
  border-bottom: 1px solid var(--rule);
}
.date {
  padding: 8px 8px 4px 14px;
}
.bed {
  position: relative;
  cursor: crosshair;
  overflow: hidden;
  background: var(--sheet);
}
.tick {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--rule);
}
.play {
  position: absolute;
  top: 9px;
  height: 24px;
  padding: 2px 6px;
  font-size: 0.8125rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  color: #fffdf8;
  border-right: 1px solid var(--sheet);
}
.play.standby {
  background: #2e3b44;
}
.play.dark {
  background: repeating-linear-gradient(135deg, #fffdf8 0 5px, #d9d3c3 5px 7px);
  color: var(--ink);
}
.play.everyday {
  background: #2a6f61;
}
.play.weekly {
  background: #2f5d8a;
}
.play.dated {
  background: #855a12;
}
.play.takeover {
  background: #a3262a;
}
.bar {
  position: absolute;
  height: 18px;
  font-size: 0.8125rem;
  line-height: 18px;
  white-space: nowrap;
  cursor: grab;
  color: var(--ink);
}
.bar::before {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 8px;
  height: 2px;
  background: var(--line);
}
.bar span {
  position: relative;
  margin-left: 9px;
  padding: 0 5px;
  background: var(--sheet);
}
.bar.short span {
  position: absolute;
  left: 100%;
  margin-left: 2px;
}
.bar.everyday {
  --line: #2a6f61;
}
.bar.weekly {
  --line: #2f5d8a;
}
.bar.dated {
  --line: #855a12;
}
.bar.takeover {
  --line: #a3262a;
}
.bar.wrong {
  --line: var(--warning);
}
.bar.wrong::before {
  background: repeating-linear-gradient(90deg, var(--line) 0 5px, transparent 5px 8px);
}
.weeks .bar {
  height: 12px;
}
.weeks .bar::before {
  top: 5px;
}
.weeks .edge {
  top: 0;
  height: 12px;
}
.weeks .bar span {
  position: absolute;
  left: 0;
  top: 10px;
  margin: 0;
  padding: 0 3px 0 0;
  background: none;
}
.bar em {
  font-style: normal;
  margin-left: 5px;
  color: var(--warning);
}
.weeks .play {
  top: 24px;
}
.cell {
  position: absolute;
  top: 0;
  bottom: 0;
  padding: 3px 5px;
  font-size: 0.8125rem;
  line-height: 17px;
  border-right: 1px solid var(--rule);
}
.cell.other {
  color: var(--soft);
  background: var(--paper);
}
.bar.chosen span {
  background: #e2ede8;
  font-weight: 650;
}
.bar.other {
  cursor: pointer;
  color: var(--soft);
}
.bar:focus-visible {
  outline: 2px solid var(--kelp);
}
.edge {
  position: absolute;
  top: 2px;
  height: 14px;
  width: 9px;
  cursor: ew-resize;
}
.edge.start {
  left: 0;
  border-left: 2px solid var(--line);
}
.edge.end {
  right: 0;
  border-right: 2px solid var(--line);
}
.held {
  position: absolute;
  top: 6px;
  height: 30px;
  border: 2px solid var(--kelp);
  background: rgb(226 237 232 / 60%);
  font-size: 0.8125rem;
  pointer-events: none;
  white-space: nowrap;
  z-index: 2;
}
.held span {
  background: var(--sheet);
  padding: 3px 5px;
}
.play.dark span {
  background: var(--sheet);
  padding: 0 4px;
}
.now {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: #a3262a;
  pointer-events: none;
}
.axis .now-at {
  top: 3px;
  transform: translateX(-50%);
  color: #a3262a;
  background: var(--sheet);
  border: 1px solid #a3262a;
  padding: 0 3px;
  line-height: 18px;
}
</style>
