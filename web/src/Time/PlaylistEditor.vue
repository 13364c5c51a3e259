<script setup lang="ts">
import { computed, ref } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'
import type { Addresses, Fit, Item, Playing, Transition } from '../Layout/designs'
import { DAY_NAMES, FITS, TRANSITIONS, usePlayedLayouts, wayTo } from '../Layout/designs'
import LayoutPicker from '../Layout/LayoutPicker.vue'
import { useSources } from '../Data/sources'
import { type MediaState, refOf } from '../Media/media'
import MediaPicker from '../Media/MediaPicker.vue'
import { sentence } from '../ui/api'
import { seconds, size } from '../ui/format'
import type { Finding } from '../ui/shelf'
import { vKept } from '../ui/kept'
import FitOffers from './FitOffers.vue'
import { type ItemAct, itemActs, withItem } from './itemEdits'
import ItemTimes from './ItemTimes.vue'
import { mediaOf } from '../Layout/named'

/** What plays, in order: the same editor in a zone's ledger and for a playlist of its own. */
const props = defineProps<{
  items: Item[]
  media: Addresses
  due?: string | null
  /** Of the zone that plays this, in which layouts can play as well: its layout, and its size. */
  zone?: { layout: string; width: number; height: number }
  /** What the checks say of how content meets the zone. */
  findings?: Finding[]
  /** How often each comes and for which share of the time. */
  playing?: Playing
  /** Whether the zone changes with another. */
  follows?: boolean
  /** Ids that other items of the same list have already. */
  taken?: string[]
  /** Whether layouts can be put in, beside pictures and films. */
  withLayouts?: boolean
  /** Id of the saved playlist that this is. */
  own?: string
}>()
const emit = defineEmits<{ change: [items: Item[], gesture?: string]; goto: [item: string]; again: [said: string] }>()

const picking = ref(false)
const list = computed({ get: () => props.items, set: (items) => emit('change', items) })

const set = (index: number, change: Partial<Item>, gesture?: string) => emit('change', withItem(props.items, index, change), gesture)

const trouble = ref('')
const ask = itemActs(
  () => props.items,
  (items) => emit('change', items),
  () => props.taken ?? [],
)
const act = async (what: ItemAct) => {
  trouble.value = ''
  await ask(what).catch((e: unknown) => (trouble.value = sentence(e)))
}
const add = (chosen: MediaState[]) => act({ do: 'add', items: chosen.map((m) => ({ media: refOf(m) })) })

const choosing = ref(false)
const layouts = usePlayedLayouts()
const { all: sources } = useSources(false)
const sourceName = (id: string) => sources.value.find((one) => one.id === id)?.name ?? id
/** A layout that stands in the list whole has a name of its own, and is no design of the desk. */
const refOfItem = ({ layout }: Item) => (layout && 'ref' in layout ? layout.ref : null)
const layoutOf = (item: Item) => layouts.value.find((d) => d.id === refOfItem(item)) ?? null
const addLayout = (layout: { id: string }) => act({ do: 'add', items: [{ layout: { ref: layout.id } }] })

const open = ref<string | null>(null)
const figures = computed(() => Object.fromEntries((props.playing?.items ?? []).map((i) => [i.id, i])))
const rate = (id: string) => {
  const own = figures.value[id]
  if (!own || own.plays_per_hour === 0) return ''
  const often = own.plays_per_hour >= 10 ? Math.round(own.plays_per_hour) : Math.round(own.plays_per_hour * 10) / 10
  return `${often}/h, ${Math.round(own.share * 1000) / 10} %`
}
/** What is otherwise than usual, in a few words. */
const marks = (item: Item) => {
  const { from, until, days, hours } = item.valid ?? {}
  return [
    item.weight && item.weight > 1 ? `${item.weight} times a round` : '',
    item.tied ? 'tied to the one above' : '',
    item.volume || item.levels
      ? `volume ${item.volume ?? 0} %${(item.levels ?? []).map((l) => `, ${l.hours.join('-')} ${l.volume} %`).join('')}`
      : '',
    from ? `from ${from.slice(0, 16).replace('T', ' ')}` : '',
    until ? `until ${until.slice(0, 16).replace('T', ' ')}` : '',
    item.each ? `once for each row of ${sourceName(item.each.source)}` : '',
    item.when ? 'only while rows are chosen' : '',
    days?.map((d) => DAY_NAMES[d]).join(', ') ?? '',
    hours?.map((h) => h.join('-')).join(', ') ?? '',
  ]
    .filter(Boolean)
    .join('; ')
}

async function lasts(index: number, event: Event) {
  const field = event.target as HTMLInputElement
  await act({ do: 'last', item: props.items[index]!.id, typed: field.value })
  const item = props.items[index]
  if (trouble.value === '' && item) field.value = shownDuration(item)
}

const ownOf = (item: Item) => (item.media ? mediaOf(item.media) : undefined)
const shownDuration = (item: Item) => String((item.duration_ms ?? ownOf(item)?.length_ms ?? 0) / 1000)
const factsOf = (item: Item) => {
  const media = ownOf(item)
  if (!media) {
    const canvas = layoutOf(item)?.canvas
    return canvas ? `layout, ${size(canvas)}` : 'layout'
  }
  return `${media.length_ms ? `film ${seconds(media.length_ms)}` : 'picture'}, ${size(media)}`
}
const misfit = (item: Item) => props.findings?.find((f) => f.code === 'item.aspect' && f.measure?.item === item.id)
const nameOf = (item: Item) =>
  ownOf(item)?.name ?? layoutOf(item)?.name ?? (item.layout && 'name' in item.layout ? item.layout.name : refOfItem(item)) ?? item.id
