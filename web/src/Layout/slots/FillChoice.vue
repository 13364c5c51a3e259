<script setup lang="ts">
import { computed } from 'vue'
import ChoiceBar from '../../ui/ChoiceBar.vue'
import { type SlotOf, type Value, isMissing } from '../filling'
import SlotLine from './SlotLine.vue'

/** One of a few; more than these are told in a list. */
const props = defineProps<{ one: SlotOf<'choice'>; value: Value | undefined }>()
const emit = defineEmits<{ change: [value: Value | undefined, gesture: string] }>()
const FEW = 4
const words = computed(() => Object.fromEntries(props.one.options.map((option) => [option.id, option.name])))
const chosen = computed(() => (typeof props.value === 'string' ? props.value : (props.one.default ?? '')))
</script>

<template>
  <SlotLine :name="one.name" :missing="isMissing(one, value)" of="div">
    <ChoiceBar
      v-if="one.options.length <= FEW"
      :model-value="chosen"
      :label="one.name"
      :words="words"
      @update:model-value="emit('change', $event, one.id)"
    />
    <select
      v-else
      class="form-select"
      :aria-label="one.name"
      :value="chosen"
      @change="emit('change', ($event.target as HTMLSelectElement).value || undefined, one.id)"
    >
      <option v-if="!one.default" value="">as the template has it</option>
      <option v-for="option in one.options" :key="option.id" :value="option.id">{{ option.name }}</option>
    </select>
  </SlotLine>
</template>
