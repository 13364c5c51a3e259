<script setup lang="ts">
import { ref, watch } from 'vue'
import { rowsBegun } from '../../../Data/begin'
import SourceChoice from '../../../Data/SourceChoice.vue'
import type { Chosen, Value } from '../../../Data/sources'
import { api, sentence } from '../../../ui/api'
import type { ChartElement } from '../../designs'
import { TYPES } from './chart'

/** What a chart begins with: whose rows it tells, and how. */
const emit = defineEmits<{ chosen: [fields: object] }>()
defineProps<{ rect: unknown }>()
const open = defineModel<boolean>({ required: true })
const source = ref<string | null>(null)
const type = ref<ChartElement['type']>('columns')
const trouble = ref('')
watch(open, () => (trouble.value = ''))

async function take() {
  if (!source.value) return
  trouble.value = ''
  try {
    const rows = await rowsBegun(source.value)
    const { fields, rows: sample } = await api.post<Chosen>('rows', { rows })
    const tells = (name: string, is: (value: Value) => boolean) => sample.some((row) => is(row[name] ?? null))
    const value = fields.find((name) => tells(name, (one) => typeof one === 'number'))
    if (!value) throw new Error('None of these rows tells a number. Give a field the type number at Data, then come back.')
    const category = fields.find((name) => name !== value && tells(name, (one) => typeof one === 'string'))
    open.value = false
    emit('chosen', { rows, type: type.value, value, ...(category ? { category } : {}) })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <BModal v-model="open" title="A chart" lazy no-footer>
    <form @submit.prevent="take">
      <h3>Whose rows</h3>
      <SourceChoice v-model="source" label="Source of the rows" />
      <h3>As</h3>
      <div class="types" role="radiogroup" aria-label="How values are drawn">
        <label v-for="(name, id) in TYPES" :key="id"><input v-model="type" type="radio" name="type" :value="id" /> {{ name }}</label>
      </div>
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <BButton type="submit" variant="primary" :disabled="!source">Make the chart</BButton>
    </form>
  </BModal>
</template>

<style scoped>
h3 {
  font-size: 0.9375rem;
  margin: 0 0 6px;
}
.types {
  display: flex;
  gap: 18px;
  margin-bottom: 14px;
}
.sources {
  margin-bottom: 14px;
}
</style>
