<script setup lang="ts">
import { computed, ref } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'
import type { Addresses, Fit, Item } from '../Layout/designs'
import { FITS, useDesigns } from '../Layout/designs'
import LayoutPicker from '../Layout/LayoutPicker.vue'
import { type MediaState, refOf } from '../Media/media'
import MediaPicker from '../Media/MediaPicker.vue'
import { seconds, size } from '../ui/format'
import type { Finding } from '../ui/shelf'
import { vKept } from '../ui/kept'
import FitOffers from './FitOffers.vue'

/** What plays, in order: the same editor in a zone's ledger and for a playlist of its own. */
const props = defineProps<{
  items: Item[]
  media: Addresses
  due?: string | null
  /** Of the zone that plays this, in which layouts can play as well: its layout, and its size. */
  zone?: { layout: string; width: number; height: number }
  /** What the checks say of how content meets the zone. */
  findings?: Finding[]
}>()
const emit = defineEmits<{ change: [items: Item[], gesture?: string]; goto: [item: string]; again: [said: string] }>()

const picking = ref(false)
const list = computed({ get: () => props.items, set: (items) => emit('change', items) })

const set = (index: number, change: Partial<Item>, gesture?: string) => {
  const items = props.items.map((item, i) => (i === index ? { ...item, ...change } : item))
  // A field set to undefined is taken away, so that the document keeps only what is meant.
  emit(
    'change',
    items.map((item) => Object.fromEntries(Object.entries(item).filter(([, v]) => v !== undefined)) as unknown as Item),
    gesture,
  )
}

function freeId(items: Item[]): string {
  let n = items.length + 1
  while (items.some((i) => i.id === `i${n}`)) n++
  return `i${n}`
}

function add(chosen: MediaState[]) {
  const items = [...props.items]
  for (const m of chosen) {
    items.push({ id: freeId(items), media: refOf(m), ...(m.kind === 'picture' ? { duration_ms: 10_000 } : {}), fit: 'cover' })
  }
  emit('change', items)
}

const choosing = ref(false)
const { all: layouts } = useDesigns('layouts')
const layoutOf = (item: Item) => layouts.value.find((d) => d.id === item.layout?.ref) ?? null
function addLayout(layout: { id: string }) {
  emit('change', [...props.items, { id: freeId(props.items), layout: { ref: layout.id }, duration_ms: 10_000, fit: 'contain' }])
}

function move(index: number, by: number) {
  const items = [...props.items]
  const [item] = items.splice(index, 1)
  items.splice(index + by, 0, item!)
  emit('change', items)
}

function lasts(index: number, event: Event) {
  const field = event.target as HTMLInputElement
  const s = Number(field.value.replace(',', '.'))
  const item = props.items[index]!
  if (!Number.isFinite(s) || s < 0.001) {
    field.value = shownDuration(item)
    return
  }
  const ms = Math.round(s * 1000)
  const own = item.media?.length_ms === ms
  const fade = item.transition?.kind === 'fade' ? Math.min(item.transition.ms ?? 500, ms) : undefined
  set(index, {
    duration_ms: own ? undefined : ms,
    lasts: undefined,
    ...(fade === undefined ? {} : { transition: { kind: 'fade' as const, ms: fade } }),
  })
}

const shownDuration = (item: Item) => String((item.duration_ms ?? item.media?.length_ms ?? 0) / 1000)
const factsOf = (item: Item) => {
  if (!item.media) {
    const canvas = layoutOf(item)?.canvas
    return canvas ? `layout, ${size(canvas)}` : 'layout'
  }
  return `${item.media.length_ms ? `film ${seconds(item.media.length_ms)}` : 'picture'}, ${size(item.media)}`
}
const misfit = (item: Item) => props.findings?.find((f) => f.code === 'item.aspect' && f.measure?.item === item.id)
const nameOf = (item: Item) => item.media?.name ?? layoutOf(item)?.name ?? item.layout?.ref ?? item.id
/** A layout lasts so many seconds, or until its own loops have come round. */
const itsOwnLoop = (index: number) => set(index, { duration_ms: undefined, lasts: 'own' })
</script>

