<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useEstate } from '../Estate/estate'
import { api } from '../ui/api'
import { useGuarded } from '../ui/guarded'
import type { Saved } from './designs'

/** At which place a design is open: a template for whoever fills it in there, a playlist for what is filled in. */
const props = defineProps<{
  id: string
  plural: 'layouts' | 'playlists'
  revision: number
  label: string
  none: string
  save?: () => Promise<void>
}>()
const emit = defineEmits<{ changed: [] }>()
const queries = useQueryClient()
const { places } = useEstate(false)
const design = useQuery({
  queryKey: ['open-at', () => props.id, () => props.revision],
  queryFn: () => api.get<Saved<object>>(`${props.plural}/${props.id}`),
})
const { trouble, guarded } = useGuarded(props.plural)
const put = (place: string) =>
  guarded(async () => {
    // What is typed and not saved yet would come too late.
    await props.save?.()
    const { data: saved } = await design.refetch()
    if (!saved) return
    await api.put(`${props.plural}/${props.id}`, {
      base: saved.revision,
      document: saved.document,
      place: place || null,
      note: place ? `open at ${place}` : 'open no more',
    })
    await queries.invalidateQueries({ queryKey: ['open-at'] })
    emit('changed')
  })
</script>

<template>
  <label class="open-at"
    >{{ label }}
    <select
      class="form-select form-select-sm"
      :aria-label="label"
      :value="design.data.value?.place ?? ''"
      @change="put(($event.target as HTMLSelectElement).value)"
    >
      <option value="">{{ none }}</option>
      <option v-for="p in places" :key="p.id" :value="p.id">{{ p.name }}</option>
    </select>
    <span v-if="trouble" class="said-error small" role="alert">{{ trouble }}</span></label
  >
</template>

<style scoped>
.open-at {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--soft);
  white-space: nowrap;
}
</style>
