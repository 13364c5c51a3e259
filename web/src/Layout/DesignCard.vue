<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import { moment, size } from '../ui/format'
import { type DesignSummary, usePicture } from './designs'

/** A design in a list: its true picture at this instant, and where it is shown. */
const props = defineProps<{ design: DesignSummary; plural: 'layouts' | 'playlists'; at: number }>()
defineEmits<{ remove: []; copy: [] }>()

const card = useTemplateRef('card')
const seen = useElementVisibility(card, { once: true })
const picture = usePicture(props.plural, () => props.design)
const older = computed(() => props.design.handed_over.filter((h) => h.older))
const shownOn = computed(() => props.design.handed_over.map((h) => h.display_name))
</script>

<template>
  <li ref="card" class="design">
    <RouterLink :to="`/${plural}/${design.id}`" class="still" :aria-label="design.name">
      <div
        v-if="seen && picture.data.value"
        class="fit"
        :style="{
          aspectRatio: `${picture.data.value.run_sheet.canvas.width} / ${picture.data.value.run_sheet.canvas.height}`,
        }"
        :class="{ tall: picture.data.value.run_sheet.canvas.height > picture.data.value.run_sheet.canvas.width }"
      >
        <PictureNow :sheet="picture.data.value.run_sheet" :media="picture.data.value.media" :at="at" />
      </div>
      <span v-else-if="picture.error.value" class="small said-error">{{ picture.error.value.message }}</span>
    </RouterLink>
    <RouterLink :to="`/${plural}/${design.id}`" class="name">{{ design.name }}</RouterLink>
    <div class="figures soft">
      {{ design.canvas ? `${size(design.canvas)} px, ` : '' }}revision {{ design.revision }},
      {{ moment(design.saved_at) }}
    </div>
    <div class="small">
      <template v-if="shownOn.length">
        on {{ shownOn.length > 2 ? `${shownOn.length} displays` : shownOn.join(' and ') }}
        <RouterLink
          v-if="older.length"
          class="changed"
          :to="`/handover?${plural.slice(0, -1)}=${design.id}&${older.map((h) => `display=${h.display}`).join('&')}`"
          >changed since handover</RouterLink
        >
      </template>
      <span v-else class="soft">not handed over</span>
    </div>
    <div class="foot">
      <RouterLink class="small" :to="`/handover?${plural.slice(0, -1)}=${design.id}`">hand over</RouterLink>
      <button type="button" class="btn btn-link btn-sm p-0" @click="$emit('copy')">copy</button>
      <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Delete ${design.name}`" @click="$emit('remove')">delete</button>
    </div>
  </li>
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
.name {
  font-weight: 650;
  color: var(--ink);
  text-decoration: none;
}
.changed {
  color: var(--warning);
  font-weight: 650;
}
.foot {
  display: flex;
  gap: 12px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
  margin-top: 4px;
}
</style>
