<script setup lang="ts">
import { computed, ref } from 'vue'
import MeasureField from '../ui/MeasureField.vue'

/** A share of a side of the screen, typed in percent, or in px or mm of the display that is looked at; a share is kept. */
const props = defineProps<{
  label: string
  value: number
  /** That side, of the display looked at; null where none is. */ side: { px: number; mm: number } | null
  least?: number
}>()
const emit = defineEmits<{ change: [share: number, gesture?: string] }>()
const unit = ref<'%' | 'px' | 'mm'>('%')
const of = computed(() => (unit.value === '%' || !props.side ? 100 : unit.value === 'px' ? props.side.px : props.side.mm))
const set = (figure: number, gesture?: string) =>
  emit('change', Math.min(1, Math.max(props.least ?? 0, Number((figure / of.value).toFixed(6)))), gesture)
</script>

<template>
  <div class="share">
    <span>{{ label }}</span>
    <MeasureField
      :label="`${label}, ${unit}`"
      :value="value * of"
      :most="of"
      :decimals="unit === '%' ? 1 : 0"
      :step="unit === '%' ? 0.5 : 1"
      @change="set"
    />
    <select v-model="unit" class="form-select form-select-sm" :aria-label="`Unit of ${label}`">
      <option>%</option>
      <option v-if="side">px</option>
      <option v-if="side">mm</option>
    </select>
  </div>
</template>

<style scoped>
.share {
  display: grid;
  grid-template-columns: 1fr 62px 66px;
  gap: 8px;
  align-items: center;
}
</style>
