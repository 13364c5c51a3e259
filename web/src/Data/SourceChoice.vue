<script setup lang="ts">
import { useSources } from './sources'
import StatusMark from './StatusMark.vue'

/** The sources that there are, one of them chosen. */
defineProps<{ label: string }>()
const source = defineModel<string | null>({ required: true })
const { all, query } = useSources(false)
</script>

<template>
  <div v-if="all.length" class="sources" role="radiogroup" :aria-label="label">
    <label v-for="one in all" :key="one.id" :class="{ on: source === one.id }">
      <input type="radio" name="source" :value="one.id" :checked="source === one.id" @change="source = one.id" />
      <span class="name">{{ one.name }}</span>
      <StatusMark :status="one.status" />
    </label>
  </div>
  <p v-else-if="query.isSuccess.value" class="m-0">
    No source of data is connected yet. <RouterLink to="/data">Connect one at Data</RouterLink>, then come back.
  </p>
  <p v-else class="soft m-0">Looking.</p>
</template>

<style scoped>
.sources {
  display: grid;
  border-top: 1px solid var(--rule);
  max-height: 220px;
  overflow: auto;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 32px;
  padding: 0 10px;
  border-bottom: 1px solid var(--rule);
}
label.on {
  background: var(--paper);
}
.name {
  flex: 1;
}
</style>
