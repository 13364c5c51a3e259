<script setup lang="ts">
import { nextTick, ref, useTemplateRef, watch } from 'vue'

/** Beside a field: why what is typed there is not taken. It stays until it is right, or Escape puts back what was there. */
const props = defineProps<{ why: string }>()

const note = useTemplateRef('note')
const EDGE_PX = 8
/** Moved so far that all of it can be read. */
const shift = ref(0)
watch(
  () => props.why,
  async () => {
    shift.value = 0
    await nextTick()
    const box = note.value?.getBoundingClientRect()
    if (box) shift.value = Math.max(0, EDGE_PX - box.left) - Math.max(0, box.right - innerWidth + EDGE_PX)
  },
)
</script>

<template>
  <span v-if="why" ref="note" class="why" role="alert" :style="{ transform: `translateX(${shift}px)` }">{{ why }}</span>
</template>

<style scoped>
.why {
  position: absolute;
  right: 0;
  top: 100%;
  z-index: 30;
  width: max-content;
  max-width: 240px;
  margin-top: 3px;
  padding: 5px 9px;
  background: var(--sheet);
  border: 1px solid var(--stop);
  border-left-width: 4px;
  color: var(--stop);
  font: 400 0.8125rem/1.35 var(--bs-body-font-family);
  text-align: left;
  white-space: normal;
}
</style>
