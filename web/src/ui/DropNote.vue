<script setup lang="ts">
/** Over a page onto which files are dragged: that they are taken where they are let go. Its station is what it is laid over. */
defineProps<{ over: boolean }>()
</script>

<template>
  <div v-if="over" class="dropping">Let go to bring them in</div>
</template>

<style scoped>
.dropping {
  position: absolute;
  inset: 60px 0 0;
  display: grid;
  place-items: center;
  font-size: 1.5rem;
  background: rgb(228 239 233 / 0.9);
  border: 3px dashed var(--kelp);
  pointer-events: none;
}
</style>
