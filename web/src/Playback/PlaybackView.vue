<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import MiniPicture from '../Estate/MiniPicture.vue'
import { type DisplayState, type PlayerState, type Standing, useEstate } from '../Estate/estate'
import { matters } from '../Estate/matters'
import PutBack from '../Handover/PutBack.vue'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { ago, clock, moment, zoneName } from '../ui/format'
import { useGrowing } from '../ui/growing'
import LevelMark from '../ui/LevelMark.vue'
import ListEnd from '../ui/ListEnd.vue'
import { useSecond } from '../ui/second'
import { may } from '../ui/rights'
import { useShelf } from '../ui/shelf'
import PlaybackTabs from './PlaybackTabs.vue'

const { query, displays, findings } = useEstate()
const shelf = useShelf()
const at = useSecond()

const STATES = { '': 'all', open: 'needs you', silent: 'silent', troubled: 'in trouble', unbound: 'without player' }

interface Row {
  display: DisplayState
  player: PlayerState | null
  standing: Standing
}

const rows = computed(() =>
  displays.value.flatMap<Row>((display) => {
    const rows = display.players.map((player): Row => ({ display, player, standing: player.standing }))
    return rows.length ? rows : [{ display, player: null, standing: display.standing }]
  }),
)
const search = useAsked('search')
const state = useAsked('state')
/** Some displays alone, as one comes from a handover. */
const route = useRoute()
const alone = computed(() => new Set([route.query.display ?? []].flat()))
const found = computed(() => {
  const text = search.value.trim().toLowerCase()
  return rows.value.filter(
    ({ display, standing }) =>
      (alone.value.size === 0 || alone.value.has(display.id)) &&
      (state.value === '' || (state.value === 'open' ? standing.level !== null : standing.state === state.value)) &&
      `${display.name} ${display.way.join(' ')} ${display.release?.name ?? ''}`.toLowerCase().includes(text),
  )
})
const { shown, left, end } = useGrowing(found, 40)
const plays = (row: Row) => {
  if (!row.player?.plays_sha256) return 'nothing'
  return row.player.plays_release === null ? `another one, ${row.player.plays_sha256.slice(0, 8)}` : `release ${row.player.plays_release}`
}

const isBack = ref(false)
const back = ref({ display: '', number: 1 })
function putBack(display: DisplayState) {
  back.value = { display: display.id, number: display.release!.number - 1 }
  isBack.value = true
}

watchEffect(() => {
  shelf.findings = matters(findings.value, (code) => /^(player|display)\./.test(code))
  shelf.remark = 'Every display plays what it should.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Playback</h1>
        <p class="facts m-0">What each display should show, and what its player says · times of each display</p>
      </div>
      <div class="actions">
        <PlaybackTabs />
        <a v-if="may('hand-over')" class="btn btn-outline-dark" href="/panel">Panels</a>
        <BFormInput v-model="search" type="search" placeholder="Search name, place, release" aria-label="Search players" />
        <ChoiceBar v-model="state" label="Which" :words="STATES" />
      </div>
    </div>
    <section class="body p-3" aria-label="Players">
      <p v-if="alone.size" class="alone">
        Only {{ alone.size === 1 ? 'the display' : `the ${alone.size} displays` }} of what was handed over.
        <RouterLink :to="{ query: { ...route.query, display: undefined } }">Show all</RouterLink>
      </p>
      <p v-if="query.isPending.value" class="empty">Asking.</p>
      <p v-else-if="query.error.value && rows.length === 0" class="empty said-error">{{ query.error.value.message }}</p>
      <div v-else-if="rows.length === 0" class="empty"><h2>No display is surveyed yet</h2></div>
      <p v-else-if="found.length === 0" class="empty">{{ search ? 'Nothing fits this search.' : 'No player here that needs you.' }}</p>
      <table v-else class="table align-middle">
        <thead>
          <tr>
            <th scope="col">Display</th>
            <th scope="col">Should play</th>
            <th scope="col">Its player reports</th>
            <th scope="col">Since</th>
            <th scope="col">Last call</th>
            <th scope="col">State</th>
            <th scope="col"><span class="visually-hidden">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in shown" :key="row.display.id + (row.player?.id ?? '')">
            <td>
              <div class="name">
                <MiniPicture :display="row.display" :at="at" />
                <span
                  >{{ row.display.name }}<br /><span class="figures soft"
                    >{{ clock(at, row.display.timezone) }} {{ zoneName(row.display.timezone, at) }}</span
                  ></span
                >
              </div>
            </td>
            <td>
              <template v-if="row.display.release">
                {{ row.display.release.name }}<br /><span class="figures soft"
                  >release {{ row.display.release.number }}, {{ moment(row.display.release.handed_over_at, row.display.timezone) }}</span
                >
              </template>
              <span v-else class="soft">nothing yet</span>
              <div v-if="row.display.due" class="small" :title="row.display.due.why">
                now {{ row.display.due.plays ?? 'nothing' }}<span class="soft">, {{ row.display.due.why }}</span>
              </div>
              <div v-if="row.display.planned" class="changed">
                {{ row.display.planned.replace(' Hand over again.', '') }}
                <RouterLink :to="`/handover?${row.display.release!.source.kind}=${row.display.release!.source.id}&display=${row.display.id}`"
                  >hand over again</RouterLink
                >
              </div>
              <div v-if="row.display.saved_not_handed_over" class="changed">
                a newer one is saved,
                <RouterLink :to="`/handover?${row.display.release!.source.kind}=${row.display.release!.source.id}&display=${row.display.id}`"
                  >not handed over</RouterLink
                >
              </div>
            </td>
            <td class="figures">{{ plays(row) }}</td>
            <td class="figures">{{ moment(row.player?.plays_since, row.display.timezone) }}</td>
            <td class="figures">{{ ago(row.player?.called_at, at) }}</td>
            <td>
              <span class="state"><LevelMark v-if="row.standing.level" :level="row.standing.level" /> {{ row.standing.says }}</span>
            </td>
            <td class="acts">
              <a
                v-if="row.player"
                :href="`/api/players/${row.player.id}/open`"
                target="_blank"
                rel="noopener"
                :aria-label="`Open the player of ${row.display.name}`"
                >open</a
              >
              <RouterLink v-else :to="`/displays?display=${row.display.id}`">bind one</RouterLink>
              <button
                v-if="(row.display.release?.number ?? 0) > 1"
                type="button"
                class="btn btn-link btn-sm p-0"
                :aria-label="`Put back what was on ${row.display.name} before`"
                @click="putBack(row.display)"
              >
                put back…
              </button>
              <RouterLink :to="`/rehearsal?display=${row.display.id}`" :aria-label="`Rehearse ${row.display.name}`">rehearse</RouterLink>
            </td>
          </tr>
        </tbody>
      </table>
      <div ref="end"><ListEnd :left="left" /></div>
      <PutBack v-model="isBack" :asked="{ releases: [back] }" />
    </section>
  </main>
</template>

<style scoped>
.alone {
  margin: 0 0 10px;
}
.table {
  font-size: 0.875rem;
}
.name {
  display: flex;
  gap: 12px;
  align-items: center;
}
.state {
  display: flex;
  gap: 8px;
  align-items: center;
}
.acts {
  text-align: right;
}
.acts a,
.acts button {
  display: block;
  margin-left: auto;
  min-height: 26px;
}
.changed {
  color: var(--warning);
}
</style>
