<script lang="ts">
export interface Revision {
  id: number
  number: number | null
  saved_at: string
  saved_by: string | null
  note: string | null
  handed_over: { displays: number; last: string; now: number } | null
}
</script>

<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useElementVisibility } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import PictureNow from '../pane/PictureNow.vue'
import type { RunSheet } from '../pane/sheet'
import { api } from '../ui/api'
import type { Addresses, Plural } from './designs'

/** One revision, asked for as it looks once it has come into view. */
const props = defineProps<{ id: string; plural: Plural; revision: Revision }>()
const row = useTemplateRef('row')
const seen = useElementVisibility(row, { once: true })
const look = useQuery({
  queryKey: ['revision', () => props.revision.id],
  enabled: seen,
  staleTime: Infinity,
  queryFn: () =>
    api.get<{ changes: string[] | null; picture: { run_sheet: RunSheet; media: Addresses } | null }>(
      `${props.plural}/${props.id}/revisions/${props.revision.id}/picture`,
    ),
})
const MOST = 6
const words = computed(() => {
  const changes = look.data.value?.changes
  if (changes === undefined) return []
  if (changes === null) return ['The first that is kept.']
  if (changes.length === 0) return ['Nothing is another than before.']
  return changes.length <= MOST ? changes : [...changes.slice(0, MOST - 1), `and ${changes.length - MOST + 1} more`]
})
</script>

<template>
  <div ref="row" class="revision" :class="{ drawn: plural !== 'schedules' }">
    <div v-if="plural !== 'schedules'" class="look">
      <PictureNow
        v-if="look.data.value?.picture"
        :sheet="look.data.value.picture.run_sheet"
        :media="look.data.value.picture.media"
        :at="Date.parse(revision.saved_at)"
      />
      <span v-else-if="look.data.value" class="soft small">Something in it is there no more.</span>
    </div>
    <div>
      <slot></slot>
      <ul>
        <li v-for="word in words" :key="word">{{ word }}</li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.revision.drawn {
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr);
  gap: 16px;
}
.look {
  background: var(--ground);
  min-height: 96px;
  display: grid;
  place-items: center;
  align-self: start;
  overflow: hidden;
}
.look :deep(.picture-now) {
  max-height: 180px;
}
.look .small {
  color: var(--sheet);
  padding: 8px;
  text-align: center;
}
ul {
  margin: 3px 0 0;
  padding: 0;
  list-style: none;
  font-size: 0.8125rem;
  color: var(--soft);
}
</style>
