<script setup lang="ts">
import { computed, ref } from 'vue'
import type { SlotOf } from '../filling'

/** In which languages there may be a text each. */
const props = defineProps<{ one: SlotOf<'text'> }>()
const emit = defineEmits<{ change: [part: Partial<SlotOf<'text'>>, gesture?: string] }>()
const typed = ref((props.one.languages ?? []).join(', '))
const TAG = /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/
const wrong = computed(() => {
  const tags = read(typed.value)
  return tags.every((tag) => TAG.test(tag)) ? (new Set(tags).size < tags.length ? 'one of them twice' : '') : 'languages such as en, pt'
})
const read = (text: string) =>
  text
    .split(',')
    .map((tag) => tag.trim())
    .filter((tag) => tag !== '')
function write() {
  if (wrong.value) return
  const tags = read(typed.value)
  emit('change', { languages: tags.length ? tags : undefined, ...(tags.length ? {} : { default: undefined }) })
}
</script>

<template>
  <label
    >Languages
    <input
      v-model="typed"
      class="form-control form-control-sm"
      placeholder="one text for all"
      :aria-label="`Languages of ${one.name}`"
      @change="write"
    />
    <span class="small said-error">{{ wrong }}</span></label
  >
</template>
