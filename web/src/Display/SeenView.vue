<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api } from '../ui/api'
import { ago, clock, day, lasting } from '../ui/format'
import { useSecond } from '../ui/second'
import GlassNow from './GlassNow.vue'

/** What was really seen on a display, by day and thing, and what its players say of themselves now. */
const props = defineProps<{ id: string }>()

interface Thing {
  id: string
  element: string
  item: string | null
  media: string | null
  first: string
  last: string
  times: number
  ms: number
  missed: number
  missed_ms: number
}
interface Seen {
  display: { id: string; name: string }
  timezone: string
  days: { day: string; things: number; times: number; missed: number }[]
  day: string | null
  things: Thing[]
  players: {
    player: string
    output: number | null
    at: string
    troubles: { of: string; says: string; element?: string; item?: string }[]
    machine: string[]
  }[]
}

const OFTEN_MS = 5000
const at = useSecond()
const asked = ref('')
const query = useQuery({
  queryKey: ['seen', props.id, asked],
  queryFn: () => api.get<Seen>(`displays/${props.id}/seen${asked.value ? `?day=${asked.value}` : ''}`),
  refetchInterval: OFTEN_MS,
  placeholderData: keepPreviousData,
})
const seen = computed(() => query.data.value)
const dayInWords = (date: string) => day(Date.parse(`${date}T12:00:00Z`), 'UTC')
/** What was not there when it was its turn, alone. */
const missedOnly = ref(false)
const elements = computed(() => {
  const by = new Map<string, Thing[]>()
  for (const thing of seen.value?.things ?? [])
    if (!missedOnly.value || thing.missed > 0 || thing.missed_ms >= 1000) by.set(thing.element, [...(by.get(thing.element) ?? []), thing])
  return [...by]
})
const place = (trouble: { element?: string; item?: string }) => [trouble.element, trouble.item].filter(Boolean).join(', ')
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>What was seen</h1>
        <p class="facts m-0">
          <RouterLink :to="`/displays/${id}`">{{ seen?.display.name ?? id }}</RouterLink> · what its players drew, not what was planned<template
            v-if="seen"
          >
            · {{ seen.timezone }}</template
          >
        </p>
      </div>
      <div v-if="seen?.day" class="actions">
        <label class="soft small"><input v-model="missedOnly" type="checkbox" class="form-check-input" /> not there only</label>
        <label for="day" class="soft small">Day</label>
        <select id="day" class="form-select form-select-sm w-auto" :value="seen.day" @change="asked = ($event.target as HTMLSelectElement).value">
          <option v-for="d in seen.days" :key="d.day" :value="d.day">{{ dayInWords(d.day) }}{{ d.missed ? `, ${d.missed} not there` : '' }}</option>
        </select>
        <a class="btn btn-outline-dark" :href="`/api/displays/${id}/seen-${seen.day}.csv`" download>CSV</a>
      </div>
    </div>
    <div class="body two" tabindex="0" role="region" aria-label="What was seen">
      <p v-if="query.error.value && !seen" class="empty said-error">{{ query.error.value.message }}</p>
      <p v-else-if="!seen" class="empty">Asking.</p>
      <template v-else>
        <section aria-label="Items of the day">
          <div v-if="elements.length === 0 && missedOnly" class="empty"><h2>All was there when it was its turn</h2></div>
          <div v-else-if="elements.length === 0" class="empty">
            <h2>Nothing was told yet</h2>
            <p>Players count what they draw, and tell it as often as they call. It is kept for 30 days.</p>
          </div>
          <table v-else class="table">
            <thead>
              <tr>
                <th scope="col">Item</th>
                <th scope="col" class="text-end">Seen</th>
                <th scope="col" class="text-end">For</th>
                <th scope="col" class="text-end">Not there</th>
                <th scope="col" class="text-end">First</th>
                <th scope="col" class="text-end">Last</th>
              </tr>
            </thead>
            <tbody v-for="[element, things] in elements" :key="element">
              <tr class="zone">
                <th scope="rowgroup" colspan="6">{{ element }}</th>
              </tr>
              <tr v-for="t in things" :key="t.id">
                <td>
                  {{ t.media ?? 'a layout' }}
                  <span v-if="t.item" class="soft figures">{{ t.item }}</span>
                </td>
                <td class="figures text-end">{{ t.times }} ×</td>
                <td class="figures text-end">{{ lasting(t.ms) }}</td>
                <td class="figures text-end" :class="{ 'said-error': t.missed > 0 }">
                  {{ t.missed > 0 ? `${t.missed} ×` : '' }} {{ t.missed_ms >= 1000 ? lasting(t.missed_ms) : '' }}
                </td>
                <td class="figures text-end">{{ clock(Date.parse(t.first), seen.timezone) }}</td>
                <td class="figures text-end">{{ clock(Date.parse(t.last), seen.timezone) }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section class="players" aria-label="Players">
          <GlassNow :id="id" :timezone="seen.timezone" />
          <h2>Its players say</h2>
          <p v-if="seen.players.length === 0" class="soft">No player has called yet.</p>
          <div v-for="p in seen.players" :key="`${p.player} ${p.output}`" class="player">
            <h3>
              {{ p.player }}<template v-if="p.output !== null">, output {{ p.output }}</template>
              <span class="soft small">{{ ago(p.at, at) }}</span>
            </h3>
            <ul>
              <li v-for="t in p.troubles" :key="t.of" class="said-error">
                {{ t.says }}<template v-if="place(t)"> ({{ place(t) }})</template>
              </li>
              <li v-if="p.troubles.length === 0">Nothing is wrong with what it shows.</li>
              <li v-for="m in p.machine" :key="m" class="soft">{{ m }}</li>
            </ul>
          </div>
        </section>
      </template>
    </div>
  </main>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
}
.two > .empty {
  grid-column: 1 / 3;
}
.table {
  font-size: 0.875rem;
  margin: 0;
}
.table th,
.table td {
  padding: 5px 12px;
}
.table thead th {
  position: sticky;
  top: 0;
  background: var(--sheet);
}
.zone th {
  background: var(--paper);
  font-weight: 650;
}
.two > section:first-child {
  background: var(--sheet);
}
.players {
  border-left: 1px solid var(--rule);
  padding: 10px 16px;
  font-size: 0.875rem;
}
h2 {
  font-size: 0.875rem;
  color: var(--soft);
  margin: 0 0 6px;
}
h3 {
  font-size: 0.9375rem;
  font-weight: 650;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding-bottom: 3px;
}
ul {
  list-style: none;
  padding: 0;
}
li {
  padding: 2px 0;
}
</style>
