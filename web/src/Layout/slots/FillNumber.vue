<script setup lang="ts">
import { computed } from 'vue'
import { type SlotOf, type Value, isMissing } from '../filling'
import SlotLine from './SlotLine.vue'

const props = defineProps<{ one: SlotOf<'number'>; value: Value | undefined }>()
const emit = defineEmits<{ change: [value: Value | undefined, gesture: string] }>()
const range = computed(() => {
  const { from, to } = props.one
  if (from !== undefined && to !== undefined) return `${from} to ${to}`
  return from !== undefined ? `from ${from}` : to !== undefined ? `up to ${to}` : ''
})
function write(field: HTMLInputElement) {
  const typed = field.valueAsNumber
  // What is half typed is no number yet.
  if (!Number.isNaN(typed)) emit('change', typed, props.one.id)
  else if (field.value === '' && !field.validity.badInput) emit('change', undefined, props.one.id)
}
</script>

<template>
  <SlotLine :name="one.name" :missing="isMissing(one, value)" :says="range">
    <input
      class="form-control figures"
      type="number"
      inputmode="decimal"
      step="any"
      :min="one.from"
      :max="one.to"
      :value="value ?? ''"
      :placeholder="one.default === undefined ? '' : String(one.default)"
      :aria-label="one.name"
      :data-slot="one.id"
      @input="write($event.target as HTMLInputElement)"
    />
  </SlotLine>
</template>
