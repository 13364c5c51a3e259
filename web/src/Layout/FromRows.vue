<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useChosen } from '../Data/begin'
import RowsFields from '../Data/RowsFields.vue'
import { type RowsDocument, useSources } from '../Data/sources'
import { useAnswer } from '../ui/answer'
import { api } from '../ui/api'
import { count, moment, some } from '../ui/format'
import { useGuarded } from '../ui/guarded'
import type { FilledDocument, Slot } from './filling'
import { SLOTS } from './slots/slots'

/** One template filled in with each row of a source, and again when the rows are others. */
const props = defineProps<{ template: string; slots: Slot[]; name: string }>()
const emit = defineEmits<{ done: [] }>()

interface Filling {
  id: string
  filled: number
  done_at: string
  done_by: string | null
  rows: RowsDocument
  news: { new: number; changed: number; gone: string[] } | null
  trouble: string | null
}
const query = useQuery({
  queryKey: ['rows-filling', () => props.template],
  queryFn: async () => (await api.get<{ fillings: Filling[] }>(`layouts/${props.template}/rows`)).fillings,
})
const { all: sources } = useSources(false)
const sourceName = (id: string) => sources.value.find((one) => one.id === id)?.name ?? id
const rows = ref<RowsDocument | undefined>()
const { fields } = useChosen(() => rows.value)
const map = ref<Record<string, string>>({})
const called = ref('')
const key = ref('')
const OWN = '\u0000own'
const own = ref<Record<string, string>>({})
/** A list or a picture is filled in by hand. */
const open = computed(() => props.slots.filter((slot) => !SLOTS[slot.kind].byHand))
const asked = computed(() => {
  const chosen = Object.fromEntries(
    open.value.flatMap((slot) => {
      const what = map.value[slot.id] === OWN ? (own.value[slot.id] ?? '') : (map.value[slot.id] ?? '')
      return what === '' ? [] : [[slot.id, what]]
    }),
  )
  const apart = key.value || fields.value[0]
  return { rows: rows.value, map: chosen, key: apart, name: called.value.trim() || `${props.name.replace(/[{}#']/g, '')}, {${apart}}` }
})
const isAsked = computed(() => rows.value !== undefined && asked.value.key !== undefined && Object.keys(asked.value.map).length > 0)
interface Told {
  count: number
  told: { key: string; name: string; document: FilledDocument }[]
}
const { answer, trouble } = useAnswer(
  () => (isAsked.value ? asked.value : null),
  (what, signal) => api.post<Told>(`layouts/${props.template}/rows/preview`, what, signal),
  () => 300,
)
const { trouble: wrong, guarded } = useGuarded('rows-filling')
const make = () =>
  guarded(async () => {
    await api.post(`layouts/${props.template}/rows`, asked.value)
    ;[rows.value, map.value, called.value] = [undefined, {}, '']
    emit('done')
  })
const again = (one: Filling) =>
  guarded(async () => {
    await api.post(`layouts/${props.template}/rows/${one.id}/again`, {})
    emit('done')
  })
const forget = (one: Filling) => guarded(() => api.delete(`layouts/${props.template}/rows/${one.id}`))
const isNews = ({ news }: Filling) => news !== null && news.new + news.changed > 0
const valuesOf = (document: FilledDocument) =>
  Object.values(document.values)
    .map((value) => (typeof value === 'object' ? JSON.stringify(value) : String(value)))
    .join(' · ')
</script>

<template>
  <section class="from-rows" aria-label="From rows">
    <h2>From rows</h2>
    <p v-if="wrong" class="said-error small" role="alert">{{ wrong }}</p>
    <ul v-if="query.data.value?.length" class="fillings">
      <li v-for="one in query.data.value" :key="one.id">
        <span
          ><b>{{ count(one.filled, 'filled layout') }}</b> from {{ sourceName(one.rows.source) }}, {{ moment(one.done_at)
          }}{{ one.done_by ? `, ${one.done_by}` : '' }}
          <span v-if="one.trouble" class="said-error">{{ one.trouble }}</span>
          <span v-else-if="one.news" class="soft">
            {{ isNews(one) ? `${one.news.new} new rows, ${one.news.changed} changed` : 'the rows say the same'
            }}{{ one.news.gone.length ? `; no row any more: ${some(one.news.gone, 3)}` : '' }}
          </span></span
        >
        <BButton v-if="isNews(one)" size="sm" variant="primary" @click="again(one)">Fill in again</BButton>
        <button type="button" class="btn btn-link btn-sm p-0" @click="forget(one)">forget the rows</button>
      </li>
    </ul>
    <div class="choose">
      <RowsFields :rows="rows" label="One for each row of" none="no data" linked @change="rows = $event" />
      <template v-if="rows">
        <label v-for="slot in open" :key="slot.id"
          >{{ slot.name }}
          <span class="two">
            <select v-model="map[slot.id]" class="form-select form-select-sm" :aria-label="`What ${slot.name} says`">
              <option :value="undefined">as the template has it</option>
              <option v-for="field in fields" :key="field" :value="field">{{ field }}</option>
              <option :value="OWN">words with fields…</option>
            </select>
            <input
              v-if="map[slot.id] === OWN"
              v-model="own[slot.id]"
              class="form-control form-control-sm figures"
              :placeholder="`{${fields[0] ?? 'name'}}`"
              :aria-label="`Words of ${slot.name}`"
              maxlength="2000"
            /> </span
        ></label>
        <label
          >Each is called
          <input v-model="called" class="form-control form-control-sm" :placeholder="asked.name" aria-label="Each is called" maxlength="2000"
        /></label>
        <label
          >Told apart by
          <select v-model="key" class="form-select form-select-sm" aria-label="Told apart by">
            <option value="">{{ fields[0] ?? 'the first field' }}</option>
            <option v-for="field in fields.slice(1)" :key="field" :value="field">{{ field }}</option>
          </select></label
        >
        <p v-if="trouble" class="said-error small m-0" role="status">{{ trouble }}</p>
        <template v-else-if="answer && isAsked">
          <ol class="told">
            <li v-for="one in answer.told.slice(0, 6)" :key="one.key">
              <b>{{ one.name }}</b> <span class="soft small">{{ valuesOf(one.document) }}</span>
            </li>
          </ol>
          <BButton variant="primary" :disabled="answer.count === 0" @click="make">Fill in {{ count(answer.count, 'row') }}</BButton>
        </template>
      </template>
    </div>
  </section>
</template>

<style scoped>
.from-rows {
  margin-top: 22px;
}
.fillings,
.told {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}
.fillings li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
  padding: 6px 0;
}
.fillings li > span {
  flex: 1;
}
.choose {
  max-width: 560px;
  display: grid;
  gap: 8px;
}
.choose label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.two {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 8px;
}
</style>
