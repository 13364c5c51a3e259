<script setup lang="ts" generic="S extends Sensor">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, sentence } from '../ui/api'
import { useGuarded } from '../ui/guarded'
import { may } from '../ui/rights'
import { useSecond } from '../ui/second'
import { type Hearsay, type Sensor, choicesFor, lackOf, saidIn } from './heard'

/** What was said before a display, with when it last came: acted before it while it is learnt, and chosen for what it is. */
const props = defineProps<{ display: string; /** Those that it has, where what is heard can be chosen for one. */ sensors?: S[] }>()
const emit = defineEmits<{ choose: [sensors: S[]] }>()
const MINUTES = 10
const queries = useQueryClient()
const now = useSecond()
const query = useQuery({
  queryKey: computed(() => ['heard', props.display]),
  queryFn: () => api.get<Hearsay>(`displays/${props.display}/heard`),
  refetchInterval: ({ state }) => (state.data?.learns_until ? 1500 : 10_000),
})
const { trouble, guarded } = useGuarded()
const learn = (minutes: number) =>
  guarded(async () => queries.setQueryData(['heard', props.display], await api.post<Hearsay>(`displays/${props.display}/heard`, { minutes })))
const left = computed(() => {
  const until = query.data.value?.learns_until
  return until ? Math.max(0, Math.ceil((Date.parse(until) - now.value) / 60_000)) : 0
})
const heard = computed(() => query.data.value?.heard ?? [])
function ago(iso: string): string {
  const s = Math.max(0, Math.round((now.value - Date.parse(iso)) / 1000))
  if (s < 120) return `${s} s ago`
  if (s < 7200) return `${Math.round(s / 60)} min ago`
  return new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
}
const choicesOf = (one: Hearsay['heard'][number]) => (props.sensors ? choicesFor(props.sensors, one) : [])
const choose = (n: string, choices: { sensors: S[] }[]) => n !== '' && choices[Number(n)] && emit('choose', choices[Number(n)]!.sensors)
</script>

<template>
  <div class="heard">
    <p class="m-0 learning">
      <button v-if="may('survey') && !left" type="button" class="btn btn-sm btn-outline-dark" @click="learn(MINUTES)">Learn</button>
      <template v-else-if="left">
        <button v-if="may('survey')" type="button" class="btn btn-sm btn-outline-dark" @click="learn(0)">End learning</button>
        <span class="small" role="status"
          >Act before it: press, come near, touch. Its players tell at once what was said, for {{ left }} min more.</span
        >
      </template>
      <span v-if="!left && heard.length === 0" class="small soft">{{
        may('survey') ? 'press it, act before the display, and see what its sensors say' : 'nothing was heard before it yet'
      }}</span>
    </p>
    <p v-if="trouble || query.error.value" class="said-error small m-0" role="alert">{{ trouble || sentence(query.error.value) }}</p>
    <ul v-if="heard.length" aria-label="What was heard">
      <li v-for="(one, n) in heard" :key="n" :class="{ unknown: !one.known }">
        <span class="figures"
          >{{ saidIn(one) }} <span class="soft">{{ one.times > 1 ? `×${one.times}, ` : '' }}{{ ago(one.last) }}</span></span
        >
        <span class="small">{{ (sensors && lackOf(sensors, one)) ?? (one.known ? '' : 'no signal hears it') }}</span>
        <select
          v-if="may('survey') && choicesOf(one).length"
          class="form-select form-select-sm"
          :aria-label="`What ${saidIn(one)} is`"
          :value="''"
          @change="choose(($event.target as HTMLSelectElement).value, choicesOf(one))"
        >
          <option value="">what it is…</option>
          <option v-for="(choice, c) in choicesOf(one)" :key="c" :value="c">{{ choice.text }}</option>
        </select>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.heard {
  padding: 4px 12px 12px;
}
.learning {
  display: flex;
  align-items: center;
  gap: 8px;
  flex-wrap: wrap;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 2px 10px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
}
.unknown .small {
  color: var(--warning);
}
select {
  width: auto;
}
</style>
