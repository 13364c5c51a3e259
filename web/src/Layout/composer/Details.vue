<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useEstate } from '../../Estate/estate'
import { refOf, useMedia } from '../../Media/media'
import MediaPicker from '../../Media/MediaPicker.vue'
import { loadFaces, type Face } from '../../pane/faces'
import PlaylistEditor from '../../Time/PlaylistEditor.vue'
import { api } from '../../ui/api'
import { seconds, size } from '../../ui/format'
import TypedLine from '../../ui/TypedLine.vue'
import {
  type Addresses,
  type Analysis,
  FITS,
  type Fit,
  type Item,
  type PictureElement,
  type ShapeElement,
  type Style,
  type TextElement,
  type ZoneElement,
} from '../designs'
import { useComposer } from './composer'
import FigureField from './FigureField.vue'
import { useHand } from './hand'

/** What is typed about the one element that is chosen, or about the canvas when none is. */
const props = defineProps<{ analysis: Analysis | null; display: string | null }>()
const emit = defineEmits<{ display: [id: string | null] }>()
const composer = useComposer()
const hand = useHand()
const due = hand.due
const { displays } = useEstate()
const { ready } = useMedia()
const one = composer.only
const picking = ref(false)

const faces = useQuery({
  queryKey: ['faces'],
  staleTime: Infinity,
  queryFn: async () => {
    const { faces: all } = await api.get<{ faces: Face[] }>('faces')
    await loadFaces(all)
    return all
  },
})
const families = computed(() => [...new Set((faces.data.value ?? []).map((f) => f.family))])
const weights = (family?: string) => (faces.data.value ?? []).filter((f) => f.family === (family ?? 'Inter')).map((f) => f.weight)
const addresses = computed<Addresses>(() =>
  Object.fromEntries(ready.value.map((m) => [m.id, { url: m.url ?? '', thumbnail: m.thumbnail, type: m.type ?? '' }])),
)
const style = (e: TextElement, change: Partial<Style>, gesture?: string) =>
  composer.edit<TextElement>(e.id, { style: { ...e.style, ...change } }, gesture)
const text = (event: Event) => (event.target as HTMLInputElement).value
const zoneItems = (e: ZoneElement): Item[] | null => ('items' in e.playlist ? e.playlist.items : null)
const loopOf = (id: string) => {
  const loop = props.analysis?.loops[id]
  return loop === null ? 'without end' : loop ? seconds(loop) : ''
}
const fromDisplay = computed(() => displays.value.find((d) => d.id === props.display) ?? null)
const raster = (side: 'width' | 'height', value: number, gesture?: string) =>
  composer.set({ canvas: { ...composer.document.value.canvas, [side]: value } }, gesture)
const rename = (name: string) => one.value && composer.edit(one.value.id, { name: name === one.value.id ? undefined : name })
</script>

