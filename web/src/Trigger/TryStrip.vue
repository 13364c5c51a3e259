<script setup lang="ts">
import { useElementSize, useEventListener, useRafFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue'
import { useRecorded } from '../Bench/recorded'
import PictureNow from '../pane/PictureNow.vue'
import { api, sentence } from '../ui/api'
import { useHandTaken } from '../ui/handTaken'
import { mayAct } from '../ui/keys'
import StepBar from '../ui/StepBar.vue'
import { type LookTriggers, type Said, type Trace, type Tried, type Triggers, metres, nameOf, secs } from './triggers'

/** Trying a map: what happens along a strip of time, the states below it, the display at the hand. */
const props = defineProps<{ map: Triggers; look: LookTriggers; display: string | null }>()
const emit = defineEmits<{ now: [state: string | null] }>()

// --- what happens ----------------------------------------------------------------------------------
const HAND_MS = 60_000
const byHand = ref<Said[]>([])
const picked = ref('hand')
const { recorded } = useRecorded(() => props.display)
const traces = computed<Trace[]>(() => [
  ...props.look.traces,
  ...recorded.value,
  { id: 'hand', name: 'by hand', entries: byHand.value, until_ms: Math.max(HAND_MS, (byHand.value.at(-1)?.at_ms ?? 0) + 30_000) },
])
const trace = computed(() => traces.value.find(({ id }) => id === picked.value) ?? traces.value[0]!)
watch(
  () => props.look.traces.map(({ id }) => id).join(),
  (ids) => picked.value === 'hand' && byHand.value.length === 0 && ids && (picked.value = props.look.traces[0]!.id),
  { immediate: true },
)
/** Several sensors have traces of their own, called alike. */
const nameOfTrace = (one: Trace) =>
  traces.value.filter(({ name }) => name === one.name).length > 1 ? `${one.name}, ${one.id.split(' ')[1]}` : one.name
/** What none of the ready traces comes to. */
const never = computed(() => {
  const reached = new Set(props.look.traces.flatMap((one) => one.reached))
  return props.look.traces.length ? props.map.states.filter(({ id }) => !reached.has(id)).map(({ id }) => id) : []
})

// --- what it comes to ------------------------------------------------------------------------------
const tried = ref<Tried | null>(null)
const trouble = ref('')
let asking: AbortController | null = null
let timer: ReturnType<typeof setTimeout> | undefined
async function tryIt() {
  asking?.abort()
  const { signal } = (asking = new AbortController())
  const body = { document: props.map, display: props.display, entries: trace.value.entries, until_ms: trace.value.until_ms }
  try {
    const answer = await api.post<Tried>('reactions/run', body, signal)
    if (!signal.aborted) [tried.value, trouble.value] = [answer, '']
  } catch (e) {
    if (!signal.aborted) trouble.value = sentence(e)
  }
}
watch(
  [() => JSON.stringify([props.map, props.display]), () => JSON.stringify(trace.value)],
  () => {
    clearTimeout(timer)
    timer = setTimeout(() => void tryIt(), 150)
  },
  { immediate: true },
)
onBeforeUnmount(() => {
  asking?.abort()
  clearTimeout(timer)
})

// --- the strip -------------------------------------------------------------------------------------
const bed = useTemplateRef('bed')
const { width } = useElementSize(bed)
const until = computed(() => trace.value.until_ms)
const x = (ms: number) => (ms / until.value) * width.value
const stretches = computed(() => {
  const states = tried.value?.states ?? []
  return states.map((one, n) => ({ ...one, to: states[n + 1]?.at_ms ?? until.value })).filter(({ at_ms: at, to }) => to > at)
})
const tints = ['#dde8e2', '#cad3e3', '#b7d2c6', '#e8d8b2', '#d8c6d6', '#c9dbe0']
const tint = (state: string) =>
  state === props.map.rest ? tints[0] : tints[1 + (props.map.states.findIndex(({ id }) => id === state) % (tints.length - 1))]
const HIGH = 62
const far = computed(() => Math.max(1, ...(props.look.on?.sensors ?? []).flatMap((one) => one.bands_mm)) * 1.15)
const y = (mm: number) => 4 + (HIGH - 8) * (mm / far.value)
/** Nearer is higher, as somebody who comes is. */
const distance = computed(() => {
  let d = ''
  let isThere = false
  for (const { at_ms: at, mm } of trace.value.entries) {
    if (mm === undefined) continue
    if (mm === null) isThere = false
    else {
      d += `${isThere ? 'L' : 'M'}${x(at).toFixed(1)} ${y(mm).toFixed(1)}`
      isThere = true
    }
  }
  return d
})
const edges = computed(() => [...new Set((props.look.on?.sensors ?? []).flatMap((one) => one.bands_mm))])
const acts = computed(() => trace.value.entries.filter((one) => one.mm === undefined))
const nameOfAct = (one: Said) => one.signal ?? one.button ?? one.key ?? (one.touch ? areaAt(one.touch) : one.source) ?? ''
const areaAt = ({ x, y }: { x: number; y: number }) => {
  const hit = props.map.signals.find(
    (s) => s.kind === 'touch' && x >= s.rect.x && x < s.rect.x + s.rect.width && y >= s.rect.y && y < s.rect.y + s.rect.height,
  )
  return hit ? nameOf(hit) : 'touch'
}
const ticks = computed(() => {
  const step = [1000, 2000, 4000, 5000, 10_000, 20_000, 60_000].find((one) => x(one) > 64) ?? 120_000
  return Array.from({ length: Math.floor(until.value / step) + 1 }, (_, n) => n * step)
})
const whyName = (why: string) => (why === 'lapse' || why === 'start' ? '' : why)

// --- the hand --------------------------------------------------------------------------------------
const at = ref(0)
const running = ref(false)
useRafFn(({ delta }) => {
  if (!running.value) return
  at.value = Math.min(until.value - 1, at.value + Math.min(delta, 250))
  if (at.value >= until.value - 1) running.value = false
})
const to = (ms: number) => (at.value = Math.max(0, Math.min(until.value - 1, Math.round(ms))))
watch(
  () => trace.value.id,
  () => ((at.value = 0), (running.value = false)),
)
const hand = { at, running, to }
const follow = useHandTaken(hand, (e) => ((e.clientX - bed.value!.getBoundingClientRect().left) / Math.max(1, width.value)) * until.value)
function toChange(forward: boolean) {
  const all = [...stretches.value.map((one) => one.at_ms), ...acts.value.map((one) => one.at_ms)].sort((a, b) => a - b)
  const next = forward ? all.find((one) => one > at.value) : all.filter((one) => one < at.value).at(-1)
  if (next !== undefined) to(next)
}
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!mayAct(e) || e.ctrlKey || e.metaKey || e.altKey) return
  const act = { '<': () => toChange(false), '>': () => toChange(true), ',': () => to(at.value - 1000), '.': () => to(at.value + 1000) }[e.key]
  if (!act) return
  e.preventDefault()
  act()
})
function keys(event: KeyboardEvent) {
  if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return
  event.preventDefault()
  const forward = event.key === 'ArrowRight'
  if (event.shiftKey) toChange(forward)
  else to(at.value + (forward ? 500 : -500))
}
const now = computed(() => stretches.value.filter((one) => one.at_ms <= at.value).at(-1) ?? null)
watch(
  () => now.value?.state ?? null,
  (state) => emit('now', state),
  { immediate: true },
)
onBeforeUnmount(() => emit('now', null))

