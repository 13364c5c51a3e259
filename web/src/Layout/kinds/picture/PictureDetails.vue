<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useChosen } from '../../../Data/begin'
import RowsFields from '../../../Data/RowsFields.vue'
import type { RowsDocument } from '../../../Data/sources'
import { refOf } from '../../../Media/media'
import MediaPicker from '../../../Media/MediaPicker.vue'
import ChoiceField from '../../../ui/ChoiceField.vue'
import { size } from '../../../ui/format'
import { vKept } from '../../../ui/kept'
import { FITS, FLIPS, type Fit, type Flip, type PictureElement } from '../../designs'
import { useComposer } from '../../composer/composer'
import FigureField from '../../composer/FigureField.vue'
import GroundField from '../../composer/details/GroundField.vue'
import { mediaOf } from '../../named'
import { useStyleHere } from '../../style'

/** A picture: how it meets its box, which part of it is shown, and how. */
const props = defineProps<{ one: PictureElement }>()
const composer = useComposer()
const picking = ref(false)
const put = (part: Partial<PictureElement>, gesture?: string) => composer.edit<PictureElement>(props.one.id, part, gesture)
/** What is seen, or what is where no row means a picture. */
const named = computed(() => ('field' in props.one.media ? props.one.media.standby : props.one.media))
const media = computed(() => mediaOf(named.value))
const field = computed(() => ('field' in props.one.media ? props.one.media.field : null))
const house = useStyleHere()
const mark = computed(() => ('mark' in named.value ? named.value.mark : ''))
const marks = computed(() =>
  house.value?.marks.length
    ? [{ value: '', text: 'none: its own picture' }, ...house.value.marks.map((one) => ({ value: one.name, text: one.name }))]
    : [],
)
const { chosen, fields } = useChosen(() => props.one.rows)
const OF_ITEM = { 'row of its item': 'the row that its item plays' }
const crop = computed(() => props.one.crop ?? { x: 0, y: 0, width: media.value.width, height: media.value.height })
function from(rows: RowsDocument | undefined, isOfItem = false) {
  if (!rows && !isOfItem) return put({ media: named.value, rows: undefined })
  const known = Object.keys(rows?.fields ?? {})
  begun = rows !== undefined && rows.source !== props.one.rows?.source
  put({ media: { field: field.value ?? known[0] ?? 'photo', standby: named.value }, rows, crop: undefined })
}
// Which field it is shows in the rows, once they are there.
let begun = false
watch(chosen, (found) => {
  const better = found?.pictures[0] ?? found?.fields[0]
  if (!field.value || !better || (!begun && found!.fields.includes(field.value))) return
  begun = false
  if (better !== field.value) put({ media: { field: better, standby: named.value } })
})
const SIDES = { x: 'width', y: 'height', width: 'width', height: 'height' } as const
/** A side typed over, and the others moved so far that the crop stays within the picture. */
function cut(side: keyof typeof SIDES, value: number, gesture?: string) {
  const { width, height } = media.value
  const next = { ...crop.value, [side]: value }
  next.width = Math.min(next.width, width)
  next.height = Math.min(next.height, height)
  next.x = Math.max(0, Math.min(next.x, width - next.width))
  next.y = Math.max(0, Math.min(next.y, height - next.height))
  put({ crop: next.width === width && next.height === height ? undefined : next }, gesture)
}
const percent = (v: number) => Math.max(0, Math.min(100, v))
</script>

<template>
  <p class="wide m-0 what">
    <span v-if="field" class="soft">standby</span> {{ media.name }} <span class="figures soft">{{ size(media) }} px</span>
    <BButton size="sm" variant="outline-dark" @click="picking = true">Another picture…</BButton>
  </p>
  <ChoiceField
    v-if="marks.length"
    class="wide"
    label="Mark of the house"
    :value="mark"
    :options="marks"
    @change="(name) => name && put({ media: field ? { field, standby: { mark: name } } : { mark: name }, crop: undefined })"
  />
  <MediaPicker
    v-model="picking"
    pictures-only
    @chosen="([m]) => m && put({ media: field ? { field, standby: refOf(m) } : refOf(m), crop: undefined })"
  />
  <RowsFields
    :key="one.id"
    class="wide"
    linked
    :rows="one.rows"
    label="Picture from rows of"
    none="no data: always this one"
    :others="OF_ITEM"
    :other="field ? 'row of its item' : ''"
    @change="(rows) => from(rows)"
    @other="from(undefined, true)"
  />
  <ChoiceField
    v-if="field && one.rows"
    class="wide"
    label="Field that has its address"
    :value="field"
    :options="(fields.includes(field) ? fields : [field, ...fields]).map((name) => ({ value: name, text: name }))"
    @change="(name) => put({ media: { field: name, standby: named } })"
  />
  <label v-else-if="field" class="wide"
    >Field that has its address<input
      v-kept="field"
      class="form-control form-control-sm figures"
      aria-label="Field that has its address"
      @change="put({ media: { field: ($event.target as HTMLInputElement).value.trim() || 'photo', standby: named } })"
  /></label>
  <ChoiceField label="Fit" :value="one.fit ?? 'contain'" :options="FITS" @change="(fit) => put({ fit: fit as Fit })" />
  <ChoiceField
    label="Flip"
    :value="one.flip ?? 'none'"
    :options="FLIPS"
    @change="(flip) => put({ flip: flip === 'none' ? undefined : (flip as Flip) })"
  />
  <label v-for="(axis, i) in ['across', 'down']" :key="axis"
    >Focus {{ axis }}, %<FigureField
      :value="(one.focus ?? [50, 50])[i]!"
      :least="0"
      :label="`focus ${axis} in %`"
      @change="(v, g) => put({ focus: [i === 0 ? percent(v) : (one.focus?.[0] ?? 50), i === 1 ? percent(v) : (one.focus?.[1] ?? 50)] }, g)"
  /></label>
  <label
    >Opacity, %<FigureField
      :value="Math.round(100 * (one.opacity ?? 1))"
      :least="0"
      label="opacity in %"
      @change="(v, g) => put({ opacity: v >= 100 ? undefined : v / 100 }, g)"
  /></label>
  <label
    >Corners, px<FigureField
      :value="one.radius_px ?? 0"
      :least="0"
      label="radius of the corners in px"
      @change="(v, g) => put({ radius_px: v || undefined }, g)"
  /></label>
  <fieldset v-if="!field && !mark" class="wide crop">
    <legend>
      Crop, px of the picture
      <button v-if="one.crop" type="button" class="btn btn-link btn-sm p-0" @click="put({ crop: undefined })">show all of it</button>
    </legend>
    <label v-for="(of, side) in SIDES" :key="side"
      >{{ side
      }}<FigureField
        :value="crop[side]"
        :least="side === 'x' || side === 'y' ? 0 : 1"
        :label="`${side} of the crop`"
        :of="{ side_px: media[of], mm_per_px: null }"
        @change="(v, g) => cut(side, v, g && `${g} ${one.id}`)"
    /></label>
  </fieldset>
  <GroundField :ground="one.ground" :media="media.id" @change="(ground, g) => put({ ground }, g)" />
</template>

<style scoped>
.what {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.what button {
  margin-left: auto;
}
.crop {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 2px 10px;
}
.crop legend {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0;
  grid-column: 1 / 5;
}
</style>
