<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useEstate } from '../Estate/estate'
import { useAnswer } from '../ui/answer'
import { api, sentence } from '../ui/api'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { count, moment, some } from '../ui/format'
import { DAYS, DAY_NAMES } from '../Layout/designs'
import GlassNow from '../Display/GlassNow.vue'
import { useHandings } from './handings'
import type { Offer } from './offers'
import type { Standing, WhereShown, Within } from './shown'

/** Where what is filled in is shown: on one's own displays, beside what plays or in its place, for how long; and taken off again. */
const props = defineProps<{ id: string; revision: number; save: () => Promise<boolean>; first: string | null }>()
const queries = useQueryClient()
const { displays: estate } = useEstate()
useHandings()
const search = ref('')
const sought = refDebounced(search, 200)
const query = useQuery({
  queryKey: ['shown', () => props.id, () => props.first, sought],
  queryFn: () =>
    api.get<WhereShown>(`filled/${props.id}/shown?${new URLSearchParams({ search: sought.value, ...(props.first ? { first: props.first } : {}) })}`),
  placeholderData: keepPreviousData,
})
const displays = computed(() => query.data.value?.displays ?? [])
const standing = computed(() => query.data.value?.stands ?? [])
const total = computed(() => query.data.value?.total ?? 0)
const chosen = ref<Map<string, Standing>>(new Map())
watch(
  query.data,
  (told) => {
    if (!told) return
    const now = new Map([...told.displays, ...told.stands].map((one) => [one.id, one]))
    // Those that are chosen stay so while others are looked for; what is told of them anew counts.
    if (chosen.value.size) return void (chosen.value = new Map([...chosen.value].map(([id, one]) => [id, now.get(id) ?? one])))
    const first = now.get(props.first ?? '') ?? told.stands[0] ?? (told.total === 1 ? told.displays[0] : undefined)
    if (first) chosen.value = new Map([[first.id, first]])
  },
  { immediate: true },
)
const those = computed(() => [...chosen.value.values()])
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
const asked = computed(() => ({ displays: [...chosen.value.keys()], how: how.value, within: within.value }))
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
const stops = computed(() => [
  ...new Set(
    (answer.value?.told ?? []).flatMap((one) => one.offer.findings.filter((f) => f.level === 'stop' || f.code === 'slot.long').map((f) => f.message)),
  ),
])
/** Of many displays the first reasons say enough. */
const FEW_STOPS = 4
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
const takeOff = (several: Standing[]) =>
  act(
    () => api.post(`filled/${props.id}/shown/off`, { displays: several.map((one) => one.id) }),
    `Being taken off ${some(several.map((one) => one.name))}.`,
  )
const names = computed(() =>
  some(
    those.value.map((one) => one.name),
    2,
  ),
)
/** Of many a few are told until more are asked for; others are found by what they, or their places, are called. */
const FEW = 6
const all = ref(false)
const others = computed(() => displays.value.filter((one) => !chosen.value.has(one.id)))
const toldChosen = computed(() => (all.value ? those.value : those.value.slice(0, FEW)))
const offered = computed(() => [...toldChosen.value, ...(all.value ? others.value : others.value.slice(0, Math.max(1, FEW - those.value.length)))])
const more = computed(
  () => (query.data.value?.found ?? 0) - displays.value.length + others.value.length - (offered.value.length - those.value.length),
)
function choose(several: Standing[], on: boolean) {
  const next = new Map(chosen.value)
  for (const one of several) {
    if (on) next.set(one.id, one)
    else next.delete(one.id)
  }
  chosen.value = next
}
const allStanding = ref(false)
const toldStanding = computed(() => (allStanding.value ? standing.value : standing.value.slice(0, FEW)))
/** Within a layout or a list of somebody else, or on more than are told. */
const elsewhere = computed(() => {
  const { carrying, stands } = query.data.value ?? { carrying: 0, stands: [] }
  const rest = carrying - stands.length
  return rest > 0 ? `It is part of what plays on ${count(rest, stands.length ? 'more display' : 'display')}.` : ''
})
const stateOf = (id: string) => estate.value.find((d) => d.id === id)?.standing.state ?? ''
const proof = ref<string | null>(null)
</script>

<template>
  <section class="show" aria-label="Where it is shown">
    <h2>Shows</h2>
    <ul v-if="standing.length" class="standing">
      <li v-for="one in toldStanding" :key="one.id">
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
        <button type="button" class="btn btn-link btn-sm p-0 off" :disabled="busy" :aria-label="`Take it off ${one.name}`" @click="takeOff([one])">
          take off
        </button>
        <GlassNow v-if="proof === one.id" :id="one.id" :timezone="one.timezone" class="glass-now" />
      </li>
    </ul>
    <p v-if="standing.length > 1" class="several">
      <button v-if="toldStanding.length < standing.length" type="button" class="btn btn-link btn-sm p-0" @click="allStanding = true">
        {{ standing.length - toldStanding.length }} more
      </button>
      <button type="button" class="btn btn-link btn-sm p-0 off" :disabled="busy" @click="takeOff(standing)">
        take off all {{ standing.length }}
      </button>
    </p>
    <p v-if="elsewhere" class="soft small">{{ elsewhere }}</p>
    <p v-if="query.error.value" class="said-error small">{{ query.error.value.message }}</p>
    <p v-else-if="query.data.value && total === 0" class="soft small">There is no display at your places yet.</p>
    <fieldset v-if="total" class="on">
      <legend>On</legend>
      <input
        v-if="total > FEW"
        v-model="search"
        class="form-control form-control-sm"
        type="search"
        :placeholder="`One of ${count(total, 'display')}, by its name or place`"
        aria-label="Look for displays"
      />
      <label v-for="one in offered" :key="one.id"
        ><input type="checkbox" :checked="chosen.has(one.id)" @change="choose([one], ($event.target as HTMLInputElement).checked)" />
        <span>{{ one.name }}</span> <span class="soft small">{{ one.plays ? `plays ${one.plays.name}` : 'nothing yet' }}</span></label
      >
      <p v-if="search && query.data.value?.found === 0" class="soft small">No display, and no place, is called so.</p>
      <p class="several">
        <template v-if="those.length > FEW">
          <b>{{ those.length }} chosen</b>
          <button type="button" class="btn btn-link btn-sm p-0" @click="choose(those, false)">none of them</button>
        </template>
        <button
          v-if="others.length > 1 && (search || total <= displays.length)"
          type="button"
          class="btn btn-link btn-sm p-0"
          @click="choose(others, true)"
        >
          choose {{ search ? 'the' : 'all' }} {{ others.length }}
        </button>
        <button v-if="!all && offered.length - toldChosen.length < others.length" type="button" class="btn btn-link btn-sm p-0" @click="all = true">
          {{ more.toLocaleString('en') }} more
        </button>
        <span v-else-if="more > 0" class="soft">{{ more.toLocaleString('en') }} more; look for them by name</span>
      </p>
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
      <p v-for="stop in stops.slice(0, FEW_STOPS)" :key="stop" class="small said-error m-0">{{ stop }}</p>
      <p v-if="stops.length > FEW_STOPS" class="small said-error m-0">and {{ stops.length - FEW_STOPS }} more</p>
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
.several {
  display: flex;
  gap: 4px 16px;
  flex-wrap: wrap;
  margin: 2px 0 6px;
  font-size: 0.875rem;
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
.on input[type='search'] {
  margin-bottom: 8px;
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
