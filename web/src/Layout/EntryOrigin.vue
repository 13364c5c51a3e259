<script setup lang="ts">
/** Whose an entry of a style is: its own, which can be taken out, or one of the style that it extends. */
defineProps<{ name: string; from: string | null; inherits: boolean }>()
defineEmits<{ take: [] }>()
</script>

<template>
  <td class="small soft text-nowrap">
    <span v-if="from" :title="`from ${from}`">inherited</span>
    <button v-else type="button" class="btn btn-link btn-sm p-0" :aria-label="`Take ${name} out`" @click="$emit('take')">
      {{ inherits ? 'as inherited' : 'take out' }}
    </button>
  </td>
</template>
