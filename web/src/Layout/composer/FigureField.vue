<script setup lang="ts">
import { ref } from 'vue'
import { vKept } from '../../ui/kept'

/** One figure of the ledger: typed over, or stepped with the arrows (Shift: by 10). What is no figure is put back. */
const props = defineProps<{ value: number; least: number; label: string }>()
const emit = defineEmits<{ change: [value: number, gesture?: string] }>()
const wrong = ref(false)

function typed(event: Event) {
  const field = event.target as HTMLInputElement
  const text = field.value.trim()
  wrong.value = !/^-?\d{1,6}$/.test(text) || Number(text) < props.least
  if (wrong.value) {
    field.value = String(props.value)
    setTimeout(() => (wrong.value = false), 900)
  } else if (Number(text) !== props.value) {
    emit('change', Number(text))
  }
}

function step(event: KeyboardEvent, by: number) {
  const next = props.value + by * (event.shiftKey ? 10 : 1)
  if (next >= props.least) emit('change', next, `step ${props.label}`)
}
</script>

<template>
  <input
    v-kept="value"
    class="figure"
    :class="{ wrong }"
    inputmode="numeric"
    :aria-label="label"
    @focus="($event.target as HTMLInputElement).select()"
    @change="typed"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
    @keydown.up.prevent="step($event, 1)"
    @keydown.down.prevent="step($event, -1)"
  />
</template>

<style scoped>
.figure {
  width: 100%;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  text-align: right;
  padding: 0;
  color: inherit;
}
.figure:focus {
  outline: 2px solid var(--kelp);
  outline-offset: 1px;
  border-color: transparent;
}
.figure.wrong {
  outline: 2px solid var(--stop);
}
</style>
