<script setup lang="ts">
import { useElementSize, useEventListener } from '@vueuse/core'
import { DateTime } from 'luxon'
import { computed, onBeforeUnmount, ref, useTemplateRef, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useEstate } from '../Estate/estate'
import { matters } from '../Estate/matters'
import { sentence } from '../ui/api'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { useHandTaken } from '../ui/handTaken'
import { clock, day, zoneName } from '../ui/format'
import { mayAct } from '../ui/keys'
import LocalField from '../ui/LocalField.vue'
import { useShelf } from '../ui/shelf'
import StepBar from '../ui/StepBar.vue'
import CourseTable from './CourseTable.vue'
import DayStrip from './DayStrip.vue'
import KeptData from './KeptData.vue'
import PlaybackTabs from './PlaybackTabs.vue'
import RehearsedPicture from './RehearsedPicture.vue'
import { type Asked, type Rehearsal, SPEEDS, instantAt, useRehearsalHand, useRehearsals } from './rehearsal'

/** Any displays, at any instant of any span: what would be seen there from what is saved by now. */
const MOST = 6
const { displays } = useEstate(false)
const route = useRoute()
const router = useRouter()
const named = useAsked('display')
const from = useAsked('from')
const to = useAsked('to')
const source = useAsked('source')
const which = useAsked('list')
const by = useAsked('by')
const asked = useAsked('at')
/** Kept fetches of sources, as `source:fetch,source:fetch`. */
const data = useAsked('data')
const fetches = computed<Record<string, number>>({
  get: () =>
    Object.fromEntries(
      data.value.split(',').flatMap((one) => {
        const [id, fetch] = one.split(':')
        return id && Number(fetch) > 0 ? [[id, Number(fetch)]] : []
      }),
    ),
  set: (to) =>
    (data.value = Object.entries(to)
      .map(([id, fetch]) => `${id}:${fetch}`)
      .join(',')),
})
const shelf = useShelf()

const ids = computed(() => (named.value ? named.value.split(',') : displays.value[0] ? [displays.value[0].id] : []))
const chosen = computed(() => ids.value.flatMap((id) => displays.value.find((d) => d.id === id) ?? []))
const left = computed(() => displays.value.filter((d) => !ids.value.includes(d.id)))
const add = (id: string) => id && (named.value = [...ids.value, id].slice(-MOST).join(','))
const take = (id: string) => (named.value = ids.value.filter((one) => one !== id).join(','))

/** The first display says which instants are meant; the others are looked at together with it. */
const base = computed<Omit<Asked, 'display'>>(() => {
  const [kind, id] = source.value.split(':')
  return {
    ...(from.value ? { from: from.value } : {}),
    ...(to.value ? { to: to.value } : {}),
    ...(kind && id ? { source: { kind, id } } : {}),
    ...(by.value ? { scheduled: true } : {}),
    ...(data.value ? { fetches: fetches.value } : {}),
  }
})
const sources = computed(() => {
  const all = new Map([...told.value.values()].flatMap((t) => t.sources.map((one) => [one.id, one] as const)))
  return [...all.values()].sort((a, b) => a.name.localeCompare(b.name))
})
const first = useRehearsals(computed(() => ids.value.slice(0, 1).map((display) => ({ display, ...base.value }))))
const lead = computed<Rehearsal | undefined>(() => first.value[0]?.data)
const others = useRehearsals(
  computed(() => (lead.value ? ids.value.slice(1).map((display) => ({ display, ...base.value, from: lead.value!.from, to: lead.value!.to })) : [])),
)
const told = computed(() => new Map([...first.value, ...others.value].flatMap((q) => (q.data ? [[q.data.display, q.data] as const] : []))))
const trouble = computed(() => [...first.value, ...others.value].map((q) => (q.error ? sentence(q.error) : '')).find((t) => t) ?? '')
const span = computed<[number, number]>(() => (lead.value ? [Date.parse(lead.value.from), Date.parse(lead.value.to)] : [0, 1]))

