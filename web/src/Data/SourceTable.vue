<script setup lang="ts">
import { computed, nextTick, useTemplateRef } from 'vue'
import { vKept } from '../ui/kept'
import type { SourceDocument, Value } from './sources'

/** The rows of a source that is typed here. What comes from a spreadsheet is pasted from where the focus is on, rows and columns at once. */
const props = defineProps<{ document: SourceDocument }>()
const emit = defineEmits<{ change: [to: SourceDocument, gesture?: string] }>()
type Row = Record<string, Value>
const grid = useTemplateRef('grid')

const table = computed<Row[]>(() => ('table' in props.document.from ? props.document.from.table : []))
const columns = computed(() => [...new Set(table.value.flatMap((row) => Object.keys(row)))])
const set = (rows: Row[]) => emit('change', { ...props.document, from: { table: rows } })

/** What reads as a number is one; nothing typed is nothing there. */
function read(text: string): Value {
  const bare = text.trim()
  if (bare === '') return null
  return /^[+-]?\d+(\.\d+)?$/.test(bare) && Number.isFinite(Number(bare)) ? Number(bare) : text
}
const shown = (value: Value | undefined) => (value === null || value === undefined ? '' : String(value))
function put(at: number, column: string, text: string) {
  set(table.value.map((row, n) => (n === at ? { ...row, [column]: read(text) } : row)))
}
function free(base: string): string {
  let name = base
  for (let n = 2; columns.value.includes(name); n++) name = `${base} ${n}`
  return name
}
function rename(from: string, to: string) {
  if (to === '' || columns.value.includes(to)) return
  set(table.value.map((row) => Object.fromEntries(Object.entries(row).map(([name, value]) => [name === from ? to : name, value]))))
}
const addColumn = () => set((table.value.length ? table.value : [{}]).map((row) => ({ ...row, [free('column')]: null })))
const dropColumn = (column: string) => set(table.value.map((row) => Object.fromEntries(Object.entries(row).filter(([name]) => name !== column))))
async function addRow() {
  set([...table.value, Object.fromEntries(columns.value.map((name) => [name, null]))])
  await nextTick()
  grid.value?.querySelector<HTMLInputElement>('tbody tr:last-child input')?.focus()
}
function paste(event: ClipboardEvent, at: number, column: number) {
  const cells = (event.clipboardData?.getData('text/plain') ?? '')
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .map((line) => line.split('\t'))
  if (cells.length === 1 && cells[0]!.length === 1) return
  event.preventDefault()
  const names = [...columns.value]
  for (let n = names.length; n < column + Math.max(...cells.map((line) => line.length)); n++) names.push(`column ${n + 1}`)
  const rows = table.value.map((row) => ({ ...row }))
  cells.forEach((line, n) => {
    const row = (rows[at + n] ??= Object.fromEntries(names.map((name) => [name, null])))
    line.forEach((cell, m) => (row[names[column + m]!] = read(cell)))
  })
  set(rows)
}
function step(event: KeyboardEvent, by: number) {
  const fields = [...(grid.value?.querySelectorAll<HTMLInputElement>('tbody input') ?? [])]
  const next = fields[fields.findIndex((one) => one === event.target) + by * columns.value.length]
  if (next) next.focus()
  else if (by > 0) void addRow()
}
</script>

<template>
  <div class="typed">
    <div class="strip">
      <h2>Typed here</h2>
      <span class="soft small">paste several rows at once</span>
    </div>
    <div class="scroll">
      <table ref="grid" aria-label="Rows of the source">
        <thead>
          <tr>
            <th v-for="name in columns" :key="name" scope="col">
              <input
                v-kept="name"
                :aria-label="`Name of the column ${name}`"
                @change="rename(name, ($event.target as HTMLInputElement).value.trim())"
              />
              <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Take the column ${name} out`" @click="dropColumn(name)">out</button>
            </th>
            <th><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, n) in table" :key="n">
            <td v-for="(name, m) in columns" :key="name">
              <input
                v-kept="shown(row[name])"
                :class="{ figures: typeof row[name] === 'number' }"
                :aria-label="`${name}, row ${n + 1}`"
                @change="put(n, name, ($event.target as HTMLInputElement).value)"
                @paste="paste($event, n, m)"
                @keydown.enter.prevent="step($event, 1)"
                @keydown.down.prevent="step($event, 1)"
                @keydown.up.prevent="step($event, -1)"
              />
            </td>
            <td>
              <button
                type="button"
                class="btn btn-link btn-sm p-0"
                :aria-label="`Take row ${n + 1} out`"
                @click="set(table.filter((_, m) => m !== n))"
              >
                out
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="px-3 py-2 m-0 small acts">
      <button type="button" class="btn btn-link btn-sm p-0" @click="addRow">add a row</button>
      <button type="button" class="btn btn-link btn-sm p-0" @click="addColumn">add a column</button>
    </p>
  </div>
</template>

<style scoped>
.typed {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.strip {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 9px 16px 5px;
}
h2 {
  font-size: 0.9375rem;
}
.scroll {
  overflow: auto;
  min-height: 0;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  border-bottom: 1px solid var(--rule);
  padding: 2px 4px;
  white-space: nowrap;
}
th:first-child,
td:first-child {
  padding-left: 14px;
}
th input {
  font-weight: 650;
}
input {
  border: 0;
  background: none;
  width: 100%;
  min-width: 64px;
  field-sizing: content;
  padding: 1px 3px;
}
th {
  font-weight: 400;
}
th input {
  width: calc(100% - 28px);
}
.figures {
  text-align: right;
}
</style>
