<script setup lang="ts">
import ChoiceBar from '../../ui/ChoiceBar.vue'
import { type SlotOf, type Value, isMissing } from '../filling'
import SlotLine from './SlotLine.vue'

/** Whether something is there; as the template has it where nobody says. */
defineProps<{ one: SlotOf<'switch'>; value: Value | undefined }>()
const emit = defineEmits<{ change: [value: Value | undefined, gesture: string] }>()
</script>

<template>
  <SlotLine :name="one.name" :missing="isMissing(one, value)" of="div">
    <ChoiceBar
      :model-value="String(value ?? one.default ?? true)"
      :label="one.name"
      :words="{ true: 'on', false: 'off' }"
      @update:model-value="emit('change', $event === 'true', one.id)"
    />
  </SlotLine>
</template>
