<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed } from 'vue'
import WhenFields from '../Data/WhenFields.vue'
import { useDesigns, usePlayedLayouts } from '../Layout/designs'
import { useMedia } from '../Media/media'
import ChoiceField from '../ui/ChoiceField.vue'
import { vKept } from '../ui/kept'
import LocalField from '../ui/LocalField.vue'
import TypedLine from '../ui/TypedLine.vue'
import { type Booking, type BookingAct, RANKS, type Rank, keyOf, playedOf } from './schedule'

/** What is typed about one booking. */
const props = defineProps<{ booking: Booking; zones: string[] }>()
const emit = defineEmits<{ change: [change: Partial<Booking>]; act: [act: BookingAct] }>()

const layouts = usePlayedLayouts()
const playlists = useDesigns('playlists')
const { ready } = useMedia()
const what = computed(() => [
  ...layouts.value.map((d) => ({ value: `layout:${d.id}`, text: d.name })),
  ...playlists.all.value.map((d) => ({ value: `playlist:${d.id}`, text: `${d.name} (playlist)` })),
  ...ready.value.map((m) => ({ value: `media:${m.id}`, text: m.name })),
])
const play = (key: string) => emit('change', { plays: playedOf(key) })

const RULES = computed(() => {
  const day = DateTime.fromISO(props.booking.start).toFormat('ccc', { locale: 'en' }).slice(0, 2).toUpperCase()
  return [
    { value: '', text: 'once' },
    { value: 'FREQ=DAILY', text: 'every day' },
    { value: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', text: 'Mon to Fri' },
    { value: `FREQ=WEEKLY;BYDAY=${day}`, text: `every ${DateTime.fromISO(props.booking.start).toFormat('cccc', { locale: 'en' })}` },
    { value: 'FREQ=MONTHLY', text: 'every month on this date' },
    { value: 'FREQ=YEARLY', text: 'every year' },
  ]
})
const ruleNames = computed(() =>
  RULES.value.some((r) => r.value === (props.booking.rrule ?? ''))
    ? RULES.value
    : [...RULES.value, { value: props.booking.rrule!, text: 'by the rule below' }],
)
const exdates = computed(() => (props.booking.exdates ?? []).map((d) => d.replace('T', ' ').replace(/:00$/, '')).join(', '))
function except(event: Event) {
  const field = event.target as HTMLInputElement
  const dates = field.value
    .split(',')
    .map((d) => d.trim().replace(' ', 'T'))
    .filter(Boolean)
  const wrong = dates.find((d) => !DateTime.fromISO(d).isValid || !/^\d{4}-\d\d-\d\d(T\d\d:\d\d)?$/.test(d))
  field.setCustomValidity(wrong ? `"${wrong}" is no date; 2026-12-25 is right, several with commas between them.` : '')
  if (field.reportValidity()) emit('change', { exdates: dates.length ? dates.map((d) => (d.length === 16 ? `${d}:00` : d)) : undefined })
}
</script>

<template>
  <section class="booking" :aria-label="`Booking ${booking.name ?? booking.id}`">
    <h2><TypedLine :value="booking.name ?? booking.id" label="Name of the booking" @change="emit('change', { name: $event })" /></h2>
    <div class="form">
      <ChoiceField class="wide" label="Plays" :value="keyOf(booking.plays)" :options="what" @change="play" />
      <ChoiceField
        v-if="zones.length"
        label="On"
        :value="booking.zone ?? ''"
        :options="[{ value: '', text: 'the whole display' }, ...zones.map((z) => ({ value: z, text: `zone ${z}` }))]"
        @change="emit('change', { zone: $event || undefined })"
      />
      <ChoiceField label="Rank" :value="booking.rank" :options="RANKS" @change="emit('change', { rank: $event as Rank })" />
      <LocalField label="Begins" :value="booking.start" @change="$event && emit('act', { do: 'begin', booking: booking.id, start: $event })" />
      <LocalField label="Ends" :value="booking.end" @change="$event && emit('change', { end: $event })" />
      <ChoiceField
        label="Comes"
        :value="booking.rrule ?? ''"
        :options="ruleNames"
        @change="emit('act', { do: 'repeat', booking: booking.id, rrule: $event || null })"
      />
      <button
        type="button"
        class="btn btn-link btn-sm p-0 whole"
        title="From midnight to midnight"
        @click="emit('act', { do: 'whole', booking: booking.id })"
      >
        all day
      </button>
      <label class="wide"
        >Rule<input
          v-kept="booking.rrule ?? ''"
          class="form-control form-control-sm figures"
          placeholder="FREQ=MONTHLY;BYDAY=1SA"
          aria-label="Recurrence rule (RFC 5545)"
          @change="emit('change', { rrule: ($event.target as HTMLInputElement).value.trim() || undefined })"
      /></label>
      <label class="wide"
        >Not on<input
          v-kept="exdates"
          class="form-control form-control-sm figures"
          placeholder="2026-12-25"
          aria-label="Days left out"
          @change="except"
      /></label>
      <LocalField label="Shown from" :value="booking.from" @change="emit('change', { from: $event })" />
      <LocalField label="until" name="Shown until" :value="booking.until" @change="emit('change', { until: $event })" />
      <WhenFields class="wide" :when="booking.when" what="Plays" @change="(when) => emit('change', { when })" />
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.9375rem;
  padding: 10px 14px 4px;
  margin: 0;
}
.form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  padding: 4px 14px 12px;
}
.form > label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.whole {
  align-self: end;
  padding-bottom: 4px !important;
}
.wide {
  width: 100%;
}
</style>
