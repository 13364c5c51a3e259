<script setup lang="ts">
import PictureNow from '../pane/PictureNow.vue'
import type { DisplayState } from './estate'
import { useRelease } from './release'

/** What a display's current release shows at an instant, on its raster. */
const props = defineProps<{ display: DisplayState; at: number }>()
const { file, media } = useRelease(() => props.display.release)
</script>

<template>
  <PictureNow v-if="file" :sheet="file.run_sheet" :media="media" :at="at" :raster="display.raster" :target="file.match.target" />
  <div v-else class="nothing" :style="{ aspectRatio: `${display.raster.width} / ${display.raster.height}` }">
    <span v-if="!display.release">nothing handed over</span>
  </div>
</template>

<style scoped>
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
