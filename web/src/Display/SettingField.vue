<script setup lang="ts">
import { computed, ref } from 'vue'
import { useDesigns, usePlayedLayouts } from '../Layout/designs'
import HoursField from './HoursField.vue'
import type { Open } from './hours'
import { type Change, type Said, saidOf, saying } from '../Overlay/overlays'

/** A setting as people state it; each value that is chosen or typed is told at once, and nothing is done with it here. */
const props = defineProps<{ setting: string; value: unknown; timezones: string[]; /** What is said here alone. */ stated?: unknown }>()
const emit = defineEmits<{ change: [value: unknown] }>()
const { all: styles } = useDesigns('styles')
const layouts = usePlayedLayouts()
const { all: playlists } = useDesigns('playlists')
const { all: overlays } = useDesigns('overlays')
const { all: triggers } = useDesigns('triggers')
const listed = computed(() => (props.setting === 'triggers' ? triggers.value : overlays.value))
/** What is said here of each overlay or map of triggers; the rest comes from above. */
const change = ref<Change>({ ...(props.stated as Change | undefined) })
function state(id: string, how: string) {
  const said = saying(change.value, id, how as Said)
  change.value = said ?? {}
  emit('change', said)
}
const text = ref(
  Array.isArray(props.value) ? props.value.join(', ') : typeof props.value === 'string' || typeof props.value === 'number' ? String(props.value) : '',
)
const standby = computed(() => {
  const [kind, id] = Object.entries((props.value as Record<string, string> | undefined) ?? {})[0] ?? []
  return kind ? `${kind}:${id}` : ''
})
function typed() {
  if (props.setting !== 'languages') return emit('change', text.value)
  const languages = text.value.split(/[\s,]+/).filter(Boolean)
  emit('change', languages.length ? languages : null)
}
const hours = computed(() => (Array.isArray(props.value) ? (props.value as Open[]) : undefined))
const chosen = (event: Event) => (event.target as HTMLSelectElement).value
function setStandby(value: string) {
  const [kind, id] = value.split(':')
  emit('change', kind && id ? { [kind]: id } : null)
}
</script>

<template>
  <label v-if="setting === 'timezone'" class="field"
    >Time zone
    <select class="form-select" :value="value ?? ''" @change="emit('change', chosen($event))">
      <option v-for="zone in timezones" :key="zone" :value="zone">{{ zone }}</option>
    </select></label
  >
  <label v-else-if="setting === 'style'" class="field"
    >House style
    <select class="form-select" :value="value ?? ''" @change="emit('change', chosen($event))">
      <option v-for="style in styles" :key="style.id" :value="style.id">{{ style.name }}</option>
    </select></label
  >
  <label v-else-if="setting === 'standby'" class="field"
    >What plays where nothing is booked
    <select class="form-select" :value="standby" @change="setStandby(chosen($event))">
      <option value=""></option>
      <optgroup label="Layouts">
        <option v-for="one in layouts" :key="one.id" :value="`layout:${one.id}`">{{ one.name }}</option>
      </optgroup>
      <optgroup label="Playlists">
        <option v-for="one in playlists" :key="one.id" :value="`playlist:${one.id}`">{{ one.name }}</option>
      </optgroup>
    </select></label
  >
  <HoursField v-else-if="setting === 'hours'" :value="hours" @change="emit('change', $event)" />
  <ul v-else-if="setting === 'overlays' || setting === 'triggers'" class="overlays">
    <li v-for="one in listed" :key="one.id">
      <label
        ><span>{{ one.name }}</span>
        <select class="form-select form-select-sm" :value="saidOf(change, one.id)" @change="state(one.id, chosen($event))">
          <option value="">as it comes from above</option>
          <option value="add">put here</option>
          <option value="without">taken off here</option>
        </select></label
      >
    </li>
  </ul>
  <form v-else class="field" @submit.prevent="typed">
    <label
      >{{ setting === 'languages' ? 'Languages, in their order: pt, en' : 'Value' }}<input v-model="text" class="form-control" maxlength="1000"
    /></label>
    <button type="submit" class="btn btn-outline-dark btn-sm">See what it reaches</button>
  </form>
</template>

<style scoped>
.overlays {
  list-style: none;
  padding: 0;
  margin: 8px 0;
}
.overlays label {
  display: grid;
  grid-template-columns: 1fr 190px;
  gap: 8px;
  align-items: center;
  padding: 2px 0;
}
.field {
  display: block;
  margin: 8px 0;
}
.field label {
  display: block;
}
form button {
  margin-top: 6px;
}
</style>
