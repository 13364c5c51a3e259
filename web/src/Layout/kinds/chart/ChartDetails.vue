<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { looked } from '../../../Data/begin'
import ConditionList from '../../../Data/ConditionList.vue'
import FieldNames from '../../../Data/FieldNames.vue'
import { type Chosen, type RowsDocument, useSources } from '../../../Data/sources'
import { api } from '../../../ui/api'
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import { useComposer } from '../../composer/composer'
import StyleFields from '../../composer/details/StyleFields.vue'
import type { ChartElement, Style } from '../../designs'
import { TYPES } from './chart'
import { vKept } from '../../../ui/kept'

/** A chart: whose values it tells, how, and along which axis. */
const props = defineProps<{ one: ChartElement }>()
const composer = useComposer()
const put = (part: Partial<ChartElement>, gesture?: string) =>
  composer.edit<ChartElement>(props.one.id, part, gesture && `${gesture} ${props.one.id}`)
const rows = computed(() => props.one.rows)
const { all: sources } = useSources(false)
const name = computed(() => sources.value.find((source) => source.id === rows.value.source)?.name ?? rows.value.source)
const { data: chosen } = useQuery({
  queryKey: computed(() => ['rows', JSON.stringify(rows.value)]),
  queryFn: () => api.post<Chosen>('rows', { rows: rows.value }),
  placeholderData: (before) => before,
})
const fields = computed(() => chosen.value?.fields ?? Object.keys(rows.value.fields ?? {}))
function choose(more: Partial<RowsDocument>) {
  const next = { ...rows.value, ...more }
  for (const key of Object.keys(next) as (keyof RowsDocument)[]) if (next[key] === undefined) delete next[key]
  put({ rows: next })
}
const keep = () => localStorage.setItem(looked(rows.value.source), JSON.stringify(rows.value))
/** A side that is empty follows the values. */
function axis(side: 'from' | 'to', event: Event) {
  const text = (event.target as HTMLInputElement).value.trim().replace(',', '.')
  if (text !== '' && !Number.isFinite(Number(text))) return
  put({ axis: { ...props.one.axis, [side]: text === '' ? null : Number(text) } })
}
const unit = (event: Event) => put({ axis: { ...props.one.axis, unit: (event.target as HTMLInputElement).value } })
const colours = computed(() => props.one.colours ?? [])
const paint = (at: number, to: string) => put({ colours: colours.value.map((colour, n) => (n === at ? to : colour)) }, `colour ${at}`)
</script>

<template>
  <p class="wide m-0 small">
    <RouterLink :to="`/data/${rows.source}`" @click="keep">{{ name }}</RouterLink>
    <span class="soft">{{ chosen ? ` · ${chosen.count} of ${chosen.nodes} rows now` : '' }}</span>
  </p>
  <div class="wide"><ConditionList :rows="rows" :fields="fields" :sample="chosen?.rows ?? []" @change="choose" /></div>
  <ChoiceField
    label="Drawn as"
    :value="one.type"
    :options="Object.entries(TYPES).map(([value, text]) => ({ value, text }))"
    @change="(type) => put({ type: type as ChartElement['type'] })"
  />
  <ChoiceField
    label="Value"
    :value="one.value"
    :options="fields.includes(one.value) ? fields : [one.value, ...fields]"
    @change="(value) => put({ value })"
  />
  <ChoiceField
    label="Named by"
    :value="one.category ?? ''"
    :options="[{ value: '', text: 'nothing' }, ...fields]"
    @change="(category) => put({ category: category || undefined })"
  />
  <label class="wide"
    >told as<FieldNames
      :text="one.named ?? (one.category ? `{${one.category}}` : '')"
      :fields="fields"
      label="How a row is named"
      @change="(named) => put({ named: named || undefined }, 'named')"
  /></label>
  <label class="switch align-self-end"
    ><input type="checkbox" :checked="one.labels !== false" @change="put({ labels: one.labels === false ? undefined : false })" /> Names shown</label
  >
  <label
    >Axis from<input
      v-kept="one.axis?.from ?? ''"
      class="form-control form-control-sm figures"
      placeholder="follows the values"
      inputmode="decimal"
      @change="axis('from', $event)"
  /></label>
  <label
    >to<input
      v-kept="one.axis?.to ?? ''"
      class="form-control form-control-sm figures"
      placeholder="follows the values"
      inputmode="decimal"
      aria-label="Axis to"
      @change="axis('to', $event)"
  /></label>
  <label>Unit<input v-kept="one.axis?.unit ?? ''" class="form-control form-control-sm" maxlength="40" @change="unit" /></label>
  <ColourField v-for="(colour, n) in colours" :key="n" :label="n === 0 ? 'Colour' : `Colour ${n + 1}`" :value="colour" @change="paint(n, $event)" />
  <p class="wide m-0">
    <button type="button" class="btn btn-link btn-sm p-0" @click="put({ colours: [...colours, '#c8553d'] })">one more colour, in turn</button>
    <button v-if="colours.length > 1" type="button" class="btn btn-link btn-sm p-0 ms-3" @click="put({ colours: colours.slice(0, -1) })">
      one less
    </button>
  </p>
  <StyleFields :style="one.style" label="the chart" plain @change="(style: Style, g) => put({ style }, g)" />
</template>
