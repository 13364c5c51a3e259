<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { ref, useTemplateRef, watch } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { sentence } from '../ui/api'
import { useSecond } from '../ui/second'
import type { Picture } from './style'

/** Two true pictures side by side, as it is and as it would be, once they come into view; asked for anew whenever `of` changes. */
const props = defineProps<{ of: string; load: () => Promise<{ before: Picture | null; after: Picture | null }> }>()
const box = useTemplateRef('box')
const seen = useElementVisibility(box)
const at = useSecond()
const pictures = ref<{ before: Picture | null; after: Picture | null } | null>(null)
const trouble = ref('')
let loaded = ''
watch(
  () => [seen.value, props.of] as const,
  async ([isSeen, of]) => {
    if (!isSeen || loaded === of) return
    loaded = of
    try {
      const answer = await props.load()
      if (loaded === of) [pictures.value, trouble.value] = [answer, '']
    } catch (e) {
      if (loaded === of) trouble.value = sentence(e)
    }
  },
  { immediate: true },
)
const shape = ({ run_sheet: { canvas } }: Picture) => ({
  aspectRatio: `${canvas.width} / ${canvas.height}`,
  width: `${Math.min(100, (100 * 112 * canvas.width) / (canvas.height * 186))}%`,
})
</script>

<template>
  <div ref="box" class="pair">
    <p v-if="trouble" class="small said-error m-0">{{ trouble }}</p>
    <template v-else>
      <figure v-for="which in ['before', 'after'] as const" :key="which">
        <div class="room">
          <div v-if="pictures?.[which]" class="fit" :style="shape(pictures[which]!)">
            <PictureNow :sheet="pictures[which]!.run_sheet" :media="pictures[which]!.media" :at="at" />
          </div>
          <span v-else-if="pictures" class="small">cannot be drawn</span>
        </div>
        <figcaption class="small soft">{{ which === 'before' ? 'as it is' : 'then' }}</figcaption>
      </figure>
    </template>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  min-height: 130px;
}
figure {
  margin: 0;
  min-width: 0;
}
.room {
  height: 118px;
  background: var(--ground);
  display: grid;
  place-items: center;
  padding: 3px;
  overflow: hidden;
  color: #fff;
}
</style>
