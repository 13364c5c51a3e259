<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useStorage } from '@vueuse/core'
import { DateTime } from 'luxon'
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import DesignHead from '../Layout/DesignHead.vue'
import { useDesigns } from '../Layout/designs'
import { useDesignWork } from '../Layout/work'
import { api, sentence } from '../ui/api'
import { useAnswer } from '../ui/answer'
import { bytes, lasting } from '../ui/format'
import { useSecond } from '../ui/second'
import { useShelf } from '../ui/shelf'
import ConditionList from './ConditionList.vue'
import FetchList from './FetchList.vue'
import FieldDialog from './FieldDialog.vue'
import OutlineLevel from './OutlineLevel.vue'
import RowSpans from './RowSpans.vue'
import RowTable from './RowTable.vue'
import SourceSettings from './SourceSettings.vue'
import SourceTable from './SourceTable.vue'
import {
  type Chosen,
  type Field,
  type Level,
  type RowsDocument,
  type SourceDocument,
  STATUS,
  begun,
  fieldsOf,
  interval,
  levelAt,
  nameFor,
  pathOf,
  richest,
  useSourceState,
  within,
} from './sources'

/** A source: where it comes from, what is in it as it is nested, and the rows that are chosen of it at any instant. */
const props = defineProps<{ id: string }>()
const work = useDesignWork<SourceDocument>('sources', props.id)
const document = work.document
const { data: state } = useSourceState(props.id)
const queries = useQueryClient()
const shelf = useShelf()
const now = useSecond()
const trouble = ref('')

/** The rows that were looked at last: layouts will have their own. */
const rows = useStorage<RowsDocument>(`upper-pane:rows:${props.id}`, { source: props.id })
const change = (more: Partial<RowsDocument>) => {
  const next = { ...rows.value, ...more }
  for (const key of Object.keys(next) as (keyof RowsDocument)[]) if (next[key] === undefined) delete next[key]
  rows.value = next
}
const zone = useStorage(`upper-pane:zone:${props.id}`, '')
const zones = computed(() => [...new Set([document.value?.zone ?? '', Intl.DateTimeFormat().resolvedOptions().timeZone, 'UTC'].filter(Boolean))])
const timezone = computed(() => zone.value || zones.value[0]!)

/** "as of": typed as the clock of the zone shows it; empty for now. Which instant that is the core says. */
const typedAt = ref('')
const FORMS = ['yyyy-MM-dd HH:mm:ss', 'yyyy-MM-dd HH:mm', 'yyyy-MM-dd']
const at = computed<string | null>(() => {
  const text = typedAt.value.trim()
  if (text === '') return null
  const whole = /^\d\d?:/.test(text) ? `${DateTime.fromMillis(now.value, { zone: timezone.value }).toFormat('yyyy-MM-dd')} ${text}` : text
  const read = FORMS.map((form) => DateTime.fromFormat(whole, form, { zone: 'utc' })).find((one) => one.isValid)
  return read?.toFormat("yyyy-MM-dd'T'HH:mm:ss") ?? ''
})
const atWrong = computed(() => (at.value === '' ? 'A time such as 23:50, or a date and time such as 2026-12-01 23:50.' : ''))

const fetched = ref<number | null>(null)
const turn = ref('')
/** What is asked again when something else came. */
const version = computed(() => `${state.value?.taken_at ?? ''} ${work.revision.value}`)
const asked = computed(() => ({ at: at.value || undefined, timezone: timezone.value, fetch: fetched.value ?? undefined }))
const { answer: outlined, trouble: outlineTrouble } = useAnswer(
  () => document.value && { version: version.value, body: { ...asked.value, source: document.value } },
  ({ body }, signal) => api.post<{ outline: Level | null }>(`sources/${props.id}/outline`, body, signal),
)
const { answer: chosen, trouble: rowTrouble } = useAnswer(
  () =>
    document.value && {
      version: `${version.value} ${turn.value}`,
      body: { ...asked.value, rows: whole.value, source: document.value },
    },
  ({ body }, signal) => api.post<Chosen>('rows', body, signal),
  () => 200,
)

