<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { onBeforeUnmount, watchEffect } from 'vue'
import { useSources } from '../Data/sources'
import StatusMark from '../Data/StatusMark.vue'
import { api } from '../ui/api'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { useGuarded } from '../ui/guarded'
import { useShelf } from '../ui/shelf'
import BenchTabs from './BenchTabs.vue'

/** The simulated outside world: feeds that tell of the demo estate, and can be told to misbehave as others do. */
type Switch = 'well' | 'slow' | 'failing' | 'broken' | 'empty' | 'huge' | 'stale' | 'other-type' | 'other-shape'
interface Bench {
  feeds: Record<string, Switch>
  address: string
}
const WORDS: Record<Switch, string> = {
  well: 'well',
  slow: 'slow',
  failing: 'failing',
  broken: 'cut off',
  empty: 'empty',
  huge: 'huge',
  stale: 'old news',
  'other-type': 'a web page',
  'other-shape': 'another shape',
}
const TITLES: Record<Switch, string> = {
  well: 'As it should be',
  slow: 'Answers after 30 s',
  failing: 'Answers 503',
  broken: 'Half of it is missing',
  empty: 'Answers with nothing',
  huge: 'More than 20 MB',
  stale: 'Tells what was true three days ago',
  'other-type': 'A page that says that they are moving house',
  'other-shape': 'JSON, but not as it was',
}
const SAYS: Record<string, string> = {
  'sailings.json': 'JSON: routes, their sailings and stops; it follows the clock',
  'sea-state.json': 'JSON: waves, wind and sky of each pier, for a week',
  'fares.xlsx': 'XLSX: tickets by destination',
  'notices.xml': 'RSS: service notices',
  'quay-events.ics': 'iCalendar: what happens at the quay, again and again',
  'day-trips.json': 'JSON: day trips, with pictures; one without, one that is not there',
  'lost-property.csv': 'CSV: long, dull, with holes',
}
const query = useQuery({ queryKey: ['bench'], queryFn: () => api.get<Bench>('bench'), staleTime: 0, refetchInterval: 5000 })
const { all: sources } = useSources()
const shelf = useShelf()
const { trouble, guarded } = useGuarded('bench', 'data')
const fed = (feed: string) => sources.value.filter((s) => s.address === `${query.data.value?.address}/${feed}`)

const tell = (feed: string, to: Switch) => guarded(() => api.put('bench', { feeds: { [feed]: to } }))
const fetchAll = (feed: string) => guarded(() => Promise.all(fed(feed).map((s) => api.post(`sources/${s.id}/fetch`, {}))))

watchEffect(() => {
  shelf.findings = []
  shelf.remark = 'What is told to misbehave here is found at Data; what was read before stays.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Bench</h1>
        <p class="facts m-0">The simulated outside world of the demo estate: feeds that can be told to misbehave as others do</p>
      </div>
      <div class="actions"><BenchTabs /></div>
    </div>
    <section class="body" aria-label="Feeds">
      <p v-if="trouble" class="said-error px-3 pt-2 m-0" role="alert">{{ trouble }}</p>
      <p v-if="query.isPending.value" class="empty">Asking the feeds.</p>
      <p v-else-if="query.error.value" class="empty said-error">{{ query.error.value.message }}</p>
      <table v-else class="table m-0">
        <thead>
          <tr>
            <th scope="col">Feed</th>
            <th scope="col">What it does</th>
            <th scope="col">Sources that it feeds</th>
            <th scope="col"><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(to, feed) in query.data.value?.feeds" :key="feed">
            <th scope="row">
              <a :href="`${query.data.value?.address}/${feed}`" target="_blank" rel="noreferrer" class="figures">{{ feed }}</a>
              <div class="small soft says">{{ SAYS[feed] }}</div>
            </th>
            <td>
              <ChoiceBar
                :model-value="to"
                :label="`What ${feed} does`"
                :words="WORDS"
                :titles="TITLES"
                @update:model-value="tell(String(feed), $event)"
              />
            </td>
            <td class="small">
              <div v-for="s in fed(String(feed))" :key="s.id" class="fed">
                <RouterLink :to="`/data/${s.id}`">{{ s.name }}</RouterLink> <StatusMark :status="s.status" />
              </div>
              <span v-if="fed(String(feed)).length === 0" class="soft">none</span>
            </td>
            <td class="text-end">
              <button v-if="fed(String(feed)).length" type="button" class="btn btn-link btn-sm p-0" @click="fetchAll(String(feed))">fetch now</button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>

<style scoped>
th[scope='row'] {
  font-weight: 400;
  padding-left: 16px;
}
th:first-child {
  padding-left: 16px;
}
td:last-child {
  padding-right: 16px;
}
.says {
  max-width: 240px;
}
.fed {
  display: flex;
  gap: 10px;
  white-space: nowrap;
}
</style>
