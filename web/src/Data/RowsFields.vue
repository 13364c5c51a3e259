<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { sentence } from '../ui/api'
import { looked, rowsBegun, useChosen } from './begin'
import ConditionList from './ConditionList.vue'
import { type RowsDocument, useSources } from './sources'

/** Whose rows, and which of them: a source, and conditions on what it tells. */
const props = defineProps<{
  rows: RowsDocument | undefined
  label: string
  /** What it is called that no source is chosen; an empty text where there must be one. */
  none: string
  /** What else may be chosen in the place of a source, by a name that no source has. */
  others?: Record<string, string>
  /** Which of these is chosen. */
  other?: string
  /** Whether neither order nor limit is asked for. */
  plain?: boolean
  /** Whether a link leads to the source. */
  linked?: boolean
}>()
const emit = defineEmits<{ change: [rows: RowsDocument | undefined]; other: [name: string] }>()
const { all: sources } = useSources(false)
const { chosen, fields } = useChosen(() => props.rows)
const trouble = ref('')
const value = computed(() => props.rows?.source ?? props.other ?? '')
watch(value, () => (trouble.value = ''))

async function of(source: string) {
  trouble.value = ''
  if (source === '') emit('change', undefined)
  else if (props.others && source in props.others) emit('other', source)
  else
    await rowsBegun(source).then(
      (begun) => emit('change', begun),
      (e: unknown) => (trouble.value = sentence(e)),
    )
}
function choose(more: Partial<RowsDocument>) {
  const next = { ...props.rows!, ...more }
  for (const key of Object.keys(next) as (keyof RowsDocument)[]) if (next[key] === undefined) delete next[key]
  emit('change', next)
}
const keep = () => props.rows && localStorage.setItem(looked(props.rows.source), JSON.stringify(props.rows))
</script>

<template>
  <div class="rows-of">
    <label
      >{{ label
      }}<select class="form-select form-select-sm" :value="value" :aria-label="label" @change="of(($event.target as HTMLSelectElement).value)">
        <option v-if="none || !value" value="" :disabled="!none">{{ none || 'a source' }}</option>
        <option v-for="(words, name) in others" :key="name" :value="name">{{ words }}</option>
        <option v-for="source in sources" :key="source.id" :value="source.id">{{ source.name }}</option>
        <option v-if="rows && !sources.some((one) => one.id === rows!.source)" :value="rows.source">{{ rows.source }}</option>
      </select></label
    >
    <p v-if="trouble" class="said-error m-0" role="alert">{{ trouble }}</p>
    <template v-if="rows">
      <slot :chosen="chosen" />
      <p v-if="linked" class="small m-0">
        <span class="soft">{{ chosen ? `${chosen.count} of ${chosen.nodes} rows now. ` : '' }}</span>
        <RouterLink :to="`/data/${rows.source}`" @click="keep">Look into the source</RouterLink>
      </p>
      <ConditionList :plain="plain" :rows="rows" :fields="fields" :sample="chosen?.rows ?? []" @change="choose" />
    </template>
  </div>
</template>

<style scoped>
.rows-of {
  display: grid;
  gap: 6px;
}
label {
  font-size: 0.8125rem;
  color: var(--soft);
}
</style>