const hand = useRehearsalHand(
  () => [...told.value.values()].flatMap((t) => t.release?.run_sheet ?? []),
  () => span.value,
)
const { at, running, speed } = hand
/** Small pictures are drawn at whole tenths of a second: at sixty times as fast nobody sees more. */
const seen = computed(() => (running.value && speed.value !== '1' ? Math.floor(at.value / 100) * 100 : Math.floor(at.value)))
/** An instant in the address is led to once, on its own day. */
watch([lead, () => asked.value] as const, ([t]) => {
  const instant = Date.parse(asked.value)
  if (!t || Number.isNaN(instant)) return
  const [a, b] = span.value
  if (instant >= a && instant < b) {
    hand.to(instant)
    asked.value = ''
  } else {
    spanOf(DateTime.fromMillis(instant, { zone: t.timezone }).toFormat("yyyy-MM-dd'T'00:00:00"))
  }
})
watch(
  span,
  ([a, b]) => {
    if (b > 1 && (at.value < a || at.value >= b)) hand.to(a)
  },
  { immediate: true },
)
const localOf = (t: number) => (lead.value ? DateTime.fromMillis(t, { zone: lead.value.timezone }).toFormat("yyyy-MM-dd'T'HH:mm") : undefined)
const whose = ref('')
const read = computed(() => told.value.get(whose.value) ?? lead.value)
/** Every item of the hour that the hand is in: of a whole day there are thousands. */
const HOUR = 3_600_000
const hour = computed<[number, number]>(() => {
  const [a, b] = span.value
  if (b - a <= HOUR) return [a, b]
  const begin = a + Math.floor((at.value - a) / HOUR) * HOUR
  return [begin, Math.min(b, begin + HOUR)]
})
const utc = (t: number) => new Date(t).toISOString().replace('.000Z', 'Z')
const items = useRehearsals(
  computed(() =>
    which.value && read.value
      ? [{ ...base.value, display: read.value.display, from: utc(hour.value[0]), to: utc(hour.value[1]), items: true, course_only: true }]
      : [],
  ),
)
const course = computed(() => (which.value ? (items.value[0]?.data ?? null) : read.value) ?? null)
const nameOf = (id: string) => displays.value.find((d) => d.id === id)?.name ?? id
const dueOf = (id: string) => told.value.get(id)?.course.find((s) => s.zone === null && Date.parse(s.from) <= at.value && at.value < Date.parse(s.to))

/** A time of day as it is typed, on the day that the hand is on. */
const typedTrouble = ref('')
function typed(event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const parts = /^(\d{1,2}):(\d\d)(?::(\d\d))?$/.exec(text)
  const date = DateTime.fromMillis(at.value, { zone: lead.value!.timezone }).toISODate()!
  const instant = parts && instantAt(lead.value!.days, date, Number(parts[1]) * 3600 + Number(parts[2]) * 60 + Number(parts[3] ?? 0))
  typedTrouble.value = instant === null ? (parts ? `${date} has no ${text} in ${lead.value!.timezone}.` : 'A time such as 08:00 or 08:00:30.') : ''
  if (instant !== null) hand.to(instant)
}
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!mayAct(e) || e.ctrlKey || e.metaKey || e.altKey) return
  const act = {
    ' ': () => (running.value = !running.value),
    '<': () => hand.toChange(false),
    '>': () => hand.toChange(true),
    ',': () => hand.to(at.value - 1000),
    '.': () => hand.to(at.value + 1000),
  }[e.key]
  if (!act || (e.key === ' ' && (e.target as HTMLElement).closest('button, a'))) return
  e.preventDefault()
  act()
})

