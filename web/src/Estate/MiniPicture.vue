<script setup lang="ts">
import DisplayPicture from './DisplayPicture.vue'
import type { DisplayState } from './estate'

/** A display in a row of a table: what it shows now, very small. */
defineProps<{ display: DisplayState; at: number }>()
</script>

<template>
  <div class="mini" :class="display.orientation"><DisplayPicture :display="display" :at="at" /></div>
</template>

<style scoped>
.mini {
  width: 68px;
  flex: none;
  display: grid;
  justify-items: center;
}
.mini.portrait :deep(> *) {
  width: 27px !important;
}
.mini :deep(.nothing span) {
  display: none;
}
</style>
