<script setup lang="ts">
import { computed, onBeforeUnmount, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type DisplayState, useEstate } from '../Estate/estate'
import MiniPicture from '../Estate/MiniPicture.vue'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { clock, size, zoneName } from '../ui/format'
import { useGrowingPlaces } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import { useSecond } from '../ui/second'
import { useShelf } from '../ui/shelf'
import DisplaySheet from './DisplaySheet.vue'

const { query, displays, byPlace } = useEstate()
const at = useSecond()
const route = useRoute()
const router = useRouter()
const shelf = useShelf()

const search = useAsked('search')
const turned = useAsked('orientation')
const chosen = computed(() => displays.value.find((d) => d.id === route.query.display) ?? null)

const fits = (d: DisplayState) =>
  (turned.value === '' || d.orientation === turned.value) &&
  `${d.name} ${d.way.join(' ')} ${d.timezone} ${d.raster.width}x${d.raster.height}`.toLowerCase().includes(search.value.trim().toLowerCase())
const { shown, left, end } = useGrowingPlaces(byPlace, fits, 50)

const choose = (d: DisplayState | null) => router.replace({ query: { ...route.query, display: d?.id } })
const metres = (mm: number) => (mm / 1000).toFixed(1)

watchEffect(() => {
  shelf.remark = `${displays.value.length} displays surveyed`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Displays</h1>
        <p class="facts m-0">What is out there: raster, orientation, size, and from where it is looked at</p>
      </div>
      <div class="actions">
        <BFormInput v-model="search" type="search" placeholder="Search name, place, raster" aria-label="Search displays" />
        <ChoiceBar v-model="turned" label="Orientation" :words="{ '': 'all', landscape: 'landscape', portrait: 'portrait' }" />
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
        </div>
        <table v-else class="table align-middle">
          <thead>
            <tr>
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
              <th colspan="7" scope="rowgroup">{{ place.displays[0]!.way.slice(1).join(' › ') || place.name }}</th>
            </tr>
            <tr v-for="d in place.displays" :key="d.id" :class="{ on: chosen?.id === d.id }" @click="choose(d)">
              <td>
                <div class="name">
                  <MiniPicture :display="d" :at="at" />
                  <button type="button" class="btn btn-link p-0" @click.stop="choose(d)">{{ d.name }}</button>
                </div>
              </td>
              <td class="figures">{{ size(d.raster) }}</td>
              <td>
                {{ d.orientation }}<span v-if="d.rotation" class="soft small">, turned {{ d.rotation }}°</span>
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
      </section>
      <DisplaySheet v-if="chosen" :key="chosen.id" :display="chosen" :at="at" @close="choose(null)" />
    </div>
  </main>
</template>

<style scoped>
.displays {
  grid-template-columns: minmax(0, 1fr);
}
.displays.split {
  grid-template-columns: minmax(0, 1fr) 392px;
}
.place th {
  padding-top: 14px;
  font-size: 0.875rem;
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
