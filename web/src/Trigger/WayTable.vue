<script setup lang="ts">
import { computed } from 'vue'
import { type Chosen, type LookTriggers, type Triggers, nameOf, saidOf, secs, wayAt } from './triggers'

/** Where each signal leads from each state: a dot where nothing is meant, a question where a state before answers and this one does not. */
const props = defineProps<{ map: Triggers; look: LookTriggers; chosen: Chosen | null }>()
const emit = defineEmits<{ choose: [chosen: Chosen] }>()
/** At once, also before the core has looked at it. */
const leads = computed(
  () =>
    new Map(
      props.map.states.flatMap(({ id }) =>
        props.map.signals.map((signal) => [`${id} ${signal.id}`, props.map.transitions[wayAt(props.map, id, signal.id)]?.to ?? null] as const),
      ),
    ),
)
/** States and signals of which it is asked whether nothing is meant. */
const asked = computed(
  () =>
    new Set(props.look.findings.flatMap((one) => (one.code === 'trigger.deaf' ? one.elements.slice(1).map((on) => `${one.elements[0]} ${on}`) : []))),
)
const isOn = (state: string, signal: string) =>
  (props.chosen?.is === 'way' && props.chosen.state === state && props.chosen.signal === signal) ||
  (props.chosen?.is === 'signal' && props.chosen.id === signal) ||
  (props.chosen?.is === 'state' && props.chosen.id === state)
function words(state: string, signal: string): string {
  const to = leads.value.get(`${state} ${signal}`) ?? null
  if (to === null) return asked.value.has(`${state} ${signal}`) ? 'nothing?' : '·'
  if (to !== state) return to
  return props.map.transitions[wayAt(props.map, state, signal)]?.again === false ? 'stays' : 'again'
}
const thenOf = (id: string) => {
  const state = props.map.states.find((one) => one.id === id)!
  const ms = props.look.states.find((one) => one.id === id)?.linger_ms
  if (id === props.map.rest) return 'never ends'
  return state.linger === 'endless' ? 'until another' : `${state.then ?? props.map.rest}${ms ? `, ${secs(ms)}` : ''}`
}
const sensors = computed(() => props.look.on?.sensors ?? [])
</script>

<template>
  <div class="table-room">
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">State</span></th>
          <th v-for="signal in map.signals" :key="signal.id" scope="col">
            <button
              type="button"
              :class="{ on: chosen?.is === 'signal' && chosen.id === signal.id }"
              :title="`${nameOf(signal)}: ${saidOf(signal, sensors)}`"
              @click="emit('choose', { is: 'signal', id: signal.id })"
            >
              {{ signal.id }}
            </button>
          </th>
          <th scope="col" class="soft then">then</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="state in map.states" :key="state.id">
          <th scope="row">
            <button
              type="button"
              :class="{ on: chosen?.is === 'state' && chosen.id === state.id }"
              @click="emit('choose', { is: 'state', id: state.id })"
            >
              {{ state.id }}
            </button>
          </th>
          <td v-for="signal in map.signals" :key="signal.id" :class="{ on: isOn(state.id, signal.id) }">
            <button
              type="button"
              :class="{ dot: !leads.get(`${state.id} ${signal.id}`), question: asked.has(`${state.id} ${signal.id}`) }"
              :aria-label="`${state.id}, ${signal.id}: ${leads.get(`${state.id} ${signal.id}`) ?? (asked.has(`${state.id} ${signal.id}`) ? 'nothing?' : 'nothing')}`"
              @click="emit('choose', { is: 'way', state: state.id, signal: signal.id })"
            >
              {{ words(state.id, signal.id) }}
            </button>
          </td>
          <td class="soft then">{{ thenOf(state.id) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.table-room {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  font-size: 0.875rem;
}
th,
td {
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
thead th {
  border-bottom-color: var(--ink);
}
tbody th {
  position: sticky;
  left: 0;
  background: var(--sheet);
}
button {
  border: 0;
  background: none;
  width: 100%;
  min-height: 28px;
  padding: 2px 6px;
  text-align: left;
  color: var(--kelp);
}
th button {
  font-weight: 650;
  color: var(--ink);
}
.dot {
  color: var(--soft);
}
.question {
  color: var(--warning);
  outline: 1px solid var(--warning);
  outline-offset: -3px;
  background: #fbf0dc;
}
td.on {
  background: var(--kelp-wash);
}
button.on {
  background: var(--kelp-wash);
  color: var(--kelp);
}
.then {
  padding: 2px 8px;
  font-weight: 400;
}
</style>
