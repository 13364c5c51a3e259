<script setup lang="ts">
import { computed } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { useSecond } from '../ui/second'
import type { LookTriggers } from './triggers'

/** What the display shows in a state: its own picture where it lies, above what plays anyway. */
const props = defineProps<{ look: LookTriggers; state: string; /** How wide it is drawn, px. */ width: number }>()
const at = useSecond()
const own = computed(() => props.look.states.find(({ id }) => id === props.state))
const share = (part: number, of: number) => `${(100 * part) / of}%`
const place = computed(() => {
  const { width, height } = props.look.canvas
  const { x, y, width: w, height: h } = own.value!.rect
  const canvas = own.value!.picture!.run_sheet.canvas
  // It lies in the middle of its rectangle, as large as it fits.
  const scale = Math.min(w / canvas.width, h / canvas.height)
  const [dx, dy] = [(w - canvas.width * scale) / 2, (h - canvas.height * scale) / 2]
  return { left: share(x + dx, width), top: share(y + dy, height), width: share(canvas.width * scale, width) }
})
</script>

<template>
  <span class="state-picture" :style="{ width: `${width}px`, aspectRatio: `${look.canvas.width} / ${look.canvas.height}` }">
    <PictureNow v-if="look.base" :sheet="look.base.run_sheet" :media="look.base.media" :at="at" />
    <span v-if="own?.picture" class="own" :style="place"><PictureNow :sheet="own.picture.run_sheet" :media="own.picture.media" :at="at" /></span>
  </span>
</template>

<style scoped>
.state-picture {
  position: relative;
  display: block;
  overflow: hidden;
  background: #000;
}
.own {
  position: absolute;
}
</style>
