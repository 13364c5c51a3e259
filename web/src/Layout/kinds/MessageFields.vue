<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { rowsBegun, looked } from '../../Data/begin'
import ConditionList from '../../Data/ConditionList.vue'
import FieldNames from '../../Data/FieldNames.vue'
import type { Chosen, RowsDocument } from '../../Data/sources'
import { useSources } from '../../Data/sources'
import { api, sentence } from '../../ui/api'
import { useComposer } from '../composer/composer'
import type { CodeElement, TextElement, TickerElement } from '../designs'

/** Words that tell data: whose rows, which of them, and the fields in the words. */
type Telling = TextElement | TickerElement | CodeElement
const props = defineProps<{ one: Telling; label: string }>()
const composer = useComposer()
const { all: sources } = useSources(false)
const trouble = ref('')
const rows = computed(() => props.one.rows)
const { data: chosen } = useQuery({
  queryKey: computed(() => ['rows', JSON.stringify(rows.value)]),
  queryFn: () => api.post<Chosen>('rows', { rows: rows.value }),
  enabled: computed(() => rows.value !== undefined),
})
const fields = computed(() => (rows.value ? (chosen.value?.fields ?? Object.keys(rows.value.fields ?? {})) : []))
watch(
  () => props.one.id,
  () => (trouble.value = ''),
)

const put = (part: Partial<Telling>, gesture?: string) => composer.edit<Telling>(props.one.id, part, gesture)
async function tell(source: string) {
  trouble.value = ''
  if (source === '') put({ message: undefined, rows: undefined })
  else
    await rowsBegun(source).then(
      (begun) => put({ message: true, rows: begun }),
      (e: unknown) => (trouble.value = sentence(e)),
    )
}
function choose(more: Partial<RowsDocument>) {
  const next = { ...rows.value!, ...more }
  for (const key of Object.keys(next) as (keyof RowsDocument)[]) if (next[key] === undefined) delete next[key]
  put({ rows: next })
}
const keep = () => rows.value && localStorage.setItem(looked(rows.value.source), JSON.stringify(rows.value))
</script>

<template>
  <FieldNames v-if="one.message" class="wide" :text="one.text" :fields="fields" :label="label" :rows="3" @change="composer.retext(one.id, $event)" />
  <slot v-else />
  <label class="wide"
    >Tells rows of<select
      class="form-select form-select-sm"
      :value="rows?.source ?? ''"
      aria-label="Source of its data"
      @change="tell(($event.target as HTMLSelectElement).value)"
    >
      <option value="">no data</option>
      <option v-for="source in sources" :key="source.id" :value="source.id">{{ source.name }}</option>
      <option v-if="rows && !sources.some((source) => source.id === rows!.source)" :value="rows.source">{{ rows.source }}</option>
    </select></label
  >
  <p v-if="trouble" class="wide said-error m-0" role="alert">{{ trouble }}</p>
  <div v-if="rows" class="wide telling">
    <p class="small m-0">
      <span class="soft">{{ chosen ? `${chosen.count} of ${chosen.nodes} rows now. ` : '' }}</span>
      <RouterLink :to="`/data/${rows.source}`" @click="keep">Look into the source</RouterLink>
    </p>
    <ConditionList :rows="rows" :fields="fields" :sample="chosen?.rows ?? []" @change="choose" />
  </div>
</template>

<style scoped>
.telling {
  display: grid;
  gap: 6px;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--rule);
}
</style>
