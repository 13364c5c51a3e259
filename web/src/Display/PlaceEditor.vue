<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import type { PlaceState } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import RecordList from '../ui/RecordList.vue'
import { useSizes } from './survey'

/** A place of the tree: new, or changed; its time zone is that of all displays in it unless they say otherwise. */
const props = defineProps<{ place: PlaceState | null; places: { place: PlaceState; way: string[] }[] }>()
const open = defineModel<boolean>({ required: true })
const queries = useQueryClient()
const { data: sizes } = useSizes()
const name = ref('')
const parent = ref('')
const zone = ref('')
const trouble = ref('')
watch(open, (is) => {
  if (!is) return
  trouble.value = ''
  name.value = props.place?.name ?? ''
  parent.value = props.place ? (props.place.parent ?? '') : (props.places[0]?.place.id ?? '')
  zone.value = props.place?.timezone ?? ''
})
/** A place does not lie in itself. */
const parents = computed(() => {
  const inside = (p: PlaceState): boolean =>
    p.id === props.place?.id || (p.parent !== null && props.places.some((q) => q.place.id === p.parent && inside(q.place)))
  return props.places.filter((p) => !inside(p.place))
})

async function act(what: () => Promise<unknown>) {
  trouble.value = ''
  try {
    await what()
    await queries.invalidateQueries({ queryKey: ['estate'] })
    open.value = false
  } catch (e) {
    trouble.value = sentence(e)
  }
}
const save = () =>
  act(() => {
    const body = { name: name.value.trim(), parent: parent.value || null, timezone: zone.value || null }
    return props.place ? api.put(`places/${props.place.id}`, body) : api.post('places', body)
  })
const remove = () => act(() => api.delete(`places/${props.place!.id}`))
</script>

<template>
  <BModal v-model="open" focus="input" no-close-on-backdrop lazy :title="place ? `Place: ${place.name}` : 'New place'" no-footer>
    <form class="form" @submit.prevent="save">
      <label>Name<BFormInput v-model="name" required maxlength="120" /></label>
      <label
        >Lies in
        <select v-model="parent" class="form-select">
          <option value="">nothing: it is an estate of its own</option>
          <option v-for="p in parents" :key="p.place.id" :value="p.place.id">{{ p.way.join(' › ') }}</option>
        </select></label
      >
      <label
        >Time zone
        <select v-model="zone" class="form-select">
          <option value="">as the place that it lies in</option>
          <option v-for="z in sizes?.timezones ?? []" :key="z" :value="z">{{ z }}</option>
        </select></label
      >
      <p v-if="trouble" class="said-error m-0" role="alert">{{ trouble }}</p>
      <div class="d-flex justify-content-end gap-2">
        <BButton v-if="place" variant="outline-dark" @click="remove">Take away</BButton>
        <BButton type="submit" variant="primary">{{ place ? 'Save' : 'Make it' }}</BButton>
      </div>
      <details v-if="place">
        <summary>Record</summary>
        <RecordList :id="place.id" kind="place" :timezone="place.zone ?? undefined" />
      </details>
    </form>
  </BModal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
</style>
