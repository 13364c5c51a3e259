<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import { useSettings } from '../Display/settings'
import { useEstate } from '../Estate/estate'
import DesignHead from '../Layout/DesignHead.vue'
import { useDesignWork } from '../Layout/work'
import { saidOf as saidAt } from '../Overlay/overlays'
import { api, sentence } from '../ui/api'
import { count } from '../ui/format'
import { may } from '../ui/rights'
import { useShelf } from '../ui/shelf'
import HeardList from '../Display/HeardList.vue'
import ChosenForm from './ChosenForm.vue'
import GlassStrip from './GlassStrip.vue'
import SentenceMaker from './SentenceMaker.vue'
import StateGraph from './StateGraph.vue'
import TryStrip from './TryStrip.vue'
import WayTable from './WayTable.vue'
import { type Chosen, type Kind, type LookTriggers, type Triggers, KINDS, freeId, nameOf, signalBegun, withSignal } from './triggers'

/** One map of triggers: the distance from the glass, states and ways, where each signal leads, and a strip to try it on. */
const props = defineProps<{ id: string }>()
const work = useDesignWork<Triggers>('triggers', props.id)
const { displays } = useEstate(false)
const { displays: stating, places, query: settings } = useSettings()
const queries = useQueryClient()
const shelf = useShelf()
const map = work.document
const chosen = ref<Chosen | null>(null)
const now = ref<string | null>(null)
const change = (next: Triggers, gesture?: string) => work.change(next, gesture && `triggers ${gesture}`)

// --- on which display it is looked at ---------------------------------------------------------------

