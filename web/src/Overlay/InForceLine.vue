<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, sentence } from '../ui/api'
import { ask } from '../ui/ask'
import { clock, count } from '../ui/format'
import { may } from '../ui/rights'
import { useSecond } from '../ui/second'
import type { InForce } from './overlays'

/** What was put up in a hurry and stands now, on every page: since when, by whom, until when, and its end. */
const queries = useQueryClient()
const query = useQuery({ queryKey: ['in-force'], queryFn: () => api.get<{ in_force: InForce[] }>('in-force'), refetchInterval: 10_000 })
const now = useSecond()
const all = computed(() =>
  (query.data.value?.in_force ?? [])
    .filter((one) => one.stands && Date.parse(one.until) > now.value)
    // What hides all else is told first.
    .sort((a, b) => Number(b.kind === 'takeover') - Number(a.kind === 'takeover')),
)
const trouble = ref('')
const mayEnd = (one: InForce) => may(one.kind === 'takeover' ? 'hand-over' : 'fill-in')
async function end(one: InForce) {
  const sure =
    one.kind === 'notice' ||
    (await ask(`End “${one.name}” on ${count(one.displays, 'display')}?`, 'What plays there is seen again at once.', 'End it now'))
  if (!sure) return
  trouble.value = ''
  try {
    await api.post(`${one.kind}s/${one.id}/end`, {})
  } catch (e) {
    trouble.value = sentence(e)
  }
  for (const key of ['in-force', 'in-force-planes']) await queries.invalidateQueries({ queryKey: [key] })
}
</script>

<template>
  <aside v-if="all.length" class="in-force" :class="{ takeover: all[0]!.kind === 'takeover' }" aria-label="In force now">
    <template v-for="one in all.slice(0, 2)" :key="one.id">
      <span class="what"
        ><b>{{ one.kind === 'takeover' ? 'Takeover' : 'Notice' }}</b> “{{ one.name }}” on
        {{ one.displays === 1 ? one.place : count(one.displays, 'display') }}
        <span class="figures">since {{ clock(Date.parse(one.begun_at), undefined, false) }}</span
        >{{ one.begun_by ? ` by ${one.begun_by}` : '' }}, until <span class="figures">{{ clock(Date.parse(one.until), undefined, false) }}</span>
        <button v-if="mayEnd(one)" type="button" class="btn btn-sm btn-outline-dark" @click="end(one)">End now</button></span
      >
    </template>
    <span v-if="all.length > 2">and {{ all.length - 2 }} more</span>
    <span v-if="trouble" role="alert">{{ trouble }}</span>
  </aside>
</template>

<style scoped>
.in-force {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  align-items: center;
  padding: 5px 16px;
  background: #fbf3e2;
  border-bottom: 1px solid var(--warning);
}
.in-force.takeover {
  background: #f8e3e1;
  border-bottom-color: var(--stop);
}
.what .btn {
  margin-left: 8px;
  padding: 0 8px;
}
</style>
