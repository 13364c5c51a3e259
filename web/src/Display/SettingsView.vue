<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useEstate } from '../Estate/estate'
import BeforeAfter from '../Layout/BeforeAfter.vue'
import { useDesigns } from '../Layout/designs'
import type { Picture } from '../Layout/style'
import { api, sentence } from '../ui/api'
import { count, some } from '../ui/format'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import { useShelf } from '../ui/shelf'
import { hoursSaid, type Open } from './hours'
import { type DisplaySettings, type Held, type PlaceSettings, useSettings } from './settings'
import ComparedSettings from './ComparedSettings.vue'
import SettingField from './SettingField.vue'

/** All places and one setting: what holds at each, where it comes from, and what changing it would make of the displays there, before it happens. */
const { query, places, displays: stating, timezones } = useSettings()
const { displays } = useEstate(false)
const { all: styles } = useDesigns('styles')
const { all: overlays } = useDesigns('overlays')
const { all: triggers } = useDesigns('triggers')
const queries = useQueryClient()
const route = useRoute()
const router = useRouter()
const shelf = useShelf()

const WORDS: Record<string, string> = {
  timezone: 'Time zone',
  style: 'House style',
  languages: 'Languages',
  standby: 'Standby',
  hours: 'Opening hours',
  overlays: 'Overlays',
  triggers: 'Triggers',
}
const vars = computed(() => [
  ...new Set([...places.value, ...stating.value].flatMap((one) => Object.keys(one.resolved).filter((name) => name.startsWith('vars.')))),
])
const setting = computed({
  get: () => (typeof route.query.setting === 'string' ? route.query.setting : 'timezone'),
  set: (chosen) => void router.replace({ query: { ...route.query, setting: chosen } }),
})
const newVar = ref('')
function addVar() {
  if (!/^[a-z][a-z0-9_]*$/.test(newVar.value)) return
  setting.value = `vars.${newVar.value}`
  newVar.value = ''
}
const called = (name: string) => WORDS[name] ?? name.replace('vars.', '')

type Row = { kind: 'places' | 'displays'; depth: number; one: PlaceSettings | DisplaySettings; reach: number }
/** Places as they lie in one another, each with the displays below it that state this setting themselves. */
const rows = computed<Row[]>(() => {
  const found: Row[] = []
  const under = (parent: string | null, depth: number) => {
    for (const place of places.value.filter((one) => one.parent === parent)) {
      found.push({ kind: 'places', depth, one: place, reach: place.displays })
      for (const display of stating.value.filter((one) => one.place === place.id && statedOf(one) !== undefined))
        found.push({ kind: 'displays', depth: depth + 1, one: display, reach: 1 })
      under(place.id, depth + 1)
    }
  }
  under(null, 0)
  return found
})
function statedOf(one: PlaceSettings | DisplaySettings): unknown {
  const [first, name] = setting.value.split('.') as [keyof PlaceSettings['settings'], string?]
  const value = one.settings[first] as Record<string, unknown> | undefined
  return name === undefined ? value : value?.[name]
}
const held = (one: PlaceSettings | DisplaySettings): Held | undefined => one.resolved[setting.value]
const nameOf = (id: unknown): string =>
  Array.isArray(id) ? [...new Set(id.map(nameOf))].join(', ') : ([...places.value, ...stating.value].find((one) => one.id === id)?.name ?? String(id))
function said(value: unknown, of = setting.value): string {
  if (typeof value === 'number') return String(value)
  if (typeof value === 'string') return (of === 'style' && styles.value.find((one) => one.id === value)?.name) || value
  if (of === 'hours' && Array.isArray(value)) return hoursSaid(value as Open[])
  if (Array.isArray(value))
    return (
      value
        .map(
          (one) => [...overlays.value, ...triggers.value].find((o) => (of === 'overlays' || of === 'triggers') && o.id === one)?.name || String(one),
        )
        .join(', ') || 'none'
    )
  const refs = Object.entries((value ?? {}) as Record<string, string>)
  return refs.map(([kind, id]) => `${kind} ${id}`).join(', ') || '–'
}

// --- changing one -------------------------------------------------------------------------------

