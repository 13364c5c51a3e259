<script setup lang="ts">
import { useTemplateRef } from 'vue'
import { vKept } from './kept'

/** One line that is typed over: told when it is left or Enter is pressed. Nothing typed, and what was there comes back; Escape too. */
const props = defineProps<{ value: string; label: string }>()
const emit = defineEmits<{ change: [text: string] }>()
const field = useTemplateRef('field')

function typed() {
  const text = field.value!.value.trim()
  if (text === '' || text === props.value) back()
  else emit('change', text)
}
const back = () => (field.value!.value = props.value)
</script>

<template>
  <input
    ref="field"
    v-kept="value"
    class="typed-line"
    :aria-label="label"
    maxlength="200"
    @change="typed"
    @keydown.enter="field!.blur()"
    @keydown.esc.stop="(back(), field!.blur())"
  />
</template>

<style scoped>
.typed-line {
  border: 0;
  background: none;
  padding: 0;
  min-width: 0;
  color: inherit;
}
</style>
