<script setup lang="ts">
import type { Upload } from './bringing'

/** Files that are on their way, and those that were not taken. */
defineProps<{ uploads: Upload[] }>()
defineEmits<{ away: [upload: Upload] }>()
</script>

<template>
  <ul v-if="uploads.length" class="uploads" aria-label="On the way">
    <li v-for="(upload, i) in uploads" :key="i">
      <span>{{ upload.name }}</span>
      <BProgress v-if="!upload.trouble" :value="upload.share * 100" :aria-label="`${upload.name} is on the way`" />
      <span v-else class="said-error"
        >{{ upload.trouble }} <button type="button" class="btn btn-link btn-sm" @click="$emit('away', upload)">put away</button></span
      >
    </li>
  </ul>
</template>

<style scoped>
.uploads {
  list-style: none;
  padding: 0;
  margin: 0 0 16px;
}
.uploads li {
  display: grid;
  grid-template-columns: 260px 1fr;
  align-items: center;
  gap: 16px;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
