<script setup lang="ts">
/** A few words of which one holds. */
defineProps<{ label: string; words: Record<string, string> }>()
const chosen = defineModel<string>({ required: true })
</script>

<template>
  <div class="choice" role="group" :aria-label="label">
    <button v-for="(word, key) in words" :key="key" type="button" :aria-pressed="chosen === key" @click="chosen = key">{{ word }}</button>
  </div>
</template>
