<script setup lang="ts">
import type { DisplayState } from '../Estate/estate'
import { useAddresses } from '../Estate/release'
import PictureNow from '../pane/PictureNow.vue'
import type { WholeRelease } from '../pane/release'

/** What would be seen on a display at an instant, on its raster. */
const props = defineProps<{ display: DisplayState; file: WholeRelease | null; at: number; playing?: boolean }>()
const media = useAddresses(() => props.file ?? undefined)
</script>

<template>
  <PictureNow v-if="file" :sheet="file.run_sheet" :media="media" :at="at" :raster="display.raster" :target="file.match.target" :playing="playing" />
  <div v-else class="nothing" :style="{ aspectRatio: `${display.raster.width} / ${display.raster.height}` }">nothing</div>
</template>

<style scoped>
.nothing {
  display: grid;
  place-items: center;
  width: 100%;
  font-size: 0.8125rem;
  color: var(--soft);
  background: repeating-linear-gradient(-45deg, var(--paper) 0 7px, #ece8dc 7px 8px);
}
</style>
