<script setup lang="ts">
import { computed, ref } from 'vue'

/** The name of a new entry of a style. */
const props = defineProps<{ noun: string; taken: string[]; act?: string }>()
const emit = defineEmits<{ add: [name: string] }>()
const NAME = /^[a-z][a-z0-9-]*$/
const name = ref('')
const wrong = computed(() => {
  if (name.value === '') return ''
  if (!NAME.test(name.value)) return 'small letters, figures and dashes, a letter first'
  return props.taken.includes(name.value) ? 'there is one of that name' : ''
})
function add() {
  if (name.value === '' || wrong.value) return
  emit('add', name.value)
  name.value = ''
}
</script>

<template>
  <form class="add" @submit.prevent="add">
    <input
      v-model.trim="name"
      class="form-control form-control-sm"
      :aria-label="`Name of a new ${noun}`"
      :placeholder="`new ${noun}`"
      maxlength="80"
    />
    <button type="submit" class="btn btn-outline-dark btn-sm text-nowrap" :disabled="!name || !!wrong">{{ act ?? 'Add' }}</button>
    <span class="small said-error">{{ wrong }}</span>
  </form>
</template>

<style scoped>
.add {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 4px;
}
.add input {
  width: 150px;
}
</style>
