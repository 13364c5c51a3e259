<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { useTemplateRef } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { type DesignSummary, type Pictured, usePicture } from './designs'

/** The true picture of a saved design at an instant, once it has come into view. */
const props = defineProps<{ design: Pick<DesignSummary, 'id' | 'revision'>; plural: Pictured; at: number }>()
const still = useTemplateRef('still')
const seen = useElementVisibility(still, { once: true })
const picture = usePicture(props.plural, () => props.design)
/** What is less wide than the room for it, as a square is, is as high as that. */
const isTall = (canvas: { width: number; height: number }) => canvas.width * 148 < canvas.height * 262
</script>

<template>
  <div ref="still" class="still">
    <div
      v-if="seen && picture.data.value"
      class="fit"
      :style="{ aspectRatio: `${picture.data.value.run_sheet.canvas.width} / ${picture.data.value.run_sheet.canvas.height}` }"
      :class="{ tall: isTall(picture.data.value.run_sheet.canvas) }"
    >
      <PictureNow :sheet="picture.data.value.run_sheet" :media="picture.data.value.media" :at="at" />
    </div>
    <span v-else-if="picture.error.value" class="small said-error">{{ picture.error.value.message }}</span>
  </div>
</template>

<style scoped>
.still {
  height: 168px;
  background: var(--ground);
  display: grid;
  place-items: center;
  margin-bottom: 5px;
  padding: 10px;
  overflow: hidden;
}
.fit {
  width: 100%;
  max-width: 262px;
}
.fit.tall {
  width: auto;
  height: 148px;
}
</style>
