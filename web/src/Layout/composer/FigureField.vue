<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'
import { api, sentence } from '../../ui/api'
import { vKept } from '../../ui/kept'
import WhyNote from '../../ui/WhyNote.vue'

/**
 * One figure of the ledger: typed over, or stepped with the arrows (Shift: by 10). Where it is a length of the canvas, `1920-576`, `1/3`, `50%`
 * and `2.5mm` may be typed. What is no figure stays until it is right, and is
 * told why; Escape puts back what was there. Where hundreds stand side by side each is text (`quiet`) until the focus comes to it.
 */
const props = defineProps<{
  value: number
  least: number
  label: string
  of?: { side_px: number; mm_per_px: number | null }
  fixed?: boolean
  quiet?: boolean
}>()
const emit = defineEmits<{ change: [value: number, gesture?: string] }>()
const why = ref('')
const isOpen = ref(!props.quiet)
const field = useTemplateRef('field')
async function open() {
  isOpen.value = true
  await nextTick()
  field.value?.focus()
}
let isAsking = false
/** What is wrong stays open, and what nobody knows yet. */
function left() {
  if (!isAsking) isOpen.value = !props.quiet || why.value !== ''
}

async function typed(event: Event) {
  const input = event.target as HTMLInputElement
  const text = input.value.trim()
  why.value = ''
  let px: number | null = /^-?\d{1,6}$/.test(text) ? Number(text) : null
  if (px === null && props.of && text !== '') {
    isAsking = true
    await api.post<{ px: number }>('figure', { text, ...props.of }).then(
      (answer) => (px = answer.px),
      (e: unknown) => (why.value = sentence(e)),
    )
    isAsking = false
  }
  if (px !== null && px < props.least) why.value = `${px} px; at least ${props.least} px are right.`
  else if (px === null) why.value ||= text === '' ? 'Nothing is typed.' : `"${text}" is no whole number of px.`
  else {
    input.value = String(px)
    if (px !== props.value) emit('change', px)
  }
  if (document.activeElement !== input) left()
}
function back(event: KeyboardEvent) {
  ;(event.target as HTMLInputElement).value = String(props.value)
  why.value = ''
}

function step(event: KeyboardEvent, by: number) {
  if (props.fixed) return
  why.value = ''
  const next = props.value + by * (event.shiftKey ? 10 : 1)
  if (next >= props.least) emit('change', next, `step ${props.label}`)
}
</script>

<template>
  <span
    v-if="!isOpen"
    class="figure closed"
    role="spinbutton"
    tabindex="0"
    :aria-label="label"
    :aria-valuenow="value"
    :aria-readonly="fixed"
    @focus="open"
    >{{ value }}</span
  >
  <span v-else class="figure-field">
    <input
      ref="field"
      v-kept="value"
      class="figure"
      :class="{ wrong: why }"
      :aria-label="label"
      :aria-invalid="why !== ''"
      :readonly="fixed"
      @focus="($event.target as HTMLInputElement).select()"
      @change="typed"
      @blur="left"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
      @keydown.esc.stop="back"
      @keydown.up.prevent="step($event, 1)"
      @keydown.down.prevent="step($event, -1)"
    /><WhyNote :why="why" />
  </span>
</template>

<style scoped>
.figure-field {
  position: relative;
  display: block;
}
.figure {
  width: 100%;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  text-align: right;
  padding: 0;
  color: inherit;
}
.closed {
  display: block;
  cursor: text;
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
