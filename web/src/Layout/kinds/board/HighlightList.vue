<script setup lang="ts">
import ConditionList from '../../../Data/ConditionList.vue'
import type { RowsDocument, Value } from '../../../Data/sources'
import ColourField from '../../../ui/ColourField.vue'
import type { BoardElement } from '../../designs'

/** Colours over the rows for which something holds; the first that holds counts. */
const props = defineProps<{ one: BoardElement; fields: string[]; sample: Record<string, Value>[] }>()
const emit = defineEmits<{ change: [highlight: BoardElement['highlight'], gesture?: string] }>()
type Highlight = NonNullable<BoardElement['highlight']>[number]
const all = () => props.one.highlight ?? []
const set = (next: Highlight[], gesture?: string) => emit('change', next.length ? next : undefined, gesture)
const put = (at: number, part: Partial<Highlight>, gesture?: string) =>
  set(
    all().map((one, n) => (n === at ? { ...one, ...part } : one)),
    gesture,
  )
const asRows = (one: Highlight): RowsDocument => ({ source: props.one.rows.source, where: one.where })
</script>

<template>
  <div class="highlights">
    <div v-for="(light, n) in all()" :key="n" class="one" role="group" :aria-label="`Highlight ${n + 1}`">
      <ConditionList
        plain
        :rows="asRows(light)"
        :fields="fields"
        :sample="sample"
        @change="({ where }) => put(n, { where: (where ?? []) as Highlight['where'] })"
      />
      <div class="foot">
        <ColourField label="Colour" :value="light.fill" @change="(fill) => put(n, { fill }, `highlight ${n}`)" />
        <button type="button" class="btn btn-link btn-sm p-0" @click="set(all().filter((_, m) => m !== n))">take it out</button>
      </div>
    </div>
    <button
      type="button"
      class="btn btn-link btn-sm p-0"
      :disabled="fields.length === 0"
      @click="set([...all(), { where: [{ field: fields[0]!, is: 'equals', value: '' }], fill: '#a3262a' }])"
    >
      add a highlight
    </button>
  </div>
</template>

<style scoped>
.highlights {
  display: grid;
  gap: 10px;
  padding: 0 14px 10px;
  justify-items: start;
}
.one {
  width: 100%;
}
.foot {
  display: flex;
  gap: 14px;
  align-items: end;
}
.foot :deep(label) {
  width: 110px;
  font-size: 0.8125rem;
  color: var(--soft);
}
</style>
