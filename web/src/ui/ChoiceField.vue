<script setup lang="ts">
/** A labelled choice among a few words. */
defineProps<{ label: string; value: string | number; options: readonly (string | number | { value: string; text: string })[] }>()
defineEmits<{ change: [value: string] }>()
</script>

<template>
  <label
    >{{ label
    }}<select class="form-select form-select-sm" :value="value" @change="$emit('change', ($event.target as HTMLSelectElement).value)">
      <option v-for="o in options" :key="typeof o === 'object' ? o.value : o" :value="typeof o === 'object' ? o.value : o">
        {{ typeof o === 'object' ? o.text : o }}
      </option>
    </select></label
  >
</template>
