<script setup lang="ts">
import { useQueries } from '@tanstack/vue-query'
import { DateTime } from 'luxon'
import { computed, ref } from 'vue'
import type { Fetched } from '../Data/sources'
import { api } from '../ui/api'

/** Which data are rehearsed: of each source what screens tell, or what it told at an earlier fetch that is kept. */
const props = defineProps<{ sources: { id: string; name: string }[]; timezone: string }>()
const chosen = defineModel<Record<string, number>>({ required: true })
const open = ref(false)
const states = useQueries({
  queries: computed(() =>
    props.sources.map(({ id }) => ({
      queryKey: ['data', id],
      queryFn: () => api.get<{ from: string | null; fetches: Fetched[] }>(`sources/${id}/state`),
      enabled: open.value,
      staleTime: 30_000,
    })),
  ),
})
/** Those that read something new, the last first. */
const kept = computed(() =>
  props.sources.map((source, n) => ({ ...source, fetches: (states.value[n]?.data?.fetches ?? []).filter((one) => one.outcome === 'read') })),
)
const told = (at: string) => DateTime.fromISO(at, { zone: props.timezone }).toFormat('ccc d MMM HH:mm:ss', { locale: 'en' })
function choose(id: string, fetch: string) {
  const others = Object.fromEntries(Object.entries(chosen.value).filter(([one]) => one !== id))
  chosen.value = fetch === '' ? others : { ...others, [id]: Number(fetch) }
}
const count = computed(() => Object.keys(chosen.value).length)
</script>

<template>
  <details class="kept" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>
      Data <span class="soft">{{ count === 0 ? 'as screens tell them' : `of an earlier time in ${count} of ${sources.length}` }}</span>
    </summary>
    <label v-for="source in kept" :key="source.id"
      >{{ source.name
      }}<select
        class="form-select form-select-sm"
        :value="chosen[source.id] ?? ''"
        :aria-label="`Data of ${source.name}`"
        @change="choose(source.id, ($event.target as HTMLSelectElement).value)"
      >
        <option value="">as screens tell it</option>
        <option v-if="chosen[source.id] && !source.fetches.some((one) => one.id === chosen[source.id])" :value="chosen[source.id]">as chosen</option>
        <option v-for="one in source.fetches" :key="one.id" :value="one.id">as of {{ told(one.at) }}</option>
      </select></label
    >
  </details>
</template>

<style scoped>
.kept {
  padding: 6px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 0.875rem;
}
label {
  display: block;
  font-size: 0.8125rem;
  color: var(--soft);
  padding-top: 6px;
}
</style>
