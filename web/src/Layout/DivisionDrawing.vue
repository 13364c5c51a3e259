<script setup lang="ts">
import { computed } from 'vue'
import type { Rect } from '../ui/shelf'

/** Areas on a canvas, to scale, with their figures where there is room for them. */
const props = withDefaults(
  defineProps<{ canvas: { width: number; height: number }; areas: Record<string, Rect>; width?: number; height?: number }>(),
  { width: 168, height: 112 },
)
const scale = computed(() => Math.min((props.width - 2) / props.canvas.width, (props.height - 2) / props.canvas.height))
const boxes = computed(() =>
  Object.entries(props.areas).map(([name, r]) => {
    const [w, h] = [r.width * scale.value, r.height * scale.value]
    const figures = `${r.width} × ${r.height}`
    // A figure is 6 px wide at this size, and keeps off the edges; it stands upright where the area is narrow.
    const long = figures.length * 6 + 4
    const along = w >= long && h >= 11
    const upright = !along && h >= long && w >= 11
    return { name, x: r.x * scale.value, y: r.y * scale.value, w, h, text: along || upright ? figures : '', upright }
  }),
)
</script>

<template>
  <svg
    class="division-drawing"
    :width="width"
    :height="height"
    :viewBox="`${-(width - canvas.width * scale) / 2} ${-(height - canvas.height * scale) / 2} ${width} ${height}`"
    role="img"
    :aria-label="
      Object.entries(areas)
        .map(([name, r]) => `${name} ${r.width} by ${r.height} px`)
        .join(', ')
    "
  >
    <rect class="canvas" x="0" y="0" :width="canvas.width * scale" :height="canvas.height * scale" />
    <g v-for="b in boxes" :key="b.name" :transform="`translate(${b.x} ${b.y})`">
      <rect class="area" :width="b.w" :height="b.h" />
      <text v-if="b.text" :transform="`translate(${b.w / 2} ${b.h / 2}) rotate(${b.upright ? -90 : 0})`">{{ b.text }}</text>
    </g>
  </svg>
</template>

<style scoped>
.canvas {
  fill: var(--paper);
  stroke: none;
}
.area {
  fill: var(--kelp-wash);
  stroke: var(--ink);
}
text {
  font: 10px var(--figures);
  fill: var(--ink);
  text-anchor: middle;
  dominant-baseline: central;
}
</style>
