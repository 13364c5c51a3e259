<script setup lang="ts">
import { computed } from 'vue'

/** The rulers along the pane, in px of the canvas or mm on the display; a press on one begins a guide. */
const props = defineProps<{ width: number; height: number; left: number; top: number; scale: number; mmPerPx: number | null }>()
defineEmits<{ begin: [axis: 'x' | 'y', event: PointerEvent] }>()

/** What is in sight: where it stands in px of the canvas, and what is written there. */
const ticks = (begin: number, room: number) => {
  const unit = props.mmPerPx === null ? 1 : 1 / props.mmPerPx
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000].find((s) => s * unit * props.scale >= 60) ?? 10_000
  const first = Math.ceil(-begin / props.scale / (step * unit))
  const count = Math.min(400, Math.floor(room / (step * unit * props.scale)) + 1)
  return Array.from({ length: Math.max(0, count) }, (_, i) => ({ at: (first + i) * step * unit, text: (first + i) * step }))
}
const across = computed(() => ticks(props.left - 34, props.width - 34).map((t) => ({ ...t, px: props.left + t.at * props.scale })))
const down = computed(() => ticks(props.top - 22, props.height - 22).map((t) => ({ ...t, px: props.top + t.at * props.scale })))
</script>

<template>
  <g class="ruler" aria-hidden="true">
    <rect x="0" y="0" :width="width" height="22" class="across" @pointerdown.stop="$emit('begin', 'y', $event)" />
    <rect x="0" y="22" width="34" :height="Math.max(0, height - 22)" class="down" @pointerdown.stop="$emit('begin', 'x', $event)" />
    <g v-for="t in across" :key="`x${t.text}`" :transform="`translate(${t.px} 0)`">
      <line y1="16" y2="22" />
      <text x="3" y="13">{{ t.text }}</text>
    </g>
    <g v-for="t in down" :key="`y${t.text}`" :transform="`translate(0 ${t.px})`">
      <line x1="28" x2="34" />
      <text x="32" y="-3" text-anchor="end">{{ t.text }}</text>
    </g>
    <rect x="0" y="0" width="34" height="22" class="corner" />
  </g>
</template>

<style scoped>
.ruler rect {
  fill: var(--paper);
}
.across {
  cursor: row-resize;
}
.down {
  cursor: col-resize;
}
.ruler line {
  stroke: var(--soft);
  pointer-events: none;
}
.ruler text {
  font: 11px var(--figures);
  fill: var(--soft);
  pointer-events: none;
}
</style>
