<script setup lang="ts">
import { computed } from 'vue'
import type { Addresses, Interleave, Listed, Playing } from '../Layout/designs'
import { useDesigns } from '../Layout/designs'
import { seconds } from '../ui/format'
import { vKept } from '../ui/kept'
import type { Finding } from '../ui/shelf'
import PlaylistEditor from './PlaylistEditor.vue'

/** A playlist as a whole: its items, what is put in between, and how it goes round. */
const props = defineProps<{
  list: Listed
  media: Addresses
  due?: string | null
  zone?: { layout: string; width: number; height: number }
  findings?: Finding[]
  playing?: Playing
  follows?: boolean
  withLayouts?: boolean
  /** Id of the saved playlist that this is, which is not put into itself. */
  own?: string
}>()
const emit = defineEmits<{ change: [list: Listed, gesture?: string]; goto: [item: string]; again: [said: string] }>()

const { all } = useDesigns('playlists')
const others = computed(() => all.value.filter((p) => p.id !== props.own))
const between = computed(() => props.list.interleave ?? null)
const source = computed(() => (between.value === null ? '' : 'ref' in between.value ? between.value.ref : 'here'))
const extras = computed(() => (between.value && 'items' in between.value ? between.value.items : null))

function put(interleave: Interleave | undefined, gesture?: string) {
  const { items } = props.list
  emit('change', interleave ? { items, interleave } : { items }, gesture)
}
function from(chosen: string) {
  const every = between.value?.every ?? 2
  if (chosen === '') put(undefined)
  else put(chosen === 'here' ? { every, items: [] } : { every, ref: chosen })
}
function every(event: Event) {
  const field = event.target as HTMLInputElement
  const n = Math.round(Number(field.value))
  if (between.value && field.value.trim() !== '' && n >= 1 && n <= 1000) put({ ...between.value, every: n })
  else field.value = String(between.value?.every ?? 2)
}

/** The order in which all comes, by places in the list: 1 2 a 3 4 b. */
const order = computed(() => {
  const { playing } = props
  if (!playing || !between.value) return ''
  const main = new Map(props.list.items.map((item, n) => [item.id, String(n + 1)]))
  const letters = new Map(playing.items.filter((i) => !main.has(i.id)).map((i, n) => [i.id, String.fromCharCode(97 + (n % 26))]))
  const shown = playing.cycle.slice(0, 24).map((id) => main.get(id) ?? letters.get(id) ?? '?')
  return shown.join(' ') + (playing.cycle_items > 24 ? ' …' : '')
})
const round = computed(() => {
  const { playing } = props
  if (!playing || playing.cycle_items === 0) return ''
  const items = `${playing.cycle_items} ${playing.cycle_items === 1 ? 'item' : 'items'}`
  const some = [...props.list.items, ...(extras.value ?? [])].some((i) => i.valid && i.enabled !== false) ? ' while all are due' : ''
  return playing.cycle_ms === null ? `${items}, the last without end` : `${items} in ${seconds(playing.cycle_ms)}${some}, then again`
})
</script>

<template>
  <div>
    <PlaylistEditor
      :items="list.items"
      :media="media"
      :due="due"
      :zone="zone"
      :findings="findings"
      :playing="playing"
      :follows="follows"
      :with-layouts="withLayouts"
      :own="own"
      :taken="extras?.map((i) => i.id)"
      @change="(items, gesture) => emit('change', { ...list, items }, gesture)"
      @goto="emit('goto', $event)"
      @again="emit('again', $event)"
    />
    <section class="between" aria-label="Put in between">
      <div class="line">
        <label for="between-from">Put in between</label>
        <select id="between-from" class="form-select form-select-sm" :value="source" @change="from(($event.target as HTMLSelectElement).value)">
          <option value="">nothing</option>
          <option value="here">what stands here</option>
          <option v-for="p in others" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select>
        <template v-if="between">
          <label
            >after every
            <input
              v-kept="between.every"
              class="form-control form-control-sm figures"
              inputmode="numeric"
              aria-label="After how many items one is put in"
              @change="every"
            />
            {{ between.every === 1 ? 'item' : 'items' }}</label
          >
        </template>
      </div>
      <PlaylistEditor
        v-if="extras"
        :items="extras"
        :media="media"
        :due="due"
        :zone="zone"
        :findings="findings"
        :playing="playing"
        :follows="follows"
        :with-layouts="withLayouts"
        :own="own"
        :taken="list.items.map((i) => i.id)"
        @change="(items, gesture) => put({ every: between!.every, items }, gesture)"
        @goto="emit('goto', $event)"
        @again="emit('again', $event)"
      />
      <p v-if="round" class="figures round">
        {{ round }}<template v-if="order">: {{ order }}</template>
      </p>
    </section>
  </div>
</template>

<style scoped>
.between {
  border-top: 1px solid var(--ink);
  margin-top: 2px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  padding: 8px 14px;
  font-size: 0.875rem;
}
.line select {
  width: auto;
  max-width: 190px;
}
.line label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
}
.line input {
  width: 52px;
  text-align: right;
}
.round {
  padding: 0 14px 10px;
  margin: 0;
}
</style>
