<script setup lang="ts">
import type { SlotOf } from '../filling'
import { vKept } from '../../ui/kept'

/** Between which ends a number or a day has to lie, and what stands there unless it is filled in. */
const props = defineProps<{ one: SlotOf<'number'> | SlotOf<'date'> }>()
const emit = defineEmits<{ change: [part: object] }>()
const FIELDS = { from: 'From', to: 'To', default: 'Unless filled in' } as const
function write(name: string, field: HTMLInputElement) {
  if (field.validity.badInput) return
  const typed = props.one.kind === 'date' ? field.value : field.valueAsNumber
  emit('change', { [name]: typed === '' || Number.isNaN(typed) ? undefined : typed })
}
const decimals = (field: HTMLInputElement) =>
  emit('change', { decimals: Number.isNaN(field.valueAsNumber) ? undefined : Math.max(0, Math.min(12, Math.round(field.valueAsNumber))) })
</script>

<template>
  <label v-for="(name, field) in FIELDS" :key="field"
    >{{ name }}
    <input
      v-kept="one[field] ?? ''"
      class="form-control form-control-sm figures"
      :type="one.kind"
      step="any"
      :aria-label="`${name} of ${one.name}`"
      @change="write(field, $event.target as HTMLInputElement)"
  /></label>
  <label v-if="one.kind === 'number'"
    >Decimals
    <input
      v-kept="one.decimals ?? ''"
      class="form-control form-control-sm figures"
      type="number"
      min="0"
      max="12"
      :aria-label="`Decimals of ${one.name}`"
      @change="decimals($event.target as HTMLInputElement)"
  /></label>
</template>
