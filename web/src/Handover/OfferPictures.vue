<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useElementVisibility } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import DisplayPicture from '../Estate/DisplayPicture.vue'
import type { DisplayState } from '../Estate/estate'
import { useAddresses } from '../Estate/release'
import PictureNow from '../pane/PictureNow.vue'
import type { WholeRelease } from '../pane/release'
import { api } from '../ui/api'

/** What a display shows now, and beside it what it would show: drawn from the very release that would be handed over. */
const props = defineProps<{ display: DisplayState; source: { kind: string; id: string; revision?: number }; unchanged: boolean; at: number }>()
const pair = useTemplateRef('pair')
const seen = useElementVisibility(pair, { once: true })
const then = useQuery({
  queryKey: computed(() => ['offered', props.display.id, props.source]),
  enabled: computed(() => seen.value && !props.unchanged),
  retry: false,
  queryFn: () => api.post<WholeRelease>('handover/release', { source: props.source, displays: [props.display.id] }),
})
const media = useAddresses(() => then.data.value)
</script>

<template>
  <div ref="pair" class="pair" :class="[display.orientation, { unchanged }]">
    <figure>
      <DisplayPicture :display="display" :at="at" />
      <figcaption class="soft small">now</figcaption>
    </figure>
    <figure v-if="!unchanged">
      <PictureNow
        v-if="then.data.value"
        :sheet="then.data.value.run_sheet"
        :media="media"
        :at="at"
        :raster="display.raster"
        :target="then.data.value.match.target"
      />
      <div v-else class="waiting" :style="{ aspectRatio: `${display.raster.width} / ${display.raster.height}` }"></div>
      <figcaption class="soft small">then</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: end;
  align-self: start;
}
.pair.unchanged {
  grid-template-columns: 1fr;
  width: 50%;
}
.pair.portrait {
  width: 150px;
}
.pair.portrait.unchanged {
  width: 69px;
}
figure {
  margin: 0;
}
figcaption {
  line-height: 1.5;
}
.waiting {
  background: var(--ground);
}
</style>
