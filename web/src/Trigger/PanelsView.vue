<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { type DesignSummary, type Saved, useDesigns } from '../Layout/designs'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import { count, moment } from '../ui/format'
import { useGuarded } from '../ui/guarded'
import { may } from '../ui/rights'
import { useRemark } from '../ui/shelf'
import type { Panel } from './panels'
import TriggerTabs from './TriggerTabs.vue'

/** All operator's panels. */
const { query, all } = useDesigns('panels')
const router = useRouter()
const search = useAsked('search')
const { trouble, guarded } = useGuarded('panels')
const name = ref('')
const shown = computed(() => all.value.filter((one) => one.name.toLowerCase().includes(search.value.trim().toLowerCase())))
const make = () =>
  guarded(async () => {
    const document = { format: 'upper-pane/panel@1', groups: [{ name: '', keys: [] }] }
    const made = await api.post<Saved<Panel>>('panels', { name: name.value.trim() || 'Panel', document })
    await router.push(`/triggers/panels/${made.id}`)
  })
async function remove(one: DesignSummary) {
  const text = 'What its keys have put on displays stays there until it is ended. The panel lies in the bin for 30 days.'
  if (await ask(`Delete the panel “${one.name}”?`, text, 'Delete it')) await guarded(() => api.delete(`panels/${one.id}`))
}
useRemark(() => count(all.value.length, 'panel'))
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Panels</h1>
        <p class="facts m-0">Keys for whoever stands in the hall: on a telephone, or on a touch screen at the desk</p>
      </div>
      <div class="actions">
        <TriggerTabs />
        <input v-model="search" type="search" class="form-control" placeholder="Search" aria-label="Search panels" />
        <form v-if="may('design')" class="new" @submit.prevent="make">
          <input v-model="name" class="form-control" placeholder="Name of a new panel" aria-label="Name of a new panel" maxlength="200" />
          <BButton type="submit" variant="primary">Make it</BButton>
        </form>
      </div>
    </div>
    <section class="body p-3" aria-label="All panels">
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <p v-if="query.isPending.value" class="empty">Reading the panels.</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>No panel yet</h2>
        <p>A key of a panel puts a layout on a zone of a display, or asks a display for a signal of its triggers. Name one above.</p>
      </div>
      <p v-else-if="shown.length === 0" class="empty">None of that name.</p>
      <table v-else class="table">
        <thead>
          <tr>
            <th scope="col">Panel</th>
            <th scope="col">Where it is pressed</th>
            <th scope="col">Saved</th>
            <th scope="col"></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown" :key="one.id">
            <th scope="row">
              <RouterLink :to="`/triggers/panels/${one.id}`">{{ one.name }}</RouterLink>
            </th>
            <td>
              <a class="figures" :href="`/panel/${one.id}`" target="_blank">/panel/{{ one.id }}</a>
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
  </main>
</template>

<style scoped>
.new {
  display: flex;
  gap: 8px;
}
</style>
