<script setup lang="ts">
import { ref } from 'vue'
import { api, sentence } from '../../ui/api'
import { vKept } from '../../ui/kept'

/**
 * One figure of the ledger: typed over, or stepped with the arrows (Shift: by 10). Where it is a length of the canvas, `1920-576`, `1/3`, `50%`
 * and `2.5mm` may be typed. What is no figure is put back, and its field says why.
 */
const props = defineProps<{ value: number; least: number; label: string; of?: { side_px: number; mm_per_px: number | null }; fixed?: boolean }>()
const emit = defineEmits<{ change: [value: number, gesture?: string] }>()
const wrong = ref(false)
const why = ref('')

async function typed(event: Event) {
  const field = event.target as HTMLInputElement
  const text = field.value.trim()
  why.value = ''
  let px: number | null = /^-?\d{1,6}$/.test(text) ? Number(text) : null
  if (px === null && props.of && text !== '') {
    await api.post<{ px: number }>('figure', { text, ...props.of }).then(
      (answer) => (px = answer.px),
      (e: unknown) => (why.value = sentence(e)),
    )
  }
  wrong.value = px === null || px < props.least
  if (px !== null && px < props.least) why.value = `${px} px; at least ${props.least} px are right.`
  field.value = String(wrong.value || px === null ? props.value : px)
  if (wrong.value) setTimeout(() => (wrong.value = false), 900)
  else if (px !== null && px !== props.value) emit('change', px)
}

function step(event: KeyboardEvent, by: number) {
  if (props.fixed) return
  const next = props.value + by * (event.shiftKey ? 10 : 1)
  if (next >= props.least) emit('change', next, `step ${props.label}`)
}
</script>

<template>
  <input
    v-kept="value"
    class="figure"
    :class="{ wrong }"
    :title="why"
    :aria-label="label"
    :readonly="fixed"
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