const chosen = ref<{ kind: 'places' | 'displays'; id: string } | null>(null)
const row = computed(() => rows.value.find((one) => one.one.id === chosen.value?.id) ?? null)
const wanted = ref<unknown>(undefined)
const trouble = ref('')
const done = ref('')
const forDisplay = ref('')
watch(setting, () => {
  wanted.value = undefined
  trouble.value = done.value = ''
})
function choose(next: Row | null) {
  chosen.value = next && { kind: next.kind, id: next.one.id }
  wanted.value = undefined
  trouble.value = done.value = ''
}
function chooseDisplay(id: string) {
  forDisplay.value = ''
  chosen.value = { kind: 'displays', id }
  wanted.value = undefined
}
const aDisplay = computed(() =>
  chosen.value && !row.value && chosen.value.kind === 'displays' ? (displays.value.find((one) => one.id === chosen.value!.id) ?? null) : null,
)
const at = computed(() => (chosen.value ? `${chosen.value.kind}/${chosen.value.id}/settings` : ''))
const body = computed(() => ({ setting: setting.value, value: wanted.value }))
const reach = useQuery({
  queryKey: ['settings-reach', at, body],
  enabled: computed(() => wanted.value !== undefined && chosen.value !== null),
  queryFn: () =>
    api.post<{ displays: { id: string; name: string; before: unknown; after: unknown; shows: string | null; other: boolean }[] }>(
      `${at.value}/reach`,
      body.value,
    ),
  retry: false,
})
const reached = computed(() => (wanted.value === undefined ? [] : (reach.data.value?.displays ?? [])))
const others = computed(() => reached.value.filter((one) => one.other))
/** Those on which something would look otherwise stand first. */
const { shown, left, end } = useGrowing(() => [...others.value, ...reached.value.filter((one) => !one.other)], 24)
const pictures = (display: string) => {
  const [where, what] = [at.value, body.value]
  return () => api.post<{ before: Picture | null; after: Picture | null }>(`${where}/reach/${display}`, what)
}
async function state() {
  trouble.value = ''
  try {
    await api.put(at.value, body.value)
    done.value = others.value.length
      ? `Stated. ${some(others.value.map((one) => one.name))} ${others.value.length === 1 ? 'shows' : 'show'} it once ${others.value.length === 1 ? 'it is' : 'they are'} handed over.`
      : 'Stated.'
    wanted.value = undefined
    for (const key of ['settings', 'estate', 'house-style', 'picture', 'display']) await queries.invalidateQueries({ queryKey: [key] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
watchEffect(() => {
  shelf.findings = []
  shelf.remark = `${count(places.value.length, 'place')}, ${called(setting.value).toLowerCase()}`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Settings of places</h1>
        <p class="facts m-0">The nearest place decides, the display itself before it; what nobody states comes from above</p>
      </div>
      <div class="actions">
        <label class="which"
          >Setting
          <select v-model="setting" class="form-select w-auto">
            <option v-for="(text, name) in WORDS" :key="name" :value="name">{{ text }}</option>
            <optgroup label="Told by messages">
              <option v-for="name in vars.includes(setting) || !setting.startsWith('vars.') ? vars : [...vars, setting]" :key="name" :value="name">
                {{ name.replace('vars.', '') }}
              </option>
            </optgroup>
          </select></label
        >
        <form class="which" @submit.prevent="addVar">
          <input
            v-model.trim="newVar"
            class="form-control w-auto"
            placeholder="new: phone, fax…"
            aria-label="Name of a new value"
            pattern="[a-z][a-z0-9_]*"
          />
          <button type="submit" class="btn btn-outline-dark" :disabled="!newVar">Begin</button>
        </form>
      </div>
    </div>
    <div class="split">
      <section aria-label="Places">
        <p v-if="query.isPending.value" class="empty">Reading the settings.</p>
        <p v-else-if="query.error.value" class="empty said-error">{{ query.error.value.message }}</p>
        <table v-else class="table table-sm">
          <thead>
            <tr>
              <th scope="col">Place</th>
              <th scope="col">{{ called(setting) }}</th>
              <th scope="col">Comes from</th>
              <th scope="col">Instead of</th>
              <th scope="col" class="text-end">Displays</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows" :key="r.one.id" :class="{ chosen: chosen?.id === r.one.id }">
              <th scope="row" :style="{ paddingLeft: `${8 + 18 * r.depth}px` }">
                <button type="button" class="btn btn-link p-0" :aria-pressed="chosen?.id === r.one.id" @click="choose(r)">{{ r.one.name }}</button>
                <span v-if="r.kind === 'displays'" class="small soft"> display</span>
              </th>
              <td class="value" :class="{ own: statedOf(r.one) !== undefined }">{{ said(held(r.one)?.value) }}</td>
              <td class="small soft">
                {{ held(r.one) ? (held(r.one)!.from === r.one.id ? 'stated here' : nameOf(held(r.one)!.from)) : 'nobody' }}
              </td>
              <td class="small soft">
                {{ statedOf(r.one) !== undefined && held(r.one)?.instead_of?.length ? said(held(r.one)!.instead_of![0]!.value) : '' }}
              </td>
              <td class="figures text-end">{{ r.reach }}</td>
            </tr>
          </tbody>
        </table>
        <label class="which small"
          >For one display alone
          <select v-model="forDisplay" class="form-select form-select-sm w-auto" @change="chooseDisplay(forDisplay)">
            <option value="">choose it</option>
            <option v-for="d in displays" :key="d.id" :value="d.id">{{ d.name }}</option>
          </select></label
        >
        <p v-if="setting.startsWith('vars.')" class="small soft">
          Messages tell it as <code>{place_{{ setting.replace('vars.', '') }}}</code>.
        </p>
      </section>
      <aside aria-label="Change">
        <template v-if="chosen && (row || aDisplay)">
          <h2>{{ called(setting) }} at {{ row?.one.name ?? aDisplay!.name }}</h2>
          <p v-if="row && held(row.one)" class="small soft m-0">
            {{ said(held(row.one)!.value) }},
            {{ held(row.one)!.from === row.one.id ? 'stated here' : `from ${nameOf(held(row.one)!.from)}` }}
          </p>
          <SettingField
            :key="`${chosen.id} ${setting}`"
            :setting="setting"
            :value="row ? held(row.one)?.value : undefined"
            :timezones="timezones"
            :stated="row ? statedOf(row.one) : undefined"
            @change="((wanted = $event), (done = ''))"
          />
          <button v-if="row && statedOf(row.one) !== undefined" type="button" class="btn btn-link btn-sm p-0" @click="((wanted = null), (done = ''))">
            back to what comes from above
          </button>
          <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
          <p v-if="done" class="note small" role="status">{{ done }}</p>
          <template v-if="wanted !== undefined">
            <p v-if="reach.error.value" class="said-error small" role="alert">{{ sentence(reach.error.value) }}</p>
            <template v-else-if="reach.data.value">
              <p class="m-0">
                {{ reached.length ? `Would hold on ${count(reached.length, 'display')}` : 'Would change nothing on any display'
                }}{{
                  others.length
                    ? `; it decides how what stands on ${others.length} of them looks`
                    : reached.length
                      ? '; nothing that stands on them depends on it'
                      : ''
                }}.
              </p>
              <BButton variant="primary" @click="state">{{ wanted === null ? 'Leave it to what comes from above' : 'State it' }}</BButton>
              <ul class="reached">
                <li v-for="one in shown" :key="one.id">
                  <span class="name">{{ one.name }}</span>
                  <span class="small soft">
                    {{ said(one.before) }} → {{ said(one.after) }}{{ one.shows ? `, ${one.shows}` : ', nothing handed over' }}</span
                  >
                  <BeforeAfter v-if="one.other" :of="`${one.id} ${JSON.stringify(body)}`" :load="pictures(one.id)" />
                </li>
              </ul>
              <div ref="end"><ListEnd :left="left" /></div>
            </template>
          </template>
          <ComparedSettings
            v-if="row && wanted === undefined"
            :one="row.one"
            :all="[...places, ...stating]"
            :called="called"
            :said="said"
            :name-of="nameOf"
            @choose="setting = $event"
          />
        </template>
        <template v-else>
          <h2>Change one</h2>
          <p class="soft">
            Choose a place: what it states holds on all displays in it, unless a place or display below states its own. What would be another then
            stands here before anything happens.
          </p>
        </template>
      </aside>
    </div>
  </main>
</template>

<style scoped>
tr.chosen > * {
  background: var(--kelp-wash);
}
code {
  color: inherit;
}
.own {
  font-weight: 650;
}
td.value:not(.own) {
  color: var(--soft);
}
tbody > tr > * {
  vertical-align: baseline;
}
th .btn {
  color: var(--ink);
}
.which {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
