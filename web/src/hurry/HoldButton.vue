<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'

/** A press that has to be held: by finger, mouse, or the space bar. Let go before, nothing happens. */
const props = defineProps<{ disabled?: boolean; holdMs: number }>()
const emit = defineEmits<{ held: [] }>()
const gone = ref(0)
let began = 0
let frame = 0

function begin(event: Event) {
  event.preventDefault()
  if (props.disabled || began) return
  began = performance.now()
  const step = () => {
    gone.value = Math.min(1, (performance.now() - began) / props.holdMs)
    if (gone.value < 1) frame = requestAnimationFrame(step)
    else {
      end()
      emit('held')
    }
  }
  frame = requestAnimationFrame(step)
}
function end() {
  cancelAnimationFrame(frame)
  began = gone.value = 0
}
onBeforeUnmount(end)
</script>

<template>
  <button
    type="button"
    class="hold"
    :disabled="disabled"
    @pointerdown="begin"
    @pointerup="end"
    @pointerleave="end"
    @pointercancel="end"
    @contextmenu.prevent
    @keydown.space="!$event.repeat && begin($event)"
    @keydown.enter="!$event.repeat && begin($event)"
    @keyup="end"
    @blur="end"
  >
    <span class="gone" :style="{ transform: `scaleX(${gone})` }" aria-hidden="true"></span><span class="says"><slot></slot></span>
  </button>
</template>
