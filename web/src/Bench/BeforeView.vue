<script setup lang="ts">
import { useQueries, useQuery } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import { useSettings } from '../Display/settings'
import { useEstate } from '../Estate/estate'
import StatePicture from '../Trigger/StatePicture.vue'
import { type LookTriggers, type Signal, type Trace, type Triggers, metres, nameOf, secs } from '../Trigger/triggers'
import { api, sentence } from '../ui/api'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import MeasureField from '../ui/MeasureField.vue'
import { may } from '../ui/rights'
import { useShelf } from '../ui/shelf'
import { useAgent } from './agent'
import BenchTabs from './BenchTabs.vue'
import PersonStrip from './PersonStrip.vue'
import { useRecorded } from './recorded'
import { type Broken, type Said, type Surveyed, WELL, brokenOnes, known, reading } from './sensor'
import { asSignals, fromSignals, traceOf } from './traces'

/** What happens before a display, played to the player on this machine: a sensor, buttons, keys, touch, figures; and what the player answers. */
const { displays } = useEstate(false)
const { displays: stating, query: settings } = useSettings()
const shelf = useShelf()
const picked = useAsked('display')
const mapsOf = (id: string) => (stating.value.find((one) => one.id === id)?.resolved.triggers?.value as string[] | undefined) ?? []
const answering = computed(() => displays.value.filter(({ id }) => mapsOf(id).length > 0))
const id = computed(() => (displays.value.some((one) => one.id === picked.value) ? picked.value : (answering.value[0]?.id ?? null)))
const display = computed(() => displays.value.find((one) => one.id === id.value) ?? null)
const player = computed(() => display.value?.players.find((one) => one.revoked_at === null) ?? null)

const survey = useQuery({
  queryKey: computed(() => ['survey', id.value]),
  queryFn: () => api.get<{ document: { sensors?: Surveyed[] } }>(`displays/${id.value}`),
  enabled: () => id.value !== null,
})
const sensors = computed(() => known(survey.data.value?.document.sensors ?? []))
const looks = useQueries({
  queries: computed(() =>
    (id.value ? mapsOf(id.value) : []).map((map) => ({
      queryKey: ['triggers', map, 'on', id.value],
      queryFn: async () => {
        const { document } = await api.get<{ document: Triggers }>(`triggers/${map}`)
        return { document, look: await api.post<LookTriggers>('reactions/look', { document, display: id.value }) }
      },
    })),
  ),
})
const maps = computed(() => looks.value.flatMap(({ data }) => (data ? [data] : [])))
const asked = computed(() => looks.value.map(({ error }) => error).find((one) => one))

// --- the agent of this machine ----------------------------------------------------------------------

const { recorded, keep, drop } = useRecorded(() => id.value)
const taken = ref<(Said & { at: number })[] | null>(null)
const { state, players, refused, passed, stands, say, empty } = useAgent((entry) => taken.value?.push(entry))
const command = `bin/signals --page ${location.origin}`

// --- somebody before it -----------------------------------------------------------------------------

const presences = computed(() => sensors.value.filter((one) => one.kind === 'presence' && one.bands_mm.length > 0))
const pickedSensor = ref('')
const sensor = computed(() => presences.value.find((one) => one.id === pickedSensor.value) ?? presences.value[0] ?? null)
const mm = ref<number | null>(null)
const device = ref({ ...WELL })
const broken = ref('')
const isOn = ref(true)
const read = ref<(number | null)[]>([])
const brokenNow = computed<Broken | null>(() => (sensor.value ? brokenOnes(sensor.value.id) : []).find((one) => one.id === broken.value) ?? null)
const BATCH_MS = 100
let timer: ReturnType<typeof setInterval> | undefined
let sent = 0
watch(
  [() => brokenNow.value?.rate ?? device.value.rate, isOn, sensor, () => state.value],
  () => {
    clearInterval(timer)
    if (!isOn.value || !sensor.value || state.value !== 'there') return
    const rate = brokenNow.value?.rate ?? device.value.rate
    // Faster than a timer is held to: several at once.
    const each = Math.max(1, Math.round((rate * BATCH_MS) / 1000))
    timer = setInterval(() => tick(rate * BATCH_MS > 1000 ? each : 1), rate * BATCH_MS > 1000 ? BATCH_MS : 1000 / rate)
  },
  { immediate: true },
)
onBeforeUnmount(() => clearInterval(timer))
function tick(times: number) {
  const [own, wrong] = [sensor.value, brokenNow.value]
  if (!own || playing.value) return
  const said = Array.from({ length: times }, () => (wrong ? wrong.says(sent++) : reading(own, device.value, mm.value)))
  const last = said.at(-1)!
  read.value = [typeof last.mm === 'number' ? last.mm : null, ...read.value].slice(0, 12)
  void say(said)
}

