<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { type Held, useSettings } from '../Display/settings'
import { useDesigns } from '../Layout/designs'
import { api } from '../ui/api'
import { may } from '../ui/rights'
import { useAbove } from './overlays'

/** What lies above what plays on a display: from which place, and until when it is shown there. */
const props = defineProps<{ id: string }>()
const query = useQuery({
  queryKey: computed(() => ['settings', 'display', props.id]),
  queryFn: () => api.get<{ resolved: Record<string, Held> }>(`displays/${props.id}/settings`),
})
const { places } = useSettings()
const { all } = useDesigns('overlays')
const above = useAbove()
const carried = computed(() => {
  const held = query.data.value?.resolved.overlays
  const ids = (held?.value as string[] | undefined) ?? []
  return ids.map((id, n) => {
    const from = Array.isArray(held?.from) ? held.from[n] : held?.from
    return {
      id,
      name: all.value.find((one) => one.id === id)?.name ?? id,
      kind: above.value.get(id)?.kind ?? '',
      from: from === props.id ? 'put here' : `from ${places.value.find((one) => one.id === from)?.name ?? from}`,
    }
  })
})
</script>

<template>
  <ul v-if="carried.length" class="carried">
    <li v-for="one in carried" :key="one.id">
      <RouterLink v-if="may('design')" :to="`/overlays/${one.id}`">{{ one.name }}</RouterLink><template v-else>{{ one.name }}</template>
      <span class="small soft"> {{ one.kind }}, {{ one.from }}</span>
    </li>
  </ul>
  <span v-else class="soft">nothing</span>
</template>

<style scoped>
.carried {
  list-style: none;
  margin: 0;
  padding: 0;
}
</style>
