<script setup lang="ts">
import ColourField from '../../ui/ColourField.vue'
import type { Style, Surround } from '../designs'
import FigureField from './FigureField.vue'

/** What lies around the letters of a text so that they stand out: an outline, a plate, a shadow. 0 px take it away; a plate has a switch of its own. */
const props = defineProps<{ style: Style }>()
const emit = defineEmits<{ change: [change: Partial<Style>, gesture?: string] }>()

const put = (what: 'outline' | 'plate', part: Partial<Surround>, gesture?: string) =>
  emit('change', { [what]: { px: 0, color: '#000000', ...props.style[what], ...part } }, gesture)
const outline = (px: number, gesture?: string) => (px === 0 ? emit('change', { outline: undefined }, gesture) : put('outline', { px }, gesture))
const shadow = (px: number, gesture?: string) =>
  emit('change', { shadow: px === 0 ? undefined : { color: '#000000', ...props.style.shadow, x_px: px, y_px: px, blur_px: px } }, gesture)
</script>

<template>
  <label>Outline, px<FigureField :value="style.outline?.px ?? 0" :least="0" label="outline of the letters in px" @change="outline" /></label>
  <ColourField v-if="style.outline" label="Its colour" :value="style.outline.color" @change="(color) => put('outline', { color }, 'outline')" />
  <span v-else></span>
  <label>Shadow, px<FigureField :value="style.shadow?.blur_px ?? 0" :least="0" label="shadow of the letters in px" @change="shadow" /></label>
  <ColourField
    v-if="style.shadow"
    label="Its colour"
    :value="style.shadow.color"
    @change="(color) => emit('change', { shadow: { ...style.shadow, color } }, 'shadow')"
  />
  <span v-else></span>
  <label class="switch"
    ><input type="checkbox" :checked="!!style.plate" @change="style.plate ? emit('change', { plate: undefined }) : put('plate', { px: 0 })" /> On a
    plate</label
  >
  <template v-if="style.plate">
    <ColourField label="Colour of the plate" :value="style.plate.color" @change="(color) => put('plate', { color }, 'plate')" />
    <label
      >Beyond the words, px<FigureField
        :value="style.plate.px"
        :least="0"
        label="plate beyond the words in px"
        @change="(px, g) => put('plate', { px }, g)"
    /></label>
  </template>
</template>

<style scoped>
label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.switch {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
