<script setup lang="ts">
import LevelMark from '../ui/LevelMark.vue'
import { STATUS, type SourceState } from './sources'

/** How a source stands, by a sign and a word. */
defineProps<{ status: SourceState['status'] }>()
</script>

<template>
  <span class="status" :class="{ well: status === 'fresh' }">
    <LevelMark v-if="status !== 'fresh'" level="warning" />
    <svg v-else width="12" height="12" viewBox="0 0 12 12" aria-hidden="true"><path d="M1.5 6.5l3 3 6-7" /></svg>
    {{ STATUS[status] }}
  </span>
</template>

<style scoped>
.status {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  color: var(--warning);
  white-space: nowrap;
}
.well {
  color: var(--kelp);
}
path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
}
</style>
