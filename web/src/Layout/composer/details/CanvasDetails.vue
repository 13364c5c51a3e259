<script setup lang="ts">
import { computed } from 'vue'
import { useEstate } from '../../../Estate/estate'
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import { size } from '../../../ui/format'
import type { Analysis } from '../../designs'
import { useComposer } from '../composer'
import FigureField from '../FigureField.vue'

/** The canvas: for which display, how large, and the lines that help one's hands. */
const props = defineProps<{ analysis: Analysis | null; display: string | null }>()
const emit = defineEmits<{ display: [id: string | null] }>()
const composer = useComposer()
const { displays } = useEstate(false)
const canvas = computed(() => composer.document.value.canvas)
const from = computed(() => displays.value.find((d) => d.id === props.display) ?? null)
const isAnother = computed(() => from.value && (from.value.raster.width !== canvas.value.width || from.value.raster.height !== canvas.value.height))
const AXES = { x: 'width', y: 'height' } as const
type Axis = keyof typeof AXES
const of = (axis: Axis) => ({ side_px: canvas.value[AXES[axis]], mm_per_px: props.analysis?.mm_per_px ?? null })
const lines = (axis: Axis) => composer.document.value.guides?.[axis] ?? []
const put = (axis: Axis, next: number[], gesture?: string) =>
  composer.set({ guides: { ...composer.document.value.guides, [axis]: next.length ? next : undefined } }, gesture)
</script>

<template>
  <ChoiceField
    class="wide"
    label="For the display"
    :value="display ?? ''"
    :options="[{ value: '', text: 'none' }, ...displays.map((d) => ({ value: d.id, text: `${d.name}, ${size(d.raster)}` }))]"
    @change="(id) => emit('display', id || null)"
  />
  <label v-for="side in ['width', 'height'] as const" :key="side"
    >{{ side === 'width' ? 'Width' : 'Height' }}, px<FigureField
      :value="canvas[side]"
      :least="1"
      :label="`${side} of the canvas in px`"
      @change="(v, g) => composer.set({ canvas: { ...canvas, [side]: v } }, g)"
  /></label>
  <ColourField
    label="Background"
    :value="composer.document.value.background?.color ?? '#000000'"
    @change="(color) => composer.set({ background: { color } }, 'background')"
  />
  <BButton v-if="from && isAnother" size="sm" variant="outline-dark" @click="composer.set({ canvas: { ...from.raster } })"
    >Take its raster, {{ size(from.raster) }}</BButton
  >
  <label
    >Margin kept free, px<FigureField
      :value="composer.document.value.safe ?? 0"
      :least="0"
      label="margin kept free in px"
      :of="of('x')"
      @change="(v, g) => composer.set({ safe: v || undefined }, g)"
  /></label>
  <fieldset v-for="(side, axis) in AXES" :key="axis" class="wide guides">
    <legend>Guides {{ axis === 'x' ? 'across' : 'down' }}, px</legend>
    <span v-for="(px, i) in lines(axis)" :key="i"
      ><FigureField
        :value="px"
        :least="-1000000"
        :label="`guide ${i + 1} ${axis === 'x' ? 'across' : 'down'} in px`"
        :of="of(axis)"
        @change="
          (v, g) =>
            put(
              axis,
              lines(axis).map((l, n) => (n === i ? v : l)),
              g,
            )
        "
      /><button
        type="button"
        class="btn btn-link btn-sm p-0"
        :aria-label="`Take guide ${i + 1} ${axis === 'x' ? 'across' : 'down'} away`"
        @click="
          put(
            axis,
            lines(axis).filter((_, n) => n !== i),
          )
        "
      >
        ×
      </button></span
    >
    <button type="button" class="btn btn-link btn-sm p-0" @click="put(axis, [...lines(axis), Math.round(canvas[side] / 2)])">add one</button>
  </fieldset>
</template>

<style scoped>
.guides {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.guides legend {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0;
  width: 100%;
}
.guides span {
  display: flex;
  gap: 2px;
  width: 70px;
}
</style>
