<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { useDesigns } from '../Layout/designs'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { bytes, lasting } from '../ui/format'
import { useGuarded } from '../ui/guarded'
import { useSecond } from '../ui/second'
import { useShelf } from '../ui/shelf'
import NewSource from './NewSource.vue'
import StatusMark from './StatusMark.vue'
import { type SourceState, interval, useSources } from './sources'

/** All sources of data: how each stands, who shows it, and what fetching it takes of the network. */
const { query, all, cost } = useSources()
const { all: designs } = useDesigns('sources')
const router = useRouter()
const shelf = useShelf()
const now = useSecond()
const making = ref(false)
const { trouble, guarded } = useGuarded('data', 'sources')
const search = useAsked('search')
const only = useAsked('only')
const order = useAsked('order')

const shownBy = computed(() => new Map(designs.value.map((d) => [d.id, { used: d.used_in, displays: d.standing.displays }])))
const found = computed(() => {
  const text = search.value.trim().toLowerCase()
  const kept = all.value.filter((s) => `${s.name} ${s.address ?? ''}`.toLowerCase().includes(text) && (only.value === '' || s.status !== 'fresh'))
  return order.value === 'cost' ? [...kept].sort((a, b) => b.cost.bytes_h - a.cost.bytes_h) : kept
})
const age = (s: SourceState) => (s.taken_at === null ? '–' : `${lasting(Math.max(0, now.value - Date.parse(s.taken_at)))} ago`)
const whence = (s: SourceState) => s.address ?? (s.from === 'table' ? 'typed here' : (s.file ?? 'a file'))

async function remove(s: SourceState) {
  if (await ask(`Delete “${s.name}”?`, 'It will lie in the bin for 30 days with what it said last, and can be put back from there.', 'Delete it'))
    await api.delete(`sources/${s.id}`)
}

watchEffect(() => {
  shelf.findings = all.value.flatMap((s) => (s.finding ? [{ ...s.finding, to: `/data/${s.id}`, link: 'look into it' }] : []))
  shelf.remark = `${all.value.length} ${all.value.length === 1 ? 'source' : 'sources'}`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Data</h1>
        <p class="facts m-0">
          <template v-if="cost && cost.fetches_h > 0">
            {{ Math.round(cost.fetches_h) }} fetches and {{ bytes(cost.bytes_h) }} an hour in all, however many displays show them; half as often
            saves
            {{ bytes(cost.half) }}
          </template>
          <template v-else>What is known rather than drawn: times, prices, news, weather, events</template>
        </p>
      </div>
      <div class="actions">
        <BFormInput v-model="search" type="search" placeholder="Search by name or address" aria-label="Search sources" />
        <ChoiceBar v-model="only" label="Which" :words="{ '': 'all', trouble: 'not fresh' }" />
        <BFormSelect
          v-model="order"
          aria-label="Order"
          class="w-auto"
          :options="[
            { value: '', text: 'by name' },
            { value: 'cost', text: 'dearest first' },
          ]"
        />
        <BButton variant="primary" @click="making = true">New source…</BButton>
      </div>
    </div>
    <section class="body" aria-label="Sources">
      <p v-if="trouble" class="said-error px-3 pt-2 m-0" role="alert">{{ trouble }}</p>
      <p v-if="query.isPending.value" class="empty">Reading the sources.</p>
      <p v-else-if="query.error.value && all.length === 0" class="empty said-error">{{ query.error.value.message }}</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>No source yet</h2>
        <p>
          Say where something is known: at an address that is fetched again and again, in a file, or in a small table that you type here. What a sign
          shows of it is never typed twice.
        </p>
        <BButton variant="primary" @click="making = true">New source…</BButton>
      </div>
      <div v-else-if="found.length === 0" class="empty">
        <h2>Nothing fits this search</h2>
        <p>
          <a href="#" @click.prevent="router.replace({ query: {} })">Show all {{ all.length }}</a>
        </p>
      </div>
      <table v-else class="table m-0">
        <thead>
          <tr>
            <th scope="col">Source</th>
            <th scope="col">Stands</th>
            <th scope="col" class="text-end">True as of</th>
            <th scope="col" class="text-end">Fetched every</th>
            <th scope="col" class="text-end">Size</th>
            <th scope="col" class="text-end">In an hour</th>
            <th scope="col">Shown by</th>
            <th scope="col"><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in found" :key="s.id">
            <th scope="row">
              <RouterLink :to="`/data/${s.id}`">{{ s.name }}</RouterLink>
              <div class="whence figures soft" :title="whence(s)">{{ whence(s) }}</div>
            </th>
            <td>
              <StatusMark :status="s.status" />
              <div v-if="s.why" class="why small soft">{{ s.why }}</div>
            </td>
            <td class="figures text-end">{{ s.from === 'table' ? 'always' : age(s) }}</td>
            <td class="figures text-end">{{ s.every_s === null ? '–' : interval(s.every_s) }}</td>
            <td class="figures text-end">{{ s.bytes === null ? '–' : bytes(s.bytes) }}</td>
            <td class="figures text-end">{{ s.every_s === null ? '–' : bytes(s.cost.bytes_h) }}</td>
            <td class="small">
              <template v-if="shownBy.get(s.id)?.used.length">
                {{ shownBy.get(s.id)!.used.join(', ') }}
                <span class="soft">on {{ shownBy.get(s.id)!.displays }} displays</span>
              </template>
              <span v-else class="soft">nothing yet</span>
            </td>
            <td class="acts text-end text-nowrap small">
              <button v-if="s.address" type="button" class="btn btn-link btn-sm p-0" @click="guarded(() => api.post(`sources/${s.id}/fetch`, {}))">
                fetch now
              </button>
              <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Delete ${s.name}`" @click="guarded(() => remove(s))">delete</button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <NewSource v-if="making" v-model="making" :taken="all.map((s) => s.name)" />
  </main>
</template>

<style scoped>
th[scope='row'] {
  font-weight: 600;
}
.whence {
  max-width: 420px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-weight: 400;
}
.why {
  max-width: 300px;
}
th:first-child {
  padding-left: 16px;
}
td:last-child {
  padding-right: 16px;
}
</style>
