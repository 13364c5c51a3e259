<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import HoldButton from './HoldButton.vue'
import SignInForm from './SignInForm.vue'
import { Away, type Closes, type Standing, type Where, ask, newId, session } from './server'

/** Words, where, how long, show. A takeover wants a reason and a press that is held; what stands is ended here as well. */
const HurryPicture = defineAsyncComponent(() => import('./HurryPicture.vue'))
const HOLD_MS = 2000
const name = ref<string | null>(null)
const known = ref(false)
const trouble = ref('')
const where = ref<Where | null>(null)
const standing = ref<Standing[]>([])
const now = ref(Date.now())

// --- what is to be shown -------------------------------------------------------------------------

const asked = new URLSearchParams(location.search).get('takeover')
const kind = ref<'notice' | 'takeover'>(asked ? 'takeover' : 'notice')
const text = ref('')
const place = ref('bottom')
const takeover = ref(asked ?? '')
const reason = ref('')
const chosen = ref<string[]>([])
const single = ref<string[]>([])
const lasts = ref<'15' | '60' | '240' | 'closing' | 'until'>('15')
const until = ref('')
const LENGTHS = [
  ['15', '15 min'],
  ['60', '1 h'],
  ['240', '4 h'],
  ['closing', 'until closing time'],
  ['until', 'until …'],
] as const
/** Offered where any place says when it is open. */
const lengths = computed(() => LENGTHS.filter(([key]) => key !== 'closing' || where.value?.places.some((one) => one.closes)))
watch(takeover, (id) => (reason.value = where.value?.takeovers.find((one) => one.id === id)?.reason ?? ''))
/** Places within a place that is chosen are chosen with it. */
const count = computed(() => {
  const all = where.value?.places ?? []
  const inside = new Set<string>()
  let total = 0
  all.forEach((one, n) => {
    if (!chosen.value.includes(one.id) || inside.has(one.id)) return
    total += one.displays
    for (const below of all.slice(n + 1)) {
      if (below.depth <= one.depth) break
      inside.add(below.id)
    }
  })
  const within = new Set([...chosen.value, ...inside])
  return total + (where.value?.displays ?? []).filter((one) => single.value.includes(one.id) && !within.has(one.place)).length
})
/** When those that are chosen close, the first and the last; null where one of them does not say. */
const closes = computed<Closes>(() => {
  const those = [
    ...(where.value?.places ?? []).filter((one) => chosen.value.includes(one.id) && one.displays > 0),
    ...(where.value?.displays ?? []).filter((one) => single.value.includes(one.id)),
  ].map((one) => one.closes)
  const known = those.flatMap((one) => one ?? []).sort()
  return known.length && !those.includes(null) ? [known[0]!, known.at(-1)!] : null
})
const isReady = computed(
  () =>
    count.value > 0 &&
    (kind.value === 'notice' ? text.value.trim() !== '' : takeover.value !== '' && reason.value.trim() !== '') &&
    (lasts.value !== 'closing' || closes.value !== null) &&
    (lasts.value !== 'until' || /^\d\d:\d\d$/.test(until.value)),
)
/** A time of the day is that of each display: which day that is there, the server knows. */
const end = () =>
  lasts.value === 'until' ? { until: until.value } : lasts.value === 'closing' ? { until: 'closing' } : { for_min: Number(lasts.value) }
const body = computed(() => ({
  ...(kind.value === 'notice' ? { text: text.value, place: place.value } : { overlay: takeover.value, reason: reason.value }),
  ...(chosen.value.length ? { places: chosen.value } : {}),
  ...(single.value.length ? { displays: single.value } : {}),
  ...end(),
}))

// --- showing it ----------------------------------------------------------------------------------

const said = ref('')
const busy = ref(false)
let waiting: ReturnType<typeof setTimeout> | undefined

