<script setup lang="ts">
import { computed } from 'vue'
import type { Rect } from '../../ui/shelf'
import { useComposer } from './composer'
import Dimensions from './Dimensions.vue'
import type { Gap } from './snap'

/** What follows the hand on the pane: outlines of what it holds, what draws it, and the figures. Nothing else is drawn again while it moves. */
const props = defineProps<{
  held: Map<string, Rect> | null
  guides: { x: number[]; y: number[]; gaps: Gap[] }
  /** The box that is being drawn. */
  drawn: Rect | null
  view: { scale: number; left: number; top: number; width: number; height: number }
  mmPerPx: number | null
}>()
const composer = useComposer()
const place = (r: Rect) => ({
  x: props.view.left + r.x * props.view.scale,
  y: props.view.top + r.y * props.view.scale,
  width: Math.max(1, r.width * props.view.scale),
  height: Math.max(1, r.height * props.view.scale),
})
/** Of what the dimension lines are: what is drawn, or the one that is chosen, where the hand has it. */
const told = computed(() => {
  const only = composer.only.value
  return props.drawn ?? (only ? (props.held?.get(only.id) ?? only.rect) : null)
})
</script>

<template>
  <g class="hand-layer">
    <rect v-for="[id, rect] in held ?? []" :key="id" class="in-hand" v-bind="place(rect)" />
    <g v-for="(g, i) in guides.gaps" :key="`gap${i}`" class="gap">
      <template v-if="g.along === 'x'">
        <line
          :x1="view.left + g.from * view.scale"
          :x2="view.left + g.to * view.scale"
          :y1="view.top + g.at * view.scale"
          :y2="view.top + g.at * view.scale"
        />
        <text :x="view.left + ((g.from + g.to) / 2) * view.scale" :y="view.top + g.at * view.scale - 6" text-anchor="middle">{{
          g.to - g.from
        }}</text>
      </template>
      <template v-else>
        <line
          :x1="view.left + g.at * view.scale"
          :x2="view.left + g.at * view.scale"
          :y1="view.top + g.from * view.scale"
          :y2="view.top + g.to * view.scale"
        />
        <text :x="view.left + g.at * view.scale + 6" :y="view.top + ((g.from + g.to) / 2) * view.scale + 4">{{ g.to - g.from }}</text>
      </template>
    </g>
    <line
      v-for="g in guides.x"
      :key="`gx${g}`"
      class="guide"
      :x1="view.left + g * view.scale"
      :x2="view.left + g * view.scale"
      y1="22"
      :y2="view.height"
    />
    <line
      v-for="g in guides.y"
      :key="`gy${g}`"
      class="guide"
      x1="34"
      :x2="view.width"
      :y1="view.top + g * view.scale"
      :y2="view.top + g * view.scale"
    />
    <Dimensions
      v-if="told"
      :rect="told"
      :canvas="composer.document.value.canvas"
      :scale="view.scale"
      :left="view.left"
      :top="view.top"
      :mm-per-px="mmPerPx"
    />
  </g>
</template>

<style scoped>
.in-hand {
  fill: none;
  stroke: var(--kelp);
  stroke-width: 2;
}
.gap line {
  stroke: #ffd447;
  stroke-width: 2;
}
.gap text {
  font: 700 12px var(--figures);
  fill: #ffd447;
  paint-order: stroke;
  stroke: #17272e;
  stroke-width: 3px;
}
.guide {
  stroke: #ffd447;
}
</style>
