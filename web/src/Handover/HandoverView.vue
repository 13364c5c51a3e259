<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type DisplayState, useEstate, wordsOf } from '../Estate/estate'
import { useDesigns } from '../Layout/designs'
import { useMedia } from '../Media/media'
import { api, Problem, sentence } from '../ui/api'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { size } from '../ui/format'
import { useGrowing, useGrowingPlaces } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import { useSecond } from '../ui/second'
import { useShelf } from '../ui/shelf'
import { type Handing, told, useHandings } from './handings'
import HandingNotes from './HandingNotes.vue'
import { type Offer, countOf } from './offers'
import OfferPictures from './OfferPictures.vue'
import OfferWords from './OfferWords.vue'

type Kind = 'layout' | 'filled' | 'playlist' | 'media' | 'schedule'
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const shelf = useShelf()
const { displays, byPlace } = useEstate()
const layouts = useDesigns('layouts')
const filled = useDesigns('filled')
const playlists = useDesigns('playlists')
const schedules = useDesigns('schedules')
const { ready } = useMedia()
const at = useSecond()

const KINDS: Record<Kind, string> = {
  layout: 'layout',
  filled: 'filled in',
  playlist: 'playlist',
  media: 'picture or film',
  schedule: 'schedule',
}
const kind = ref<Kind>((Object.keys(KINDS) as Kind[]).find((k) => typeof route.query[k] === 'string') ?? 'layout')
const id = computed(() => (typeof route.query[kind.value] === 'string' ? (route.query[kind.value] as string) : ''))
const chosen = computed(() => new Set(([] as unknown[]).concat(route.query.display ?? []).filter((d): d is string => typeof d === 'string')))
const designs = { layout: layouts, filled, playlist: playlists, schedule: schedules }
const choices = computed(() =>
  kind.value === 'media'
    ? ready.value.map((m) => ({ value: m.id, text: m.name }))
    : designs[kind.value].all.value.map((d) => ({
        value: d.id,
        text: d.canvas ? `${d.name}, ${size(d.canvas)} px` : d.name,
      })),
)
const revision = computed(
  () => [...layouts.all.value, ...filled.all.value, ...playlists.all.value, ...schedules.all.value].find((d) => d.id === id.value)?.revision,
)

const search = ref('')
const fits = (d: DisplayState) => wordsOf(d).includes(search.value.trim().toLowerCase())
const { shown: places, left, end } = useGrowingPlaces(byPlace, fits, 80)

const go = (source: string, those: Iterable<string>) =>
  router.replace({ query: { ...(source ? { [kind.value]: source } : {}), display: [...those] } })
function toggle(ids: string[], on: boolean) {
  const next = new Set(chosen.value)
  ids.forEach((d) => (on ? next.add(d) : next.delete(d)))
  void go(id.value, next)
}

// Coming here from a variant: the displays that it is for.
watch(
  () => route.query.variant,
  async (variant) => {
    if (typeof variant !== 'string' || !id.value) return
    const asked = new URLSearchParams({ variant, seen: String(route.query.seen ?? '') })
    const { displays: meant } = await api.get<{ displays: string[] }>(`layouts/${id.value}/meant-for?${asked}`)
    void go(id.value, meant)
  },
  { immediate: true },
)

// Coming here without a choice, or with a source that has changed: what is changed and not handed over is what one came for.
const asksForOlder = 'older' in route.query
const offered = ref(false)
watch(
  displays,
  (all) => {
    if (offered.value || all.length === 0) return
    offered.value = true
    const asked = asksForOlder ? id.value : ''
    const first = all.find((d) => d.saved_not_handed_over && (asked === '' || d.release!.source.id === asked))
    if ((id.value && !asked) || chosen.value.size || !first) return
    const { kind: k, id: source } = first.release!.source
    kind.value = k
    void go(
      source,
      all.filter((d) => d.saved_not_handed_over && d.release!.source.id === source).map((d) => d.id),
    )
  },
  { immediate: true },
)

