<script setup lang="ts">
import { nextTick, ref, useTemplateRef, watch } from 'vue'

/** Beside a field: why what is typed there is not taken. It stays until it is right, or Escape puts back what was there. */
const props = defineProps<{ why: string }>()

const note = useTemplateRef('note')
const EDGE_PX = 8
const at = ref({ left: '0px', top: '0px' })
/** Above all else, wherever its field lies: what lies around it may cut off what reaches out. */
watch(
  () => props.why,
  async (why) => {
    await nextTick()
    const field = note.value?.parentElement
    if (!why || !note.value || !field) return
    note.value.showPopover()
    const [box, own] = [field.getBoundingClientRect(), note.value.getBoundingClientRect()]
    at.value = {
      left: `${Math.max(EDGE_PX, Math.min(innerWidth - own.width - EDGE_PX, box.right - own.width))}px`,
      top: `${box.bottom + own.height + EDGE_PX > innerHeight ? box.top - own.height - 3 : box.bottom + 3}px`,
    }
  },
)
</script>

<template>
  <span v-if="why" ref="note" popover="manual" class="why" role="alert" :style="at">{{ why }}</span>
</template>

<style scoped>
.why {
  position: fixed;
  inset: auto;
  width: max-content;
  max-width: 300px;
  margin: 0;
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
