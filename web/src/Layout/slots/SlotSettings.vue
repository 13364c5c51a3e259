<script setup lang="ts">
import { computed } from 'vue'
import TypedLine from '../../ui/TypedLine.vue'
import type { Slot } from '../filling'
import { SLOTS } from './slots'
import { vKept } from '../../ui/kept'

/** One thing that is left open: how it is called, what is said of it, whether it has to be filled in, and what its kind asks for. */
const props = defineProps<{ one: Slot }>()
const emit = defineEmits<{ change: [part: Partial<Slot>, gesture?: string]; remove: [] }>()
const kind = computed(() => SLOTS[props.one.kind])
</script>

<template>
  <fieldset class="slot-settings">
    <legend>
      <TypedLine :value="one.name" :label="`Name of the slot ${one.name}`" @change="(name) => emit('change', { name })" />
      <span class="figures soft">{{ one.kind }}</span>
      <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Lock ${one.name} again`" @click="emit('remove')">lock again</button>
    </legend>
    <div class="grid">
      <label class="wide"
        >Hint for whoever fills it in
        <input
          v-kept="one.hint ?? ''"
          class="form-control form-control-sm"
          maxlength="500"
          :aria-label="`Hint of ${one.name}`"
          @change="emit('change', { hint: ($event.target as HTMLInputElement).value.trim() || undefined })"
      /></label>
      <label class="check"
        ><input
          type="checkbox"
          :checked="one.required ?? false"
          :aria-label="`${one.name} has to be filled in`"
          @change="emit('change', { required: ($event.target as HTMLInputElement).checked || undefined })"
        />
        has to be filled in</label
      >
      <label v-if="one.kind === 'switch'" class="check"
        ><input
          type="checkbox"
          :checked="one.default ?? true"
          :aria-label="`${one.name} begins switched on`"
          @change="emit('change', { default: ($event.target as HTMLInputElement).checked })"
        />
        begins switched on</label
      >
      <component :is="kind.Settings" v-if="kind.Settings" :one="one" @change="(part: Partial<Slot>, g?: string) => emit('change', part, g)" />
    </div>
  </fieldset>
</template>

<style scoped>
.slot-settings {
  border: 0;
  border-left: 3px solid var(--kelp);
  margin: 0 0 8px;
  padding: 2px 0 4px 10px;
}
legend {
  display: flex;
  gap: 10px;
  align-items: baseline;
  font-size: 0.875rem;
  margin: 0 0 4px;
}
legend .typed-line {
  flex: 1;
  font-weight: 650;
  min-width: 0;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  align-items: end;
}
.grid :deep(label) {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0;
}
.grid :deep(.wide) {
  grid-column: 1 / 3;
}
.check {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
