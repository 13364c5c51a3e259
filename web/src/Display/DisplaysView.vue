<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, shallowRef, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type DisplayState, type PlaceState, useEstate, wordsOf } from '../Estate/estate'
import { matters } from '../Estate/matters'
import MiniPicture from '../Estate/MiniPicture.vue'
import { offerActions } from '../ui/actions'
import { api, sentence } from '../ui/api'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { clock, size, zoneName } from '../ui/format'
import { useGrowingPlaces } from '../ui/growing'
import LevelMark from '../ui/LevelMark.vue'
import ListEnd from '../ui/ListEnd.vue'
import { may } from '../ui/rights'
import { useSecond } from '../ui/second'
import { useShelf } from '../ui/shelf'
import DisplaySheet from './DisplaySheet.vue'
import NewDisplay from './NewDisplay.vue'
import PlaceEditor from './PlaceEditor.vue'

const { query, displays, findings, places, byPlace } = useEstate()
const at = useSecond()
const route = useRoute()
const router = useRouter()
const shelf = useShelf()
const queries = useQueryClient()

const search = useAsked('search')
const turned = useAsked('orientation')
const kind = useAsked('kind')
const chosen = computed(() => displays.value.find((d) => d.id === route.query.display) ?? null)

const fits = (d: DisplayState) =>
  (turned.value === '' || d.orientation === turned.value) &&
  (kind.value === '' || (kind.value === 'found' ? d.found.stops + d.found.warnings + d.found.hints > 0 : (kind.value === 'wall') === d.panels > 1)) &&
  wordsOf(d).includes(search.value.trim().toLowerCase())
const { shown, left, end } = useGrowingPlaces(byPlace, fits, 50)

const choose = (d: DisplayState | null) => router.replace({ query: { ...route.query, display: d?.id } })
const metres = (mm: number) => (mm / 1000).toFixed(1)
const worst = (d: DisplayState) => (d.found.stops ? 'stop' : d.found.warnings ? 'warning' : d.found.hints ? 'hint' : null)

// --- the tree ----------------------------------------------------------------------------

const byId = computed(() => new Map(places.value.map((p) => [p.id, p])))
const wayOf = (p: PlaceState): string[] => [...(p.parent && byId.value.get(p.parent) ? wayOf(byId.value.get(p.parent)!) : []), p.name]
const ways = computed(() =>
  places.value.map((place) => ({ place, way: wayOf(place) })).sort((a, b) => a.way.join('\n').localeCompare(b.way.join('\n'))),
)
const empty = computed(() => {
  const used = new Set(displays.value.map((d) => d.place))
  return search.value || turned.value || kind.value ? [] : ways.value.filter((p) => !used.has(p.place.id))
})
const making = ref(false)
const editing = ref(false)
const edited = shallowRef<PlaceState | null>(null)
function edit(place: PlaceState | null) {
  edited.value = place
  editing.value = true
}
offerActions(() => [
  ...(may('survey')
    ? [
        { kind: 'action', name: 'New display', act: () => (making.value = true) },
        { kind: 'action', name: 'New place', act: () => edit(null) },
        { kind: 'action', name: 'Displays from a table', more: 'CSV', act: () => void router.push('/displays/from-table') },
      ]
    : []),
  ...(may('design')
    ? [{ kind: 'action', name: 'Settings of places', more: 'clock, style, languages', act: () => void router.push('/displays/settings') }]
    : []),
  ...(may('hand-over')
    ? [{ kind: 'action', name: 'What fits where', more: 'layouts × displays', act: () => void router.push('/displays/matches') }]
    : []),
])

// --- many at once --------------------------------------------------------------------------

