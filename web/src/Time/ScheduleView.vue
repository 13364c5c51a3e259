<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import DesignHead from '../Layout/DesignHead.vue'
import { useDesignWork } from '../Layout/work'
import { useAnswer } from '../ui/answer'
import { api, sentence } from '../ui/api'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import ChoiceField from '../ui/ChoiceField.vue'
import { moment } from '../ui/format'
import { inTurn } from '../ui/inTurn'
import { useSecond } from '../ui/second'
import { type Finding, useShelf } from '../ui/shelf'
import BookingLedger from './BookingLedger.vue'
import { usePlayables } from './playables'
import { type Booking, type BookingAct, type Occurrence, type ScheduleDocument, type Told, booked, keyOf, playedOf } from './schedule'
import WeekChart from './WeekChart.vue'

const props = defineProps<{ id: string }>()
const work = useDesignWork<ScheduleDocument>('schedules', props.id)
const document = work.document
const shelf = useShelf()
const at = useSecond()
const span = useAsked('span')
const first = useAsked('from')
const display = useAsked('display')
const zone = useAsked('zone')
/** The first of the month that is seen. */
const month = computed((): DateTime =>
  DateTime.fromISO(first.value || DateTime.now().setZone(told.value?.timezone).toISODate()!, { zone: 'utc' }).startOf('month'),
)
/** A month is seen in whole weeks. */
const DAYS = computed(() => {
  if (span.value === 'day') return 1
  return span.value === 'month' ? 7 * Math.ceil((month.value.weekday - 1 + month.value.daysInMonth!) / 7) : 7
})
const from = computed((): string => (span.value === 'month' ? month.value.toISODate()! : first.value))

/** The first day that is seen, as the core counts days: of the week, unless only one is. */
const begin = computed(() => DateTime.fromISO(told.value?.days[0]?.date ?? (first.value || DateTime.now().toISODate()), { zone: 'utc' }))
const go = (by: number) =>
  (first.value =
    span.value === 'month'
      ? month.value.plus({ months: by }).toISODate()!
      : begin.value.plus(span.value === 'day' ? { days: by } : { weeks: by }).toISODate()!)
const asked = computed((): object => ({
  schedule: props.id,
  document: document.value,
  ...(display.value ? { display: display.value } : {}),
  ...(from.value ? { day: from.value } : {}),
  days: DAYS.value,
}))
const { answer: told, trouble: untold } = useAnswer<object, Told>(
  () => (document.value ? asked.value : null),
  (what, signal) => api.post<Told>('plays', what, signal),
)

const bookingAsked = useAsked('booking')
const chosen = ref<string | null>(bookingAsked.value || null)
const occurrence = ref<Occurrence | null>(null)
const which = ref<'one' | 'later' | 'all'>('all')
const booking = computed(() => document.value?.bookings.find((b) => b.id === chosen.value) ?? null)
const own = computed(() => new Set(document.value?.bookings.map((b) => b.id) ?? []))
const zones = computed(() => [
  ...new Set([
    ...(told.value?.zones_there ?? []),
    ...Object.keys(document.value?.zones ?? {}),
    ...(document.value?.bookings ?? []).flatMap((b) => b.zone ?? []),
  ]),
])
const zoneWords = computed<Record<string, string>>(() => ({ '': 'whole display', ...Object.fromEntries(zones.value.map((z) => [z, `zone ${z}`])) }))
/** One of a place that the display hangs in is edited in the schedule of that place: its id begins with that. */
const foreign = computed(() =>
  chosen.value && !own.value.has(chosen.value) ? (told.value?.bookings.find((b) => b.id === chosen.value) ?? null) : null,
)
const elsewhere = (id: string) => {
  const [schedule, ...rest] = id.split('/')
  return `/schedules/${schedule}?booking=${rest.join('/')}`
}
/** When the chosen booking has its next turn, as it stands now. */
const { answer: turn } = useAnswer(
  () =>
    document.value && booking.value
      ? { schedule: props.id, document: document.value, ...(told.value?.display ? { display: told.value.display } : {}), booking: chosen.value }
      : null,
  (what, signal) => api.post<{ at: string | null; never: string | null; why: string }>('plays/first', what, signal),
)
const turnWords = computed(() => {
  const first = turn.value
  if (!first) return ''
  if (first.at === null) return `Never seen: ${first.why}.`
  return Date.parse(first.at) <= at.value ? 'Seen now.' : `Next seen ${moment(first.at, told.value?.timezone)}.`
})
const trouble = ref('')