async function show() {
  if (!isReady.value || busy.value) return
  const id = newId()
  const sent = { id, ...body.value }
  const path = `${kind.value}s`
  busy.value = true
  trouble.value = said.value = ''
  try {
    const { displays, dark } = await ask<{ displays: number; dark: number }>('POST', path, sent)
    counted(displays, dark)
  } catch (e) {
    if (e instanceof Away) return void whetherItCounted(id)
    trouble.value = e instanceof Error ? e.message : 'It failed.'
  }
  busy.value = false
  await look()
}
function counted(displays: number, dark: number) {
  said.value = `Shown on ${displays} ${displays === 1 ? 'display' : 'displays'}, there within 5 s.${dark ? ` On ${dark} nothing plays yet, so it is not seen there.` : ''}`
  text.value = ''
}
/** Nobody answered: asked again until somebody does, since it may stand on every display by now. */
async function whetherItCounted(id: string) {
  trouble.value = 'The server does not answer. It is not known yet whether it counted; this page goes on asking.'
  try {
    const { displays } = await ask<Standing>('GET', `in-force/${id}`)
    trouble.value = ''
    busy.value = false
    counted(displays, 0)
    await look()
  } catch (e) {
    if (e instanceof Away) waiting = setTimeout(() => void whetherItCounted(id), 2000)
    else {
      trouble.value = 'It did not count: nothing is shown. Show it again.'
      busy.value = false
    }
  }
}
async function stop(one: Standing) {
  trouble.value = ''
  try {
    await ask('POST', `${one.kind}s/${one.id}/end`, {})
    said.value = `“${one.name}” is ended.`
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : 'It failed.'
  }
  await look()
}

// --- what stands ---------------------------------------------------------------------------------

const forced = computed(() => standing.value.filter((one) => one.stands && Date.parse(one.until) > now.value))
const clock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
/** With the day where that is not today. */
const when = (iso: string) => {
  const at = new Date(iso)
  return at.toDateString() === new Date(now.value).toDateString()
    ? clock(iso)
    : `${at.toLocaleDateString('en-GB', { weekday: 'short' })} ${clock(iso)}`
}
async function look() {
  try {
    standing.value = (await ask<{ in_force: Standing[] }>('GET', 'in-force')).in_force
  } catch {
    // What was told last stays.
  }
}
async function begin() {
  try {
    name.value = await session()
    known.value = true
    if (!name.value) return
    where.value = await ask<Where>('GET', 'in-force/where')
    reason.value = where.value.takeovers.find((one) => one.id === takeover.value)?.reason ?? ''
    if (where.value.places.length === 1) chosen.value = [where.value.places[0]!.id]
    await look()
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : 'It failed.'
    waiting = setTimeout(() => void begin(), 3000)
  }
}
let ticking: ReturnType<typeof setInterval> | undefined
let looking: ReturnType<typeof setInterval> | undefined
onMounted(() => {
  void begin()
  ticking = setInterval(() => (now.value = Date.now()), 1000)
  looking = setInterval(() => name.value && void look(), 10_000)
})
onBeforeUnmount(() => {
  clearInterval(ticking)
  clearInterval(looking)
  clearTimeout(waiting)
})
const preview = ref('')
</script>

