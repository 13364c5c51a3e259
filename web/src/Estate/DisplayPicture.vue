<script setup lang="ts">
import PictureNow from '../pane/PictureNow.vue'
import type { DisplayState } from './estate'
import { useRelease } from './release'

/** What a display's current release shows at an instant, on its raster. */
const props = defineProps<{ display: DisplayState; at: number; /** Without the seams of a wall. */ bare?: boolean }>()
const { file, media } = useRelease(
  () => props.display.release,
  () => props.display.id,
)
</script>

<template>
  <div v-if="file" class="on-raster">
    <PictureNow :sheet="file.run_sheet" :media="media" :at="at" :raster="display.raster" :target="file.match.target" />
    <svg
      v-if="!bare && display.sources.length"
      :viewBox="`0 0 ${display.raster.width} ${display.raster.height}`"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <rect v-for="[x, y, width, height] in display.sources" :key="`${x} ${y}`" v-bind="{ x, y, width, height }" />
    </svg>
  </div>
  <div v-else class="nothing" :style="{ aspectRatio: `${display.raster.width} / ${display.raster.height}` }">
    <span v-if="!display.release && !bare">nothing handed over</span>
  </div>
</template>

<style scoped>
.on-raster {
  position: relative;
  width: 100%;
}
.on-raster svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.on-raster rect {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.nothing {
  display: grid;
  place-items: center;
  text-align: center;
  font-size: 0.8125rem;
  color: var(--soft);
  background: repeating-linear-gradient(-45deg, var(--paper) 0 7px, #ece8dc 7px 8px);
  padding: 2px;
  line-height: 1.15;
}
</style>