const thumbnailOf = (item: Item) => props.media[ownOf(item)?.id ?? '']?.thumbnail ?? null
/** How it ends, where that is no figure that can be typed. */
const lastsWords = (item: Item) => {
  if (item.lasts === 'endless' && item.duration_ms === undefined) return 'without end'
  if (props.follows) return 'with its leader'
  if (item.duration_ms !== undefined || ownOf(item)?.length_ms !== undefined) return ''
  return item.layout ? 'its own loop' : ''
}
</script>

<template>
  <div>
    <VueDraggable v-model="list" tag="ol" handle=".grip" :animation="120" class="items">
      <li v-for="(item, i) in items" :key="item.id" :class="{ due: due === item.id, off: item.enabled === false, tied: item.tied && i > 0 }">
        <button
          type="button"
          class="grip"
          :aria-label="`Move ${nameOf(item)}; drag, or press with arrow up or down`"
          title="Drag, or arrow keys"
          @keydown.up.prevent="act({ do: 'move', item: item.id, by: -1 })"
          @keydown.down.prevent="act({ do: 'move', item: item.id, by: 1 })"
        >
          <img v-if="thumbnailOf(item)" :src="thumbnailOf(item)!" alt="" draggable="false" />
        </button>
        <div class="what">
          <button type="button" class="name" :title="`Show ${nameOf(item)} on the pane`" @click="emit('goto', item.id)">
            {{ nameOf(item) }}
          </button>
          <div class="figures soft">{{ factsOf(item) }}</div>
          <div v-if="marks(item)" class="figures marks">{{ marks(item) }}</div>
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
              @change="act({ do: 'come', item: item.id, kind: ($event.target as HTMLSelectElement).value as Transition['kind'] })"
            >
              <option v-for="kind in TRANSITIONS" :key="kind">{{ kind }}</option>
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
            <button
              type="button"
              class="btn btn-link btn-sm p-0"
              :aria-expanded="open === item.id"
              :aria-label="`More of ${nameOf(item)}`"
              @click="open = open === item.id ? null : item.id"
            >
              {{ open === item.id ? 'less' : 'more' }}
            </button>
            <RouterLink v-if="layoutOf(item)" class="small" :to="wayTo(layoutOf(item)!)">open</RouterLink>
          </div>
        </div>
        <div class="lasts figures">
          <span v-if="lastsWords(item)" class="words">{{ lastsWords(item) }}</span>
          <label v-else
            ><input
              v-kept="shownDuration(item)"
              class="form-control form-control-sm"
              inputmode="decimal"
              :aria-label="`Duration of ${nameOf(item)} in s`"
              @change="lasts(i, $event)"
              @keydown.enter="($event.target as HTMLInputElement).blur()"
              @keydown.esc.stop="($event.target as HTMLInputElement).value = shownDuration(item)"
            />
            s</label
          >
          <div v-if="rate(item.id)" class="soft rate" title="Plays an hour, and its share of the time">{{ rate(item.id) }}</div>
        </div>
        <ItemTimes
          v-if="open === item.id"
          class="more"
          :item="item"
          :name="nameOf(item)"
          :first="i === 0"
          :may-last="figures[item.id]?.may_last ?? ['stated']"
          :own="own"
          @change="set(i, $event)"
          @last="act({ do: 'last', item: item.id, how: $event })"
        />
      </li>
    </VueDraggable>
    <p v-if="trouble" class="said-error small px-3 pt-2 m-0" role="alert">{{ trouble }}</p>
    <p v-if="items.length === 0" class="soft small px-3 pt-2 mb-1">Nothing to play yet.</p>
    <button type="button" class="btn btn-outline-dark btn-sm add" @click="picking = true">Add pictures or films…</button>
    <button v-if="zone || withLayouts" type="button" class="btn btn-outline-dark btn-sm add" @click="choosing = true">Add a layout…</button>
    <MediaPicker v-model="picking" several @chosen="add" />
    <LayoutPicker
      v-if="zone || withLayouts"
      v-model="choosing"
      :without="zone?.layout ?? ''"
      :box="zone ?? { width: 1920, height: 1080 }"
      @chosen="addLayout"
    />
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
  flex-wrap: wrap;
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
  white-space: nowrap;
  text-align: right;
}
.lasts label {
  display: flex;
  align-items: center;
  gap: 4px;
  justify-content: end;
}
.rate {
  font-size: 0.75rem;
}
.marks {
  font-size: 0.75rem;
  color: var(--chalk);
}
li.tied {
  position: relative;
  border-top: 1px solid var(--sheet);
  margin-top: -1px;
}
/* A bracket to the item above. */
li.tied::before {
  content: '';
  position: absolute;
  left: 2px;
  top: -22px;
  height: 40px;
  width: 6px;
  border: 2px solid var(--kelp);
  border-right: 0;
}
.more {
  grid-column: 1 / -1;
}
.lasts input {
  width: 58px;
  text-align: right;
}
.add {
  margin: 8px 0 12px 14px;
}
</style>