const things = usePlayables(() => (zone.value ? 'its own list' : 'nothing'))
const standby = computed(() => (zone.value ? document.value?.zones?.[zone.value]?.standby : document.value?.standby))
function stand(key: string) {
  if (!document.value) return
  const played = key ? playedOf(key) : undefined
  work.change(
    zone.value
      ? { ...document.value, zones: { ...document.value.zones, [zone.value]: played ? { standby: played } : {} } }
      : { ...document.value, standby: played },
  )
}

const clean = (b: Booking): Booking => Object.fromEntries(Object.entries(b).filter(([, v]) => v !== undefined)) as unknown as Booking
function change(fields: Partial<Booking>, gesture?: string) {
  if (!document.value || !chosen.value) return
  work.change({ ...document.value, bookings: document.value.bookings.map((b) => (b.id === chosen.value ? clean({ ...b, ...fields }) : b)) }, gesture)
}
const ask = inTurn(
  () => [document.value!] as const,
  ([from], act: BookingAct) => booked(from, act),
  (answer) => {
    work.change(answer.document)
    chosen.value = answer.booking
  },
)
const act = (what: BookingAct) => {
  trouble.value = ''
  ask(what).catch((e: unknown) => (trouble.value = sentence(e)))
}
/** What is booked until somebody says otherwise: the standby, or the first thing that there is. */
const usual = () => standby.value ?? (things.value[1] ? playedOf(things.value[1].value) : undefined)
function make(when: { start: string; end: string } | { day: string }) {
  const plays = usual()
  if (document.value && plays) act({ do: 'make', plays, ...when, ...(zone.value ? { zone: zone.value } : {}) })
}
/** What a hand has done to one occurrence is worked out by the core, for it alone, for the later ones too, or for all. */
async function edit(id: string, of: Occurrence, more: { start?: string; end?: string }) {
  if (!document.value) return
  trouble.value = ''
  try {
    const before = new Set(document.value.bookings.map((b) => b.id))
    const answer = await api.post<{ document: ScheduleDocument }>('plays/edit', {
      document: document.value,
      booking: id,
      occurrence: of.start,
      which: which.value,
      ...more,
    })
    work.change(answer.document)
    chosen.value = answer.document.bookings.find((b) => !before.has(b.id))?.id ?? (more.start || which.value !== 'all' ? id : null)
    if (more.start && more.end) occurrence.value = { ...of, start: more.start, end: more.end }
  } catch (e) {
    trouble.value = sentence(e)
  }
}
const displayAsked = computed(() => (told.value?.display ? `?display=${told.value.display}` : ''))
const notes = ref<string[]>([])
/** What another calendar says, behind what is booked; one press undoes it. */
async function bringIn(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  const plays = usual()
  if (!document.value || !file || !plays) return
  trouble.value = ''
  try {
    const answer = await api.post<{ document: ScheduleDocument; count: number; notes: string[] }>('plays/calendar', {
      document: document.value,
      calendar: await file.text(),
      timezone: told.value?.timezone ?? document.value.timezone,
      plays,
    })
    work.change(answer.document)
    notes.value = [`${answer.count} ${answer.count === 1 ? 'booking' : 'bookings'} from ${file.name}.`, ...answer.notes]
  } catch (e) {
    trouble.value = sentence(e)
  } finally {
    field.value = ''
  }
}
function choose(id: string, of: Occurrence) {
  chosen.value = id
  occurrence.value = of
}

