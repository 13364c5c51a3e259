<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed } from 'vue'
import { type Chosen, type RowsDocument, type Value, pathOf } from './sources'

/** The rows that are chosen, field by field; a head is pressed to sort by it, and its second line to say what the field is taken for. */
const props = defineProps<{ chosen: Chosen; rows: RowsDocument; timezone: string }>()
defineEmits<{ field: [name: string]; sort: [name: string]; remove: [name: string] }>()

const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/
const sorted = computed(() => props.rows.sort?.[0] ?? null)

function kind(name: string): string {
  const field = props.rows.fields?.[name]
  if (field !== undefined && typeof field !== 'string') {
    if ('count' in field) return 'how many'
    if (field.unit) return `${field.unit[0]} to ${field.unit[1]}`
    if (field.type && field.type !== 'auto') return field.type === 'local' ? 'local time' : field.type
  }
  const value = props.chosen.rows.find((row) => row[name] !== null)?.[name] ?? null
  if (typeof value === 'string') return INSTANT.test(value) ? 'time' : 'text'
  return value === null ? '–' : typeof value
}
/** An instant on the clock of the zone; with its day where that is not the day of all. */
function told(value: Value): string {
  if (value === null) return '–'
  if (typeof value !== 'string' || !INSTANT.test(value)) return String(value)
  const local = DateTime.fromISO(value, { zone: props.timezone })
  return local.toFormat(local.second === 0 ? 'dd MMM HH:mm' : 'dd MMM HH:mm:ss')
}
const isFigure = (value: Value) => typeof value === 'number' || (typeof value === 'string' && INSTANT.test(value))
const title = (name: string) => (props.rows.fields?.[name] ? pathOf(props.rows.fields[name]) : `$.${name}`)
</script>

<template>
  <div class="box" tabindex="0" role="region" aria-label="Rows that are chosen">
    <p v-if="chosen.taken_at === null" class="empty">Nothing was read yet.</p>
    <div v-else-if="chosen.fields.length === 0" class="empty">
      <h2>No fields</h2>
      <p>Press a level at the left whose things repeat, then those of its members that are to be told.</p>
    </div>
    <table v-else class="table m-0">
      <thead>
        <tr>
          <th
            v-for="name in chosen.fields"
            :key="name"
            scope="col"
            :aria-sort="sorted?.by === name ? (sorted.descending ? 'descending' : 'ascending') : 'none'"
          >
            <button type="button" class="name" :title="`Sort by ${name}`" @click="$emit('sort', name)">
              {{ name }}<span v-if="sorted?.by === name" aria-hidden="true">{{ sorted.descending ? ' ↓' : ' ↑' }}</span>
            </button>
            <button type="button" class="kind figures" :title="`${title(name)}: what ${name} is taken for`" @click="$emit('field', name)">
              {{ kind(name) }}
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, n) in chosen.rows" :key="n">
          <td v-for="name in chosen.fields" :key="name" :class="{ figures: isFigure(row[name] ?? null), none: row[name] === null }">
            {{ told(row[name] ?? null) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="chosen.taken_at !== null && chosen.fields.length > 0 && chosen.rows.length === 0" class="empty">
      None of the {{ chosen.nodes }} rows is chosen at this instant.
    </p>
    <p v-if="chosen.rows.length < chosen.count" class="soft small px-3 py-2 m-0">
      The first {{ chosen.rows.length }} of {{ chosen.count }} are shown.
    </p>
  </div>
</template>

<style scoped>
.box {
  overflow: auto;
}
thead {
  position: sticky;
  top: 0;
  background: var(--sheet);
}
th {
  padding: 2px 10px 1px;
  border-bottom: 2px solid var(--soft);
}
th:first-child,
td:first-child {
  padding-left: 16px;
}
th button {
  display: block;
  min-height: 24px;
  min-width: 24px;
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  white-space: nowrap;
  color: inherit;
}
.name {
  font-weight: 650;
  color: var(--ink) !important;
}
.kind {
  color: var(--chalk) !important;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
td {
  padding: 3px 10px;
  white-space: nowrap;
  max-width: 340px;
  overflow: hidden;
  text-overflow: ellipsis;
}
tr:nth-child(even) td {
  background: var(--paper);
}
.none {
  color: var(--warning);
}
</style>
