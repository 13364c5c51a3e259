<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import type { Progress, ShapeElement } from '../../designs'
import { useComposer } from '../../composer/composer'
import { zonesAmong } from '../zone/zone'
import FigureField from '../../composer/FigureField.vue'

/** A shape, and whether it fills up as a zone goes on. */
const props = defineProps<{ one: ShapeElement }>()
const composer = useComposer()
const put = (part: Partial<ShapeElement>, gesture?: string) => composer.edit<ShapeElement>(props.one.id, part, gesture)
const zones = computed(() => zonesAmong(composer.elements.value))
const fill = (part: Partial<Progress>) => props.one.progress && put({ progress: { ...props.one.progress, ...part } })
</script>

<template>
  <ChoiceField
    label="Shape"
    :value="one.shape ?? 'rectangle'"
    :options="['rectangle', 'ellipse']"
    @change="(shape) => put({ shape: shape as ShapeElement['shape'] })"
  />
  <ColourField label="Colour" :value="one.fill" @change="(fill) => put({ fill }, `colour ${one.id}`)" />
  <label v-if="one.shape !== 'ellipse'"
    >Corners, px<FigureField :value="one.radius_px ?? 0" :least="0" label="radius of the corners in px" @change="(v, g) => put({ radius_px: v }, g)"
  /></label>
  <ChoiceField
    label="Fills up with"
    :value="one.progress?.zone ?? ''"
    :options="[{ value: '', text: 'nothing' }, ...zones.map((z) => ({ value: z.id, text: z.name ?? z.id }))]"
    @change="(zone) => put({ progress: zone ? { ...one.progress, zone } : undefined })"
  />
  <template v-if="one.progress">
    <ChoiceField label="Its" :value="one.progress.of ?? 'item'" :options="['item', 'loop']" @change="(of) => fill({ of: of as Progress['of'] })" />
    <ChoiceField
      label="From the"
      :value="one.progress.from ?? 'left'"
      :options="['left', 'right', 'top', 'bottom']"
      @change="(from) => fill({ from: from as Progress['from'] })"
    />
  </template>
</template>
