<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { type DisplaySettings, type PlaceSettings, useSettings } from '../Display/settings'
import { useEstate } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import { count } from '../ui/format'
import { type Change, saidOf, saying } from './overlays'

/** Where an overlay lies: a branch of the estate is one press, a place or display below takes it off again. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ changed: [] }>()
const { places, displays: stating } = useSettings()
const { displays } = useEstate(false)
const queries = useQueryClient()
const trouble = ref('')
const busy = ref('')

type One = PlaceSettings | DisplaySettings
const said = (one: One | undefined) => saidOf(one?.settings.overlays, props.id)
const holds = (one: One): boolean => ((one.resolved.overlays?.value as string[] | undefined) ?? []).includes(props.id)

const rows = computed(() => {
  const found: { at: 'places' | 'displays'; one: One; depth: number; count: number }[] = []
  const under = (parent: string | null, depth: number) => {
    for (const place of places.value.filter((one) => one.parent === parent)) {
      found.push({ at: 'places', one: place, depth, count: place.displays })
      for (const display of stating.value.filter((one) => one.place === place.id && said(one)))
        found.push({ at: 'displays', one: display, depth: depth + 1, count: 1 })
      under(place.id, depth + 1)
    }
  }
  under(null, 0)
  return found
})
const alone = ref('')
const others = computed(() => {
  const told = new Set(rows.value.map((row) => row.one.id))
  return displays.value.filter((d) => !told.has(d.id))
})
/** Those that say nothing themselves have what their place has. */
const holding = computed(() => new Set([...places.value, ...stating.value].filter(holds).map((one) => one.id)))
const statingById = computed(() => new Map(stating.value.map((one) => [one.id, one])))
const displayHolds = (d: { id: string; place: string }): boolean => holding.value.has(statingById.value.has(d.id) ? d.id : d.place)

async function put(at: 'places' | 'displays', id: string, value: Change | null) {
  trouble.value = ''
  busy.value = id
  try {
    await api.put(`${at}/${id}/settings`, { setting: 'overlays', value })
    for (const key of ['settings', 'estate', 'above', 'display']) await queries.invalidateQueries({ queryKey: [key] })
    emit('changed')
  } catch (e) {
    trouble.value = sentence(e)
  } finally {
    busy.value = ''
  }
}
/** Puts it there, or takes off what comes from above; pressed again, what was said here is taken back. */
const press = (at: 'places' | 'displays', one: One | undefined, id: string, isOn: boolean) =>
  put(at, id, saying(one?.settings.overlays, props.id, said(one) ? '' : isOn ? 'without' : 'add'))
const onOne = () => {
  const d = displays.value.find((one) => one.id === alone.value)
  if (d) void press('displays', statingById.value.get(d.id), d.id, displayHolds(d))
  alone.value = ''
}
const says = (row: { one: One }) => ({ add: 'put here', without: 'taken off here', '': holds(row.one) ? 'from above' : '' })[said(row.one)]
</script>

<template>
  <section class="whom" aria-label="For whom">
    <h2>For whom</h2>
    <ul>
      <li v-for="row in rows" :key="row.one.id" :style="{ paddingLeft: `${18 * row.depth}px` }">
        <label>
          <input
            type="checkbox"
            :checked="holds(row.one)"
            :disabled="busy === row.one.id"
            @change="press(row.at, row.one, row.one.id, holds(row.one))"
          />
          {{ row.one.name }}<span v-if="row.at === 'displays'" class="small soft"> display</span>
        </label>
        <span class="small soft">{{ says(row) }}</span>
        <span class="figures soft">{{ row.at === 'places' ? row.count : '' }}</span>
      </li>
    </ul>
    <label class="one small"
      >One display otherwise
      <select v-model="alone" class="form-select form-select-sm" @change="onOne">
        <option value="">choose it</option>
        <option v-for="d in others" :key="d.id" :value="d.id">{{ d.name }}: {{ displayHolds(d) ? 'take it off' : 'put it there' }}</option>
      </select></label
    >
    <p v-if="trouble" class="said-error small m-0" role="alert">{{ trouble }}</p>
    <p v-if="!rows.some((row) => holds(row.one))" class="small soft m-0">
      It lies nowhere yet: {{ count(displays.length, 'display') }} could carry it. Nothing is shown before it is put up.
    </p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto 34px;
  gap: 8px;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding: 3px 0;
}
li .figures {
  text-align: right;
}
.one {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
}
h2 {
  font-size: 0.9375rem;
  margin: 0 0 4px;
}
</style>