const runsOn = computed(() => [...places.value, ...stating.value].filter((one) => saidAt(one.settings.triggers, props.id) === 'add'))
const on = computed(() => work.display.value ?? stating.value.find((one) => saidAt(one.settings.triggers, props.id) === 'add')?.id ?? null)
const display = computed(() => displays.value.find((one) => one.id === on.value) ?? null)
const isRunning = computed(
  () => !!stating.value.find((one) => one.id === on.value && ((one.resolved.triggers?.value as string[] | undefined) ?? []).includes(props.id)),
)
async function runThere(is: boolean) {
  const at = stating.value.find((one) => one.id === on.value)
  if (!at) return
  const { add = [], without = [], ...others } = at.settings.triggers ?? {}
  const value = {
    ...others,
    add: [...add.filter((one) => one !== props.id), ...(is ? [props.id] : [])],
    without: without.filter((one) => one !== props.id),
  }
  const said = Object.fromEntries(Object.entries(value).filter(([, ids]) => ids.length > 0))
  try {
    await api.put(`displays/${at.id}/settings`, { setting: 'triggers', value: Object.keys(said).length ? said : null })
    for (const key of ['settings', 'estate', 'triggers']) await queries.invalidateQueries({ queryKey: [key] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}

// --- what the core says ------------------------------------------------------------------------------

const look = ref<LookTriggers | null>(null)
const trouble = ref('')
const rested = refDebounced(
  computed(() => JSON.stringify([map.value, on.value, settings.isPending.value])),
  250,
)
let asking: AbortController | null = null
async function ask() {
  if (!map.value || settings.isPending.value) return
  asking?.abort()
  const { signal } = (asking = new AbortController())
  try {
    const answer = await api.post<LookTriggers>('reactions/look', { document: map.value, display: on.value }, signal)
    if (!signal.aborted) [look.value, trouble.value] = [answer, '']
  } catch (e) {
    if (!signal.aborted) trouble.value = sentence(e)
  }
}
watch(rested, ask, { immediate: true })
onBeforeUnmount(() => asking?.abort())
watchEffect(() => {
  shelf.findings = look.value?.findings ?? []
  const first = chosen.value
  shelf.about = new Set(first === null ? [] : first.is === 'way' ? [first.state, first.signal] : [first.id])
  shelf.remark = look.value ? 'Every state can be reached, every way leads back to rest, and nothing is left unanswered.' : ''
  shelf.chosen = ({ elements }) => {
    const [one] = elements
    if (map.value?.states.some(({ id }) => id === one)) chosen.value = { is: 'state', id: one! }
    else if (map.value?.signals.some(({ id }) => id === one)) chosen.value = { is: 'signal', id: one! }
  }
  shelf.fixed = ({ fix }) => fix?.set && map.value && change({ ...map.value, ...(fix.set as Partial<Triggers>) })
})
onBeforeUnmount(() => shelf.clear())
// What was chosen and is there no more is not chosen.
watch(map, (next) => {
  const one = chosen.value
  if (!next || !one) return
  const [states, signals] = [next.states.map(({ id }) => id), next.signals.map(({ id }) => id)]
  const is = one.is === 'way' ? states.includes(one.state) && signals.includes(one.signal) : (one.is === 'state' ? states : signals).includes(one.id)
  if (!is) chosen.value = null
})
const sensor = computed(() => {
  const wanted = chosen.value?.is === 'signal' ? map.value?.signals.find((one) => one.id === (chosen.value as { id: string }).id) : undefined
  const of = look.value?.on?.sensors.filter((one) => one.kind === 'presence' && one.bands_mm.length > 0) ?? []
  return of.find(({ id }) => wanted && 'sensor' in wanted && wanted.sensor === id) ?? of[0]
})
async function turn() {
  if (!on.value || !sensor.value) return
  try {
    const saved = await api.get<{ revision: number; document: { sensors: { id: string; numbering?: string }[] } }>(`displays/${on.value}`)
    const sensors = saved.document.sensors.map((one) =>
      one.id === sensor.value!.id ? { ...one, numbering: one.numbering === 'far-first' ? 'near-first' : 'far-first' } : one,
    )
    await api.put(`displays/${on.value}`, { base: saved.revision, document: { ...saved.document, sensors } })
    await ask()
  } catch (e) {
    trouble.value = sentence(e)
  }
}

// --- adding ------------------------------------------------------------------------------------------

const sentenceIsOpen = ref(false)
function addState() {
  const id = freeId(
    'state',
    map.value!.states.map((one) => one.id),
  )
  change({ ...map.value!, states: [...map.value!.states, { id, plays: null, linger_ms: 10_000 }] })
  chosen.value = { is: 'state', id }
}
const addable = computed(() =>
  KINDS.filter(({ kind }) => kind !== 'value' && look.value && signalBegun(kind, look.value.on?.sensors ?? [], look.value.canvas) !== null),
)
function addSignal(kind: Kind) {
  const begun = signalBegun(kind, look.value?.on?.sensors ?? [], look.value!.canvas)
  if (!begun) return
  const name = { presence: 'near', absence: 'gone', press: 'press', touch: 'area', key: 'key', time: 'time', operator: 'ask', value: 'figure' }[kind]
  const id = freeId(
    name,
    map.value!.signals.map((one) => one.id),
  )
  change({ ...map.value!, signals: [...map.value!.signals, { id, ...begun }] })
  chosen.value = { is: 'signal', id }
}
function made(next: Triggers, state: string) {
  change(next)
  chosen.value = { is: 'state', id: state }
}
/** What stands there goes out again, with the map as it is by now. */
const handover = computed(() => {
  const source = display.value?.release?.source
  return on.value ? `/handover?${source ? `${source.kind}=${source.id}&` : ''}display=${on.value}` : undefined
})
</script>

<template>
  <main class="station">
    <DesignHead :id="id" :work="work" noun="trigger" :handover="handover">
      <template v-if="map"
        >{{ count(map.states.length, 'state') }}, {{ count(map.signals.length, 'signal') }} ·
        {{ runsOn.length ? `runs on ${runsOn.map((one) => one.name).join(', ')}` : 'runs nowhere yet' }}</template
      >
      <template #actions>
        <select
          class="form-select on-display"
          aria-label="On which display it is looked at"
          :value="on ?? ''"
          @change="work.setDisplay(($event.target as HTMLSelectElement).value || null)"
        >
          <option value="">on no display</option>
          <option v-for="one in displays" :key="one.id" :value="one.id">on {{ one.name }}</option>
        </select>
        <BButton v-if="display && may('design')" variant="outline-dark" @click="runThere(!isRunning)">{{
          isRunning ? 'Let it run there no more' : 'Let it run there'
        }}</BButton>
        <a class="btn btn-outline-dark" :href="`/api/triggers/${id}/scxml`" download>As SCXML</a>
      </template>
    </DesignHead>
    <p v-if="trouble" class="said-error px-3 py-1 m-0" role="alert">{{ trouble }}</p>
    <template v-if="map && look">
      <GlassStrip
        v-if="sensor"
        :map="map"
        :look="look"
        :sensor="sensor"
        :chosen="chosen"
        :may-turn="may('survey')"
        @choose="chosen = $event"
        @bands="(signal, bands) => change(withSignal(map!, signal, { bands }))"
        @turn="turn"
      />
      <div class="middle">
        <StateGraph :map="map" :look="look" :chosen="chosen" :now="now" @choose="chosen = $event" />
        <section class="ways" aria-label="Where each signal leads">
          <div class="ways-head">
            <h2>Where each signal leads</h2>
            <span class="acts">
              <button type="button" class="btn btn-link btn-sm p-0" @click="sentenceIsOpen = true">from a sentence…</button>
              <button type="button" class="btn btn-link btn-sm p-0" @click="addState">add a state</button>
              <select
                class="form-select form-select-sm"
                aria-label="Add a signal"
                :value="''"
                @change="addSignal(($event.target as HTMLSelectElement).value as Kind)"
              >
                <option value="">add a signal…</option>
                <option v-for="one in addable" :key="one.kind" :value="one.kind">{{ one.name }}</option>
              </select>
            </span>
          </div>
          <WayTable :map="map" :look="look" :chosen="chosen" @choose="chosen = $event" />
          <ChosenForm v-if="chosen" :map="map" :look="look" :chosen="chosen" @change="change" @choose="chosen = $event" />
          <p v-else class="soft small mt-2">
            Choose a state, a signal, or a field of the table; an empty field is a question: a dot where nothing is meant.
            <template v-if="map.signals.length"><br />{{ map.signals.map(nameOf).join(' · ') }}</template>
          </p>
          <details v-if="on" class="heard-here">
            <summary>What was heard before {{ display?.name ?? on }}</summary>
            <HeardList :display="on" />
          </details>
        </section>
      </div>
      <TryStrip :map="map" :look="look" :display="on" @now="now = $event" />
      <SentenceMaker v-model="sentenceIsOpen" :map="map" :look="look" @made="made" />
    </template>
    <p v-else-if="!trouble" class="empty">Looking at it.</p>
  </main>
</template>

<style scoped>
.on-display {
  width: 170px;
}
.middle {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.ways {
  border-left: 1px solid var(--rule);
  background: var(--sheet);
  padding: 6px 16px 16px;
  overflow-y: auto;
  min-height: 0;
}
.ways-head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 10px;
}
.ways-head .acts {
  display: flex;
  align-items: baseline;
}
.ways-head select {
  width: 130px;
}
h2 {
  font-size: 0.9375rem;
}
@media (max-width: 900px) {
  .station {
    overflow-y: auto;
  }
  .middle {
    grid-template-columns: 1fr;
    flex: none;
  }
}
</style>
