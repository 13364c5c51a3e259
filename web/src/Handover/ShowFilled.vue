<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useEstate } from '../Estate/estate'
import { useAnswer } from '../ui/answer'
import { api, sentence } from '../ui/api'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { moment, some } from '../ui/format'
import { DAYS, DAY_NAMES } from '../Layout/designs'
import GlassNow from '../Display/GlassNow.vue'
import { useHandings } from './handings'
import type { Offer } from './offers'
import type { Standing, Within } from './shown'

/** Where what is filled in is shown: on one's own displays, beside what plays or in its place, for how long; and taken off again. */
const props = defineProps<{ id: string; revision: number; save: () => Promise<boolean>; first: string | null }>()
const queries = useQueryClient()
const { displays: estate } = useEstate()
useHandings()
const query = useQuery({
  queryKey: ['shown', () => props.id],
  queryFn: () => api.get<{ displays: Standing[] }>(`filled/${props.id}/shown`),
})
const displays = computed(() => query.data.value?.displays ?? [])
const chosen = ref<Set<string>>(new Set())
watch(
  displays,
  (all) => {
    if (chosen.value.size) return
    const first = all.find((one) => one.id === props.first) ?? all.find((one) => one.stands) ?? (all.length === 1 ? all[0] : undefined)
    if (first) chosen.value = new Set([first.id])
  },
  { immediate: true },
)
const those = computed(() => displays.value.filter((one) => chosen.value.has(one.id)))
const mayBeside = computed(() => those.value.length > 0 && those.value.every((one) => one.open))
const how = ref<'beside' | 'instead'>('beside')
watch(mayBeside, (may) => (how.value = may ? 'beside' : 'instead'), { immediate: true })