// --- put there by hand -----------------------------------------------------------------------------
const what = ref('')
const puts = computed(() => [
  ...props.map.signals.map((one) => ({ value: `signal ${one.id}`, text: nameOf(one) })),
  ...(props.look.on?.sensors ?? [])
    .filter((one) => one.kind === 'presence')
    .flatMap((one) => [
      ...one.bands_mm.map((end, n) => ({
        value: `mm ${one.id} ${(n === 0 ? end : end + one.bands_mm[n - 1]!) / 2}`,
        text: `somebody at ${metres((n === 0 ? end : end + one.bands_mm[n - 1]!) / 2)}`,
      })),
      { value: `mm ${one.id} none`, text: 'nobody' },
    ]),
])
function put() {
  const [is, id, mm] = what.value.split(' ')
  if (!is || !id) return
  const own: Said = is === 'signal' ? { at_ms: at.value, signal: id } : { at_ms: at.value, sensor: id, mm: mm === 'none' ? null : Number(mm) }
  // What is put into a ready trace makes one of one's own of it.
  const before = picked.value === 'hand' ? byHand.value : [...trace.value.entries]
  const instant = at.value
  byHand.value = [...before, own].sort((a, b) => a.at_ms - b.at_ms)
  picked.value = 'hand'
  void Promise.resolve().then(() => to(instant))
}
const ratio = computed(() => props.look.canvas.width / props.look.canvas.height)
</script>

