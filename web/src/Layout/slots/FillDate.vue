<script setup lang="ts">
import { computed } from 'vue'
import { type SlotOf, type Value, isMissing } from '../filling'
import SlotLine from './SlotLine.vue'

const props = defineProps<{ one: SlotOf<'date'>; value: Value | undefined }>()
const emit = defineEmits<{ change: [value: Value | undefined, gesture: string] }>()
const range = computed(() => {
  const { from, to } = props.one
  return from && to ? `${from} to ${to}` : from ? `from ${from}` : to ? `until ${to}` : ''
})
</script>

<template>
  <SlotLine :name="one.name" :missing="isMissing(one, value)" :says="range">
    <input
      class="form-control figures"
      type="date"
      :min="one.from"
      :max="one.to"
      :value="value ?? one.default ?? ''"
      :aria-label="one.name"
      :data-slot="one.id"
      @change="emit('change', ($event.target as HTMLInputElement).value || undefined, one.id)"
    />
  </SlotLine>
</template>
