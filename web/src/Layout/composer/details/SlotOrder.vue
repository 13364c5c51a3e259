<script setup lang="ts">
import { computed } from 'vue'
import { some } from '../../../ui/format'
import type { Slot } from '../../filling'
import { elementsOf } from '../../slots/slots'
import { useComposer } from '../composer'
import Fold from './Fold.vue'

/** All that is left open in a template, in the order in which it is filled in. */
const composer = useComposer()
const slots = computed<Slot[]>(() => composer.whole.value.slots ?? [])
function move(n: number, by: number) {
  const next = [...slots.value]
  const [one] = next.splice(n, 1)
  next.splice(n + by, 0, one!)
  composer.become({ ...composer.whole.value, slots: next })
}
</script>

<template>
  <Fold class="slot-order" title="Left open for filling in" open>
    <p v-if="slots.length === 0" class="small soft m-0">
      Nothing: this is a layout as it stands. Choose an element and open its words, its picture or a figure in it, and it is a template.
    </p>
    <ol v-else>
      <li v-for="(slot, n) in slots" :key="slot.id">
        <button type="button" class="btn btn-link btn-sm p-0" @click="composer.choose(elementsOf(slot))">{{ slot.name }}</button>
        <span class="figures soft">{{ slot.kind }}, {{ some(elementsOf(slot)) }}{{ slot.required ? ', required' : '' }}</span>
        <span class="moves">
          <button type="button" class="btn btn-link btn-sm p-0" :disabled="n === 0" :aria-label="`${slot.name} earlier`" @click="move(n, -1)">
            ↑
          </button>
          <button
            type="button"
            class="btn btn-link btn-sm p-0"
            :disabled="n === slots.length - 1"
            :aria-label="`${slot.name} later`"
            @click="move(n, 1)"
          >
            ↓
          </button>
        </span>
      </li>
    </ol>
    <p v-if="slots.length" class="small m-0">
      <RouterLink :to="`/layouts/${composer.whole.value.id}/template`">See it filled in, and what is filled into it</RouterLink>
    </p>
  </Fold>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0 0 4px;
  padding: 0;
}
li {
  display: flex;
  gap: 10px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
}
li .figures {
  flex: 1;
}
.moves {
  display: flex;
  gap: 8px;
}
</style>
