<script setup lang="ts">
import type { Level } from './shelf'

/** Each level has its own shape, besides its colour and word. */
defineProps<{ level: Level }>()
</script>

<template>
  <svg width="13" height="13" viewBox="0 0 13 13" role="img" :aria-label="level" :class="level">
    <rect v-if="level === 'stop'" x="1" y="1" width="11" height="11" />
    <path v-else-if="level === 'warning'" d="M6.5 0.5 L13 12.5 H0 Z" />
    <circle v-else cx="6.5" cy="6.5" r="4.5" fill="none" stroke="currentColor" stroke-width="2" />
  </svg>
</template>

<style scoped>
svg {
  fill: currentColor;
  flex: none;
}
.stop {
  color: var(--stop);
}
.warning {
  color: var(--warning);
}
.hint {
  color: var(--hint);
}
</style>
