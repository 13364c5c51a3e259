<script setup lang="ts">
/** Stands at the end of a list that grows, and says how much is left. */
defineProps<{ left: number }>()
</script>

<template>
  <p v-if="left > 0" class="figures soft text-center py-3 m-0">and {{ left }} more</p>
</template>
