<script setup lang="ts">
import type { SlotOf } from '../filling'
import { vKept } from '../../ui/kept'

defineProps<{ one: SlotOf<'list'> }>()
const emit = defineEmits<{ change: [part: Partial<SlotOf<'list'>>, gesture?: string] }>()
const most = (field: HTMLInputElement) => (Number.isNaN(field.valueAsNumber) ? undefined : Math.max(1, Math.round(field.valueAsNumber)))
</script>

<template>
  <label
    >At most
    <input
      v-kept="one.at_most ?? ''"
      class="form-control form-control-sm figures"
      type="number"
      min="1"
      :aria-label="`At most in ${one.name}`"
      @change="emit('change', { at_most: most($event.target as HTMLInputElement) })"
  /></label>
</template>