const long = ref<'open' | 'today' | 'until'>('open')
const until = ref('')
const zones = computed(() => new Set(those.value.map((one) => one.timezone)))
const days = ref<string[]>([])
const from = ref('')
const to = ref('')
const sometimes = ref(false)
const within = computed<Within>(() => {
  const end = long.value === 'today' ? (those.value[0]?.day_ends ?? '') : long.value === 'until' ? until.value : ''
  return {
    ...(end ? { until: end.length === 16 ? `${end}:00` : end } : {}),
    ...(sometimes.value && days.value.length ? { days: days.value } : {}),
    ...(sometimes.value && from.value && to.value && from.value !== to.value ? { hours: [[from.value, to.value]] } : {}),
  }
})
const asked = computed(() => ({ displays: [...chosen.value], how: how.value, within: within.value }))
const isAsked = computed(() => chosen.value.size > 0 && (long.value !== 'until' || until.value !== ''))
interface Told {
  display: string
  offer: Offer
  instead_of: string[]
  in_turn_with: number | null
}
const { answer, trouble } = useAnswer(
  () => (isAsked.value ? { ...asked.value, revision: props.revision } : null),
  ({ displays: on, how: way, within: span }, signal) =>
    api.post<{ told: Told[] }>(`filled/${props.id}/shown/preview`, { displays: on, how: way, within: span }, signal),
  () => 300,
)
const stops = computed(() =>
  (answer.value?.told ?? []).flatMap((one) => one.offer.findings.filter((f) => f.level === 'stop' || f.code === 'slot.long').map((f) => f.message)),
)
/** What becomes of what plays there, in one sentence. */
const means = computed(() => {
  const told = answer.value?.told ?? []
  if (told.length === 0) return ''
  const others = told[0]!.in_turn_with
  if (others !== null) return `It comes in turn with ${others} ${others === 1 ? 'other' : 'others'}.`
  const names = [...new Set(told.flatMap((one) => one.instead_of))]
  return names.length ? `It takes the place of ${some(names)}.` : 'Nothing else plays there.'
})
const busy = ref(false)
const said = ref('')
const wrong = ref('')
async function act(what: () => Promise<unknown>, done: string) {
  ;[busy.value, said.value, wrong.value] = [true, '', '']
  try {
    await what()
    said.value = done
    // A job hands it over; what stands there is asked for anew when that is done.
    await Promise.all(['handings', 'shown', 'first-shown'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
  } catch (e) {
    wrong.value = sentence(e)
  } finally {
    busy.value = false
  }
}
const show = () =>
  act(async () => {
    if (!(await props.save())) throw new Error('What you typed last is not saved yet; then it can be shown.')
    await api.post(`filled/${props.id}/shown`, asked.value)
  }, `On its way to ${names.value}.`)
const takeOff = (one: Standing) => act(() => api.post(`filled/${props.id}/shown/off`, { displays: [one.id] }), `Being taken off ${one.name}.`)
const names = computed(() =>
  some(
    those.value.map((one) => one.name),
    2,
  ),
)
/** The one that it is made for, those on which it stands and those chosen come first; of many the others are told when they are asked for. */
const FEW = 6
const all = ref(false)
const weight = (one: Standing) => Number(one.id === props.first) + Number(one.stands !== null)
const told = computed(() => {
  const sorted = [...displays.value].sort((a, b) => weight(b) - weight(a))
  return all.value || sorted.length <= FEW ? sorted : sorted.filter((one, n) => n < FEW || chosen.value.has(one.id))
})
function toggle(id: string, on: boolean) {
  const next = new Set(chosen.value)
  if (on) next.add(id)
  else next.delete(id)
  chosen.value = next
}
const standing = computed(() => displays.value.filter((one) => one.stands))
const stateOf = (id: string) => estate.value.find((d) => d.id === id)?.standing.state ?? ''
const proof = ref<string | null>(null)
</script>

<template>
  <section class="show" aria-label="Where it is shown">
    <h2>Shows</h2>
    <ul v-if="standing.length" class="standing">
      <li v-for="one in standing" :key="one.id">
        <span
          ><b>{{ one.name }}</b>
          <span class="soft"
            >{{ one.stands!.how === 'beside' ? 'beside what plays' : 'in its place' }},
            {{ one.stands!.until ? `until ${moment(one.stands!.until)}` : 'until it is taken off' }}</span
          >
          <span class="figures soft"> {{ stateOf(one.id) }}</span></span
        >
        <button type="button" class="btn btn-link btn-sm p-0" @click="proof = proof === one.id ? null : one.id">
          {{ proof === one.id ? 'close' : 'what it shows' }}
        </button>
        <button type="button" class="btn btn-link btn-sm p-0 off" :disabled="busy" :aria-label="`Take it off ${one.name}`" @click="takeOff(one)">
          take off
        </button>
        <GlassNow v-if="proof === one.id" :id="one.id" :timezone="one.timezone" class="glass-now" />
      </li>
    </ul>
    <p v-if="query.error.value" class="said-error small">{{ query.error.value.message }}</p>
    <p v-else-if="query.data.value && displays.length === 0" class="soft small">There is no display at your places yet.</p>
    <fieldset v-if="displays.length" class="on">
      <legend>On</legend>
      <label v-for="one in told" :key="one.id"
        ><input type="checkbox" :checked="chosen.has(one.id)" @change="toggle(one.id, ($event.target as HTMLInputElement).checked)" />
        <span>{{ one.name }}</span> <span class="soft small">{{ one.plays ? `plays ${one.plays.name}` : 'nothing yet' }}</span></label
      >
      <button v-if="told.length < displays.length" type="button" class="btn btn-link btn-sm p-0" @click="all = true">
        all {{ displays.length }} displays
      </button>
    </fieldset>
    <template v-if="those.length">
      <div class="line">
        <ChoiceBar
          v-model="how"
          label="How it is shown"
          :words="mayBeside ? { beside: 'beside what plays', instead: 'in its place' } : { instead: 'in the place of what plays' }"
        />
      </div>
      <div class="line">
        <ChoiceBar v-model="long" label="For how long" :words="{ open: 'until I take it off', today: 'until midnight', until: 'until…' }" />
      </div>
      <label v-if="long === 'until'" class="until"
        >Until, on its own clock{{ zones.size > 1 ? 's' : '' }}
        <input v-model="until" class="form-control figures" type="datetime-local" :min="those[0]!.now.slice(0, 16)" aria-label="Until" />
      </label>
      <details :open="sometimes" @toggle="sometimes = ($event.target as HTMLDetailsElement).open">
        <summary>On some days, in some hours</summary>
        <div class="days" role="group" aria-label="On which days">
          <label v-for="day in DAYS" :key="day"><input v-model="days" type="checkbox" :value="day" /> {{ DAY_NAMES[day] }}</label>
        </div>
        <div class="hours">
          from <input v-model="from" class="form-control figures" type="time" aria-label="From what time" /> to
          <input v-model="to" class="form-control figures" type="time" aria-label="To what time" />
        </div>
      </details>
      <p class="means small" role="status">{{ trouble || means }}</p>
      <p v-for="stop in stops" :key="stop" class="small said-error m-0">{{ stop }}</p>
      <p v-if="wrong" class="small said-error m-0" role="alert">{{ wrong }}</p>
      <p v-if="said" class="small m-0" role="status">{{ said }}</p>
      <BButton variant="primary" class="go" :disabled="busy || !isAsked || stops.length > 0 || trouble !== ''" @click="show"
        >Show it on {{ names }}</BButton
      >
    </template>
  </section>
</template>

<style scoped>
.show {
  border-top: 1px solid var(--ink);
  margin-top: 14px;
  padding-top: 10px;
}
h2 {
  font-size: 1rem;
}
.standing {
  list-style: none;
  margin: 4px 0 8px;
  padding: 0;
}
.standing li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
  padding: 5px 0;
  font-size: 0.875rem;
}
.standing li > span {
  flex: 1;
}
.off {
  color: var(--stop);
}
.glass-now {
  flex: 1 0 100%;
}
.on {
  border: 0;
  margin: 0;
  padding: 0;
}
.on legend,
.until {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 4px 0 2px;
}
.on label {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 3px 0;
}
.line {
  margin: 8px 0;
}
.line :deep(.choice) {
  display: flex;
}
.line :deep(.choice button) {
  flex: 1;
  min-height: 36px;
}
details {
  margin: 6px 0;
}
summary {
  font-size: 0.8125rem;
  color: var(--soft);
}
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  font-size: 0.875rem;
}
.hours {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
}
.hours input {
  width: auto;
}
.means {
  margin: 8px 0 4px;
}
.go {
  width: 100%;
  padding: 10px;
  margin-top: 6px;
  white-space: normal;
}
</style>
