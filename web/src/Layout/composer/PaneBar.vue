<script setup lang="ts">
import ChoiceBar from '../../ui/ChoiceBar.vue'
import { useComposer } from './composer'
import { TOOLS } from './tools'

/** Above the pane: the tools, the division, the variant that is worked on, how large it is shown, and whether edges draw. */
const props = defineProps<{
  pane: { scale: number; isFitted: boolean; zoomIn: () => void; zoomOut: () => void; fit: () => void } | null
  variant: string | null
  variants: Record<string, string>
}>()
defineEmits<{ variant: [id: string | null]; turn: []; drop: []; divide: []; other: [] }>()
const snapping = defineModel<boolean>('snapping', { required: true })
const composer = useComposer()
const NAMES = Object.fromEntries(TOOLS.map((t) => [t.tool, t.name]))
const KEYS = Object.fromEntries(TOOLS.map((t) => [t.tool, `${t.name} (${t.key.toUpperCase()})`]))
</script>

<template>
  <div class="bar">
    <ChoiceBar label="Tools" :words="NAMES" :titles="KEYS" :model-value="composer.tool.value" @update:model-value="composer.tool.value = $event" />
    <BButton size="sm" variant="outline-dark" @click="$emit('divide')">Divide…</BButton>
    <ChoiceBar
      v-if="Object.keys(variants).length > 1"
      :model-value="variant ?? ''"
      label="Variant"
      :words="variants"
      @update:model-value="$emit('variant', $event || null)"
    />
    <button v-if="variant" type="button" class="btn btn-link btn-sm p-0" @click="$emit('drop')">remove it</button>
    <BButton v-else size="sm" variant="outline-dark" title="The same content for the canvas turned" @click="$emit('turn')">Turned variant</BButton>
    <BButton size="sm" variant="outline-dark" title="The same division solved for another raster" @click="$emit('other')">Other raster…</BButton>
    <div class="choice ms-auto" role="group" aria-label="Zoom">
      <button type="button" title="Smaller ( − )" aria-label="Smaller" @click="props.pane?.zoomOut()">−</button>
      <button
        type="button"
        class="figures zoom"
        :aria-pressed="pane?.isFitted ?? true"
        title="Fit the canvas into the pane ( 0 ); 1 for pixel for pixel"
        @click="props.pane?.fit()"
      >
        {{ pane ? `${Math.round(pane.scale * 100)} %` : '' }}
      </button>
      <button type="button" title="Larger ( + ); Ctrl and the wheel" aria-label="Larger" @click="props.pane?.zoomIn()">+</button>
    </div>
    <div class="choice">
      <button type="button" :aria-pressed="snapping" title="Edges draw what is moved; Alt does without" @click="snapping = !snapping">snap</button>
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 6px;
  align-items: center;
  padding: 4px 10px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.choice :deep(button),
.choice button {
  min-width: 24px;
  padding-inline: 6px;
}
.zoom {
  min-width: 52px;
}
.bar > :deep(.btn-sm:not(.btn-link)) {
  padding-inline: 7px;
}
</style>
