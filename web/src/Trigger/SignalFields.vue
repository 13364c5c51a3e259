<script setup lang="ts">
import { computed } from 'vue'
import RowsFields from '../Data/RowsFields.vue'
import ChoiceField from '../ui/ChoiceField.vue'
import LocalField from '../ui/LocalField.vue'
import NamedMeasure from '../ui/NamedMeasure.vue'
import TouchAreas from './TouchAreas.vue'
import { type LookTriggers, type Rect, type Signal, type Triggers, metres } from './triggers'
import { vKept } from '../ui/kept'

/** What a signal listens to. */
const props = defineProps<{ map: Triggers; look: LookTriggers; signal: Signal }>()
const emit = defineEmits<{ change: [part: Partial<Signal>, gesture?: string] }>()
const sensors = computed(() => props.look.on?.sensors ?? [])
const own = computed(() =>
  'sensor' in props.signal ? sensors.value.find(({ id }) => 'sensor' in props.signal && id === props.signal.sensor) : undefined,
)
const of = (kind: string, chosen: string) => {
  const known = sensors.value.filter((one) => one.kind === kind).map(({ id }) => ({ value: id, text: id }))
  return known.some(({ value }) => value === chosen) ? known : [{ value: chosen, text: `${chosen}, which the display lacks` }, ...known]
}
const buttons = computed(() => {
  if (props.signal.kind !== 'press') return []
  const known = own.value?.buttons ?? []
  return known.includes(props.signal.button) ? known : [props.signal.button, ...known]
})
function band(n: number) {
  if (props.signal.kind !== 'presence') return
  const { bands } = props.signal
  const next = bands.includes(n) ? bands.filter((one) => one !== n) : [...bands, n].sort((a, b) => a - b)
  if (next.length) emit('change', { bands: next })
}
const change = (part: object, gesture?: string) => emit('change', part, gesture)
const ms = (seconds: number) => Math.round(seconds * 1000)
const typed = (event: Event) => (event.target as HTMLInputElement).value
function listen(event: KeyboardEvent) {
  if (event.key === 'Tab' || event.key === 'Shift') return
  event.preventDefault()
  change({ key: event.key })
}
</script>

<template>
  <div class="signal-fields">
    <template v-if="signal.kind === 'presence'">
      <ChoiceField label="Sensor" :value="signal.sensor" :options="of('presence', signal.sensor)" @change="change({ sensor: $event })" />
      <fieldset>
        <legend>Bands, the nearest first</legend>
        <label v-for="(to, n) in own?.bands_mm ?? []" :key="n" class="band"
          ><input type="checkbox" :checked="signal.bands.includes(n + 1)" @change="band(n + 1)" />{{ n + 1 }}
          <span class="soft figures">to {{ metres(to) }}</span></label
        >
      </fieldset>
      <NamedMeasure
        label="Stays for"
        unit="s"
        :value="(signal.dwell_ms ?? 0) / 1000"
        :decimals="2"
        :step="0.1"
        :most="86400"
        @change="(value, gesture) => change({ dwell_ms: ms(value) || undefined }, gesture)"
      />
    </template>
    <template v-else-if="signal.kind === 'absence'">
      <ChoiceField label="Sensor" :value="signal.sensor" :options="of('presence', signal.sensor)" @change="change({ sensor: $event })" />
      <NamedMeasure
        label="Nobody for"
        unit="s"
        :value="signal.after_ms / 1000"
        :decimals="2"
        :step="0.5"
        :most="86400"
        @change="(value, gesture) => change({ after_ms: ms(value) }, gesture)"
      />
    </template>
    <template v-else-if="signal.kind === 'press'">
      <ChoiceField label="Buttons" :value="signal.sensor" :options="of('buttons', signal.sensor)" @change="change({ sensor: $event })" />
      <ChoiceField label="Button" :value="signal.button" :options="buttons" @change="change({ button: $event })" />
    </template>
    <label v-else-if="signal.kind === 'key'"
      >Key: press it here<input class="form-control form-control-sm" readonly :value="signal.key === ' ' ? 'space' : signal.key" @keydown="listen" />
    </label>
    <template v-else-if="signal.kind === 'time'">
      <LocalField label="At" :value="signal.start" @change="$event && change({ start: $event })" />
      <ChoiceField
        label="Again"
        :value="signal.rrule ?? ''"
        :options="[
          { value: '', text: 'once' },
          { value: 'FREQ=DAILY', text: 'every day' },
          { value: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', text: 'Monday to Friday' },
          { value: 'FREQ=HOURLY', text: 'every hour' },
          ...(signal.rrule && !['FREQ=DAILY', 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', 'FREQ=HOURLY'].includes(signal.rrule)
            ? [{ value: signal.rrule, text: signal.rrule }]
            : []),
        ]"
        @change="change({ rrule: $event || undefined })"
      />
    </template>
    <template v-else-if="signal.kind === 'value'">
      <label
        >Figure<input
          v-kept="signal.field"
          class="form-control form-control-sm figures"
          maxlength="80"
          @change="change({ field: typed($event).trim() })"
      /></label>
      <NamedMeasure
        v-if="signal.rises_to !== undefined"
        label="Comes at this or more"
        :value="signal.rises_to"
        :least="-1e6"
        :decimals="3"
        @change="(value, gesture) => change({ rises_to: value }, gesture)"
      />
      <NamedMeasure
        :label="signal.rises_to === undefined ? 'Comes below this' : 'Again once it was below'"
        :value="signal.falls_below ?? signal.rises_to ?? null"
        :least="-1e6"
        :decimals="3"
        @change="(value, gesture) => change({ falls_below: value }, gesture)"
      />
    </template>
    <p v-else-if="signal.kind === 'operator'" class="soft small m-0">A key on the operator's panel, called by its name.</p>
    <TouchAreas
      v-if="signal.kind === 'touch'"
      class="wide"
      :map="map"
      :look="look"
      :signal="signal"
      @change="(rect: Rect, gesture) => change({ rect }, gesture)"
    />
    <RowsFields
      v-if="signal.kind !== 'absence'"
      class="wide"
      :rows="signal.rows"
      :label="signal.kind === 'value' ? 'Told by' : 'What ways may carry: the first row of'"
      :none="signal.kind === 'value' ? '' : 'nothing'"
      @change="change({ rows: $event })"
    />
  </div>
</template>

<style scoped>
.signal-fields {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
  align-items: start;
}
.wide,
fieldset {
  grid-column: 1 / -1;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
legend {
  font-size: 0.8125rem;
  margin: 0;
}
.band {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  min-height: 24px;
}
</style>