/** Both ends at once: the address takes one change at a time. */
const spanOf = (begin?: string, end?: string) => void router.replace({ query: { ...route.query, from: begin, to: end } })
/** By whole days, as the calendar has them; the core says how long each is. */
function shift(days: number) {
  const begin = DateTime.fromISO(lead.value?.days[0]?.date ?? DateTime.now().toISODate(), { zone: 'utc' }).plus({ days })
  spanOf(begin.toFormat("yyyy-MM-dd'T'00:00:00"), begin.plus({ days: 1 }).toFormat("yyyy-MM-dd'T'00:00:00"))
}
const spanWords = computed(() => {
  const t = lead.value
  if (!t) return ''
  const [a, b] = span.value
  const days = day(a, t.timezone) === day(b - 1, t.timezone) ? day(a, t.timezone) : `${day(a, t.timezone)} to ${day(b - 1, t.timezone)}`
  const [begin, end] = [clock(a, t.timezone, false), clock(b, t.timezone, false)]
  const hours = `${Number(((b - a) / 3_600_000).toFixed(2))} h`
  return `${days} ${DateTime.fromMillis(a, { zone: t.timezone }).year}, ${begin === '00:00' && end === '00:00' ? '' : `${begin} to ${end}, `}${hours} on the clock of ${t.timezone}`
})
/** Clocks that change at the same instant are told together. */
const changes = computed(() => {
  const at = new Map<number, Map<string, number>>()
  for (const t of told.value.values())
    for (const c of t.clock_changes) {
      const instant = Date.parse(c.at)
      at.set(instant, (at.get(instant) ?? new Map()).set(t.timezone.split('/').at(-1)!.replace('_', ' '), c.shift_s))
    }
  return [...at].map(([instant, zones]) => {
    const shift = [...zones.values()][0]!
    return { at: instant, words: `${[...zones.keys()].join(' and ')}: the clocks go ${shift > 0 ? 'on' : 'back'} by ${Math.abs(shift) / 3600} h` }
  })
})
const csv = computed(() => {
  const query = new URLSearchParams({ display: ids.value.join(','), ...(lead.value ? { from: lead.value.from, to: lead.value.to } : {}) })
  if (source.value) query.set('source', source.value)
  if (by.value) query.set('scheduled', '1')
  return `/api/rehearsal/changes.csv?${query}`
})

const bed = useTemplateRef('bed')
const { width } = useElementSize(bed)
const xOf = (t: number) => ((t - span.value[0]) / (span.value[1] - span.value[0])) * width.value
const follow = useHandTaken(hand, (e) => {
  const share = (e.clientX - bed.value!.getBoundingClientRect().left) / Math.max(1, width.value)
  return span.value[0] + Math.max(0, Math.min(1, share)) * (span.value[1] - span.value[0])
})
function takeHand(event: PointerEvent) {
  if (!(event.target as HTMLElement).closest('button')) follow(event)
}
function keys(event: KeyboardEvent) {
  if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return
  event.preventDefault()
  const forward = event.key === 'ArrowRight'
  if (event.shiftKey) hand.toChange(forward)
  else hand.to(at.value + (forward ? 1000 : -1000))
}

// Side by side, each as large as all fit: heights are alike, widths follow the rasters.
const room = useTemplateRef('room')
const { width: roomWidth, height: roomHeight } = useElementSize(room)
const GAP = 22
const CAPTION = 62
const height = computed(() => {
  const aspects = chosen.value.reduce((sum, d) => sum + d.raster.width / d.raster.height, 0)
  const byWidth = (roomWidth.value - GAP * (chosen.value.length + 1)) / Math.max(0.1, aspects)
  return Math.max(40, Math.min(byWidth, roomHeight.value - CAPTION - 24))
})