<template>
  <section class="try" aria-label="Try it">
    <div class="traces">
      <h2>Try it</h2>
      <button
        v-for="one in traces"
        :key="one.id"
        type="button"
        class="btn btn-sm btn-outline-dark"
        :class="{ on: one.id === trace.id }"
        :aria-pressed="one.id === trace.id"
        @click="picked = one.id"
      >
        {{ nameOfTrace(one) }}
      </button>
      <span v-if="never.length" class="small never">never reached: {{ never.join(', ') }}</span>
      <form class="put" @submit.prevent="put">
        <select v-model="what" class="form-select form-select-sm" aria-label="What happens at the hand">
          <option value="">at the hand…</option>
          <option v-for="one in puts" :key="one.value" :value="one.value">{{ one.text }}</option>
        </select>
        <button type="submit" class="btn btn-sm btn-outline-dark" :disabled="!what">Put</button>
        <button v-if="trace.id === 'hand' && byHand.length" type="button" class="btn btn-sm btn-link p-0" @click="byHand = []">empty it</button>
      </form>
      <StepBar
        :running="running"
        run-word="play"
        @change="toChange"
        @second="(forward) => to(at + (forward ? 1000 : -1000))"
        @run="running = !running"
      />
    </div>
    <p v-if="trouble" class="said-error m-0" role="alert">{{ trouble }}</p>
    <div class="stage">
      <figure :style="{ width: `${Math.min(200, 138 * ratio)}px` }">
        <PictureNow
          v-if="tried"
          :sheet="tried.picture.run_sheet"
          :media="tried.picture.media"
          :at="Date.parse(tried.from) + Math.floor(at / 50) * 50"
          :playing="running"
        />
      </figure>
      <div class="lanes">
        <span class="name" style="top: 30px">{{ distance ? 'distance' : 'happens' }}</span>
        <span class="name" style="top: 98px">shows</span>
        <div
          ref="bed"
          class="bed"
          role="slider"
          tabindex="0"
          aria-label="The hand"
          :aria-valuenow="Math.round(at)"
          aria-valuemin="0"
          :aria-valuemax="until"
          :aria-valuetext="`${secs(at)}, ${now?.state ?? ''}`"
          @pointerdown="follow"
          @keydown="keys"
        >
          <svg :width="width" height="138" aria-hidden="true">
            <g v-for="tick in ticks" :key="tick">
              <path :d="`M${x(tick)} 0V138`" class="tick" />
              <text :x="x(tick) + 3" y="11">{{ tick / 1000 }} s</text>
            </g>
            <g transform="translate(0 16)">
              <template v-if="distance">
                <path v-for="mm in edges" :key="mm" :d="`M0 ${y(mm)}H${width}`" class="edge" />
                <path :d="distance" class="distance" />
              </template>
              <g v-for="(one, n) in acts" :key="n">
                <path :d="`M${x(one.at_ms)} 6V${HIGH}`" class="act" />
                <text :x="x(one.at_ms) + 4" :y="HIGH - 4 - 13 * (n % 3)" class="act">{{ nameOfAct(one) }}</text>
              </g>
            </g>
            <g v-for="(one, n) in stretches" :key="n">
              <rect :x="x(one.at_ms)" y="88" :width="Math.max(1, x(one.to) - x(one.at_ms))" height="26" :fill="tint(one.state)" />
              <path :d="`M${x(one.at_ms)} 82V118`" class="change" />
              <text v-if="x(one.to) - x(one.at_ms) > 8 * one.state.length" :x="x(one.at_ms) + 5" y="105" class="state">{{ one.state }}</text>
              <text v-if="whyName(one.why)" :x="x(one.at_ms) + 2" :y="131" class="why">{{ whyName(one.why) }}</text>
            </g>
            <path :d="`M${x(at)} 0V138`" class="hand" />
          </svg>
        </div>
      </div>
    </div>
    <p class="figures soft told">
      {{ secs(Math.round(at / 10) * 10) }} · {{ now?.state ?? ''
      }}{{ now && now.why !== 'start' ? (now.why === 'lapse' ? ', because its time was over' : `, because of ${now.why}`) : '' }}
      <span class="ms-3">{{ stretches.length - 1 }} {{ stretches.length === 2 ? 'answer' : 'answers' }} in {{ secs(until) }}</span>
      <span v-if="now && stretches.at(-1)?.state !== map.rest" class="ms-3 never">it does not rest at the end</span>
    </p>
  </section>
</template>

<style scoped>
.try {
  border-top: 1px solid var(--ink);
  background: var(--sheet);
  padding: 6px 16px 2px;
}
.traces {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 5px;
}
h2 {
  font-size: 0.9375rem;
  margin-right: 8px;
}
.on {
  background: var(--kelp-wash);
  color: var(--kelp);
  font-weight: 650;
}
.never {
  color: var(--warning);
}
.put {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-left: auto;
}
.put select {
  width: 170px;
}
.stage {
  display: flex;
  gap: 12px;
}
figure {
  flex: none;
  margin: 0;
  background: #000;
  align-self: flex-start;
}
.lanes {
  position: relative;
  flex: 1;
  min-width: 0;
  padding-left: 66px;
}
.name {
  position: absolute;
  left: 0;
  font-family: var(--figures);
  font-size: 0.8125rem;
  color: var(--soft);
}
.bed {
  height: 138px;
  touch-action: none;
  overflow: hidden;
}
svg {
  display: block;
}
text {
  font-family: var(--figures);
  font-size: 0.75rem;
  fill: var(--soft);
}
text.state {
  font-family: inherit;
  font-size: 0.8125rem;
  fill: var(--ink);
}
text.why,
text.act {
  fill: var(--kelp);
}
.tick {
  stroke: var(--rule);
}
.edge {
  stroke: var(--soft);
  stroke-dasharray: 1 4;
}
.distance {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 1.5;
}
.act,
.change {
  stroke: var(--kelp);
  fill: none;
}
text.act {
  stroke: none;
}
.hand {
  stroke: var(--stop);
  stroke-width: 2;
}
.told {
  margin: 2px 0 0 0;
}
</style>