const request = computed(() => ({
  source: { kind: kind.value, id: id.value, ...(revision.value ? { revision: revision.value } : {}) },
  displays: [...chosen.value],
}))
// The revision that is looked at is the newest: a list that is just asked for again may know a newer one.
const looking = ref(true)
watchEffect(() => {
  if (!layouts.query.isFetching.value && !filled.query.isFetching.value && !playlists.query.isFetching.value && !schedules.query.isFetching.value)
    looking.value = false
})
const preview = useQuery({
  queryKey: computed(() => ['preview', request.value]),
  enabled: computed(() => id.value !== '' && chosen.value.size > 0 && (kind.value === 'media' || (revision.value !== undefined && !looking.value))),
  staleTime: 0,
  retry: false,
  queryFn: () => api.post<{ offers: Offer[] }>('handover/preview', request.value),
})
const offers = computed(() => (preview.isEnabled.value ? (preview.data.value?.offers ?? []) : []))
const stopped = computed(() => offers.value.filter((o) => o.stops > 0))
const { shown: shownOffers, left: offersLeft, end: offersEnd } = useGrowing(offers, 30)
const fresh = computed(() => offers.value.filter((o) => !o.unchanged))
const nameOf = (display: string) => displays.value.find((d) => d.id === display)?.name ?? display
const stateOf = (display: string) => displays.value.find((d) => d.id === display)
const namesOf = (o: Offer) => told(o.displays, o.displays.length, nameOf)
/** What they play now: alike, but each by a release of its own. */
function playNow(o: Offer): string {
  if (!o.current) return o.displays.length === 1 ? 'plays nothing yet' : 'play nothing yet'
  return o.displays.length === 1 ? `plays release ${o.current.number}` : `play "${o.current.name}"`
}

const busy = ref(false)
const trouble = ref('')
const handings = useHandings()
const own = ref<string[]>([])
watch(request, () => {
  trouble.value = ''
})

function meanSchedule(o: Offer) {
  kind.value = 'schedule'
  void router.replace({ query: { schedule: o.instead_of!.id, display: o.displays } })
}

async function handOver() {
  busy.value = true
  trouble.value = ''
  try {
    const { handing } = await api.post<{ handing: Handing }>('handover', request.value)
    own.value.push(handing.id)
    await queries.invalidateQueries({ queryKey: ['handings'] })
  } catch (e) {
    trouble.value = e instanceof Problem ? e.message : sentence(e)
  } finally {
    busy.value = false
  }
}

