<script setup lang="ts">
import { useElementSize, useElementVisibility } from '@vueuse/core'
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'
import type { RunSheet } from './sheet'
import { Stage } from './stage'

/** The true picture of a run sheet at an instant, small: pictures as they are, films at their frame. */
const props = defineProps<{
  sheet: RunSheet
  media: Record<string, { url: string; thumbnail?: string | null; type: string }>
  at: number
  /** The raster it is shown on, and where on it; without them the canvas fills the picture. */
  raster?: { width: number; height: number }
  target?: { x: number; y: number; width: number; height: number }
  /** Whether films run on by themselves. */
  playing?: boolean
}>()

const host = useTemplateRef('host')
const { width } = useElementSize(host)
const visible = useElementVisibility(host)
let stage: Stage | null = null

// Small pictures are shown from stills, which are far lighter; larger ones show a film at its frame.
const THUMBNAIL_PX = 480
let isSmall = true
const addressOf = (id: string) => {
  const media = props.media[id]
  if (!media) return null
  const still = isSmall && media.thumbnail && !media.type.startsWith('video/')
  return { url: still ? media.thumbnail! : media.url, type: media.type, thumbnail: media.thumbnail }
}

function draw() {
  if (!visible.value || width.value === 0) return
  if (!stage || isSmall !== width.value <= THUMBNAIL_PX) {
    isSmall = width.value <= THUMBNAIL_PX
    stage?.destroy()
    stage = new Stage(host.value!, addressOf, isSmall ? 'thumbnail' : 'desk')
    stage.show(props.sheet)
  }
  const raster = props.raster ?? props.sheet.canvas
  const target = props.target ?? { x: 0, y: 0, ...raster }
  const scale = width.value / raster.width
  stage.place(
    target.x * scale,
    target.y * scale,
    (scale * target.width) / props.sheet.canvas.width,
    (scale * target.height) / props.sheet.canvas.height,
  )
  stage.draw(props.at, props.playing ?? false)
}

onMounted(draw)
watch(
  () => props.sheet,
  () => {
    stage?.show(props.sheet, addressOf)
    draw()
  },
)
// What stands goes on as it is; what lies elsewhere by now, as a still that came later than its film, has to be made anew.
watch(
  () => JSON.stringify(props.media),
  () => {
    stage?.destroy()
    stage = null
    draw()
  },
)
watch(() => [props.at, width.value, visible.value, props.target, props.playing], draw)
onBeforeUnmount(() => stage?.destroy())
</script>

<template>
  <div
    ref="host"
    class="picture-now"
    :style="{ aspectRatio: `${(raster ?? sheet.canvas).width} / ${(raster ?? sheet.canvas).height}` }"
    aria-hidden="true"
  ></div>
</template>

<style scoped>
.picture-now {
  position: relative;
  overflow: hidden;
  background: #000;
  width: 100%;
}
</style>
