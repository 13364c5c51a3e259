<script setup lang="ts">
import { ref } from 'vue'
import { vKept } from './kept'
import WhyNote from './WhyNote.vue'

/**
 * A figure with its unit: typed over (a comma is read as a point), or stepped with the arrows (Shift: by ten). What is no figure stays until
 * it is right, and is told why; Escape puts back what was there. Where several things have several figures it stands empty, and typing sets them all.
 */
const props = withDefaults(
  defineProps<{ value: number | null; label: string; unit?: string; least?: number; most?: number; decimals?: number; step?: number }>(),
  { unit: '', least: 0, most: 1e6, decimals: 1, step: 1 },
)
const emit = defineEmits<{ change: [value: number, gesture?: string] }>()
const why = ref('')
const shown = () => (props.value === null ? '' : String(Number(props.value.toFixed(props.decimals))))
const right = () => {
  const unit = props.unit ? ` ${props.unit}` : ''
  return `a ${props.decimals === 0 ? 'whole number' : 'figure'} from ${props.least} to ${props.most.toLocaleString('en')}${unit} is right.`
}

function typed(event: Event) {
  const field = event.target as HTMLInputElement
  const text = field.value.trim().replace(',', '.')
  const value = Number(text)
  why.value = ''
  if (text === '' && props.value === null) return
  const isWrong =
    !/^-?\d{1,9}(\.\d{1,6})?$/.test(text) || value < props.least || value > props.most || (props.decimals === 0 && !Number.isInteger(value))
  if (isWrong) why.value = `${text === '' ? 'Nothing is typed' : `"${field.value.trim()}"`}: ${right()}`
  else if (value !== props.value) emit('change', value)
  else field.value = shown()
}
function back(event: KeyboardEvent) {
  const field = event.target as HTMLInputElement
  field.value = shown()
  why.value = ''
}
function stepped(event: KeyboardEvent, by: number) {
  const next = Number(((props.value ?? 0) + by * props.step * (event.shiftKey ? 10 : 1)).toFixed(props.decimals))
  why.value = ''
  if (next >= props.least && next <= props.most) emit('change', next, `step ${props.label}`)
}
</script>

<template>
  <span class="measure figures" :class="{ wrong: why }">
    <input
      v-kept="shown()"
      inputmode="decimal"
      :aria-label="unit ? `${label}, ${unit}` : label"
      :placeholder="value === null ? '–' : ''"
      :aria-invalid="why !== ''"
      @focus="($event.target as HTMLInputElement).select()"
      @change="typed"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
      @keydown.esc="back"
      @keydown.up.prevent="stepped($event, 1)"
      @keydown.down.prevent="stepped($event, -1)"
    /><span v-if="unit" class="unit" aria-hidden="true">{{ unit }}</span
    ><WhyNote :why="why" />
  </span>
</template>

<style scoped>
.measure {
  position: relative;
  display: inline-flex;
  align-items: baseline;
  gap: 4px;
}
input {
  width: 54px;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  text-align: right;
  padding: 0;
  color: inherit;
}
input:focus {
  outline: 2px solid var(--kelp);
  outline-offset: 1px;
}
.wrong input {
  outline: 2px solid var(--stop);
}
.unit {
  color: var(--soft);
}
</style>