const ticked = shallowRef<ReadonlySet<string>>(new Set())
function tick(ids: string[], on: boolean) {
  const next = new Set(ticked.value)
  ids.forEach((id) => (on ? next.add(id) : next.delete(id)))
  ticked.value = next
}
const trouble = ref('')
async function move(place: string) {
  trouble.value = ''
  try {
    await api.post('displays/move', { displays: [...ticked.value], place })
    ticked.value = new Set()
    await queries.invalidateQueries({ queryKey: ['estate'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}

watchEffect(() => {
  shelf.findings = matters(findings.value, (code) => code === 'survey.found')
  shelf.remark = `${displays.value.length} displays surveyed`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Displays</h1>
        <p v-if="$may('design')" class="facts m-0"><RouterLink to="/displays/settings">Settings of places</RouterLink></p>
      </div>
      <div class="actions">
        <BFormInput v-model="search" type="search" placeholder="Search name, place, raster" aria-label="Search displays" />
        <ChoiceBar v-model="turned" label="Orientation" :words="{ '': 'all', landscape: 'landscape', portrait: 'portrait' }" />
        <ChoiceBar v-model="kind" label="Kind" :words="{ '': 'all', wall: 'walls', panel: 'single', found: 'found' }" />
        <RouterLink v-if="$may('hand-over')" class="btn btn-outline-dark" to="/displays/matches">What fits where</RouterLink>
        <RouterLink v-if="$may('survey')" class="btn btn-outline-dark" to="/displays/from-table">From a table…</RouterLink>
        <BButton v-if="$may('survey')" variant="primary" @click="making = true">New display…</BButton>
      </div>
    </div>
    <div class="columns displays" :class="{ split: chosen }">
      <section class="body p-3" aria-label="Surveyed displays">
        <p v-if="query.isPending.value" class="empty">Reading the estate.</p>
        <p v-else-if="query.error.value && displays.length === 0" class="empty said-error">
          {{ query.error.value.message }}
        </p>
        <div v-else-if="shown.length === 0" class="empty">
          <h2>{{ displays.length ? 'No display fits this search' : 'No display is surveyed yet' }}</h2>
          <p v-if="displays.length">
            <a href="#" @click.prevent="router.replace({ query: {} })">Show all {{ displays.length }}</a>
          </p>
          <p v-else-if="places.length">Begin with the label of one panel, or with a table of many.</p>
          <p v-else-if="$may('survey')">
            First the places that they hang in. <BButton variant="primary" size="sm" @click="edit(null)">New place…</BButton>
          </p>
        </div>
        <div v-if="ticked.size" class="many" role="region" aria-label="With those ticked">
          <b>{{ ticked.size }} ticked</b>
          <label v-if="$may('survey')"
            >move to
            <select class="form-select form-select-sm" aria-label="Move to" @change="move(($event.target as HTMLSelectElement).value)">
              <option value="">choose a place…</option>
              <option v-for="p in ways" :key="p.place.id" :value="p.place.id">{{ p.way.join(' › ') }}</option>
            </select></label
          >
          <RouterLink v-if="$may('hand-over')" class="btn btn-outline-dark btn-sm" :to="{ path: '/handover', query: { display: [...ticked] } }"
            >Hand over to them</RouterLink
          >
          <button type="button" class="btn btn-link btn-sm" @click="ticked = new Set()">none</button>
          <span v-if="trouble" class="said-error" role="alert">{{ trouble }}</span>
        </div>
        <table v-if="shown.length" class="table align-middle">
          <thead>
            <tr>
              <th scope="col"><span class="visually-hidden">Ticked</span></th>
              <th scope="col">Display</th>
              <th scope="col">Raster, px</th>
              <th scope="col">Orientation</th>
              <th scope="col">Size, mm</th>
              <th scope="col">Read from, m</th>
              <th scope="col">Time there</th>
              <th scope="col">Player</th>
            </tr>
          </thead>
          <tbody v-for="place in shown" :key="place.id">
            <tr class="place">
              <td>
                <input
                  type="checkbox"
                  class="form-check-input"
                  :aria-label="`All of ${place.name}`"
                  :checked="place.all.every((d) => ticked.has(d.id))"
                  @change="
                    tick(
                      place.all.map((d) => d.id),
                      ($event.target as HTMLInputElement).checked,
                    )
                  "
                />
              </td>
              <th colspan="7" scope="rowgroup">
                {{ place.displays[0]!.way.slice(1).join(' › ') || place.name }}
                <span class="soft small">{{ place.zone ?? 'no time zone' }}</span>
                <button v-if="$may('survey', place.id)" type="button" class="btn btn-link btn-sm p-0" @click="edit(byId.get(place.id)!)">
                  change place
                </button>
              </th>
            </tr>
            <tr v-for="d in place.displays" :key="d.id" :class="{ on: chosen?.id === d.id }" @click="choose(d)">
              <td @click.stop>
                <input
                  type="checkbox"
                  class="form-check-input"
                  :aria-label="d.name"
                  :checked="ticked.has(d.id)"
                  @change="tick([d.id], ($event.target as HTMLInputElement).checked)"
                />
              </td>
              <td>
                <div class="name">
                  <MiniPicture :display="d" :at="at" />
                  <RouterLink :to="`/displays/${d.id}`" title="Survey" @click.stop>{{ d.name }}</RouterLink>
                  <LevelMark v-if="worst(d)" :level="worst(d)!" />
                </div>
              </td>
              <td class="figures">{{ size(d.raster) }}</td>
              <td>
                {{ d.orientation }}<span v-if="d.panels > 1" class="soft small">, {{ d.panels }} panels</span
                ><span v-else-if="d.rotation" class="soft small">, turned {{ d.rotation }}°</span>
              </td>
              <td class="figures">{{ d.active_mm.width.toFixed(1) }} × {{ d.active_mm.height.toFixed(1) }}</td>
              <td class="figures">{{ metres(d.viewing.nearest_mm) }} to {{ metres(d.viewing.farthest_mm) }}</td>
              <td>
                <span class="figures">{{ clock(at, d.timezone, false) }}</span>
                <span class="soft small">{{ zoneName(d.timezone, at) }}</span>
              </td>
              <td>
                {{ d.players.length ? (d.players.length === 1 ? 'bound' : `${d.players.length} bound`) : 'none' }}
              </td>
            </tr>
          </tbody>
        </table>
        <div ref="end"><ListEnd :left="left" /></div>
        <p v-if="!left && empty.length" class="soft small">
          Nothing hangs at
          <template v-for="(p, i) in empty" :key="p.place.id"
            >{{ i ? ', ' : '' }}<button type="button" class="btn btn-link btn-sm p-0" @click="edit(p.place)">{{ p.place.name }}</button></template
          >. <button type="button" class="btn btn-link btn-sm p-0" @click="edit(null)">New place…</button>
        </p>
      </section>
      <DisplaySheet v-if="chosen" :key="chosen.id" :display="chosen" :at="at" @close="choose(null)" />
    </div>
    <NewDisplay v-model="making" :places="ways" />
    <PlaceEditor v-model="editing" :place="edited" :places="ways" />
  </main>
</template>

<style scoped>
.displays {
  grid-template-columns: minmax(0, 1fr);
}
.displays.split {
  grid-template-columns: minmax(0, 1fr) 392px;
}
.place th,
.place td {
  padding-top: 14px;
  font-size: 0.875rem;
}
.many {
  position: sticky;
  top: -16px;
  z-index: 3;
  display: flex;
  gap: 14px;
  align-items: center;
  background: var(--kelp-wash);
  border: 1px solid var(--kelp);
  padding: 6px 12px;
  margin-bottom: 8px;
  font-size: 0.875rem;
}
.many label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.many select {
  width: 260px;
}
tbody tr:not(.place) {
  cursor: pointer;
}
tr.on td {
  background: var(--kelp-wash);
}
.name {
  display: flex;
  align-items: center;
  gap: 12px;
}
.table {
  font-size: 0.875rem;
}
td,
th {
  white-space: nowrap;
}
</style>