watchEffect(() => {
  shelf.findings = matters(
    [...told.value.values()].flatMap((t) => t.findings),
    () => true,
  )
  shelf.remark = trouble.value || 'What is rehearsed is what is saved by now.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div class="flex-grow-1 text-truncate">
        <h1>Rehearsal</h1>
        <p class="facts m-0 text-truncate">{{ spanWords }}</p>
      </div>
      <div class="actions">
        <PlaybackTabs />
        <BButton variant="outline-dark" title="A day earlier" aria-label="A day earlier" @click="shift(-1)">‹</BButton>
        <BButton variant="outline-dark" @click="spanOf()">Today</BButton>
        <BButton variant="outline-dark" title="A day later" aria-label="A day later" @click="shift(1)">›</BButton>
        <a class="btn btn-outline-dark" :href="csv" download>Changes as CSV</a>
      </div>
    </div>
    <div class="columns">
      <div class="leaf">
        <div class="above">
          <LocalField label="From" :value="localOf(span[0]) ?? (from || undefined)" @change="from = $event ?? ''" />
          <LocalField label="To" :value="localOf(span[1]) ?? (to || undefined)" @change="to = $event ?? ''" />
          <ul class="those" aria-label="Displays that are looked at">
            <li v-for="d in chosen" :key="d.id">
              <button type="button" class="name" :aria-pressed="read?.display === d.id" title="Read its changes" @click="whose = d.id">
                {{ d.name }}
              </button>
              <button v-if="chosen.length > 1" type="button" class="away" :aria-label="`Without ${d.name}`" @click="take(d.id)">×</button>
            </li>
          </ul>
          <select
            v-if="chosen.length < MOST && left.length"
            class="form-select form-select-sm"
            aria-label="Beside it"
            :value="''"
            @change="add(($event.target as HTMLSelectElement).value)"
          >
            <option value="">{{ chosen.length ? 'another display beside it…' : 'choose a display…' }}</option>
            <option v-for="d in left" :key="d.id" :value="d.id">{{ d.name }}, {{ d.way.at(-1) }}</option>
          </select>
        </div>
        <div v-if="[...told.values()].some((t) => t.rules)" class="by">
          <span class="small">Plays</span>
          <ChoiceBar v-model="by" label="What is rehearsed" :words="{ '': 'what stands there', schedule: 'the schedule that rules' }" />
        </div>
        <KeptData v-if="sources.length && lead" v-model="fetches" :sources="sources" :timezone="lead.timezone" />
        <p v-if="trouble" class="said-error px-3 pt-2 m-0" role="alert">{{ trouble }}</p>
        <template v-if="read">
          <div class="list-head">
            <span class="text-truncate"
              ><b>{{ nameOf(read.display) }}</b>
              <span class="soft small">
                {{ read.source ? `${read.source.name}${read.source.revision ? `, revision ${read.source.revision}` : ''}` : 'nothing' }}</span
              ></span
            >
            <ChoiceBar
              :model-value="which || 'bookings'"
              label="What is told"
              :words="{ bookings: 'bookings', items: 'every item' }"
              @update:model-value="which = $event === 'items' ? 'items' : ''"
            />
          </div>
          <p v-if="which && course" class="hour soft small">
            From {{ clock(Date.parse(course.from), course.timezone, false) }} to {{ clock(Date.parse(course.to), course.timezone, false) }}, the hour
            of the hand
          </p>
          <CourseTable v-if="course" :told="course" :at="at" @at="hand.to" />
        </template>
      </div>
      <div class="theatre">
        <div ref="room" class="room">
          <p v-if="chosen.length === 0" class="empty">No display is surveyed yet.</p>
          <figure v-for="d in chosen" :key="d.id" :style="{ '--w': `${(height * d.raster.width) / d.raster.height}px` }">
            <RehearsedPicture v-if="told.get(d.id)" :display="d" :file="told.get(d.id)!.release" :at="seen" :playing="running && speed === '1'" />
            <figcaption>
              <b>{{ d.name }}</b><br /><span class="figures">{{ clock(at, d.timezone) }} {{ zoneName(d.timezone, at) }}</span
              ><br />{{ dueOf(d.id)?.name || 'nothing' }}
            </figcaption>
          </figure>
        </div>
        <div class="time">
          <div class="top">
            <b>{{ day(at, lead?.timezone) }}</b>
            <label class="figures"
              ><span class="visually-hidden">Time of the hand</span
              ><input
                class="form-control form-control-sm figures"
                aria-label="Time of the hand"
                :value="clock(at, lead?.timezone)"
                :disabled="!lead"
                @change="typed"
            /></label>
            <span class="figures soft">{{ lead?.timezone }}</span>
            <span v-if="typedTrouble" class="said-error small" role="alert">{{ typedTrouble }}</span>
            <StepBar
              class="ms-auto"
              :running="running"
              run-word="play"
              @change="hand.toChange"
              @second="(forward) => hand.to(at + (forward ? 1000 : -1000))"
              @run="running = !running"
            />
            <ChoiceBar v-model="speed" label="Speed" :words="Object.fromEntries(SPEEDS.map((s) => [s, `${s}×`]))" />
          </div>
          <div class="strips">
            <div class="names">
              <div v-for="d in chosen" :key="d.id" class="strip-name">
                <span>{{ d.name }}</span><span class="soft small">{{ d.timezone.split('/')[1]?.replace('_', ' ') }}</span>
              </div>
            </div>
            <div ref="bed" class="bed" @pointerdown="takeHand">
              <template v-for="d in chosen" :key="d.id">
                <DayStrip v-if="told.get(d.id)" :display="d" :told="told.get(d.id)!" :from="span[0]" :to="span[1]" @at="hand.to" />
                <div v-else class="strip-wait soft">{{ trouble ? '' : 'Working out what plays.' }}</div>
              </template>
              <div v-for="c in changes" :key="c.at" class="odd" :style="{ left: `${xOf(c.at)}px` }">
                <span>{{ c.words }}</span>
              </div>
              <div
                v-if="lead"
                class="hand"
                role="slider"
                tabindex="0"
                aria-label="Instant that is rehearsed"
                :aria-valuemin="span[0]"
                :aria-valuemax="span[1]"
                :aria-valuenow="Math.round(at)"
                :aria-valuetext="clock(at, lead.timezone)"
                :style="{ transform: `translateX(${xOf(at)}px)` }"
                @keydown="keys"
              ></div>
            </div>
          </div>
        </div>
      </div>
    </div>
  </main>
</template>

<style scoped>
.above {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  padding: 8px 14px 10px;
  border-bottom: 1px solid var(--rule);
}
.above :deep(label) {
  font-size: 0.8125rem;
  color: var(--soft);
}
.those {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.those li {
  display: flex;
  border: 1px solid var(--soft);
}
.those button {
  min-height: 26px;
  border: 0;
  background: none;
  padding: 1px 8px;
  font-size: 0.875rem;
}
.those .name[aria-pressed='true'] {
  background: var(--kelp-wash);
  font-weight: 650;
}
.those .away {
  border-left: 1px solid var(--rule);
}
.by {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 8px 14px 0;
}
.list-head {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  padding: 7px 14px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.list-head :deep(button),
.by :deep(button) {
  min-height: 26px;
}
.hour {
  padding: 5px 14px;
  margin: 0;
  border-bottom: 1px solid var(--rule);
}
.theatre {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.room {
  flex: 1;
  min-height: 160px;
  overflow: hidden;
  background: #6f7371;
  display: flex;
  justify-content: center;
  align-items: center;
  gap: 22px;
  padding: 12px;
}
figure {
  margin: 0;
  flex: none;
  min-width: var(--w);
  width: 0;
}
figure > :first-child {
  width: var(--w);
}
figcaption {
  margin-top: 5px;
  padding: 2px 6px;
  background: var(--sheet);
  font-size: 0.8125rem;
  line-height: 17px;
  white-space: nowrap;
  width: max-content;
  min-width: var(--w);
  max-width: max(var(--w), 116px);
  overflow: hidden;
  text-overflow: ellipsis;
}
.time {
  background: var(--sheet);
  border-top: 1px solid var(--ink);
  max-height: 48%;
  display: flex;
  flex-direction: column;
}
.top {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 0.875rem;
}
.top input {
  width: 96px;
}
.strips {
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  overflow-y: auto;
  min-height: 0;
}
.names {
  border-right: 1px solid var(--rule);
}
.strip-name,
.strip-wait {
  height: 104px;
  border-bottom: 1px solid #efeadd;
}
.strip-name {
  display: flex;
  flex-direction: column;
  padding: 6px 12px;
  font-size: 0.8125rem;
}
.strip-wait {
  padding: 8px;
}
.bed {
  position: relative;
  overflow: hidden;
  touch-action: none;
  cursor: ew-resize;
}
.bed :deep(.strip) {
  border-bottom: 1px solid #efeadd;
}
.hand {
  position: absolute;
  top: 0;
  bottom: 0;
  left: -12px;
  width: 24px;
  will-change: transform;
}
.hand::before {
  content: '';
  position: absolute;
  top: 0;
  bottom: 0;
  left: 11px;
  border-left: 2px solid var(--stop);
}
.odd {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 2px dotted var(--chalk);
  pointer-events: none;
}
.odd span {
  position: absolute;
  top: 7px;
  left: 4px;
  white-space: nowrap;
  font-size: 0.75rem;
  line-height: 15px;
  color: var(--chalk);
  background: var(--sheet);
  border: 1px solid var(--chalk);
  padding: 0 4px;
}
</style>
