<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '../ui/ChoiceField.vue'
import NamedMeasure from '../ui/NamedMeasure.vue'
import PlaysField from './PlaysField.vue'
import SignalFields from './SignalFields.vue'
import {
  type Chosen,
  type LookTriggers,
  type State,
  type Triggers,
  KINDS,
  leading,
  nameOf,
  renamed,
  saidOf,
  secs,
  wayAt,
  withSignal,
  withState,
  withWay,
  without,
} from './triggers'
import { vKept } from '../ui/kept'

/** What is chosen, to be typed over: a state, a signal, or where a signal leads from a state. */
const props = defineProps<{ map: Triggers; look: LookTriggers; chosen: Chosen }>()
const emit = defineEmits<{ change: [map: Triggers, gesture?: string]; choose: [chosen: Chosen | null] }>()
const change = (map: Triggers, gesture?: string) => emit('change', map, gesture && `${gesture} ${JSON.stringify(props.chosen)}`)
const state = computed(() =>
  props.chosen.is === 'state' ? props.map.states.find(({ id }) => 'id' in props.chosen && id === props.chosen.id) : undefined,
)
const signal = computed(() =>
  props.chosen.is === 'signal' ? props.map.signals.find(({ id }) => 'id' in props.chosen && id === props.chosen.id) : undefined,
)
const isRest = computed(() => state.value?.id === props.map.rest)
const looked = computed(() => props.look.states.find(({ id }) => id === state.value?.id))
const sensors = computed(() => props.look.on?.sensors ?? [])

// --- a name is of letters that every state chart takes; what refers to it goes along ---------------
const PATTERN = /^[A-Za-z_][A-Za-z0-9_-]*$/
function rename(event: Event, is: 'state' | 'signal', id: string) {
  const field = event.target as HTMLInputElement
  const to = field.value.trim()
  const taken = (is === 'state' ? props.map.states : props.map.signals).some((one) => one.id !== id && one.id.toLowerCase() === to.toLowerCase())
  field.setCustomValidity(!PATTERN.test(to) ? 'Letters, figures, _ and - are right, a letter first.' : taken ? 'There is one of that name.' : '')
  if (to === id || !field.reportValidity()) return
  change(renamed(props.map, is, id, to))
  emit('choose', { is, id: to })
}
function remove(is: 'state' | 'signal', id: string) {
  change(without(props.map, is, id))
  emit('choose', null)
}

// --- a state ---------------------------------------------------------------------------------------
const ends = computed(() => state.value?.linger ?? 'after')
function lasting(how: string) {
  const ms = looked.value?.linger_ms ?? Math.max(5000, looked.value?.needed_ms ?? 0)
  const part: Partial<State> = how === 'after' ? { linger: undefined, linger_ms: ms } : { linger: how as State['linger'], linger_ms: undefined }
  change(withState(props.map, state.value!.id, part))
}
const isShort = computed(() => props.look.findings.some(({ code, elements }) => code === 'trigger.short' && elements[0] === state.value?.id))

// --- a way -----------------------------------------------------------------------------------------
const place = computed(() => (props.chosen.is === 'way' ? wayAt(props.map, props.chosen.state, props.chosen.signal) : -1))
const way = computed(() => props.map.transitions[place.value])
const wayOf = (part: Parameters<typeof withWay>[2], gesture?: string) => change(withWay(props.map, place.value, part), gesture)
const bringer = computed(() =>
  props.chosen.is === 'way' ? props.map.signals.find(({ id }) => 'signal' in props.chosen && id === props.chosen.signal) : undefined,
)
</script>

