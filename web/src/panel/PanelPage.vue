<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, onMounted, ref } from 'vue'
import SignInForm from '../hurry/SignInForm.vue'
import { Away, Refused, ask, newId, session } from '../hurry/server'
import { type Key, type Row, type Shown, type Told, stateOf } from './panel'

/** Keys for a person who stands in the hall: each says what it does and whether it stands, and the player is asked, not believed. */
const PanelPicture = defineAsyncComponent(() => import('./PanelPicture.vue'))
const id = /^\/panel\/([^/]+)/.exec(location.pathname)?.[1] ?? null
const OFTEN_MS = 1500
const name = ref<string | null>(null)
const known = ref(false)
const trouble = ref('')
const told = ref<Told | null>(null)
const panels = ref<{ id: string; name: string }[] | null>(null)
const now = ref(Date.now())

async function begin() {
  try {
    name.value = await session()
    known.value = true
    if (name.value) await look()
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : 'It failed.'
  }
}
async function entered(who: string | null) {
  name.value = who
  trouble.value = ''
  await look()
}
const away = ref(false)
async function look() {
  try {
    if (id === null) panels.value = (await ask<{ panels: { id: string; name: string }[] }>('GET', 'panels')).panels
    else told.value = await ask<Told>('GET', `panels/${id}/told`)
    away.value = false
  } catch (e) {
    if (e instanceof Away) away.value = true
    // Signed out meanwhile: what is told may be somebody else's.
    else if (e instanceof Refused && e.status === 401) name.value = told.value = null
    else if (e instanceof Refused && e.status === 404) trouble.value = 'This panel is not there, or its keys are for whoever may hand over.'
    else trouble.value = e instanceof Error ? e.message : 'It failed.'
  }
}

// --- pressing ------------------------------------------------------------------------------------

type Pressed = { key: string; id: string; at: number }
const pressed = ref<Record<string, Pressed>>({})
const opened = ref<string | null>(null)
const shownOf = (display: string) => told.value?.displays.find((one) => one.id === display)
const stateOfKey = (key: Key) => stateOf(key, shownOf(key.display), pressed.value[key.display] ?? null, now.value)
async function press(key: Key, row?: Row) {
  if (key.trouble) return
  if (key.rows && !row) {
    opened.value = opened.value === key.id ? null : key.id
    return
  }
  trouble.value = ''
  opened.value = null
  const own = newId()
  pressed.value = { ...pressed.value, [key.display]: { key: key.id, id: own, at: Date.now() } }
  await act('press', { id: own, key: key.id, ...(row && { row: row.row }) }, key.display)
}
function back(display: string, zone: string | null) {
  over(display, pressed.value[display])
  return act('back', { display, zone }, display)
}
async function act(what: string, body: object, display: string) {
  const own = pressed.value[display]
  try {
    const answer = await ask<{ handing?: { id: string } }>('POST', `panels/${id}/${what}`, body)
    if (answer.handing) void watchHanding(answer.handing.id, display, own)
  } catch (e) {
    over(display, own)
    trouble.value =
      e instanceof Away
        ? 'The server does not answer: nothing was done that is known of. Look what stands there, and press again.'
        : (e as Error).message
  }
  await look()
}
/** What was pressed there is done, or failed: what stands is told from there on. */
function over(display: string, own: Pressed | undefined) {
  if (own && pressed.value[display]?.id === own.id)
    pressed.value = Object.fromEntries(Object.entries(pressed.value).filter(([one]) => one !== display))
}
/** What is handed over may fail: then it is said, and what stood there stands. */
async function watchHanding(handing: string, display: string, own: Pressed | undefined) {
  try {
    const { state, trouble: why } = await ask<{ state: string; trouble: string | null }>('GET', `handings/${handing}`)
    if (state === 'failed') trouble.value = why ?? 'It could not be handed over.'
    else if (state !== 'done') return void setTimeout(() => void watchHanding(handing, display, own), 500)
  } catch {
    // What stands is asked for all the same.
  }
  await look()
  over(display, own)
}
const all = computed(() => told.value?.groups.flatMap(({ keys }) => keys) ?? [])
function keydown(e: KeyboardEvent) {
  if (e.ctrlKey || e.metaKey || e.altKey || e.repeat || e.target instanceof HTMLInputElement) return
  const key = all.value.find((one) => one.press?.toLowerCase() === e.key.toLowerCase())
  if (!key) return
  e.preventDefault()
  void press(key)
}

// --- in words ------------------------------------------------------------------------------------

const clock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
const length = (min: number) => (min % 60 === 0 ? `${min / 60} h` : `${min} min`)
const whereOf = (key: Key) =>
  [shownOf(key.display)?.name ?? key.display, key.zone ?? '', key.for_min ? `for ${length(key.for_min)}` : ''].filter(Boolean).join(' · ')