const spanWords = computed(() => {
  if (span.value === 'month') return month.value.toFormat('LLLL y', { locale: 'en' })
  const last = begin.value.plus({ days: DAYS.value - 1 })
  const [a, b] = [begin.value.toFormat('d MMMM', { locale: 'en' }), last.toFormat('d MMMM y', { locale: 'en' })]
  return DAYS.value === 1 ? b : `${begin.value.hasSame(last, 'month') ? begin.value.day : a} to ${b}`
})
const others = computed(() => [...new Set((told.value?.displays ?? []).map((d) => d.timezone))].filter((z) => z !== told.value?.timezone))
const rehearseTo = computed(() => {
  const those = (told.value?.displays ?? []).map((d) => d.id)
  const first = told.value?.display
  return `/rehearsal?by=schedule&display=${[...new Set([...(first ? [first] : []), ...those])].slice(0, 4).join(',')}${begin.value.isValid ? `&from=${begin.value.toFormat("yyyy-MM-dd'T'00:00:00")}` : ''}`
})
const handTo = computed(() => `/handover?schedule=${props.id}${(told.value?.displays ?? []).map((d) => `&display=${d.id}`).join('')}`)

watchEffect(() => {
  shelf.findings = told.value?.findings ?? []
  shelf.remark = untold.value || 'Nothing is found in the next eight weeks.'
})
shelf.chosen = (finding: Finding) => {
  const id = finding.elements[0]
  if (id) chosen.value = id
  const when =
    typeof finding.measure?.first === 'string' ? finding.measure.first : typeof finding.measure?.local === 'string' ? finding.measure.local : null
  if (when) first.value = when.slice(0, 10)
}
shelf.fixed = ({ fix }: Finding) => fix && act({ do: 'cure', fix })
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <DesignHead :id="id" :work="work" noun="schedule" :handover="handTo" :rehearsal="rehearseTo">
      {{ spanWords }} · times of {{ told?.timezone ?? document?.timezone }}{{ others.length ? `; others in ${others.join(', ')}` : '' }}
      <template #actions>
        <ChoiceBar
          :model-value="span || 'week'"
          label="Span"
          :words="{ day: 'day', week: 'week', month: 'month' }"
          @update:model-value="span = $event === 'week' ? '' : $event"
        />
        <BButton variant="outline-dark" title="Earlier" aria-label="Earlier" @click="go(-1)">‹</BButton>
        <BButton variant="outline-dark" @click="first = ''">Today</BButton>
        <BButton variant="outline-dark" title="Later" aria-label="Later" @click="go(1)">›</BButton>
        <BButton variant="outline-dark" @click="make({ day: begin.toISODate()! })">New booking</BButton>
      </template>
    </DesignHead>
    <div class="columns">
      <div v-if="document" class="leaf">
        <div class="above">
          <ChoiceField
            v-if="(told?.displays.length ?? 0) > 1"
            label="As on"
            :value="told!.display ?? ''"
            :options="told!.displays.map((d) => ({ value: d.id, text: `${d.name}, ${d.timezone}` }))"
            @change="display = $event"
          />
          <ChoiceField label="Standby" :value="standby ? keyOf(standby) : ''" :options="things" @change="stand" />
          <ChoiceBar v-if="zones.length" v-model="zone" label="What is seen" :words="zoneWords" />
        </div>
        <p v-if="trouble" class="said-error px-3 m-0" role="alert">{{ trouble }}</p>
        <template v-if="booking">
          <div v-if="booking.rrule || booking.rdates" class="which">
            <span class="small">Dragging moves</span>
            <ChoiceBar v-model="which" label="For which" :words="{ one: 'this one', later: 'this and later', all: 'all' }" />
          </div>
          <p class="turn small" :class="{ never: turn?.never }" role="status">{{ turnWords }}</p>
          <BookingLedger :booking="booking" :zones="zones" @change="change" @act="act" />
          <div class="out">
            <button
              type="button"
              class="btn btn-link btn-sm p-0"
              @click="edit(booking.id, occurrence ?? { start: booking.start, end: booking.end, from: '', to: '' }, {})"
            >
              {{ booking.rrule ? `take out ${which === 'one' ? 'this one' : which === 'later' ? 'this and later' : 'all'}` : 'take out' }}
            </button>
            <button type="button" class="btn btn-link btn-sm p-0" @click="chosen = null">all bookings</button>
          </div>
        </template>
        <p v-else-if="foreign" class="foreign" role="status">
          “{{ foreign.name }}” is booked for the place.
          <RouterLink :to="elsewhere(foreign.id)">Edit it there</RouterLink>
          <button type="button" class="btn btn-link btn-sm p-0" @click="chosen = null">all bookings</button>
        </p>
        <template v-else>
          <h2>Bookings</h2>
          <p class="files">
            <a :href="`/api/schedules/${id}/calendar.ics${displayAsked}`" download>as iCalendar</a>
            <a :href="`/api/schedules/${id}/plan.csv?day=${begin.toISODate()}&days=${DAYS}${displayAsked.replace('?', '&')}`" download>plan as CSV</a>
            <label class="btn btn-link btn-sm p-0"
              >bring in iCalendar…<input class="visually-hidden" type="file" accept=".ics,text/calendar" @change="bringIn"
            /></label>
          </p>
          <ul v-if="notes.length" class="notes small">
            <li v-for="note in notes" :key="note">{{ note }}</li>
          </ul>
          <p v-if="document.bookings.length === 0" class="soft px-3">
            Nothing is booked yet. Press into a day and drag from where it begins to where it ends.
          </p>
          <ul class="list">
            <li v-for="b in told?.bookings ?? []" :key="b.id">
              <button v-if="own.has(b.id)" type="button" @click="choose(b.id, b.occurrences[0] ?? { start: '', end: '', from: '', to: '' })">
                <b>{{ b.name }}</b>
                <span class="figures soft">{{ b.rank }}, {{ b.said }}{{ b.zone ? `, zone ${b.zone}` : '' }}</span>
              </button>
              <RouterLink v-else class="of-place" :to="elsewhere(b.id)" title="Edit it there"
                ><b>{{ b.name }}</b> <span class="figures soft">{{ b.rank }}, {{ b.said }}; of its place</span></RouterLink
              >
            </li>
          </ul>
        </template>
      </div>
      <div class="view">
        <p v-if="!told && !untold" class="p-3 soft">Working out what plays.</p>
        <p v-else-if="!told" class="p-3 said-error" role="alert">{{ untold }}</p>
        <WeekChart
          v-else
          :told="told"
          :zone="zone || null"
          :chosen="chosen"
          :now="at"
          :own="own"
          :each="span === 'month' ? 7 : 1"
          :month="span === 'month' ? month.toFormat('yyyy-MM') : undefined"
          @choose="choose"
          @make="(start, end) => make({ start, end })"
          @move="(id, of, start, end) => edit(id, of, { start, end })"
          @remove="(id, of) => edit(id, of, {})"
          @turn="(forward) => go(forward ? 1 : -1)"
        />
      </div>
    </div>
  </main>
</template>

<style scoped>
.view {
  overflow: auto;
  background: var(--paper);
}
.above {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  padding: 8px 14px 10px;
  border-bottom: 1px solid var(--rule);
}
.above label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.which {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 8px 14px 0;
}
h2 {
  font-size: 0.9375rem;
  padding: 10px 14px 4px;
  margin: 0;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list li {
  border-bottom: 1px solid var(--rule);
}
.list button,
.list .of-place {
  text-decoration: none;
  display: grid;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 6px 14px;
  color: var(--ink);
}
.list button:hover {
  background: var(--kelp-wash);
}
.turn {
  padding: 6px 14px 0;
  margin: 0;
  min-height: 1.4em;
}
.turn.never {
  color: var(--warning);
}
.foreign {
  padding: 10px 14px;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  padding: 0 14px 6px;
  margin: 0;
  font-size: 0.875rem;
}
.notes {
  margin: 0;
  padding: 0 14px 8px 30px;
  color: var(--soft);
}
.out {
  display: flex;
  gap: 14px;
  padding: 0 14px 12px;
}
</style>
