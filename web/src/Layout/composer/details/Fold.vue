<script setup lang="ts">
/** A part of the details that is folded away unless it says something. */
defineProps<{ title: string; figures?: string }>()
</script>

<template>
  <details>
    <summary>
      {{ title }} <span v-if="figures" class="figures soft">{{ figures }}</span>
    </summary>
    <slot></slot>
  </details>
</template>

<style scoped>
details {
  border-top: 1px solid var(--rule);
  padding: 0 14px 8px;
}
summary {
  padding: 5px 0;
  font-size: 0.8125rem;
  font-weight: 700;
}
.figures {
  font-weight: 400;
}
</style>
