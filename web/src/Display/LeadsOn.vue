<script setup lang="ts">
import { computed } from 'vue'
import type { DisplayState } from '../Estate/estate'
import BindForm from './BindForm.vue'

/** What comes after a survey, until something plays: a player, a layout, the handover. */
const props = defineProps<{ display: DisplayState; isNew: boolean }>()
const isBound = computed(() => props.display.players.length > 0)
</script>

<template>
  <section v-if="!isBound || !display.release" class="leads" aria-label="What comes next">
    <h2>Until something plays here</h2>
    <ol>
      <li :class="{ done: isBound }">
        <template v-if="isBound">A player is bound.</template>
        <template v-else>
          Open <b>/player</b> on the device that drives it.
          <BindForm :display="display" :focused="isNew" />
        </template>
      </li>
      <li><RouterLink :to="`/layouts?new=${display.id}`">Make a layout for it</RouterLink>, of its raster and its distance.</li>
      <li :class="{ done: display.release }">
        <template v-if="display.release">{{ display.release.name }} is handed over.</template>
        <RouterLink v-else :to="`/handover?display=${display.id}`">Hand something over to it</RouterLink>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.leads {
  border-bottom: 1px solid var(--ink);
  background: var(--kelp-wash);
  padding: 10px 16px 12px;
  font-size: 0.875rem;
}
h2 {
  font-size: 0.9375rem;
  margin: 0 0 4px;
}
ol {
  margin: 0;
  padding-left: 18px;
}
li {
  padding: 3px 0;
}
.done {
  color: var(--soft);
}
</style>
