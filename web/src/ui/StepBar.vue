<script setup lang="ts">
/** Steps of a hand through time: to the changes, by seconds, and on by itself. */
defineProps<{ running: boolean; runWord?: string; stopWord?: string }>()
const emit = defineEmits<{ change: [forward: boolean]; second: [forward: boolean]; run: [] }>()
</script>

<template>
  <span class="steps">
    <button type="button" title="Previous change (<)" @click="emit('change', false)">|‹<span class="visually-hidden">Previous change</span></button>
    <button type="button" title="One second back (,)" @click="emit('second', false)">‹<span class="visually-hidden">One second back</span></button>
    <button type="button" class="run" :title="running ? 'Stop the clock (space)' : 'Run the clock (space)'" @click="emit('run')">
      {{ running ? (stopWord ?? 'stop') : (runWord ?? 'run') }}
    </button>
    <button type="button" title="One second on (.)" @click="emit('second', true)">›<span class="visually-hidden">One second on</span></button>
    <button type="button" title="Next change (>)" @click="emit('change', true)">›|<span class="visually-hidden">Next change</span></button>
  </span>
</template>

<style scoped>
.steps {
  display: flex;
}
.steps button {
  border: 1px solid var(--soft);
  background: none;
  min-width: 34px;
  font-size: 0.8125rem;
  margin-left: -1px;
  padding: 1px 8px;
}
</style>
