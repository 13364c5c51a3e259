<script setup lang="ts">
import { computed } from 'vue'
import { moment } from '../ui/format'
import type { SaveState } from './work'

/** What is saved, in words; always in the same place. */
const props = defineProps<{ state: SaveState; revision: number; savedAt: string }>()
const words = computed(
  () =>
    ({
      opening: 'opening',
      saved: `saved ${moment(props.savedAt)}, revision ${props.revision}`,
      changed: 'changed, being saved',
      saving: 'changed, being saved',
      kept: 'not saved, kept in this browser',
      refused: 'not saved',
      stale: 'somebody else saved meanwhile',
    })[props.state],
)
</script>

<template>
  <span class="save-note" :class="state" role="status">{{ words }}</span>
</template>

<style scoped>
.kept,
.refused,
.stale {
  color: var(--stop);
  font-weight: 650;
}
</style>
