<script setup lang="ts">
import ColourField from '../../ui/ColourField.vue'
import type { SlotOf } from '../filling'
import { vKept } from '../../ui/kept'

/** The options: what each is called, and what it sets. */
const props = defineProps<{ one: SlotOf<'choice'> }>()
const emit = defineEmits<{ change: [part: Partial<SlotOf<'choice'>>, gesture?: string] }>()
type Option = SlotOf<'choice'>['options'][number]
const put = (n: number, part: Partial<Option>, gesture?: string) =>
  emit('change', { options: props.one.options.map((option, i) => (i === n ? { ...option, ...part } : option)) }, gesture)
/** What is set as a colour can be chosen here. */
const isColour = (set: Option['set'][number]) => /(^|\/)(fill|color|background)$/.test(set.field)
const setTo = (n: number, place: number, value: unknown, gesture?: string) =>
  put(n, { set: props.one.options[n]!.set.map((set, i) => (i === place ? { ...set, value: value as typeof set.value } : set)) }, gesture)
function add() {
  const ids = new Set(props.one.options.map((option) => option.id))
  let n = ids.size + 1
  while (ids.has(`option${n}`)) n++
  emit('change', { options: [...props.one.options, { ...props.one.options.at(-1)!, id: `option${n}`, name: `Option ${n}` }] })
}
function take(n: number) {
  const left = props.one.options.filter((_, i) => i !== n)
  const holds = left.some((option) => option.id === props.one.default)
  emit('change', { options: left, ...(holds ? {} : { default: left[0]?.id }) })
}
</script>

<template>
  <fieldset v-for="(option, n) in one.options" :key="option.id" class="wide option">
    <input
      v-kept="option.name"
      class="form-control form-control-sm"
      maxlength="200"
      :aria-label="`Name of option ${n + 1} of ${one.name}`"
      @change="put(n, { name: ($event.target as HTMLInputElement).value.trim() || option.name })"
    />
    <template v-for="(set, place) in option.set" :key="place">
      <ColourField
        v-if="isColour(set)"
        :label="`${set.element} ${set.field}`"
        :value="String(set.value)"
        @change="(color) => setTo(n, place, color, `${one.id} ${n} ${place}`)"
      />
      <span v-else class="small soft">sets {{ set.field }} of {{ set.element }}</span>
    </template>
    <button v-if="one.options.length > 1" type="button" class="btn btn-link btn-sm p-0" :aria-label="`Take ${option.name} out`" @click="take(n)">
      take out
    </button>
  </fieldset>
  <p class="wide m-0">
    <button type="button" class="btn btn-link btn-sm p-0" @click="add">another option</button>
    <label class="ms-3"
      >begins as
      <select
        class="form-select form-select-sm d-inline w-auto"
        :value="one.default ?? ''"
        @change="emit('change', { default: ($event.target as HTMLSelectElement).value || undefined })"
      >
        <option value="">the template has it</option>
        <option v-for="option in one.options" :key="option.id" :value="option.id">{{ option.name }}</option>
      </select></label
    >
  </p>
</template>

<style scoped>
.option {
  display: flex;
  gap: 8px;
  align-items: end;
  border: 0;
  margin: 0;
}
</style>
