<script setup lang="ts">
import { computed, ref } from 'vue'
import { moment } from '../ui/format'
import { type Handing, arrivalOf, saysOf } from './handings'
import PutBack from './PutBack.vue'

/** What is under way, and what became of one's own: it goes on when one leaves, and is here when one comes back. `lately`: what became of others too. */
const props = defineProps<{ handings: Handing[]; own: string[]; nameOf: (display: string) => string; lately: boolean }>()
const MOST = 4
const isBack = ref(false)
const back = ref('')
function undo(handing: string) {
  back.value = handing
  isBack.value = true
}
const RECENT_MS = 10 * 60_000
const shown = computed(() =>
  props.handings
    .filter(
      (h) =>
        (h.state !== 'done' && h.state !== 'failed') ||
        props.own.includes(h.id) ||
        (props.lately && Date.now() - Date.parse(h.ended_at ?? '') < RECENT_MS),
    )
    .slice(0, MOST),
)
</script>

<template>
  <ul v-if="shown.length" class="handings" aria-label="Handed over lately">
    <li v-for="h in shown" :key="h.id" :class="h.state" :role="own.includes(h.id) ? 'status' : undefined">
      <b>{{ h.name }}</b> <span :class="h.state === 'failed' ? 'said-error' : ''">{{ saysOf(h, nameOf) }}</span>
      <progress
        v-if="h.state === 'waiting' || h.state === 'working'"
        :value="h.done"
        :max="h.of"
        :aria-label="`${h.name}: ${h.done} of ${h.of}`"
      ></progress>
      <span class="soft small">{{ moment(h.ended_at ?? h.begun_at) }}{{ h.begun_by ? `, ${h.begun_by}` : '' }}</span>
      <RouterLink v-if="h.state === 'done'" :to="arrivalOf(h)">Watch it arrive</RouterLink>
      <button v-if="h.state === 'done'" type="button" class="btn btn-link btn-sm p-0" :aria-label="`Undo: ${h.name}`" @click="undo(h.id)">
        undo…
      </button>
    </li>
  </ul>
  <PutBack v-model="isBack" :asked="{ handing: back }" />
</template>

<style scoped>
.handings {
  list-style: none;
  padding: 0;
  margin: 0 0 12px;
}
li {
  display: flex;
  gap: 12px;
  align-items: baseline;
  border: 1px solid var(--rule);
  background: var(--sheet);
  padding: 6px 12px;
  margin-bottom: -1px;
}
li.done {
  background: var(--kelp-wash);
}
progress {
  flex: 1;
  max-width: 240px;
  accent-color: var(--kelp);
}
</style>
