<script setup lang="ts">
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import type { Style } from '../../designs'
import { useFaces } from '../faces'
import FigureField from '../FigureField.vue'
import TextSurrounds from '../TextSurrounds.vue'
import { typePx } from '../../named'

/** How words are set: face, size, colour, place in their box, and what lies around them. */
const props = defineProps<{ style: Style; label: string; plain?: boolean }>()
const emit = defineEmits<{ change: [style: Style, gesture?: string] }>()
const { families, weights } = useFaces()
const put = (part: Partial<Style>, gesture?: string) => emit('change', { ...props.style, ...part }, gesture)
</script>

<template>
  <ChoiceField
    label="Face"
    :value="style.family ?? 'Inter'"
    :options="families"
    @change="(family) => put({ family, weight: weights(family).includes(style.weight ?? 400) ? style.weight : weights(family)[0] })"
  />
  <ChoiceField label="Weight" :value="style.weight ?? 400" :options="weights(style.family)" @change="(weight) => put({ weight: Number(weight) })" />
  <label
    >Size, px<FigureField
      v-if="typePx(style) !== null"
      :value="typePx(style)!"
      :least="1"
      :label="`size of ${label} in px`"
      @change="(v, g) => put({ size_px: v }, g)"
  /></label>
  <ColourField label="Colour" :value="style.color ?? '#000000'" @change="(color) => put({ color }, `colour of ${label}`)" />
  <ChoiceField
    label="Align"
    :value="style.align ?? 'start'"
    :options="['start', 'center', 'end']"
    @change="(align) => put({ align: align as Style['align'] })"
  />
  <ChoiceField
    label="In its box"
    :value="style.valign ?? 'top'"
    :options="['top', 'middle', 'bottom']"
    @change="(valign) => put({ valign: valign as Style['valign'] })"
  />
  <TextSurrounds v-if="!plain" :style="style" @change="(change, gesture) => put(change, gesture && `${gesture} of ${label}`)" />
</template>
