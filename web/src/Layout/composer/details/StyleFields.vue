<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import type { Style } from '../../designs'
import { useFaces } from '../faces'
import FigureField from '../FigureField.vue'
import TextSurrounds from '../TextSurrounds.vue'
import { typePx } from '../../named'
import { nameIn, useStyleHere } from '../../style'

/** How words are set: face, size, colour, place in their box, and what lies around them. What the house style names stands first. */
const props = defineProps<{ style: Style; label: string; plain?: boolean }>()
const emit = defineEmits<{ change: [style: Style, gesture?: string] }>()
const { families, weights } = useFaces()
const house = useStyleHere()
const put = (part: Partial<Style>, gesture?: string) => emit('change', { ...props.style, ...part }, gesture)

const face = computed(() => house.value?.faces.find((one) => one.name === nameIn(props.style.family)) ?? null)
const family = computed(() => face.value?.family ?? props.style.family)
const faces = computed(() => [
  ...(house.value?.faces ?? []).map((one) => ({ value: `@${one.name}`, text: `${one.name} · ${one.family}` })),
  ...families.value.map((one) => ({ value: one, text: one })),
])
const weight = computed(() => props.style.weight ?? face.value?.weight ?? 400)
function setFace(chosen: string) {
  const named = house.value?.faces.find((one) => `@${one.name}` === chosen)
  const there = weights(named?.family ?? chosen)
  const kept = props.style.weight
  if (named?.weight != null) put({ family: chosen, weight: undefined })
  else put({ family: chosen, weight: there.includes(kept ?? 400) ? kept : there[0] })
}

const size = computed(() => house.value?.sizes.find((one) => one.name === nameIn(props.style.size_px)) ?? null)
const sizes = computed(() => [
  ...(house.value?.sizes ?? []).map((one) => ({ value: `@${one.name}`, text: `${one.name} · ${one.px} px` })),
  { value: '', text: 'its own' },
])
/** Its own is as large as the named one was. */
const setSize = (chosen: string) => put({ size_px: chosen === '' ? (typePx(props.style) ?? size.value?.px ?? 40) : chosen })
</script>

<template>
  <ChoiceField label="Face" :value="style.family ?? 'Inter'" :options="faces" @change="setFace" />
  <ChoiceField label="Weight" :value="weight" :options="weights(family)" @change="(weight) => put({ weight: Number(weight) })" />
  <ChoiceField
    v-if="sizes.length > 1 || typePx(style) === null"
    label="Size"
    :value="typePx(style) === null ? String(style.size_px) : ''"
    :options="sizes"
    @change="setSize"
  />
  <label v-if="typePx(style) !== null"
    >Size, px<FigureField :value="typePx(style)!" :least="1" :label="`size of ${label} in px`" @change="(v, g) => put({ size_px: v }, g)"
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
