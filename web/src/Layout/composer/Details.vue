<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useEstate } from '../../Estate/estate'
import { refOf, useMedia } from '../../Media/media'
import MediaPicker from '../../Media/MediaPicker.vue'
import { loadFaces, type Face } from '../../pane/faces'
import PlaylistEditor from '../../Time/PlaylistEditor.vue'
import { api } from '../../ui/api'
import ChoiceField from '../../ui/ChoiceField.vue'
import ColourField from '../../ui/ColourField.vue'
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
import TextSurrounds from './TextSurrounds.vue'

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
        :zone="{ layout: composer.document.value.id, width: one.rect.width, height: one.rect.height }"
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
      <ChoiceField
        label="Face"
        :value="one.style.family ?? 'Inter'"
        :options="families"
        @change="(family) => style(one as TextElement, { family, weight: weights(family)[0] })"
      />
      <ChoiceField
        label="Weight"
        :value="one.style.weight ?? 400"
        :options="weights(one.style.family)"
        @change="(weight) => style(one as TextElement, { weight: Number(weight) })"
      />
      <label
        >Size, px<FigureField
          :value="one.style.size_px"
          :least="1"
          label="size of the text in px"
          @change="(v, g) => style(one as TextElement, { size_px: v }, g)"
      /></label>
      <ColourField
        label="Colour"
        :value="one.style.color ?? '#000000'"
        @change="(color) => style(one as TextElement, { color }, `colour ${one!.id}`)"
      />
      <ChoiceField
        label="Align"
        :value="one.style.align ?? 'start'"
        :options="['start', 'center', 'end']"
        @change="(align) => style(one as TextElement, { align: align as Style['align'] })"
      />
      <ChoiceField
        label="In its box"
        :value="one.style.valign ?? 'top'"
        :options="['top', 'middle', 'bottom']"
        @change="(valign) => style(one as TextElement, { valign: valign as Style['valign'] })"
      />
      <TextSurrounds :style="one.style" @change="(change, gesture) => style(one as TextElement, change, gesture && `${gesture} ${one!.id}`)" />
    </div>
    <div v-else-if="one.kind === 'shape'" class="form">
      <ChoiceField
        label="Shape"
        :value="one.shape ?? 'rectangle'"
        :options="['rectangle', 'ellipse']"
        @change="(shape) => composer.edit<ShapeElement>(one!.id, { shape: shape as ShapeElement['shape'] })"
      />
      <ColourField label="Colour" :value="one.fill" @change="(fill) => composer.edit<ShapeElement>(one!.id, { fill }, `colour ${one!.id}`)" />
      <label v-if="one.shape !== 'ellipse'"
        >Corners, px<FigureField
          :value="one.radius_px ?? 0"
          :least="0"
          label="radius of the corners in px"
          @change="(v, g) => composer.edit<ShapeElement>(one!.id, { radius_px: v }, g)"
      /></label>
    </div>
    <div v-else class="form">
      <p class="wide m-0">
        {{ one.media.name }} <span class="figures soft">{{ size(one.media) }} px</span>
      </p>
      <ChoiceField
        label="Fit"
        :value="one.fit ?? 'contain'"
        :options="FITS"
        @change="(fit) => composer.edit<PictureElement>(one!.id, { fit: fit as Fit })"
      />
      <BButton size="sm" variant="outline-dark" @click="picking = true">Another picture…</BButton>
      <MediaPicker v-model="picking" pictures-only @chosen="([m]) => m && composer.edit<PictureElement>(one!.id, { media: refOf(m) })" />
    </div>
  </section>
  <section v-else-if="composer.chosen.value.size === 0" class="details" aria-label="Canvas">
    <h2>Canvas</h2>
    <div class="form">
      <ChoiceField
        class="wide"
        label="For the display"
        :value="display ?? ''"
        :options="[{ value: '', text: 'none' }, ...displays.map((d) => ({ value: d.id, text: `${d.name}, ${size(d.raster)}` }))]"
        @change="(id) => emit('display', id || null)"
      />
      <label v-for="side in ['width', 'height'] as const" :key="side"
        >{{ side === 'width' ? 'Width' : 'Height' }}, px<FigureField
          :value="composer.document.value.canvas[side]"
          :least="1"
          :label="`${side} of the canvas in px`"
          @change="(v, g) => composer.set({ canvas: { ...composer.document.value.canvas, [side]: v } }, g)"
      /></label>
      <ColourField
        label="Background"
        :value="composer.document.value.background?.color ?? '#000000'"
        @change="(color) => composer.set({ background: { color } }, 'background')"
      />
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
label :deep(.figure) {
  font-family: var(--figures);
  font-size: 0.8125rem;
  color: var(--ink);
  margin: 3px 0;
}
</style>
