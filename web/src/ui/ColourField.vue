<script setup lang="ts">
import { computed } from 'vue'
import { nameIn, useStyleHere } from '../Layout/style'

/** A labelled colour: those of the house style first, by their names; any other is told with every move of the hand. */
const props = defineProps<{ label: string; value: string }>()
defineEmits<{ change: [colour: string] }>()
const style = useStyleHere()
const named = computed(() => nameIn(props.value))
const colours = computed(() => style.value?.colours ?? [])
const hex = computed(() => (named.value === null ? props.value : (colours.value.find((one) => one.name === named.value)?.hex ?? '#000000')))
</script>

<template>
  <div class="colour">
    <label
      ><span class="what"
        >{{ label }}<span v-if="named" class="named">{{ named }}</span></span
      ><input
        type="color"
        class="form-control form-control-color"
        :value="hex.slice(0, 7)"
        @input="$emit('change', ($event.target as HTMLInputElement).value)"
    /></label>
    <div v-if="colours.length" class="house" role="group" :aria-label="`${label} of the house`">
      <button
        v-for="one in colours"
        :key="one.name"
        type="button"
        :title="one.name"
        :aria-label="`${label}: ${one.name}`"
        :aria-pressed="named === one.name"
        :style="{ background: one.hex }"
        @click="$emit('change', `@${one.name}`)"
      ></button>
    </div>
  </div>
</template>

<style scoped>
label {
  display: block;
}
.form-control-color {
  width: 100%;
  max-width: none;
  height: 27px;
  padding: 2px;
}
.what {
  display: flex;
  justify-content: space-between;
  gap: 6px;
}
.named {
  font-family: var(--figures);
  color: var(--ink);
}
.house {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 4px;
}
.house button {
  width: 20px;
  height: 20px;
  padding: 0;
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.house button[aria-pressed='true'] {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}
</style>
