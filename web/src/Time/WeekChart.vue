<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed, ref } from 'vue'
import { clock } from '../ui/format'
import { type Day, type Occurrence, type Play, type Told, hoursOf, keyOf, minutesAt, plusMinutes, shareAt } from './schedule'

/** Days as rows: the thick line is what really plays, what is booked stands below it. Pressing and dragging makes, moves and stretches. */
const props = defineProps<{ told: Told; zone: string | null; chosen: string | null; now: number; own: Set<string> }>()
const emit = defineEmits<{
  choose: [booking: string, occurrence: Occurrence]
  make: [start: string, end: string]
  move: [booking: string, occurrence: Occurrence, start: string, end: string]
  remove: [booking: string, occurrence: Occurrence]
}>()

const SNAP_MIN = 5
/** A bar of a smaller share of the day has its label beside it. */
const SHORT = 0.2
const LEAST_MIN = 5
const plays = computed<Play[]>(() => (props.zone === null ? props.told.plays : (props.told.zones[props.zone] ?? [])))
const rankOf = computed(() => new Map(props.told.bookings.map((b) => [b.id, b.rank])))
const nameOf = (play: Play) =>
  play.plays === null ? (props.zone === null ? 'nothing' : 'its own list') : (props.told.names[keyOf(play.plays)] ?? '')

