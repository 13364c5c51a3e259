<script setup lang="ts">
defineProps<{ trouble: string; state: string; restored: boolean; comparable?: boolean }>()
defineEmits<{ mine: []; theirs: []; compare: [] }>()
</script>

<template>
  <div v-if="state === 'stale'" class="note" role="alert">
    <span>{{ trouble }}</span>
    <BButton v-if="comparable" size="sm" variant="outline-dark" @click="$emit('compare')">Compare…</BButton>
    <BButton size="sm" variant="outline-dark" @click="$emit('theirs')">Go on with theirs</BButton>
    <BButton size="sm" variant="primary" @click="$emit('mine')">Put mine on top</BButton>
  </div>
  <div v-else-if="trouble" class="note" role="alert">{{ trouble }}</div>
  <div v-else-if="restored" class="note calm" role="status">
    A change that had not reached the server was found in this browser and put back. Undo takes it away.
  </div>
</template>

<style scoped>
.note {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 16px;
  font-size: 0.875rem;
  background: #fbeae6;
  border-bottom: 1px solid var(--stop);
  color: var(--stop);
}
.note.calm {
  background: #eaf0f6;
  border-color: var(--chalk);
  color: var(--chalk);
}
.note span {
  margin-right: auto;
}
</style>
