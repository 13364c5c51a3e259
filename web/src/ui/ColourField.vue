<script setup lang="ts">
/** A labelled colour; it is told with every move of the hand. */
defineProps<{ label: string; value: string }>()
defineEmits<{ change: [colour: string] }>()
</script>

<template>
  <label
    >{{ label
    }}<input
      type="color"
      class="form-control form-control-color"
      :value="value.slice(0, 7)"
      @input="$emit('change', ($event.target as HTMLInputElement).value)"
  /></label>
</template>

<style scoped>
.form-control-color {
  width: 100%;
  height: 27px;
  padding: 2px;
}
</style>