<template>
  <div>
    <VueDraggable v-model="list" tag="ol" handle=".grip" :animation="120" class="items">
      <li v-for="(item, i) in items" :key="item.id" :class="{ due: due === item.id, off: item.enabled === false }">
        <button
          type="button"
          class="grip"
          :aria-label="`Move ${nameOf(item)}; drag, or press with arrow up or down`"
          title="Drag, or arrow keys"
          @keydown.up.prevent="i > 0 && move(i, -1)"
          @keydown.down.prevent="i < items.length - 1 && move(i, 1)"
        >
          <img v-if="item.media?.id && media[item.media.id]?.thumbnail" :src="media[item.media.id]!.thumbnail!" alt="" draggable="false" />
        </button>
        <div class="what">
          <button type="button" class="name" :title="`Show ${nameOf(item)} on the pane`" @click="emit('goto', item.id)">
            {{ nameOf(item) }}
          </button>
          <div class="figures soft">{{ factsOf(item) }}</div>
          <FitOffers
            v-if="zone && misfit(item)"
            :item="item"
            :finding="misfit(item)!"
            :zone="zone"
            @fit="set(i, { fit: $event })"
            @again="emit('again', $event)"
          />
          <div class="how">
            <select
              class="form-select form-select-sm"
              :value="item.fit ?? 'contain'"
              :aria-label="`Fit of ${nameOf(item)}`"
              @change="set(i, { fit: ($event.target as HTMLSelectElement).value as Fit })"
            >
              <option v-for="fit in FITS" :key="fit">{{ fit }}</option>
            </select>
            <select
              class="form-select form-select-sm"
              :value="item.transition?.kind ?? 'cut'"
              :aria-label="`Transition to ${nameOf(item)}`"
              @change="
                set(i, {
                  transition: ($event.target as HTMLSelectElement).value === 'fade' ? { kind: 'fade', ms: 600 } : undefined,
                })
              "
            >
              <option>cut</option>
              <option>fade</option>
            </select>
            <button type="button" class="btn btn-link btn-sm p-0" @click="set(i, { enabled: item.enabled === false ? undefined : false })">
              {{ item.enabled === false ? 'on' : 'off' }}
            </button>
            <button
              type="button"
              class="btn btn-link btn-sm p-0"
              :aria-label="`Take ${nameOf(item)} out`"
              @click="
                emit(
                  'change',
                  items.filter((_, n) => n !== i),
                )
              "
            >
              take out
            </button>
            <template v-if="item.layout">
              <button v-if="item.duration_ms !== undefined" type="button" class="btn btn-link btn-sm p-0" @click="itsOwnLoop(i)">its own loop</button>
              <RouterLink v-if="'ref' in item.layout" class="small" :to="`/layouts/${item.layout.ref}`">open</RouterLink>
            </template>
          </div>
        </div>
        <button
          v-if="item.layout && item.lasts === 'own' && item.duration_ms === undefined"
          type="button"
          class="btn btn-link btn-sm p-0 lasts"
          title="Let it last so many seconds instead"
          @click="set(i, { duration_ms: 10_000, lasts: undefined })"
        >
          its own loop
        </button>
        <label v-else class="lasts figures"
          ><input
            v-if="item.lasts !== 'endless'"
            v-kept="shownDuration(item)"
            class="form-control form-control-sm"
            inputmode="decimal"
            :aria-label="`Duration of ${nameOf(item)} in s`"
            @change="lasts(i, $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
          /><span v-if="item.lasts !== 'endless'"> s</span><span v-else>without end</span></label
        >
      </li>
    </VueDraggable>
    <p v-if="items.length === 0" class="soft small px-3 pt-2 mb-1">Nothing to play yet.</p>
    <button type="button" class="btn btn-outline-dark btn-sm add" @click="picking = true">Add pictures or films…</button>
    <button v-if="zone" type="button" class="btn btn-outline-dark btn-sm add" @click="choosing = true">Add a layout…</button>
    <MediaPicker v-model="picking" several @chosen="add" />
    <LayoutPicker v-if="zone" v-model="choosing" :without="zone.layout" :box="zone" @chosen="addLayout" />
  </div>
</template>

<style scoped>
.items {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr) auto;
  gap: 10px;
  padding: 6px 14px 6px 10px;
  border-bottom: 1px solid var(--rule);
  border-left: 4px solid transparent;
  align-items: start;
}
li.due {
  border-left-color: var(--kelp);
}
li.off .what .name,
li.off img {
  opacity: 0.45;
}
.grip {
  border: 0;
  padding: 0;
  background: var(--ground);
  width: 52px;
  height: 36px;
  cursor: grab;
  overflow: hidden;
}
.grip img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.name {
  border: 0;
  background: none;
  padding: 0;
  font-size: 0.875rem;
  max-width: 100%;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  display: block;
  text-align: left;
  color: var(--ink);
}
.how {
  display: flex;
  gap: 6px;
  margin-top: 3px;
  align-items: center;
}
.how select {
  width: auto;
  font-size: 0.75rem;
  padding: 0 1.5rem 0 0.3rem;
  background-position: right 0.3rem center;
}
.lasts {
  display: flex;
  align-items: center;
  gap: 4px;
  white-space: nowrap;
}
.lasts input {
  width: 58px;
  text-align: right;
}
.add {
  margin: 8px 0 12px 14px;
}
</style>
