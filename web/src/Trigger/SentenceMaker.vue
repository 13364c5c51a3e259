<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useDesigns, usePlayedLayouts } from '../Layout/designs'
import ChoiceField from '../ui/ChoiceField.vue'
import NamedMeasure from '../ui/NamedMeasure.vue'
import PlaysField from './PlaysField.vue'
import { type Kind, type LookTriggers, type Played, type Signal, type State, type Triggers, freeId, leading, metres, signalBegun } from './triggers'

/** A map from a sentence: when this happens, show that for so long, then rest. */
const props = defineProps<{ map: Triggers; look: LookTriggers }>()
const emit = defineEmits<{ made: [map: Triggers, state: string] }>()
const open = defineModel<boolean>({ required: true })
const sensors = computed(() => props.look.on?.sensors ?? [])
const presence = computed(() => sensors.value.find((one) => one.kind === 'presence'))
const buttons = computed(() =>
  sensors.value.filter((one) => one.kind === 'buttons').flatMap((one) => (one.buttons ?? []).map((button) => ({ sensor: one.id, button }))),
)
const when = ref('')
/** What can happen before this display, in words. */
const whens = computed(() => [
  ...(presence.value?.bands_mm ?? []).map((mm, n) => ({ value: `near ${n + 1}`, text: `somebody is nearer than ${metres(mm)}` })),
  ...buttons.value.map(({ sensor, button }) => ({ value: `press ${sensor} ${button}`, text: `the button “${button}” is pressed` })),
  ...(sensors.value.some((one) => one.kind === 'touch') ? [{ value: 'touch', text: 'an area is touched (drawn afterwards)' }] : []),
  ...(sensors.value.some((one) => one.kind === 'keys') ? [{ value: 'key', text: 'a key is pressed (chosen afterwards)' }] : []),
  { value: 'operator', text: 'an operator asks for it' },
  ...props.map.signals.map((one) => ({ value: `known ${one.id}`, text: `“${one.name ?? one.id}” comes` })),
])
watch(open, (is) => is && !whens.value.some(({ value }) => value === when.value) && (when.value = whens.value[0]!.value), { immediate: true })
const isNear = computed(() => when.value.startsWith('near'))
const dwell = ref(0.5)
const plays = ref<Played | null>(null)
const zone = ref('')
const stands = ref<'after' | 'own' | 'endless'>('after')
const linger = ref(10)
const layouts = usePlayedLayouts()
const playlists = useDesigns('playlists')
const nameOfPlayed = computed(() => {
  const id = Object.values(plays.value ?? {})[0]
  return [...layouts.value, ...playlists.all.value].find((one) => one.id === id)?.name ?? id ?? 'shown'
})

function make() {
  if (!plays.value) return
  let map = props.map
  const [is, ...rest] = when.value.split(' ')
  let signal = is === 'known' ? rest.join(' ') : ''
  if (!signal) {
    const begun =
      is === 'near'
        ? ({
            kind: 'presence',
            sensor: presence.value!.id,
            bands: Array.from({ length: Number(rest[0]) }, (_, n) => n + 1),
            ...(dwell.value > 0 && { dwell_ms: Math.round(dwell.value * 1000) }),
          } satisfies Omit<Signal & { kind: 'presence' }, 'id'>)
        : is === 'press'
          ? ({ kind: 'press', sensor: rest[0]!, button: rest.slice(1).join(' ') } satisfies Omit<Signal & { kind: 'press' }, 'id'>)
          : signalBegun(is as Kind, sensors.value, props.look.canvas)
    if (!begun) return
    const name = { near: 'near', press: rest.slice(1).join(' '), touch: 'area', key: 'key', operator: nameOfPlayed.value }[is ?? ''] ?? 'signal'
    signal = freeId(
      name,
      map.signals.map(({ id }) => id),
    )
    map = { ...map, signals: [...map.signals, { id: signal, ...(is === 'operator' && { name: `Show ${nameOfPlayed.value}` }), ...begun }] }
  }
  const id = freeId(
    nameOfPlayed.value,
    map.states.map((one) => one.id),
  )
  const state: State = {
    id,
    plays: plays.value,
    ...(zone.value && { zone: zone.value }),
    ...(stands.value === 'after' ? { linger_ms: Math.round(linger.value * 1000) } : { linger: stands.value }),
  }
  map = { ...map, states: [...map.states, state] }
  // Whoever comes is answered, whatever stands.
  for (const one of map.states) map = leading(map, one.id, signal, id)
  emit('made', map, id)
  open.value = false
}
</script>

<template>
  <BModal v-model="open" title="From a sentence" no-footer lazy>
    <form class="sentence" @submit.prevent="make">
      <ChoiceField label="When" :value="when" :options="whens" @change="when = $event" />
      <NamedMeasure v-if="isNear" label="for" unit="s" :value="dwell" :decimals="2" :step="0.1" :most="3600" @change="dwell = $event" />
      <PlaysField :value="plays" label="show" none="choose what…" @change="plays = $event" />
      <ChoiceField
        label="on"
        :value="zone"
        :options="[{ value: '', text: 'the whole display' }, ...look.zones.map((one) => ({ value: one, text: `zone ${one}` }))]"
        @change="zone = $event"
      />
      <div class="pair">
        <ChoiceField
          label="until"
          :value="stands"
          :options="[
            { value: 'after', text: 'so long is over' },
            { value: 'own', text: 'its own end' },
            { value: 'endless', text: 'another signal comes' },
          ]"
          @change="stands = $event as typeof stands"
        />
        <NamedMeasure
          v-if="stands === 'after'"
          label="so long"
          unit="s"
          :value="linger"
          :decimals="2"
          :least="0.1"
          :most="86400"
          @change="linger = $event"
        />
      </div>
      <p class="m-0">
        then <b>{{ map.rest }}</b> again. It is answered in every state.
      </p>
      <BButton type="submit" variant="primary" :disabled="!plays">Make it</BButton>
    </form>
  </BModal>
</template>

<style scoped>
.sentence {
  display: grid;
  gap: 10px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
