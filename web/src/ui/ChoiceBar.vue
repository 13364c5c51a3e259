<script setup lang="ts" generic="K extends string">
import { computed, nextTick, useTemplateRef } from 'vue'

/** A few words of which one holds: Tab leads to that one, the arrows choose the next. */
const props = defineProps<{ label: string; words: Partial<Record<K, string>>; titles?: Partial<Record<K, string>> }>()
const chosen = defineModel<K>({ required: true })
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-assertion -- the linter takes K for any text
const keys = computed(() => Object.keys(props.words) as K[])
const group = useTemplateRef('group')

function key(event: KeyboardEvent) {
  const here = keys.value.indexOf(chosen.value)
  const last = keys.value.length - 1
  const next = {
    ArrowRight: here === last ? 0 : here + 1,
    ArrowDown: here === last ? 0 : here + 1,
    ArrowLeft: here <= 0 ? last : here - 1,
    ArrowUp: here <= 0 ? last : here - 1,
    Home: 0,
    End: last,
  }[event.key]
  if (next === undefined) return
  event.preventDefault()
  event.stopPropagation()
  chosen.value = keys.value[next]!
  void nextTick(() => group.value?.querySelectorAll('button')[next]?.focus())
}
</script>

<template>
  <div ref="group" class="choice" role="radiogroup" :aria-label="label" @keydown="key">
    <button
      v-for="(at, n) in keys"
      :key="at"
      type="button"
      role="radio"
      :aria-checked="chosen === at"
      :tabindex="chosen === at || (n === 0 && !(chosen in words)) ? 0 : -1"
      :title="titles?.[at]"
      @click="chosen = at"
    >
      {{ words[at] }}
    </button>
  </div>
</template>