<template>
  <header>
    <h1>In a hurry</h1>
    <a href="/overlays">to the desk</a>
  </header>
  <main>
    <SignInForm v-if="known && !name" @entered="begin" />
    <p v-else-if="!where" class="soft">{{ trouble || 'Opening.' }}</p>
    <template v-else>
      <section v-if="forced.length" class="forced" aria-label="In force now">
        <div v-for="one in forced" :key="one.id" :class="one.kind">
          <span
            ><b>{{ one.kind === 'takeover' ? 'Takeover' : 'Notice' }}</b> “{{ one.name }}”<br />{{ one.place }}, since {{ clock(one.begun_at)
            }}{{ one.begun_by ? ` by ${one.begun_by}` : '' }}, until {{ clock(one.until) }}</span
          >
          <button v-if="one.kind === 'notice' || where.may_take_over" type="button" @click="stop(one)">End now</button>
        </div>
      </section>

      <div v-if="where.may_take_over" class="kinds" role="radiogroup" aria-label="What">
        <button type="button" role="radio" :aria-checked="kind === 'notice'" @click="kind = 'notice'">Notice</button>
        <button type="button" role="radio" :aria-checked="kind === 'takeover'" @click="kind = 'takeover'">Takeover</button>
      </div>

      <template v-if="kind === 'notice'">
        <label
          >Words
          <textarea v-model="text" rows="3" maxlength="2000" placeholder="The lift is out of order. Please take the stairs."></textarea>
        </label>
        <div class="ways" role="radiogroup" aria-label="Where on the screen">
          <button v-for="one in ['top', 'middle', 'bottom']" :key="one" type="button" role="radio" :aria-checked="place === one" @click="place = one">
            {{ one }}
          </button>
        </div>
      </template>
      <template v-else>
        <p v-if="where.takeovers.length === 0" class="soft">
          No takeover is prepared yet. It is made at the desk, under Overlays, before it is needed.
        </p>
        <div class="prepared" role="radiogroup" aria-label="What takes over">
          <button
            v-for="one in where.takeovers"
            :key="one.id"
            type="button"
            role="radio"
            :aria-checked="takeover === one.id"
            @click="takeover = one.id"
          >
            {{ one.name }}
          </button>
        </div>
        <label>Reason<input v-model="reason" maxlength="500" placeholder="Why it takes over" /></label>
      </template>

      <fieldset>
        <legend>For whom</legend>
        <label v-for="one in where.places" :key="one.id" class="place" :style="{ paddingLeft: `${18 * one.depth}px` }"
          ><input v-model="chosen" type="checkbox" :value="one.id" /><span>{{ one.name }}</span
          ><span class="figures">{{ one.displays }}</span></label
        >
        <details v-if="where.displays.length">
          <summary>Single displays{{ single.length ? `: ${single.length}` : '' }}</summary>
          <label v-for="one in where.displays" :key="one.id" class="place"
            ><input v-model="single" type="checkbox" :value="one.id" /><span>{{ one.name }}</span></label
          >
          <p v-if="where.more" class="soft">More are there; choose their place, or put it up at the desk.</p>
        </details>
      </fieldset>

      <div class="lengths" role="radiogroup" aria-label="How long">
        <button v-for="[key, words] in lengths" :key="key" type="button" role="radio" :aria-checked="lasts === key" @click="lasts = key">
          {{ words }}
        </button>
      </div>
      <p v-if="lasts === 'closing' && (chosen.length || single.length)" class="soft">
        <template v-if="closes">
          Until {{ when(closes[0]) }}{{ closes[1] === closes[0] ? '' : ` to ${when(closes[1])}, each place when it closes` }}, on the clock of this
          telephone.
        </template>
        <template v-else>Not all that is chosen says when it closes. Settings of places tell opening hours; choose another length.</template>
      </p>
      <label v-if="lasts === 'until'"
        >Until, on the clock of each display
        <input v-model="until" type="time" required />
      </label>

      <p v-if="said" class="done" role="status">{{ said }}</p>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <button v-if="kind === 'notice'" type="button" class="go" :disabled="!isReady || busy" @click="show">
        {{ count ? `Show on ${count} ${count === 1 ? 'display' : 'displays'}` : 'Show' }}
      </button>
      <HoldButton v-else class="go" :disabled="!isReady || busy" :hold-ms="HOLD_MS" @held="show">
        {{ count ? `Hold for 2 s: take over ${count} ${count === 1 ? 'display' : 'displays'}` : 'Hold for 2 s to take over' }}
      </HoldButton>
      <button v-if="isReady" type="button" class="see" @click="preview = JSON.stringify([kind, body])">See it first</button>
      <HurryPicture v-if="preview" :asked="preview" />
    </template>
  </main>
</template>
