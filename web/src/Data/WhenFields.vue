<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { When } from '../formats/layout'
import { api, sentence } from '../ui/api'
import { rowsBegun } from './begin'
import ConditionList from './ConditionList.vue'
import { type Chosen, type RowsDocument, useSources } from './sources'

/** Only while so many rows of a source are chosen: what is there then, and else is not. */
const props = defineProps<{ when: When | undefined; what: string }>()
const emit = defineEmits<{ change: [when: When | undefined] }>()
const { all: sources } = useSources(false)
const trouble = ref('')
const rows = computed(() => props.when?.rows)
const { data: chosen } = useQuery({
  queryKey: computed(() => ['rows', JSON.stringify(rows.value)]),
  queryFn: () => api.post<Chosen>('rows', { rows: rows.value }),
  enabled: computed(() => rows.value !== undefined),
})
const fields = computed(() => chosen.value?.fields ?? Object.keys(rows.value?.fields ?? {}))
async function of(source: string) {
  trouble.value = ''
  if (source === '') emit('change', undefined)
  else
    await rowsBegun(source).then(
      (begun) => emit('change', { ...props.when, rows: begun }),
      (e: unknown) => (trouble.value = sentence(e)),
    )
}
function choose(more: Partial<RowsDocument>) {
  const next = { ...rows.value!, ...more }
  for (const key of Object.keys(next) as (keyof RowsDocument)[]) if (next[key] === undefined) delete next[key]
  emit('change', { ...props.when, rows: next })
}
function count(side: 'at_least' | 'at_most', event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  if (text !== '' && !/^\d{1,6}$/.test(text)) return
  const next = { ...props.when!, [side]: text === '' ? undefined : Number(text) }
  if (next[side] === undefined) delete next[side]
  emit('change', next)
}
</script>

<template>
  <div class="when">
    <label
      >{{ what }} only while rows are chosen of<select
        class="form-select form-select-sm"
        :value="rows?.source ?? ''"
        aria-label="Only while rows are chosen of"
        @change="of(($event.target as HTMLSelectElement).value)"
      >
        <option value="">always</option>
        <option v-for="source in sources" :key="source.id" :value="source.id">{{ source.name }}</option>
        <option v-if="rows && !sources.some((one) => one.id === rows!.source)" :value="rows.source">{{ rows.source }}</option>
      </select></label
    >
    <p v-if="trouble" class="said-error m-0" role="alert">{{ trouble }}</p>
    <template v-if="when && rows">
      <div class="counts">
        <label
          >at least<input
            class="form-control form-control-sm figures"
            :value="when.at_least ?? ''"
            :placeholder="when.at_most === undefined ? '1' : '0'"
            inputmode="numeric"
            aria-label="At least so many rows"
            @change="count('at_least', $event)"
        /></label>
        <label
          >at most<input
            class="form-control form-control-sm figures"
            :value="when.at_most ?? ''"
            placeholder="any"
            inputmode="numeric"
            aria-label="And at most so many rows"
            @change="count('at_most', $event)"
        /></label>
        <span class="soft small">{{ chosen ? `${chosen.count} of ${chosen.nodes} now` : '' }}</span>
      </div>
      <ConditionList plain :rows="rows" :fields="fields" :sample="chosen?.rows ?? []" @change="choose" />
    </template>
  </div>
</template>

<style scoped>
.when {
  display: grid;
  gap: 6px;
}
.counts {
  display: grid;
  grid-template-columns: 80px 80px 1fr;
  gap: 10px;
  align-items: end;
}
label {
  font-size: 0.8125rem;
  color: var(--soft);
}
</style>
