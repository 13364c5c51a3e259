<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { DisplayState, ReleaseState } from '../Estate/estate'
import { api } from '../ui/api'
import { moment } from '../ui/format'
import PutBack from './PutBack.vue'

/** What was handed over to a display, the newest first; each can be put back. */
interface Answer {
  current: number | null
  releases: ReleaseState[]
}
const props = defineProps<{ display: DisplayState }>()
const query = useQuery({
  queryKey: computed(() => ['releases', props.display.id, props.display.release?.number]),
  placeholderData: (before: Answer | undefined, query) => (query?.queryKey[1] === props.display.id ? before : undefined),
  queryFn: () => api.get<Answer>(`displays/${props.display.id}/releases`),
})
const SHORT = 4
const isLong = ref(false)
const all = computed(() => query.data.value?.releases ?? [])
const shown = computed(() => (isLong.value ? all.value : all.value.slice(0, SHORT)))
const back = ref(0)
const isOpen = ref(false)
function ask(number: number) {
  back.value = number
  isOpen.value = true
}
</script>

<template>
  <div v-if="all.length">
    <h3>Handed over</h3>
    <ul>
      <li v-for="r in shown" :key="r.number">
        <span
          ><b class="figures">{{ r.number }}</b> {{ r.name }}<br /><span class="soft small"
            >{{ moment(r.handed_over_at, display.timezone) }}{{ r.handed_over_by ? `, ${r.handed_over_by}` : ''
            }}{{ r.puts_back ? `, puts back ${r.puts_back}` : '' }}</span
          ></span
        >
        <span v-if="r.number === query.data.value?.current" class="soft small">stands</span>
        <span v-else-if="r.gone" class="soft small" title="Older than 100 days, and not among the last 20: what it was made of is gone">gone</span>
        <button v-else type="button" class="btn btn-link btn-sm" :aria-label="`Put release ${r.number} back`" @click="ask(r.number)">
          put back…
        </button>
      </li>
    </ul>
    <button v-if="all.length > shown.length" type="button" class="btn btn-link btn-sm p-0" @click="isLong = true">
      {{ all.length - shown.length }} earlier
    </button>
  </div>
  <PutBack v-model="isOpen" :asked="{ releases: [{ display: display.id, number: back }] }" />
</template>

<style scoped>
h3 {
  font-weight: 650;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0 8px;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
  font-size: 0.875rem;
}
</style>