watchEffect(() => {
  shelf.findings = offers.value.flatMap((o) => o.findings.map((f) => ({ ...f, message: `${namesOf(o)}: ${f.message}`, fix: undefined })))
  shelf.remark = offers.value.length ? 'Nothing is found: it can be handed over.' : ''
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Handover</h1>
        <p class="facts m-0">A release is made for each display; a player changes over when it has all of it</p>
      </div>
      <div class="actions">
        <span v-if="stopped.length" class="said-error small">{{ countOf(stopped) }} of {{ countOf(offers) }} displays cannot take it</span>
        <BButton variant="primary" :disabled="busy || offers.length === 0 || stopped.length > 0" @click="handOver">
          {{ busy ? 'Handing over' : `Hand over to ${countOf(offers)} ${countOf(offers) === 1 ? 'display' : 'displays'}` }}
        </BButton>
      </div>
    </div>
    <div class="columns">
      <aside class="leaf" aria-label="What and where">
        <h2>What</h2>
        <div class="px-3">
          <ChoiceBar :model-value="kind" class="mb-2 flex-wrap" label="Kind" :words="KINDS" @update:model-value="kind = $event as Kind" />
          <BFormSelect
            :model-value="id"
            aria-label="What to hand over"
            :options="[{ value: '', text: 'choose…', disabled: true }, ...choices]"
            @update:model-value="go(String($event), chosen)"
          />
          <p v-if="kind === 'schedule'" class="soft small mt-1 mb-0">
            Each display plays what is booked on it and on its places, for the next three months without contact.
          </p>
          <p v-else-if="kind !== 'layout' && kind !== 'filled'" class="soft small mt-1 mb-0">It plays full screen, as it is.</p>
        </div>
        <h2>
          Where
          <button
            type="button"
            class="btn btn-link btn-sm"
            @click="
              toggle(
                displays.map((d) => d.id),
                chosen.size < displays.length,
              )
            "
          >
            {{ chosen.size < displays.length ? 'all' : 'none' }}
          </button>
        </h2>
        <div v-if="displays.length > 12" class="px-3 pb-2">
          <BFormInput v-model="search" type="search" size="sm" placeholder="Search name, place, raster" aria-label="Search displays" />
        </div>
        <fieldset v-for="place in places" :key="place.id">
          <legend>
            <BFormCheckbox
              :model-value="place.all.every((d) => chosen.has(d.id))"
              :indeterminate="place.all.some((d) => chosen.has(d.id)) && !place.all.every((d) => chosen.has(d.id))"
              @update:model-value="
                toggle(
                  place.all.map((d) => d.id),
                  $event === true,
                )
              "
              ><b>{{ place.name }}</b></BFormCheckbox
            >
          </legend>
          <BFormCheckbox
            v-for="d in place.displays"
            :key="d.id"
            :model-value="chosen.has(d.id)"
            class="one"
            @update:model-value="toggle([d.id], $event === true)"
            >{{ d.name }} <span class="figures soft">{{ size(d.raster) }}</span></BFormCheckbox
          >
        </fieldset>
        <div ref="end"><ListEnd :left="left" /></div>
      </aside>
      <section class="body p-3" aria-label="What would change">
        <HandingNotes :handings="handings.all.value" :own="own" :name-of="nameOf" :lately="!preview.isEnabled.value" />
        <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
        <p v-if="preview.error.value && preview.isEnabled.value" class="said-error" role="alert">
          {{ preview.error.value.message }}
        </p>
        <p v-if="looking && id && chosen.size && offers.length === 0" class="empty">Looking at each display.</p>
        <div v-else-if="!preview.isEnabled.value" class="empty">
          <h2>Choose what, and where</h2>
          <p>For each display you see here how it fits, what would change, and what the checks find. Nothing is handed over before you press.</p>
        </div>
        <p v-else-if="preview.isFetching.value && offers.length === 0" class="empty">Looking at each display.</p>
        <article v-for="o in shownOffers" :key="o.displays[0]" :class="{ stopped: o.stops }">
          <OfferPictures
            v-if="o.match && stateOf(o.displays[0]!)"
            :display="stateOf(o.displays[0]!)!"
            :source="request.source"
            :unchanged="o.unchanged"
            :at="at"
          />
          <div v-else></div>
          <div>
            <h3>
              {{ namesOf(o) }}
              <span class="figures soft">{{ playNow(o) }}</span>
            </h3>
            <OfferWords :offer="o" :timezone="stateOf(o.displays[0]!)?.timezone">
              <p v-if="o.instead_of && !o.unchanged" class="instead small">
                The schedule "{{ o.instead_of.name }}" rules here{{ o.instead_of.handed_over ? '' : ', and is not handed over' }}. Handing this over
                takes its place.
                <button type="button" class="btn btn-link btn-sm p-0" @click="meanSchedule(o)">Hand over the schedule instead</button>
              </p>
            </OfferWords>
          </div>
        </article>
        <div ref="offersEnd"><ListEnd :left="offersLeft" /></div>
        <p v-if="offers.length && fresh.length === 0" class="soft">Nothing would change on any of these displays.</p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.leaf h2 {
  font-size: 0.875rem;
  color: var(--soft);
  padding: 12px 16px 5px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
fieldset {
  padding: 0 16px 8px;
}
legend {
  font-size: 0.9375rem;
  margin: 0;
}
.one {
  margin-left: 22px;
  font-size: 0.875rem;
}
fieldset :deep(.form-check) {
  min-height: 26px;
  margin-bottom: 2px;
}
fieldset :deep(.form-check-input) {
  width: 18px;
  height: 18px;
  margin-left: -1.6em;
}
article {
  display: grid;
  grid-template-columns: 320px 1fr;
  gap: 18px;
  padding: 12px 0;
  border-bottom: 1px solid var(--rule);
}
article.stopped h3 {
  color: var(--stop);
}
h3 {
  font-size: 0.9375rem;
}
.instead {
  border-left: 3px solid var(--warning);
  padding-left: 9px;
  margin: 5px 0 0;
}
</style>
