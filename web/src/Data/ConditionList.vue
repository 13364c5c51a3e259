<script setup lang="ts">
import { type Condition, type RowsDocument, type Value } from './sources'
import { vKept } from '../ui/kept'

/** What has to hold for a row, their order, and how many at the most. */
const props = defineProps<{ rows: RowsDocument; fields: string[]; sample: Record<string, Value>[]; /** Without the limit. */ plain?: boolean }>()
const emit = defineEmits<{ change: [more: Partial<RowsDocument>] }>()

const WORDS: Record<Condition['is'], string> = {
  equals: 'is',
  differs: 'is not',
  one_of: 'is one of',
  at_least: 'is at least',
  at_most: 'is at most',
  between: 'is between',
  contains: 'contains',
  begins: 'begins with',
  present: 'is there',
  missing: 'is missing',
  upcoming: 'lies ahead, min',
  within_days: 'is newer than, days',
}
const all = () => props.rows.where ?? []
const set = (where: Condition[]) => emit('change', { where: where.length ? where : undefined })
const put = (at: number, one: Condition) => set(all().map((other, n) => (n === at ? one : other)))

/** A figure where the field tells figures, true or false where it tells those, else a text. */
function valueOf(field: string, text: string): string | number | boolean {
  const sample = props.sample.find((row) => row[field] !== null && row[field] !== undefined)?.[field]
  if (typeof sample === 'boolean' && /^(true|false)$/i.test(text)) return text.toLowerCase() === 'true'
  return (typeof sample === 'number' || sample === undefined) && text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : text
}
const begun: Partial<Record<Condition['is'], Partial<Condition>>> = {
  between: { value: [0, 1] },
  one_of: { value: [''] },
  within_days: { value: 10 },
  upcoming: { from_min: 0, to_min: 240 },
  present: {},
  missing: {},
}
const choose = (at: number, one: Condition, is: Condition['is']) => put(at, { field: one.field, is, ...(begun[is] ?? { value: '' }) })
const add = () => set([...all(), { field: props.fields[0] ?? 'field', is: 'present' }])
const figure = (event: Event) => {
  const text = (event.target as HTMLInputElement).value.trim()
  return text === '' ? undefined : Number(text)
}
const text = (event: Event) => (event.target as HTMLInputElement).value
/** What a trigger carries there stands in braces: `{name}`. */
const listed = ({ value }: Condition) =>
  Array.isArray(value) ? value.join(', ') : typeof value === 'object' ? `{${value.carried}}` : String(value ?? '')
const isListed = (one: Condition) => one.is === 'between' || one.is === 'one_of'
function read(one: Condition, typed: string): Condition['value'] {
  if (one.is === 'within_days') return Number(typed.trim() || '0')
  const carried = isListed(one) ? null : /^\{([A-Za-z][A-Za-z0-9_]*)\}$/.exec(typed.trim())
  if (carried) return { carried: carried[1]! }
  return isListed(one) ? typed.split(',').map((value) => valueOf(one.field, value.trim())) : valueOf(one.field, typed)
}
</script>

<template>
  <div class="conditions">
    <div v-for="(one, n) in rows.where ?? []" :key="n" class="one" role="group" :aria-label="`Condition ${n + 1}`">
      <select class="form-select form-select-sm" :value="one.field" aria-label="Field" @change="put(n, { ...one, field: text($event) })">
        <option v-for="name in fields.includes(one.field) ? fields : [one.field, ...fields]" :key="name">{{ name }}</option>
      </select>
      <select class="form-select form-select-sm" :value="one.is" aria-label="What holds" @change="choose(n, one, text($event) as Condition['is'])">
        <option v-for="(word, is) in WORDS" :key="is" :value="is">{{ word }}</option>
      </select>
      <template v-if="one.is === 'upcoming'">
        <input
          v-kept="one.from_min ?? 0"
          class="form-control form-control-sm figures"
          aria-label="From, min"
          @change="put(n, { ...one, from_min: figure($event) })"
        />
        <input
          v-kept="one.to_min ?? ''"
          class="form-control form-control-sm figures"
          placeholder="no end"
          aria-label="To, min"
          @change="put(n, { ...one, to_min: figure($event) })"
        />
      </template>
      <input
        v-else-if="one.is !== 'present' && one.is !== 'missing'"
        v-kept="listed(one)"
        class="form-control form-control-sm"
        :class="{ figures: one.is === 'within_days' }"
        :aria-label="isListed(one) ? 'Values, parted by commas' : 'Value'"
        :title="isListed(one) ? undefined : '{name} means what a trigger carries there'"
        @change="put(n, { ...one, value: read(one, text($event)) })"
      />
      <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Take condition ${n + 1} out`" @click="set(all().filter((_, m) => m !== n))">
        out
      </button>
    </div>
    <div class="foot small">
      <button type="button" class="btn btn-link btn-sm p-0" :disabled="fields.length === 0" @click="add">add a condition</button>
      <label v-if="!plain" class="soft"
        >at most
        <input
          v-kept="rows.limit ?? ''"
          class="figures limit"
          placeholder="all"
          inputmode="numeric"
          aria-label="At most so many rows"
          @change="emit('change', { limit: figure($event) })"
      /></label>
    </div>
  </div>
</template>

<style scoped>
.conditions {
  display: grid;
  gap: 6px;
}
.one {
  display: flex;
  gap: 5px;
  align-items: baseline;
}
.one select {
  width: auto;
  min-width: 0;
  flex: 1 1 84px;
  padding-right: 20px;
}
.one input {
  flex: 1 1 46px;
  min-width: 0;
}
.foot {
  display: flex;
  justify-content: space-between;
}
.limit {
  width: 44px;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  text-align: right;
}
</style>