<template>
  <section v-if="one" class="details" :aria-label="`Details of ${one.id}`">
    <h2>
      <TypedLine :value="one.name ?? one.id" label="Name of the element" @change="rename" />
      <span v-if="one.kind === 'zone'" class="figures"
        ><template v-if="zoneItems(one)">{{ zoneItems(one)!.length }} {{ zoneItems(one)!.length === 1 ? 'item' : 'items' }} ·</template>
        {{ loopOf(one.id) }}</span
      >
      <span class="stack">
        <button type="button" class="btn btn-link btn-sm p-0" title="One higher in the stack" @click="composer.restack(one.id, 1)">raise</button>
        <button type="button" class="btn btn-link btn-sm p-0" title="One lower in the stack" @click="composer.restack(one.id, -1)">lower</button>
      </span>
    </h2>
    <template v-if="one.kind === 'zone'">
      <PlaylistEditor
        v-if="zoneItems(one)"
        :items="zoneItems(one)!"
        :media="addresses"
        :due="due[one.id]"
        @change="(items, gesture) => composer.edit<ZoneElement>(one!.id, { playlist: { items } }, gesture)"
        @goto="hand.toItem(one.id, $event)"
      />
      <p v-else class="px-3">Plays a <RouterLink :to="`/playlists/${(one.playlist as { ref: string }).ref}`">saved playlist</RouterLink>.</p>
    </template>
    <div v-else-if="one.kind === 'text'" class="form">
      <textarea
        class="form-control"
        rows="3"
        :value="one.text"
        aria-label="Text"
        maxlength="10000"
        @input="composer.edit<TextElement>(one.id, { text: text($event) }, `text ${one.id}`)"
      ></textarea>
      <label
        >Face<select
          class="form-select form-select-sm"
          :value="one.style.family ?? 'Inter'"
          @change="style(one, { family: text($event), weight: weights(text($event))[0] })"
        >
          <option v-for="f in families" :key="f">{{ f }}</option>
        </select></label
      >
      <label
        >Weight<select class="form-select form-select-sm" :value="one.style.weight ?? 400" @change="style(one, { weight: Number(text($event)) })">
          <option v-for="w in weights(one.style.family)" :key="w">{{ w }}</option>
        </select></label
      >
      <label
        >Size, px<span class="figures"
          ><FigureField
            :value="one.style.size_px"
            :least="1"
            label="size of the text in px"
            @change="(v, g) => style(one as TextElement, { size_px: v }, g)" /></span
      ></label>
      <label
        >Colour<input
          type="color"
          class="form-control form-control-color"
          :value="(one.style.color ?? '#000000').slice(0, 7)"
          @input="style(one, { color: text($event) }, `colour ${one.id}`)"
      /></label>
      <label
        >Align<select
          class="form-select form-select-sm"
          :value="one.style.align ?? 'start'"
          @change="style(one, { align: text($event) as Style['align'] })"
        >
          <option>start</option>
          <option>center</option>
          <option>end</option>
        </select></label
      >
      <label
        >In its box<select
          class="form-select form-select-sm"
          :value="one.style.valign ?? 'top'"
          @change="style(one, { valign: text($event) as Style['valign'] })"
        >
          <option>top</option>
          <option>middle</option>
          <option>bottom</option>
        </select></label
      >
    </div>
    <div v-else-if="one.kind === 'shape'" class="form">
      <label
        >Shape<select
          class="form-select form-select-sm"
          :value="one.shape ?? 'rectangle'"
          @change="composer.edit<ShapeElement>(one.id, { shape: text($event) as 'rectangle' | 'ellipse' })"
        >
          <option>rectangle</option>
          <option>ellipse</option>
        </select></label
      >
      <label
        >Colour<input
          type="color"
          class="form-control form-control-color"
          :value="one.fill.slice(0, 7)"
          @input="composer.edit<ShapeElement>(one.id, { fill: text($event) }, `colour ${one.id}`)"
      /></label>
      <label v-if="one.shape !== 'ellipse'"
        >Corners, px<span class="figures"
          ><FigureField
            :value="one.radius_px ?? 0"
            :least="0"
            label="radius of the corners in px"
            @change="(v, g) => composer.edit<ShapeElement>(one!.id, { radius_px: v }, g)" /></span
      ></label>
    </div>
    <div v-else class="form">
      <p class="wide m-0">
        {{ one.media.name }} <span class="figures soft">{{ size(one.media) }} px</span>
      </p>
      <label
        >Fit<select
          class="form-select form-select-sm"
          :value="one.fit ?? 'contain'"
          @change="composer.edit<PictureElement>(one.id, { fit: text($event) as Fit })"
        >
          <option v-for="f in FITS" :key="f">{{ f }}</option>
        </select></label
      >
      <BButton size="sm" variant="outline-dark" @click="picking = true">Another picture…</BButton>
      <MediaPicker v-model="picking" pictures-only @chosen="([m]) => m && composer.edit<PictureElement>(one!.id, { media: refOf(m) })" />
    </div>
  </section>
  <section v-else-if="composer.chosen.value.size === 0" class="details" aria-label="Canvas">
    <h2>Canvas</h2>
    <div class="form">
      <label class="wide"
        >For the display<select class="form-select form-select-sm" :value="display ?? ''" @change="emit('display', text($event) || null)">
          <option value="">none</option>
          <option v-for="d in displays" :key="d.id" :value="d.id">{{ d.name }}, {{ size(d.raster) }}</option>
        </select></label
      >
      <label
        >Width, px<span class="figures"
          ><FigureField
            :value="composer.document.value.canvas.width"
            :least="1"
            label="width of the canvas in px"
            @change="(v, g) => raster('width', v, g)" /></span
      ></label>
      <label
        >Height, px<span class="figures"
          ><FigureField
            :value="composer.document.value.canvas.height"
            :least="1"
            label="height of the canvas in px"
            @change="(v, g) => raster('height', v, g)" /></span
      ></label>
      <label
        >Background<input
          type="color"
          class="form-control form-control-color"
          :value="(composer.document.value.background?.color ?? '#000000').slice(0, 7)"
          @input="composer.set({ background: { color: text($event) } }, 'background')"
      /></label>
      <BButton
        v-if="
          fromDisplay &&
          (fromDisplay.raster.width !== composer.document.value.canvas.width || fromDisplay.raster.height !== composer.document.value.canvas.height)
        "
        size="sm"
        variant="outline-dark"
        @click="composer.set({ canvas: { ...fromDisplay.raster } })"
        >Take its raster, {{ size(fromDisplay.raster) }}</BButton
      >
    </div>
  </section>
  <section v-else class="details">
    <h2>{{ composer.chosen.value.size }} elements chosen</h2>
  </section>
</template>

<style scoped>
.details {
  border-top: 1px solid var(--ink);
}
h2 {
  font-size: 0.875rem;
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 9px 14px;
  border-bottom: 1px solid var(--rule);
}
h2 .typed-line {
  font-weight: 700;
  flex: 1;
}
h2 .figures {
  color: var(--soft);
  font-weight: 400;
  white-space: nowrap;
}
.stack {
  display: flex;
  gap: 8px;
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  padding: 10px 14px 14px;
  align-items: end;
}
.form textarea,
.wide {
  grid-column: 1 / 3;
}
label {
  font-size: 0.8125rem;
  color: var(--soft);
}
label .figures {
  display: block;
  color: var(--ink);
  padding: 3px 0;
}
.form-control-color {
  width: 100%;
  height: 27px;
  padding: 2px;
}
</style>