// Without an instant it is now, which goes on: asked anew when the time has come for other rows.
watch(now, (ms) => {
  const next = chosen.value?.changes_at
  if (at.value === null && next && ms >= Date.parse(next) && Date.parse(chosen.value!.at) < Date.parse(next)) turn.value = next
})
const first = computed(() => (outlined.value?.outline ? richest(outlined.value.outline) : null))
const path = computed(() => rows.value.path ?? first.value?.path ?? '$[*]')
const begin = computed(() => {
  const level = outlined.value?.outline ? levelAt(outlined.value.outline, path.value) : null
  const fields = level ? fieldsOf(level) : {}
  return Object.keys(fields).length ? { fields } : {}
})
const whole = computed<RowsDocument>(() => ({ path: path.value, ...begin.value, ...rows.value }))
const fieldPaths = computed(() => {
  const fields = whole.value.fields
  return fields ? new Set(Object.values(fields).map((one) => `${path.value}${pathOf(one).slice(1)}`)) : null
})

function chooseRows(to: string) {
  change({ path: to, fields: undefined, where: undefined, sort: undefined })
}
/** A path that is typed: where it leads to another level its fields are others; one that only chooses among the rows keeps them. */
function typePath(to: string) {
  if (to !== path.value && outlined.value?.outline && levelAt(outlined.value.outline, to)) chooseRows(to)
  else change({ path: to })
}
/** The fields as they stand; where none is said, those that all rows have. */
const named = (): Record<string, Field> => whole.value.fields ?? Object.fromEntries((chosen.value?.fields ?? []).map((name) => [name, `$.${name}`]))
function toggleField(level: Level) {
  const way = within(path.value, level.path)
  if (way === null) return
  const fields = named()
  const there = Object.entries(fields).find(([, one]) => pathOf(one) === way)?.[0]
  if (there) removeField(there)
  else
    change({
      fields: {
        ...fields,
        [nameFor(level.name, Object.keys(fields))]: Object.keys(level.types)[0] === 'list' ? { count: `${way}[*]` } : begun(way, level),
      },
    })
}
function removeField(name: string) {
  const rest = Object.fromEntries(Object.entries(named()).filter(([one]) => one !== name))
  change({ fields: rest, where: rows.value.where?.filter((one) => one.field !== name), sort: rows.value.sort?.filter((one) => one.by !== name) })
}
const editing = ref<string | null>(null)
function setField(from: string, to: string, field: Field) {
  const fields = Object.fromEntries(Object.entries(named()).map(([name, one]) => (name === from ? [to, field] : [name, one])))
  const again = (name: string) => (name === from ? to : name)
  change({
    fields,
    where: rows.value.where?.map((one) => ({ ...one, field: again(one.field) })),
    sort: rows.value.sort?.map((one) => ({ ...one, by: again(one.by) })),
  })
}
function sortBy(name: string) {
  const [first] = rows.value.sort ?? []
  change({ sort: first?.by === name ? (first.descending ? undefined : [{ by: name, descending: true }]) : [{ by: name }] })
}
function saveFile() {
  const file = new Blob([JSON.stringify({ format: 'upper-pane/rows@1', ...whole.value }, null, 2)], { type: 'application/json' })
  const link = window.document.createElement('a')
  link.href = URL.createObjectURL(file)
  link.download = `${document.value?.name ?? 'rows'}.rows.json`
  link.click()
  URL.revokeObjectURL(link.href)
}

