<script setup lang="ts">
import MeasureField from './MeasureField.vue'

/** A figure to be typed over, below its name. */
withDefaults(defineProps<{ value: number | null; label: string; unit?: string; least?: number; most?: number; decimals?: number; step?: number }>(), {
  unit: '',
  least: 0,
  most: 1e6,
  decimals: 1,
  step: 1,
})
defineEmits<{ change: [value: number, gesture?: string] }>()
</script>

<template>
  <div class="named-measure">
    <span>{{ label }}</span>
    <MeasureField v-bind="$props" @change="(value, gesture) => $emit('change', value, gesture)" />
  </div>
</template>

<style scoped>
.named-measure > span {
  display: block;
}
</style>