<template>
  <section v-if="state" class="chosen" :aria-label="`State ${state.id}`">
    <div class="top">
      <label
        >State<input
          :key="state.id"
          class="form-control form-control-sm"
          :value="state.id"
          maxlength="60"
          @change="rename($event, 'state', state!.id)"
      /></label>
      <PlaysField
        :value="state.plays"
        label="Shows"
        :none="isRest ? 'what plays anyway' : 'nothing yet'"
        @change="change(withState(map, state!.id, { plays: $event ?? (isRest ? undefined : null) }))"
      />
      <ChoiceField
        label="Where"
        :value="state.zone ?? ''"
        :options="[
          { value: '', text: 'the whole display' },
          ...[...new Set([...look.zones, ...(state.zone ? [state.zone] : [])])].map((zone) => ({ value: zone, text: `zone ${zone}` })),
        ]"
        @change="change(withState(map, state!.id, { zone: $event || undefined }))"
      />
    </div>
    <div v-if="!isRest" class="top">
      <ChoiceField
        label="Stands"
        :value="ends"
        :options="[
          { value: 'after', text: 'for so long' },
          { value: 'own', text: 'until its own end' },
          { value: 'endless', text: 'until another signal' },
        ]"
        @change="lasting"
      />
      <NamedMeasure
        v-if="ends === 'after'"
        label="For"
        unit="s"
        :value="(state.linger_ms ?? 0) / 1000"
        :decimals="2"
        :least="0.1"
        :most="86400"
        @change="(value, gesture) => change(withState(map, state!.id, { linger_ms: Math.round(value * 1000) }), gesture)"
      />
      <span v-else class="figures soft stands">{{ looked?.linger_ms ? secs(looked.linger_ms) : 'without end' }}</span>
      <ChoiceField
        v-if="ends !== 'endless'"
        label="Then"
        :value="state.then ?? map.rest"
        :options="map.states.map(({ id }) => id)"
        @change="change(withState(map, state!.id, { then: $event === map.rest ? undefined : $event }))"
      />
    </div>
    <p class="small m-0" :class="isShort ? 'short' : 'soft'">
      <template v-if="isRest">Rest never ends by itself; every way leads back to it.</template>
      <template v-else-if="looked && looked.needed_ms > 0"
        >Its words are read in {{ secs(looked.needed_ms) }}<template v-if="isShort">: it goes before they are read</template>.</template
      >
    </p>
    <p class="m-0">
      <button v-if="!isRest" type="button" class="btn btn-link btn-sm p-0" @click="remove('state', state.id)">Take the state out</button>
    </p>
  </section>
  <section v-else-if="signal" class="chosen" :aria-label="`Signal ${signal.id}`">
    <div class="top">
      <label
        >Signal<input
          :key="signal.id"
          class="form-control form-control-sm"
          :value="signal.id"
          maxlength="60"
          @change="rename($event, 'signal', signal!.id)"
      /></label>
      <label
        >In words<input
          :key="signal.id"
          v-kept="signal.name ?? ''"
          class="form-control form-control-sm"
          maxlength="200"
          @change="change(withSignal(map, signal!.id, { name: ($event.target as HTMLInputElement).value.trim() || undefined }))"
      /></label>
      <span class="soft small stands">{{ KINDS.find(({ kind }) => kind === signal!.kind)?.name }}: {{ saidOf(signal, sensors) }}</span>
    </div>
    <SignalFields :map="map" :look="look" :signal="signal" @change="(part, gesture) => change(withSignal(map, signal!.id, part), gesture)" />
    <p class="m-0"><button type="button" class="btn btn-link btn-sm p-0" @click="remove('signal', signal.id)">Take the signal out</button></p>
  </section>
  <section v-else-if="chosen.is === 'way'" class="chosen" :aria-label="`${chosen.state} on ${chosen.signal}`">
    <p class="m-0">
      In <b>{{ chosen.state }}</b>, when <b>{{ bringer ? nameOf(bringer) : chosen.signal }}</b> comes
      <span class="soft small">({{ bringer ? saidOf(bringer, sensors) : '' }})</span>
    </p>
    <div class="top">
      <ChoiceField
        label="it leads to"
        :value="way?.to ?? ''"
        :options="[
          { value: '', text: 'nothing happens' },
          ...map.states.map(({ id }) => ({ value: id, text: id === ('state' in chosen ? chosen.state : '') ? `${id}, again` : id })),
        ]"
        @change="chosen.is === 'way' && change(leading(map, chosen.state, chosen.signal, $event || null))"
      />
      <NamedMeasure
        v-if="way"
        label="not again for"
        unit="s"
        :value="(way.cooldown_ms ?? 0) / 1000"
        :decimals="2"
        :most="86400"
        @change="(value, gesture) => wayOf({ cooldown_ms: Math.round(value * 1000) || undefined }, gesture)"
      />
    </div>
    <template v-if="way">
      <label v-if="way.to === chosen.state" class="check"
        ><input
          type="checkbox"
          :checked="way.again === false"
          @change="wayOf({ again: ($event.target as HTMLInputElement).checked ? false : undefined })"
        />
        what it shows goes on, and only stands for longer</label
      >
      <label class="check"
        ><input
          type="checkbox"
          :checked="way.carries === true"
          @change="wayOf({ carries: ($event.target as HTMLInputElement).checked || undefined })"
        />
        carry what came to what is shown<template v-if="bringer?.rows">: the first row of {{ bringer.rows.source }}</template></label
      >
      <p class="small soft m-0">
        {{ way.from.includes('*') ? 'The same from every state' : way.from.length > 1 ? `The same from ${way.from.join(', ')}` : '' }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.chosen {
  display: grid;
  gap: 8px;
  padding: 10px 0;
}
.top {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
  align-items: end;
}
.check {
  display: flex;
  gap: 7px;
  align-items: center;
  min-height: 24px;
}
.stands {
  padding-bottom: 4px;
}
.short {
  color: var(--warning);
}
</style>