const answered = (one: Shown) =>
  one.answers
    .filter(({ why }) => why !== 'start' && why !== 'lapse')
    .map(({ map, state, since }) => `${one.maps[map]}: ${state} since ${clock(since)}`)
/** A picture is no higher than this, so that the keys are seen below it, px. */
const HIGH = 130
/** Without a picture where a telephone has a slow line. */
const isSeen = ref(true)

let ticking: ReturnType<typeof setInterval> | undefined
let looking: ReturnType<typeof setInterval> | undefined
onMounted(() => {
  void begin()
  ticking = setInterval(() => (now.value = Date.now()), 1000)
  looking = setInterval(() => name.value && !document.hidden && void look(), OFTEN_MS)
  window.addEventListener('keydown', keydown)
})
onBeforeUnmount(() => {
  clearInterval(ticking)
  clearInterval(looking)
  window.removeEventListener('keydown', keydown)
})
</script>

<template>
  <header>
    <h1>{{ told?.name ?? 'Panels' }}</h1>
    <a v-if="id === null || !told" href="/">to the desk</a>
    <a v-else href="/panel">all panels</a>
  </header>
  <main class="panel">
    <SignInForm v-if="known && !name" @entered="entered" />
    <template v-else>
      <p v-if="away" class="trouble" role="alert">The server does not answer. What is told here may be old; it is asked again by itself.</p>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <nav v-if="panels" class="prepared" aria-label="All panels">
        <a v-for="one in panels" :key="one.id" class="key" :href="`/panel/${one.id}`">{{ one.name }}</a>
        <p v-if="panels.length === 0" class="soft">No panel was made yet. It is made at the desk, under Triggers.</p>
      </nav>
      <p v-else-if="!told && !trouble" class="soft">Opening.</p>
      <template v-if="told">
        <div class="displays">
          <section
            v-for="one in told.displays"
            :key="one.id"
            class="display"
            :class="{ upright: one.raster.height > one.raster.width }"
            :aria-label="one.name"
          >
            <div v-if="isSeen" class="seen" :style="{ width: `${(HIGH * one.raster.width) / one.raster.height}px` }">
              <PanelPicture :shown="one" />
            </div>
            <div>
              <div class="words">
                <b>{{ one.name }}</b>
                <span :class="['status', one.status]">{{ one.status === 'plays' ? 'the player says so' : one.says }}</span>
              </div>
              <p class="said">
                {{ one.plays ?? 'Nothing was handed over yet' }}
                <template v-for="says in answered(one)" :key="says"><br />{{ says }}</template>
              </p>
              <div v-for="stands in one.stands" :key="stands.zone ?? ''" class="stands">
                <span
                  ><b>{{ stands.name }}</b> {{ stands.zone ? `on ${stands.zone}` : 'on the whole of it' }} since {{ clock(stands.since)
                  }}{{ stands.until ? `, until ${clock(stands.until)}` : '' }}</span
                >
                <button type="button" @click="back(one.id, stands.zone)">Back to the programme</button>
              </div>
            </div>
          </section>
        </div>
        <section v-for="(group, g) in told.groups" :key="g" class="group" :aria-label="group.name || 'Keys'">
          <h2 v-if="group.name">{{ group.name }}</h2>
          <div class="keys">
            <template v-for="key in group.keys" :key="key.id">
              <button
                type="button"
                class="key"
                :class="[stateOfKey(key).is, { wide: opened === key.id }]"
                :style="key.ground && !key.trouble ? { background: key.ground, color: key.ink ?? undefined } : undefined"
                :aria-pressed="stateOfKey(key).is === 'on'"
                :aria-expanded="key.rows ? opened === key.id : undefined"
                :disabled="!!key.trouble"
                @click="press(key)"
              >
                <span class="name">{{ key.name }}</span>
                <kbd v-if="key.press" aria-hidden="true">{{ key.press }}</kbd>
                <span class="where">{{ key.trouble ?? whereOf(key) }}</span>
                <span class="says" role="status">{{ stateOfKey(key).says || (key.rows ? `${key.rows.length} to choose from` : '') }}</span>
              </button>
              <div v-if="opened === key.id" class="rows" role="group" :aria-label="key.name">
                <button v-for="(row, n) in key.rows" :key="n" type="button" @click="press(key, row)">{{ row.says }}</button>
                <p v-if="!key.rows?.length" class="soft">Nothing is there to choose from now.</p>
              </div>
            </template>
          </div>
        </section>
        <p v-if="told.groups.every((one) => one.keys.length === 0)" class="soft">
          This panel has no keys yet. They are put on it at the desk, under Triggers.
        </p>
        <button type="button" class="see" @click="isSeen = !isSeen">{{ isSeen ? 'Without pictures' : 'With pictures' }}</button>
      </template>
    </template>
  </main>
</template>
