<script setup lang="ts">
import type { When } from '../formats/layout'
import RowsFields from './RowsFields.vue'
import { vKept } from '../ui/kept'

/** Only while so many rows of a source are chosen: what is there then, and else is not. */
const props = defineProps<{ when: When | undefined; what: string }>()
const emit = defineEmits<{ change: [when: When | undefined] }>()

function count(side: 'at_least' | 'at_most', event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  if (text !== '' && !/^\d{1,6}$/.test(text)) return
  const next = { ...props.when!, [side]: text === '' ? undefined : Number(text) }
  if (next[side] === undefined) delete next[side]
  emit('change', next)
}
</script>

<template>
  <RowsFields
    plain
    :rows="when?.rows"
    :label="`${what} only while rows are chosen of`"
    none="always"
    @change="(rows) => emit('change', rows && { ...when, rows })"
  >
    <template #default="{ chosen }">
      <div v-if="when" class="counts">
        <label
          >at least<input
            v-kept="when.at_least ?? ''"
            class="form-control form-control-sm figures"
            :placeholder="when.at_most === undefined ? '1' : '0'"
            inputmode="numeric"
            aria-label="At least so many rows"
            @change="count('at_least', $event)"
        /></label>
        <label
          >at most<input
            v-kept="when.at_most ?? ''"
            class="form-control form-control-sm figures"
            placeholder="any"
            inputmode="numeric"
            aria-label="And at most so many rows"
            @change="count('at_most', $event)"
        /></label>
        <span class="soft small">{{ chosen ? `${chosen.count} of ${chosen.nodes} now` : '' }}</span>
      </div>
    </template>
  </RowsFields>
</template>

<style scoped>
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