// --- buttons, keys, areas, figures --------------------------------------------------------------------

const buttons = computed(() =>
  sensors.value
    .filter((one) => one.kind === 'buttons')
    .flatMap((one) => {
      // What the box sends may have a name of its own.
      const sends = Object.fromEntries(Object.entries(one.names).map(([from, to]) => [to, from]))
      const named = one.buttons ?? [
        ...new Set(
          maps.value.flatMap(({ document }) => document.signals.flatMap((s) => (s.kind === 'press' && s.sensor === one.id ? [s.button] : []))),
        ),
      ]
      return named.map((button) => ({ sensor: one.id, button: sends[button] ?? button, name: button }))
    }),
)
const signals = computed(() => maps.value.flatMap(({ document }) => document.signals))
const of = <K extends Signal['kind']>(kind: K) =>
  computed(() => signals.value.filter((one): one is Signal & { kind: K } => (one.kind as string) === kind))
const keys = of('key')
const operators = of('operator')
const values = of('value')
const touches = of('touch')
const figures = ref<Record<string, number>>({})
const source = (one: Signal & { kind: 'value' }) => one.rows.source
const PICTURE = 150
const first = computed(() => maps.value[0] ?? null)
const width = computed(() => {
  const canvas = first.value?.look.canvas
  return canvas ? Math.min(170, (PICTURE * canvas.width) / canvas.height) : 0
})
const shown = computed(() => (first.value ? (stands.value[first.value.document.id] ?? first.value.document.rest) : ''))
function touch(event: MouseEvent) {
  const canvas = first.value!.look.canvas
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const point = { x: ((event.clientX - box.left) / box.width) * canvas.width, y: ((event.clientY - box.top) / box.height) * canvas.height }
  void say({ touch: { x: Math.round(point.x), y: Math.round(point.y) } })
}
const touchMiddle = ({ rect: { x, y, width: w, height: h } }: Signal & { kind: 'touch' }) =>
  say({ touch: { x: Math.round(x + w / 2), y: Math.round(y + h / 2) } })

// --- traces -------------------------------------------------------------------------------------------

const ready = computed<Trace[]>(() => first.value?.look.traces ?? [])
const playing = ref<{ id: string; at: number; until: number } | null>(null)
let waits: ReturnType<typeof setTimeout>[] = []
function halt() {
  waits.forEach(clearTimeout)
  waits = []
  playing.value = null
}
onBeforeUnmount(halt)
watch(id, halt)
function play({ id: own, entries: all }: Trace) {
  halt()
  const until = (all.at(-1)?.at_ms ?? 0) + 500
  playing.value = { id: own, at: 0, until }
  for (const { at_ms: at, ...entry } of all)
    waits.push(
      setTimeout(() => {
        if (typeof entry.mm === 'number' || entry.mm === null) mm.value = entry.mm
        if (playing.value) playing.value = { ...playing.value, at }
        void say(entry)
      }, at),
    )
  waits.push(setTimeout(halt, until))
}
function record() {
  if (taken.value === null) {
    taken.value = []
    return
  }
  const said = taken.value
  taken.value = null
  if (said.length === 0 || !id.value) return
  const now = new Date()
  const name = `recorded ${now.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${now.toLocaleTimeString('en-GB')}`
  keep({ ...traceOf(said, `recorded ${now.getTime()}`, name), display: id.value })
}
function download(trace: Trace) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([JSON.stringify(asSignals(trace, Date.now()), null, 1)], { type: 'application/json' }))
  link.download = `${trace.name}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
const trouble = ref('')
async function bring(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (!file || !id.value) return
  try {
    const name = file.name.replace(/\.json$/, '')
    keep({ ...fromSignals(await file.text(), `recorded ${Date.now()}`, name), display: id.value })
    trouble.value = ''
  } catch (e) {
    trouble.value = sentence(e)
  }
  field.value = ''
}

const entries = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'entry' : 'entries'}`

// --- in words -------------------------------------------------------------------------------------------

