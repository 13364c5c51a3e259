<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useEstate } from '../Estate/estate'
import { type DesignSummary, type Saved, useDesigns } from '../Layout/designs'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { moment } from '../ui/format'
import { useGuarded } from '../ui/guarded'
import { useRemark } from '../ui/shelf'
import type { ScheduleDocument } from './schedule'
import TimeTabs from './TimeTabs.vue'

/** All schedules, by where they rule. */
const { query, all } = useDesigns('schedules')
const { places, displays } = useEstate(false)
const router = useRouter()
const { trouble, guarded } = useGuarded('schedules')
const where = (d: DesignSummary) =>
  d.place
    ? (places.value.find((p) => p.id === d.place)?.name ?? d.place)
    : (displays.value.find((x) => x.id === d.display)?.name ?? d.display ?? 'nowhere')
const taken = computed(() => new Set(all.value.flatMap((d) => [d.place ? `place:${d.place}` : `display:${d.display}`])))
const targets = computed(() =>
  [
    ...places.value.map((p) => ({ key: `place:${p.id}`, text: `all displays of ${p.name}`, name: p.name, timezone: p.zone })),
    ...displays.value.map((d) => ({ key: `display:${d.id}`, text: d.name, name: d.name, timezone: d.timezone })),
  ].filter((t) => !taken.value.has(t.key)),
)

async function make(event: Event) {
  const key = (event.target as HTMLSelectElement).value
  const target = targets.value.find((t) => t.key === key)
  if (!target) return
  await guarded(async () => {
    const [kind, id] = key.split(':') as [string, string]
    const made = await api.post<Saved<ScheduleDocument>>('schedules', {
      name: target.name,
      [kind]: id,
      document: { timezone: target.timezone ?? 'UTC', bookings: [] },
    })
    await router.push(`/schedules/${made.id}`)
  })
}
async function remove(design: DesignSummary) {
  const text = 'It lies in the bin for 30 days, with all its bookings and revisions, and can be put back from there.'
  if (await ask(`Delete the schedule “${design.name}”?`, text, 'Delete it')) await guarded(() => api.delete(`schedules/${design.id}`))
}
useRemark(() => `${all.value.length} ${all.value.length === 1 ? 'schedule' : 'schedules'}`)
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Schedules</h1>
        <p class="facts m-0">What plays when, on a display or on all displays of a place</p>
      </div>
      <div class="actions">
        <TimeTabs />
        <select class="form-select w-auto" aria-label="New schedule for" value="" @change="make">
          <option value="">New schedule for…</option>
          <option v-for="t in targets" :key="t.key" :value="t.key">{{ t.text }}</option>
        </select>
      </div>
    </div>
    <section class="body p-3" aria-label="All schedules">
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <p v-if="query.isPending.value" class="empty">Reading the schedules.</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>No schedule yet</h2>
        <p>Without one a display plays what was handed over, day and night. Choose above where the first shall rule.</p>
      </div>
      <table v-else class="table">
        <thead>
          <tr>
            <th>schedule</th>
            <th>rules on</th>
            <th>shown on</th>
            <th>saved</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="d in all" :key="d.id">
            <td>
              <RouterLink :to="`/schedules/${d.id}`"
                ><b>{{ d.name }}</b></RouterLink
              >
            </td>
            <td>{{ d.place ? `all displays of ${where(d)}` : where(d) }}</td>
            <td>
              <template v-if="d.standing.displays"
                >{{ d.standing.some.join(', ')
                }}{{ d.standing.displays > d.standing.some.length ? ` and ${d.standing.displays - d.standing.some.length} more` : '' }}</template
              >
              <span v-else class="soft">not handed over</span>
              <RouterLink v-if="d.standing.again" class="changed" :to="`/handover?schedule=${d.id}&older`"> changed since handover</RouterLink>
            </td>
            <td class="figures">revision {{ d.revision }}, {{ moment(d.saved_at) }}</td>
            <td class="text-end">
              <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Delete ${d.name}`" @click="remove(d)">delete</button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>

<style scoped>
.changed {
  color: var(--warning);
  font-weight: 650;
}
</style>
