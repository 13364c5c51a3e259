<script setup lang="ts">
import { ref } from 'vue'
import FieldNames from '../../../Data/FieldNames.vue'
import { type MediaState, refOf } from '../../../Media/media'
import MediaPicker from '../../../Media/MediaPicker.vue'
import ChoiceField from '../../../ui/ChoiceField.vue'
import { useComposer } from '../../composer/composer'
import FieldGrid from '../../composer/details/FieldGrid.vue'
import StyleFields from '../../composer/details/StyleFields.vue'
import FigureField from '../../composer/FigureField.vue'
import { FITS, type Fit, type Pattern, type PictureElement, type Style, type TextElement } from '../../designs'
import { mediaOf } from '../../named'

/** The parts of a board: texts with what they tell, and where each stands; one of them open, with its type. */
type Part = Pattern['elements'][number]
const props = defineProps<{
  parts: Part[]
  label: string
  /** What messages may name. */
  fields: string[]
  /** Those of them that most likely mean pictures. */
  pictures?: string[]
  /** The size of the room that they stand in, px. */
  room: { width: number; height: number }
}>()
const emit = defineEmits<{ change: [parts: Part[], gesture?: string] }>()
const composer = useComposer()
const open = ref<string | null>(null)
const SIDES = ['x', 'y', 'width', 'height'] as const

const put = (id: string, change: object, gesture?: string) =>
  emit(
    'change',
    props.parts.map((one) => (one.id === id ? { ...one, ...change } : one)),
    gesture && `${gesture} ${props.label} ${id}`,
  )
const isText = (one: Part): one is TextElement => 'text' in one && 'style' in one
const isPicture = (one: Part): one is PictureElement => one.kind === 'picture'
function freeId(stem: string) {
  const taken = props.parts.map((one) => one.id)
  let n = props.parts.length + 1
  while (taken.includes(`${stem}${n}`)) n++
  return `${stem}${n}`
}
const picking = ref(false)
/** For which picture another is chosen; null where one is added. */
const picksFor = ref<PictureElement | null>(null)
function pick(one: PictureElement | null) {
  picksFor.value = one
  picking.value = true
}
const standbyOf = (one: PictureElement) => ('field' in one.media ? one.media.standby : one.media)
const fieldOf = (one: PictureElement) => ('field' in one.media ? one.media.field : '')
const fieldChoices = (one: PictureElement) => [
  { value: '', text: 'no field: always the same' },
  ...[...new Set([...props.fields, fieldOf(one)])].filter(Boolean).map((field) => ({ value: field, text: field })),
]
const choose = (one: PictureElement, field: string, standby = standbyOf(one)) => put(one.id, { media: field ? { field, standby } : standby })
function picked(media: MediaState | undefined) {
  if (!media) return
  if (picksFor.value) return choose(picksFor.value, fieldOf(picksFor.value), refOf(media))
  const field = props.pictures?.[0]
  const side = props.room.height
  const one: Part = {
    id: freeId('picture'),
    kind: 'picture',
    rect: { x: 0, y: 0, width: Math.max(1, Math.min(props.room.width, side)), height: side },
    media: field ? { field, standby: refOf(media) } : refOf(media),
    fit: 'cover',
  }
  open.value = one.id
  emit('change', [...props.parts, one])
}
function add() {
  const sample = props.parts.find(isText)
  const style: Style = sample?.style ?? { size_px: Math.max(12, Math.round(props.room.height * 0.4)), color: '#ffffff', valign: 'middle' }
  const text: Part = {
    id: freeId('text'),
    kind: 'text',
    message: true,
    text: props.fields[0] ? `{${props.fields[0]}}` : 'Text',
    rect: { x: 0, y: 0, width: Math.max(1, Math.round(props.room.width / 4)), height: props.room.height },
    style,
  }
  open.value = text.id
  emit('change', [...props.parts, text])
}
const remove = (id: string) =>
  emit(
    'change',
    props.parts.filter((one) => one.id !== id),
  )
/** A text that names a field is a message; braces make it one. */
const say = (one: TextElement, text: string) => put(one.id, { text, message: one.message || text.includes('{') || undefined }, 'text')
</script>

<template>
  <ul class="parts" :aria-label="label">
    <li v-for="one in parts" :key="one.id" :class="{ open: open === one.id }">
      <div class="line">
        <FieldNames v-if="isText(one)" :text="one.text" :fields="fields" :label="`Text of ${one.id}`" @change="say(one, $event)" />
        <span v-else class="kind"
          >{{ one.id }} <span class="soft">{{ one.kind }}</span></span
        >
        <button
          type="button"
          class="btn btn-link btn-sm p-0"
          :aria-expanded="open === one.id"
          :aria-label="`Place and type of ${one.id}`"
          @click="open = open === one.id ? null : one.id"
        >
          {{ open === one.id ? 'close' : 'set' }}
        </button>
        <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Take ${one.id} out`" @click="remove(one.id)">out</button>
      </div>
      <template v-if="open === one.id">
        <div class="place figures">
          <label v-for="side in SIDES" :key="side"
            >{{ side
            }}<FigureField
              :value="one.rect[side]"
              :least="side === 'width' || side === 'height' ? 1 : -100000"
              :label="`${side} of ${one.id}`"
              :of="{ side_px: side === 'x' || side === 'width' ? room.width : room.height, mm_per_px: null }"
              @change="(v, g) => put(one.id, { rect: { ...one.rect, [side]: v } }, g)"
          /></label>
        </div>
        <FieldGrid v-if="isText(one)">
          <StyleFields :style="one.style" :label="one.id" plain @change="(style: Style, g) => put(one.id, { style }, g)" />
        </FieldGrid>
        <FieldGrid v-else-if="isPicture(one)">
          <ChoiceField label="Its address is in" :value="fieldOf(one)" :options="fieldChoices(one)" @change="choose(one, $event)" />
          <ChoiceField label="Fit" :value="one.fit ?? 'contain'" :options="FITS" @change="(fit) => put(one.id, { fit: fit as Fit })" />
          <p class="wide m-0 standby">
            <span class="soft">{{ fieldOf(one) ? 'standby' : 'picture' }}</span> {{ mediaOf(standbyOf(one)).name }}
            <button type="button" class="btn btn-link btn-sm p-0" @click="pick(one)">another…</button>
          </p>
        </FieldGrid>
        <FieldGrid v-else-if="one.kind === 'shape'">
          <label
            >Colour<input
              type="color"
              class="form-control form-control-color"
              :value="one.fill.slice(0, 7)"
              @input="put(one.id, { fill: ($event.target as HTMLInputElement).value }, 'fill')"
          /></label>
        </FieldGrid>
      </template>
    </li>
    <li>
      <button type="button" class="btn btn-link btn-sm p-0" :disabled="composer.moving.value" @click="add">add a text</button>
      <button type="button" class="btn btn-link btn-sm p-0 more" :disabled="composer.moving.value" @click="pick(null)">add a picture…</button>
    </li>
  </ul>
  <MediaPicker v-model="picking" pictures-only @chosen="([media]) => picked(media)" />
</template>

<style scoped>
.parts {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--rule);
  padding: 3px 14px;
}
li:last-child {
  border: 0;
}
.line {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.kind {
  flex: 1;
}
.place {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  padding: 6px 0;
}
.place label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.more {
  margin-left: 14px;
}
.standby {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.standby button {
  margin-left: auto;
}
li :deep(.form) {
  padding: 6px 0 8px;
  border: 0;
}
</style>