function wordsOf({ sensor: by, mm: at, band, button, key, touch: point, signal, source: of, field, value }: Said): string {
  const text = (one: unknown) => (typeof one === 'string' ? one : JSON.stringify(one))
  if (signal !== undefined) return `signal ${text(signal)}`
  if (key !== undefined) return `key ${text(key)}`
  if (point !== undefined) {
    const { x, y } = point as { x: number; y: number }
    return `touch at ${Math.round(x)}, ${Math.round(y)} px`
  }
  if (of !== undefined) return `${text(of)}${field === undefined ? '' : ` ${text(field)}`} ${text(value)}`
  if (button !== undefined) return `${text(by)}: button ${text(button)}`
  if (band !== undefined) return `${text(by)}: band ${text(band)}`
  return `${text(by)}: ${at === null ? 'nobody' : typeof at === 'number' ? metres(at) : text(at)}`
}
const nameOfMap = (map: string) => maps.value.find(({ document }) => document.id === map)?.document.name ?? map
const nameOfWhy = (why: string) => {
  const signal = signals.value.find((one) => one.id === why)
  return why === 'lapse' ? 'its time was over' : why === 'start' ? 'the player began' : signal ? nameOf(signal) : why
}
const clock = (at: number) =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit', fractionalSecondDigits: 1 })
watchEffect(() => {
  shelf.findings = []
  shelf.remark = 'What is said here goes to the players of this machine alone, and nothing of it is kept unless it is recorded.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Bench</h1>
        <p class="facts m-0">
          <template v-if="state === 'there' && players"
            >The agent of this machine hands on what is said here to
            {{ players === 1 ? 'one page of a player' : `${players} pages of players` }}</template
          >
          <template v-else-if="state === 'there'"
            >No player on this machine hears what is said here yet: open the one of this display in a browser here</template
          >
          <template v-else-if="state === 'asking'">Looking for the agent of this machine</template>
          <span v-else class="said-error" role="alert"
            >No agent answers on this machine. Start it with <b class="figures">{{ command }}</b>; it is tried again by itself.</span
          >
        </p>
      </div>
      <div class="actions">
        <BenchTabs />
        <select
          class="form-select w-auto"
          aria-label="Before which display"
          :value="id ?? ''"
          @change="picked = ($event.target as HTMLSelectElement).value"
        >
          <optgroup label="Those that answer">
            <option v-for="one in answering" :key="one.id" :value="one.id">{{ one.name }}</option>
          </optgroup>
          <optgroup label="All others">
            <option v-for="one in displays.filter((other) => !answering.includes(other))" :key="one.id" :value="one.id">{{ one.name }}</option>
          </optgroup>
        </select>
        <a v-if="player && may('survey')" class="btn btn-outline-dark" :href="`/api/players/${player.id}/open`" target="_blank">Open its player</a>
      </div>
    </div>
    <p v-if="trouble || refused || asked" class="said-error px-3 py-1 m-0" role="alert">
      {{ trouble || (refused && `The agent does not take it: ${refused}.`) || (asked && sentence(asked)) }}
    </p>
    <p v-if="settings.isPending.value || survey.isPending.value" class="empty">Looking at it.</p>
    <div v-else class="before">
      <div class="acts-side">
        <section v-if="sensor" aria-label="Somebody before it" class="part">
          <div class="words">
            <h2>Somebody before it</h2>
            <select v-if="presences.length > 1" v-model="pickedSensor" class="form-select form-select-sm w-auto" aria-label="Which sensor">
              <option v-for="one in presences" :key="one.id" :value="one.id">{{ one.id }}</option>
            </select>
            <span v-else class="figures soft">{{ sensor.id }}, to scale</span>
            <button type="button" class="btn btn-sm btn-outline-dark ms-auto" @click="mm = null">nobody</button>
            <button type="button" class="btn btn-sm btn-outline-dark" :aria-pressed="!isOn" @click="isOn = !isOn">
              {{ isOn ? 'silence the sensor' : 'let it speak' }}
            </button>
          </div>
          <PersonStrip v-model="mm" :sensor="sensor" :read="read" />
          <div class="words device">
            <ChoiceBar v-model="device.sends" label="What it sends" :words="{ mm: 'distances', band: 'numbers of bands' }" />
            <label
              >errs by <MeasureField :value="device.noise_mm" label="errs by" unit="mm" :most="5000" :step="10" @change="device.noise_mm = $event"
            /></label>
            <label>misses <MeasureField :value="device.drops" label="misses" unit="%" :most="100" @change="device.drops = $event" /></label>
            <label
              ><MeasureField :value="device.rate" label="readings" :least="1" :most="200" :decimals="0" @change="device.rate = $event" /> a
              second</label
            >
            <select v-model="broken" class="form-select form-select-sm w-auto ms-auto" aria-label="What is wrong with it">
              <option value="">nothing is wrong with it</option>
              <option v-for="one in brokenOnes(sensor.id)" :key="one.id" :value="one.id">it sends {{ one.name }}</option>
            </select>
          </div>
        </section>
        <div class="row-of">
          <section v-if="buttons.length || keys.length || operators.length" class="part" aria-label="Buttons and keys">
            <h2>{{ buttons.length || keys.length ? 'Buttons and keys' : 'Operator' }}</h2>
            <div class="box">
              <button
                v-for="one in buttons"
                :key="`${one.sensor} ${one.button}`"
                type="button"
                class="press"
                @click="say({ sensor: one.sensor, button: one.button })"
              >
                {{ one.name }}
              </button>
              <button v-for="one in keys" :key="one.id" type="button" class="press key" @click="say({ key: one.key })">
                {{ one.key === ' ' ? 'space' : one.key }}
              </button>
              <button v-for="one in operators" :key="one.id" type="button" class="press key" @click="say({ signal: one.id })">
                {{ nameOf(one) }}
              </button>
              <button
                v-if="buttons.length > 1"
                type="button"
                class="btn btn-link btn-sm p-0"
                @click="say(buttons.slice(0, 2).map(({ sensor: by, button }) => ({ sensor: by, button })))"
              >
                the first two at once
              </button>
            </div>
          </section>
          <section v-if="values.length" class="part" aria-label="Figures">
            <h2>Figures of sources</h2>
            <form
              v-for="one in values"
              :key="one.id"
              class="words"
              @submit.prevent="say({ source: source(one), field: one.field, value: figures[one.id] ?? one.rises_to ?? one.falls_below ?? 0 })"
            >
              <span class="small">{{ nameOf(one) }}: {{ one.field }}</span>
              <MeasureField
                :value="figures[one.id] ?? one.rises_to ?? one.falls_below ?? 0"
                :label="one.field"
                :least="-1e6"
                @change="figures[one.id] = $event"
              />
              <button type="submit" class="btn btn-sm btn-outline-dark">say it</button>
            </form>
          </section>
          <section v-if="first && touches.length" class="part" aria-label="Touch">
            <h2>Touch</h2>
            <div class="words">
              <button type="button" class="touched" aria-label="The display, to be touched" :style="{ width: `${width}px` }" @click="touch">
                <StatePicture :look="first.look" :state="shown" :width="width" />
              </button>
              <div class="areas">
                <button v-for="one in touches" :key="one.id" type="button" class="btn btn-sm btn-outline-dark" @click="touchMiddle(one)">
                  {{ nameOf(one) }}
                </button>
              </div>
            </div>
          </section>
        </div>
        <section class="part traces-part" aria-label="Traces">
          <div class="words">
            <h2>Traces</h2>
            <button
              type="button"
              class="btn btn-sm"
              :class="taken ? 'btn-danger' : 'btn-outline-dark'"
              :aria-pressed="taken !== null"
              @click="record"
            >
              {{ taken === null ? 'Record' : `End it: ${entries(taken.length)}` }}
            </button>
            <label class="btn btn-sm btn-link p-0"
              >bring in a file<input type="file" accept="application/json,.json" class="visually-hidden" @change="bring"
            /></label>
            <span class="small soft ms-auto">recorded ones are tried at Triggers as well</span>
          </div>
          <table class="table m-0 traces">
            <tbody>
              <tr v-for="one in [...ready, ...recorded]" :key="one.id">
                <th scope="row">{{ one.name }}</th>
                <td class="figures soft">{{ entries(one.entries.length) }}, {{ secs(one.entries.at(-1)?.at_ms ?? 0) }}</td>
                <td class="bar">
                  <progress v-if="playing?.id === one.id" :value="playing.at" :max="playing.until" :aria-label="`${one.name} plays`" />
                </td>
                <td class="text-end acts">
                  <button v-if="playing?.id === one.id" type="button" class="btn btn-link btn-sm p-0" @click="halt">stop</button>
                  <button v-else type="button" class="btn btn-link btn-sm p-0" :aria-label="`Play ${one.name}`" @click="play(one)">play</button>
                  <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Save ${one.name} as a file`" @click="download(one)">
                    as a file
                  </button>
                  <button
                    v-if="!ready.includes(one)"
                    type="button"
                    class="btn btn-link btn-sm p-0"
                    :aria-label="`Delete ${one.name}`"
                    @click="drop(one.id)"
                  >
                    delete
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
          <p v-if="ready.length + recorded.length === 0" class="soft small m-0">
            None yet: record what happens before this display, and play it again.
          </p>
        </section>
        <p v-if="sensors.length === 0 && maps.length === 0" class="empty">
          Nothing before this display can tell anything: it has no sensors, and no triggers run on it.
          <RouterLink v-if="may('survey') && id" :to="`/displays/${id}`">Give it a sensor</RouterLink>
        </p>
      </div>
      <section class="answers" aria-label="What the player answers">
        <div class="words">
          <h2>What the player answers</h2>
          <button v-if="passed.length" type="button" class="btn btn-link btn-sm p-0 ms-auto" @click="empty">empty it</button>
        </div>
        <div v-for="{ document: map, look } in maps" :key="map.id" class="stands">
          <StatePicture :look="look" :state="stands[map.id] ?? map.rest" :width="Math.min(140, (96 * look.canvas.width) / look.canvas.height)" />
          <div>
            <RouterLink :to="`/triggers/${map.id}`">{{ map.name }}</RouterLink>
            <div class="state" role="status">{{ stands[map.id] ?? 'nothing told yet' }}</div>
          </div>
        </div>
        <ol class="passed">
          <li v-for="one in passed" :key="one.n" :class="one.is.replace(' ', '-')">
            <span class="figures soft">{{ clock(one.at) }}</span>
            <span v-if="one.is === 'said'"
              >{{ wordsOf(one.entry) }} <span v-if="one.times > 1" class="figures soft">×{{ one.times }}</span></span
            >
            <span v-else-if="one.is === 'entered'"
              ><b>{{ one.state }}</b> <span class="soft">{{ maps.length > 1 ? `${nameOfMap(one.map)}, ` : '' }}because {{ nameOfWhy(one.why) }}</span>
              <span v-if="one.took !== null" class="figures took">{{ one.took }} ms</span></span
            >
            <span v-else class="left">{{ one.why }}</span>
          </li>
        </ol>
        <p v-if="passed.length === 0" class="soft small">
          Nothing was said yet. Open the player of this display on this machine, then move somebody before it: whatever it comes to is told here, with
          how long it took from what was said to the picture.
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.before {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  flex: 1;
  min-height: 0;
}
.acts-side {
  overflow: auto;
  min-width: 0;
}
.part {
  padding: 8px 16px 10px;
  border-bottom: 1px solid var(--rule);
}
h2 {
  font-size: 0.9375rem;
  margin: 0;
}
.words {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 6px 12px;
}
.device {
  margin-top: 4px;
}
.row-of {
  display: flex;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--rule);
}
.row-of .part {
  border-bottom: 0;
  flex: 1 1 auto;
}
.row-of .part + .part {
  border-left: 1px solid var(--rule);
}
.box {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding-top: 8px;
}
.press {
  min-width: 64px;
  min-height: 64px;
  padding: 0 10px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--sheet);
  color: var(--ink);
}
.press.key {
  border-radius: 2px;
}
.press:active {
  background: var(--kelp-wash);
}
.touched {
  border: 1px solid var(--ink);
  padding: 0;
  background: #000;
  margin-top: 6px;
  cursor: crosshair;
}
.areas {
  display: grid;
  gap: 6px;
}
.traces th {
  font-weight: 400;
  padding-left: 0;
}
.bar progress {
  width: 120px;
  accent-color: var(--kelp);
}
.answers {
  border-left: 1px solid var(--ink);
  background: var(--sheet);
  padding: 8px 16px;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.stands {
  display: flex;
  gap: 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.state {
  font-size: 1.125rem;
}
.passed {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  overflow: auto;
  flex: 1;
}
.passed:empty {
  flex: none;
}
.passed li {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 8px;
  padding: 2px 0;
}
.entered {
  background: var(--kelp-wash);
}
.took {
  color: var(--kelp);
  margin-left: 6px;
}
.left {
  color: var(--warning);
}
</style>
