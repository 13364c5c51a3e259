<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed } from 'vue'
import { DAYS } from '../Layout/designs'
import DayButtons from '../Time/DayButtons.vue'
import LocalField from '../ui/LocalField.vue'
import MeasureField from '../ui/MeasureField.vue'
import { between } from './hours'
import type { Times, When } from './overlays'
import { vKept } from '../ui/kept'

/** When it is shown: always, from to, again on days of the week, or after every so many items; on the clock of each display. */
const props = defineProps<{ value: When; mayFollow: boolean; zones: string; /** That of most of the displays. */ zone: string | undefined }>()
const emit = defineEmits<{ change: [when: When] }>()
type Way = 'always' | 'once' | 'days' | 'after'
const times = computed<Times | null>(() => (props.value === 'always' ? null : props.value))
const first = computed(() => times.value?.bookings?.[0] ?? null)
const way = computed<Way>(() => (!times.value ? 'always' : times.value.after ? 'after' : first.value?.rrule ? 'days' : 'once'))
/** More than this page can say is kept as it is. */
const isOther = computed(
  () =>
    (times.value?.bookings?.length ?? 0) > 1 || (first.value?.rrule !== undefined && !/^FREQ=(DAILY|WEEKLY;BYDAY=[A-Z,]+)$/.test(first.value.rrule)),
)
const days = computed(() => /BYDAY=([A-Z,]+)/.exec(first.value?.rrule ?? '')?.[1]?.split(',') ?? [...DAYS])

const LOCAL = "yyyy-MM-dd'T'HH:mm:00"
function choose(next: Way) {
  const now = DateTime.now().setZone(props.zone)
  const [start, end] = [now.toFormat(LOCAL), now.plus({ hours: 1 }).toFormat(LOCAL)]
  const day = start.slice(0, 10)
  if (next === 'always') emit('change', 'always')
  else if (next === 'once') emit('change', { bookings: [{ start, end }] })
  else if (next === 'days')
    emit('change', { bookings: [{ start: `${day}T09:00:00`, end: `${day}T17:00:00`, rrule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR' }] })
  else emit('change', { after: { every: 3 }, lasts_ms: 15_000, ...(times.value?.until ? { until: times.value.until } : {}) })
}
const booked = (part: Partial<NonNullable<Times['bookings']>[number]>) =>
  emit('change', { ...times.value, bookings: [{ ...first.value!, ...part }, ...(times.value!.bookings ?? []).slice(1)] })
function hour(edge: 'start' | 'end', time: string) {
  if (/^\d\d:\d\d$/.test(time)) booked(between(first.value!, { [edge]: time }))
}
const onDays = (next: string[]) => booked({ rrule: next.length === 7 ? 'FREQ=DAILY' : `FREQ=WEEKLY;BYDAY=${next.join(',')}` })
function until(local: string | undefined) {
  if (!times.value) return
  const rest = { ...times.value }
  delete rest.until
  emit('change', local ? { ...rest, until: local } : rest)
}
</script>

<template>
  <fieldset class="when">
    <legend>When</legend>
    <div class="ways" role="radiogroup" aria-label="When it is shown">
      <button
        v-for="[key, text] in [
          ['always', 'always'],
          ['once', 'from, to'],
          ['days', 'days and hours'],
          ...(mayFollow ? [['after', 'after items']] : []),
        ] as [Way, string][]"
        :key="key"
        type="button"
        role="radio"
        :aria-checked="way === key"
        class="btn btn-sm"
        :class="way === key ? 'btn-dark' : 'btn-outline-dark'"
        @click="way !== key && choose(key)"
      >
        {{ text }}
      </button>
    </div>
    <p v-if="isOther" class="small soft m-0">Its times are more than can be changed here; they stay as they are.</p>
    <template v-else-if="first && way === 'once'">
      <LocalField label="From" :value="first.start" @change="$event && booked({ start: $event })" />
      <LocalField label="To" :value="first.end" @change="$event && booked({ end: $event })" />
    </template>
    <template v-else-if="first && way === 'days'">
      <DayButtons :days="days" @change="onDays" />
      <div class="hours">
        <label
          >From
          <input
            v-kept="first.start.slice(11, 16)"
            type="time"
            class="form-control form-control-sm"
            @change="hour('start', ($event.target as HTMLInputElement).value)"
        /></label>
        <label
          >to
          <input
            v-kept="first.end.slice(11, 16)"
            type="time"
            class="form-control form-control-sm"
            @change="hour('end', ($event.target as HTMLInputElement).value)"
        /></label>
      </div>
    </template>
    <div v-else-if="times?.after" class="after">
      After every
      <MeasureField
        label="After every so many items"
        :value="times.after.every"
        :least="1"
        :most="1000"
        :decimals="0"
        @change="emit('change', { ...times!, after: { ...times!.after!, every: $event } })"
      />
      items of what fills the screen, for
      <MeasureField
        label="For how long"
        unit="s"
        :value="(times.lasts_ms ?? 1000) / 1000"
        :least="1"
        :most="3600"
        @change="emit('change', { ...times!, lasts_ms: Math.round(1000 * $event) })"
      />
    </div>
    <LocalField v-if="times && way !== 'once'" label="Until, where it has an end" :value="times.until" @change="until" />
    <p v-if="value !== 'always'" class="small soft m-0">On the clock of each display{{ zones ? `: ${zones}` : '' }}.</p>
  </fieldset>
</template>

<style scoped>
legend {
  font-size: 0.9375rem;
  font-weight: 700;
  margin: 0 0 4px;
}
.when {
  display: grid;
  gap: 8px;
  border: 0;
  padding: 0;
  margin: 0;
}
.ways {
  display: flex;
  gap: 4px;
  flex-wrap: wrap;
}
.hours,
.after {
  display: flex;
  gap: 8px;
  align-items: baseline;
  flex-wrap: wrap;
}
.hours label {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
</style>
