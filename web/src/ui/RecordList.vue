<script setup lang="ts">
import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api } from './api'
import { moment } from './format'
import type { RecordedKind } from './record'

/** Who did what with a thing, the last first. */
interface Act {
  id: number
  at: string
  who: string | null
  did: string
  says: string
}
const props = defineProps<{ kind: RecordedKind; id: string; timezone?: string }>()
const query = useInfiniteQuery({
  queryKey: computed(() => ['record', props.kind, props.id]),
  queryFn: ({ pageParam }) => api.get<{ acts: Act[]; more: boolean }>(`record/${props.kind}/${props.id}${pageParam ? `?before=${pageParam}` : ''}`),
  initialPageParam: 0,
  getNextPageParam: (last) => (last.more ? last.acts.at(-1)!.id : undefined),
  staleTime: 0,
})
const acts = computed(() => query.data.value?.pages.flatMap((page) => page.acts) ?? [])
</script>

<template>
  <p v-if="query.isPending.value" class="soft m-0">Reading the record.</p>
  <p v-else-if="query.error.value" class="said-error m-0" role="alert">{{ query.error.value.message }}</p>
  <p v-else-if="acts.length === 0" class="soft m-0">Nothing is recorded yet. What anybody does from now on stands here.</p>
  <ol v-else aria-label="Record">
    <li v-for="act in acts" :key="act.id">
      <span class="figures soft">{{ moment(act.at, timezone) }}</span>
      <span
        ><b>{{ act.who ?? 'Upper Pane itself' }}</b> {{ act.says }}</span
      >
    </li>
  </ol>
  <button
    v-if="query.hasNextPage.value"
    type="button"
    class="btn btn-link btn-sm p-0"
    :disabled="query.isFetchingNextPage.value"
    @click="() => void query.fetchNextPage()"
  >
    earlier
  </button>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 9.5em 1fr;
  gap: 12px;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
li:last-child {
  border-bottom: 0;
}
</style>