interface Bar {
  booking: string
  name: string
  said: string
  rank: string
  occurrence: Occurrence
  left: number
  right: number
  begins: boolean
  ends: boolean
  lane: number
  own: boolean
}
/** The bookings of a day, each in the first lane that is free. */
function barsOf(day: Day): Bar[] {
  const [from, to] = [Date.parse(day.from), Date.parse(day.to)]
  const bars: Bar[] = []
  for (const b of props.told.bookings) {
    if ((b.zone ?? null) !== props.zone) continue
    for (const occurrence of b.occurrences) {
      const [begin, end] = [Date.parse(occurrence.from), Date.parse(occurrence.to)]
      if (begin >= to || end <= from) continue
      bars.push({
        booking: b.id,
        name: b.name,
        said: b.said,
        rank: b.rank,
        occurrence,
        left: shareAt(day, begin),
        right: shareAt(day, end),
        begins: begin >= from,
        ends: end <= to,
        lane: 0,
        own: props.own.has(b.id),
      })
    }
  }
  bars.sort((a, b) => a.left - b.left || b.right - a.right)
  const free: number[] = []
  for (const bar of bars) {
    const right = bar.right - bar.left < SHORT ? bar.right + 0.27 : bar.right
    const lane = free.findIndex((f) => f <= bar.left)
    bar.lane = lane >= 0 ? lane : free.length
    free[bar.lane] = right
  }
  return bars
}
const rows = computed(() =>
  props.told.days.map((day) => {
    const [from, to] = [Date.parse(day.from), Date.parse(day.to)]
    const bars = barsOf(day)
    const date = DateTime.fromISO(day.date)
    const seen = plays.value.filter((p) => Date.parse(p.from) < to && Date.parse(p.to) > from)
    return {
      day,
      name: date.toFormat('ccc d', { locale: 'en-GB' }),
      month: date.toFormat('LLL', { locale: 'en-GB' }),
      hours: (to - from) / 3_600_000,
      odd: day.steps.length > 1,
      ticks: hoursOf(day),
      bars,
      lanes: Math.max(1, ...bars.map((b) => b.lane + 1)),
      plays: seen.map((p) => ({ play: p, left: shareAt(day, Date.parse(p.from)), right: shareAt(day, Date.parse(p.to)) })),
      now: props.now >= from && props.now < to ? shareAt(day, props.now) : null,
    }
  }),
)
const oddWords = (day: Day) => {
  const [, step] = day.steps
  if (!step) return ''
  const before = day.steps[0]![1] + step[0] / 60_000
  const at = (m: number) => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`
  return step[1] < before ? `${at(step[1])} to ${at(before)} comes twice` : `${at(before)} to ${at(step[1])} does not exist`
}

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
  const exact = minutesAt(rows.value[row]!.day, share)
  const minutes = event.altKey ? Math.round(exact) : Math.round(exact / SNAP_MIN) * SNAP_MIN
  return { row, minutes: row * 1440 + minutes }
}
const localOf = (minutes: number) => plusMinutes(`${props.told.days[0]!.date}T00:00:00`, minutes)
const minutesOf = (local: string) =>
  DateTime.fromISO(local, { zone: 'utc' }).diff(DateTime.fromISO(props.told.days[0]!.date, { zone: 'utc' }), 'minutes').minutes
const say = (start: number, end: number) => `${localOf(start).slice(11, 16)} to ${localOf(end).slice(11, 16)}`
function show(start: number, end: number) {
  const row = Math.max(0, Math.min(rows.value.length - 1, Math.floor(start / 1440)))
  const left = (start - row * 1440) / 1440
  held.value = { row, left, width: Math.min(1 - left, (end - start) / 1440), words: say(start, end) }
}
function follow(event: PointerEvent, go: (e: PointerEvent) => [number, number] | null, done: (start: number, end: number) => void) {
  const ground = root.value!
  ground.setPointerCapture(event.pointerId)
  let last: [number, number] | null = null
  ground.onpointermove = (e) => {
    last = go(e)
    if (last) show(...last)
  }
  const end = () => {
    ground.onpointermove = ground.onpointerup = ground.onpointercancel = null
    held.value = null
    window.removeEventListener('keydown', stop, true)
  }
  const stop = (e: KeyboardEvent) => e.key === 'Escape' && (e.stopPropagation(), end())
  window.addEventListener('keydown', stop, true)
  ground.onpointercancel = end
  ground.onpointerup = () => {
    end()
    if (last) done(...last)
  }
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
/** Arrows move by 5 minutes, with Shift by an hour, up and down by a day; with Alt they move its end. */
function keys(event: KeyboardEvent, bar: Bar) {
  const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -1440, ArrowDown: 1440 }[event.key]
  if (event.key === 'Enter' || event.key === ' ') emit('choose', bar.booking, bar.occurrence)
  else if ((event.key === 'Delete' || event.key === 'Backspace') && bar.own) emit('remove', bar.booking, bar.occurrence)
  else if (by !== undefined && bar.own) {
    const minutes = Math.abs(by) > 1 ? by : by * (event.shiftKey ? 60 : SNAP_MIN)
    const { start, end } = bar.occurrence
    if (event.altKey && minutesOf(end) + minutes <= minutesOf(start)) return
    emit('move', bar.booking, bar.occurrence, event.altKey ? start : plusMinutes(start, minutes), plusMinutes(end, minutes))
  } else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div ref="root" class="week">
    <div class="axis figures" aria-hidden="true">
      <span v-for="h in 12" :key="h" :style="{ left: `${((h - 1) / 12) * 100}%` }">{{ String((h - 1) * 2).padStart(2, '0') }}:00</span>
    </div>
    <section v-for="(row, n) in rows" :key="row.day.date" class="day" :aria-label="`${row.name} ${row.month}`">
      <div class="date">
        <b>{{ row.name }}</b> <span class="soft small">{{ row.month }}</span>
        <div class="figures soft small">
          {{ row.hours }} h<template v-if="row.odd">: {{ oddWords(row.day) }}</template>
        </div>
      </div>
      <div class="bed" :style="{ height: `${44 + row.lanes * 21}px` }" @pointerdown="make">
        <i v-for="t in row.ticks.filter((_, k) => k % 2 === 0)" :key="`${t.share}`" class="tick" :style="{ left: `${t.share * 100}%` }"></i>
        <div
          v-for="p in row.plays"
          :key="p.play.from"
          class="play"
          :class="p.play.booking === null ? (p.play.plays === null ? 'dark' : 'standby') : rankOf.get(p.play.booking)"
          :style="{ left: `${p.left * 100}%`, width: `${(p.right - p.left) * 100}%` }"
          :title="`${nameOf(p.play)}, ${clock(Date.parse(p.play.from), told.timezone, false)} to ${clock(Date.parse(p.play.to), told.timezone, false)}: ${p.play.why}`"
        >
          <span>{{ nameOf(p.play) }}</span>
        </div>
        <div
          v-for="bar in row.bars"
          :key="`${bar.booking} ${bar.occurrence.start}`"
          class="bar"
          :class="[bar.rank, { chosen: bar.booking === chosen, other: !bar.own, short: bar.right - bar.left < SHORT }]"
          :style="{ left: `${bar.left * 100}%`, width: `${(bar.right - bar.left) * 100}%`, top: `${38 + bar.lane * 21}px` }"
          role="button"
          tabindex="0"
          :data-booking="bar.booking"
          :aria-label="`${bar.name}, ${bar.said}, ${bar.occurrence.start.slice(11, 16)} to ${bar.occurrence.end.slice(11, 16)}; arrows move it`"
          @pointerdown="move($event, bar, 'whole')"
          @keydown="keys($event, bar)"
        >
          <i v-if="bar.begins" class="edge start" @pointerdown="move($event, bar, 'start')"></i>
          <span>{{ bar.name }}, {{ bar.said }}</span>
          <i v-if="bar.ends" class="edge end" @pointerdown="move($event, bar, 'end')"></i>
        </div>
        <div v-if="held?.row === n" class="held" :style="{ left: `${held.left * 100}%`, width: `${held.width * 100}%` }">
          <span class="figures">{{ held.words }}</span>
        </div>
        <div v-if="row.now !== null" class="now" :style="{ left: `${row.now * 100}%` }">
          <span class="figures">{{ clock(now, told.timezone, false) }}</span>
        </div>
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
.now span {
  position: absolute;
  bottom: 1px;
  left: 4px;
  font-size: 0.75rem;
  color: #a3262a;
  background: var(--sheet);
  border: 1px solid #a3262a;
  padding: 0 3px;
  line-height: 16px;
}
</style>