async function fetchNow() {
  trouble.value = ''
  try {
    await work.save()
    await api.post(`sources/${props.id}/fetch`, {})
    await queries.invalidateQueries({ queryKey: ['data'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
const settings = ref(false)
const fetches = ref(false)
const facts = computed(() => {
  const s = state.value
  if (!s) return ''
  const age = s.taken_at === null ? '' : `, ${lasting(Math.max(0, now.value - Date.parse(s.taken_at)))} old`
  const size = s.bytes === null ? '' : `${bytes(s.bytes)}, `
  if (s.from === 'table') return `${size}typed here`
  if (s.from === 'file') return `${size}${s.file ?? 'no file yet'}${age}`
  const cost = `${Math.round(s.cost.fetches_h)} fetches and ${bytes(s.cost.bytes_h)} an hour in all`
  return `${size}fetched every ${interval(s.every_s ?? 0)} · ${STATUS[s.status]}${age} · ${cost}`
})
const { all: designs } = useDesigns('sources')
const uses = computed(() => designs.value.find((one) => one.id === props.id) ?? null)
/** How the pictures stand that its rows name; null where nobody has asked for any. */
const pictures = computed(() => {
  const { there = 0, coming = 0, failed = 0, failures = [] } = state.value?.pictures ?? {}
  const count = there + coming + failed
  const parts = [there ? `${there} there` : '', coming ? `${coming} on the way` : '', failed ? `${failed} cannot be had` : '']
  return count === 0 ? null : { said: `${count} ${count === 1 ? 'picture' : 'pictures'} of its rows: ${parts.filter(Boolean).join(', ')}.`, failures }
})
const isTable = computed(() => document.value !== null && 'table' in document.value.from)
const told = (instant: string) => DateTime.fromISO(instant, { zone: timezone.value }).toFormat('dd MMM HH:mm:ss')

watchEffect(() => {
  shelf.findings = state.value?.finding ? [state.value.finding] : []
  const unreadable = chosen.value?.unreadable ?? 0
  shelf.remark =
    unreadable > 0
      ? `${unreadable} ${unreadable === 1 ? 'value does' : 'values do'} not fit the type of their field, and count as missing.`
      : 'Nothing is found.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <DesignHead :id="id" :work="work" noun="source">
      {{ facts }}
      <template #actions>
        <BButton v-if="state?.address" variant="outline-dark" @click="fetchNow">Fetch now</BButton>
        <BButton v-if="!isTable" variant="outline-dark" @click="fetches = true">Kept fetches</BButton>
        <BButton variant="primary" @click="settings = true">Where it comes from…</BButton>
      </template>
    </DesignHead>
    <p v-if="trouble" class="said-error px-3 py-1 m-0" role="alert">{{ trouble }}</p>
    <p class="uses small m-0" role="status">
      <template v-if="uses?.used_in.length">
        <span class="soft">Told by</span> {{ uses.used_in.join(', ') }}
        <span class="soft">on {{ uses.standing.displays }} {{ uses.standing.displays === 1 ? 'display' : 'displays' }}.</span>
      </template>
      <span v-else class="soft">Nothing tells it yet.</span>
      <template v-if="pictures">
        {{ pictures.said }}
        <span v-for="one in pictures.failures" :key="one.address" class="failure" :title="one.address"
          >{{ one.address.split('/').pop() }}: {{ one.why }}</span
        >
      </template>
    </p>
    <div class="columns">
      <section class="leaf outline" aria-label="As it comes">
        <SourceTable v-if="document && isTable" :document="document" @change="(to, gesture) => work.change(to, gesture)" />
        <template v-else>
          <div class="strip">
            <h2>As it comes</h2>
            <span class="soft small">press a level to repeat it</span>
          </div>
          <p v-if="outlineTrouble" class="said-error small px-3" role="alert">{{ outlineTrouble }}</p>
          <ul v-else-if="outlined?.outline" class="levels">
            <OutlineLevel :level="outlined.outline" :depth="0" :rows="path" :fields="fieldPaths" @rows="chooseRows" @field="toggleField" />
          </ul>
          <p v-else-if="outlined" class="empty small">
            Nothing was read yet.
            {{ state?.why ?? (state?.from === 'file' ? 'Bring a file in, at “Where it comes from”.' : 'It is fetched in a moment.') }}
          </p>
        </template>
        <div class="asked">
          <label class="way"
            ><span class="soft small">rows</span
            ><input
              class="figures"
              :value="path"
              spellcheck="false"
              aria-label="Path of the rows (JSONPath)"
              @input="typePath(($event.target as HTMLInputElement).value)"
            /><span class="found figures">{{ chosen ? `${chosen.nodes} found` : '' }}</span></label
          >
          <p v-if="rowTrouble" class="said-error small m-0" role="alert">{{ rowTrouble }}</p>
          <ConditionList :rows="rows" :fields="chosen?.fields ?? []" :sample="chosen?.rows ?? []" @change="change" />
        </div>
      </section>
      <section class="found-rows" aria-label="Rows">
        <div class="strip bar">
          <h2>{{ chosen?.count ?? 0 }} {{ chosen?.count === 1 ? 'row' : 'rows' }}</h2>
          <label class="small soft as-of"
            >as of
            <input
              v-model="typedAt"
              class="form-control form-control-sm figures"
              :class="{ 'is-invalid': atWrong }"
              :placeholder="DateTime.fromMillis(now, { zone: timezone }).toFormat('HH:mm:ss')"
              :title="atWrong || 'Empty: now. A time, or a date and time, on the clock of the zone.'"
              :aria-invalid="atWrong !== ''"
              aria-label="As of"
          /></label>
          <select v-model="zone" class="form-select form-select-sm w-auto" aria-label="Time zone">
            <option value="">{{ zones[0] }}</option>
            <option v-for="one in zones.slice(1)" :key="one" :value="one">{{ one }}</option>
          </select>
          <span v-if="fetched !== null" class="small">
            of an earlier fetch <button type="button" class="btn btn-link btn-sm p-0" @click="fetched = null">take the last</button>
          </span>
          <span v-if="chosen?.changes_at" class="figures next">other rows from {{ told(chosen.changes_at) }} on</span>
          <button type="button" class="btn btn-link btn-sm p-0 ms-auto" @click="saveFile">save the rows as a file</button>
        </div>
        <RowTable
          v-if="chosen"
          class="table-box"
          :chosen="chosen"
          :rows="whole"
          :timezone="timezone"
          @field="editing = $event"
          @sort="sortBy"
          @remove="removeField"
        />
        <RowSpans v-if="chosen" :chosen="chosen" :at="at === null ? new Date(now).toISOString() : chosen.at" :timezone="timezone" />
      </section>
    </div>
    <SourceSettings v-if="document && settings" v-model="settings" :document="document" :state="state ?? null" @change="(to) => work.change(to)" />
    <FetchList
      v-if="fetches"
      v-model="fetches"
      :fetches="state?.fetches ?? []"
      :timezone="timezone"
      @look="((fetched = $event), (fetches = false))"
    />
    <FieldDialog
      v-if="editing !== null"
      :name="editing"
      :field="named()[editing] ?? `$.${editing}`"
      :taken="Object.keys(named())"
      @close="editing = null"
      @change="(to, field) => (setField(editing!, to, field), (editing = null))"
    />
  </main>
</template>

<style scoped>
.uses {
  padding: 5px 16px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.failure {
  color: var(--warning);
  margin-left: 8px;
}
.outline {
  display: flex;
  flex-direction: column;
  overflow: hidden !important;
}
.strip {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 12px;
  padding: 9px 16px 5px;
}
.strip h2 {
  font-size: 0.9375rem;
  white-space: nowrap;
}
.levels {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  flex: 1;
  min-height: 80px;
}
.asked {
  border-top: 1px solid var(--rule);
  padding: 9px 16px 12px;
  display: grid;
  gap: 8px;
  max-height: 46%;
  overflow: auto;
  flex: none;
  margin-top: auto;
}
.way {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.way input {
  flex: 1;
  min-width: 0;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  padding: 0;
  color: var(--ink);
}
.found {
  color: var(--kelp);
  white-space: nowrap;
}
.found-rows {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.bar {
  justify-content: flex-start;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 7px 16px;
}
.as-of {
  display: flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
}
.as-of input {
  width: 172px;
}
.next {
  color: var(--stop);
  white-space: nowrap;
}
.table-box {
  flex: 1;
  min-height: 120px;
}
</style>
