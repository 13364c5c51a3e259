<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useSettings } from '../Display/settings'
import { useEstate } from '../Estate/estate'
import { type DesignSummary, type Saved, useDesigns } from '../Layout/designs'
import { saidOf } from '../Overlay/overlays'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import { count, moment } from '../ui/format'
import { useGuarded } from '../ui/guarded'
import { may } from '../ui/rights'
import { useRemark } from '../ui/shelf'
import type { Triggers } from './triggers'
import TriggerTabs from './TriggerTabs.vue'

/** All maps of triggers: where each runs, and whether that is what was handed over. */
const { query, all } = useDesigns('triggers')
const { places, displays: stating } = useSettings()
const { displays } = useEstate(false)
const router = useRouter()
const queries = useQueryClient()
const search = useAsked('search')
const { trouble, guarded } = useGuarded('triggers')
const { trouble: troubleMaking, guarded: guardedMaking } = useGuarded('triggers')
const shown = computed(() => all.value.filter((one) => one.name.toLowerCase().includes(search.value.trim().toLowerCase())))
const runsAt = (id: string) => [...places.value, ...stating.value].filter((one) => saidOf(one.settings.triggers, id) === 'add').map((one) => one.name)
const nameOf = (display: string | null) => displays.value.find((one) => one.id === display)?.name ?? ''

const making = ref(false)
const name = ref('')
const at = ref('')
const make = () =>
  guardedMaking(async () => {
    const document = { format: 'upper-pane/triggers@1', rest: 'rest', states: [{ id: 'rest' }], signals: [], transitions: [] }
    const title = name.value.trim() || (at.value ? nameOf(at.value) : 'Triggers')
    const made = await api.post<Saved<Triggers>>('triggers', { name: title, document, display: at.value || null })
    await queries.invalidateQueries({ queryKey: ['triggers'] })
    await router.push(`/triggers/${made.id}`)
  })
async function remove(one: DesignSummary) {
  if (await ask(`Delete “${one.name}”?`, 'It will lie in the bin for 30 days, and can be put back from there.', 'Delete it'))
    await guarded(() => api.delete(`triggers/${one.id}`))
}
useRemark(() => count(all.value.length, 'map') + ' of triggers')
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Triggers</h1>
        <p class="facts m-0">What a display shows when somebody comes near, presses, touches, or a figure rises; and how it comes to rest again</p>
      </div>
      <div class="actions">
        <TriggerTabs />
        <input v-model="search" type="search" class="form-control" placeholder="Search" aria-label="Search triggers" />
        <BButton v-if="may('design')" variant="primary" @click="making = true">New triggers…</BButton>
      </div>
    </div>
    <section class="body p-3" aria-label="All triggers">
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <p v-if="query.isPending.value" class="empty">Reading the triggers.</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>No display answers yet</h2>
        <p>
          Triggers are a map of states: what is shown at rest, what when somebody comes near or presses, and what leads back. Make one for a display,
          say it in a sentence, and try it before anybody stands there.
        </p>
      </div>
      <p v-else-if="shown.length === 0" class="empty">None of that name.</p>
      <table v-else class="table">
        <thead>
          <tr>
            <th scope="col">Triggers</th>
            <th scope="col">Looked at on</th>
            <th scope="col">Run on</th>
            <th scope="col">Handed over</th>
            <th scope="col">Saved</th>
            <th scope="col"></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown" :key="one.id">
            <th scope="row">
              <RouterLink :to="`/triggers/${one.id}`">{{ one.name }}</RouterLink>
            </th>
            <td>{{ nameOf(one.display) }}</td>
            <td>{{ runsAt(one.id).join(', ') || 'nowhere yet' }}</td>
            <td :class="{ older: one.standing.older > 0 }">
              {{
                one.standing.displays === 0
                  ? 'to no display'
                  : one.standing.older > 0
                    ? `an older version on ${count(one.standing.older, 'display')}`
                    : `to ${count(one.standing.displays, 'display')}`
              }}
            </td>
            <td class="figures">{{ moment(one.saved_at) }}, revision {{ one.revision }}</td>
            <td class="text-end">
              <button v-if="may('design')" type="button" class="btn btn-link btn-sm p-0" :aria-label="`Delete ${one.name}`" @click="remove(one)">
                delete
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <BModal v-model="making" no-close-on-backdrop title="New triggers" no-footer>
      <form class="make" @submit.prevent="make">
        <label
          >For which display
          <select v-model="at" class="form-select">
            <option value="">none yet</option>
            <option v-for="one in displays" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select></label
        >
        <label>Name<BFormInput v-model="name" maxlength="200" :placeholder="at ? nameOf(at) : 'Triggers'" /></label>
        <p v-if="troubleMaking" class="said-error small" role="alert">{{ troubleMaking }}</p>
        <BButton type="submit" variant="primary">Make it</BButton>
      </form>
    </BModal>
  </main>
</template>

<style scoped>
.make {
  display: grid;
  gap: 10px;
}
.older {
  color: var(--warning);
}
tbody td,
tbody th {
  vertical-align: baseline;
}
</style>
