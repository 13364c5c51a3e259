<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import { useSecond } from '../ui/second'
import { api, sentence } from '../ui/api'
import { useShelf } from '../ui/shelf'
import DesignCard from './DesignCard.vue'
import { type DesignSummary, type Plural, type Saved, useDesigns } from './designs'

/** All layouts, or all playlists: each as it is at this instant, to open, copy, delete and hand over. */
const props = defineProps<{ plural: Plural; search?: string }>()
const { query, all } = useDesigns(props.plural)
const queries = useQueryClient()
const shelf = useShelf()
const at = useSecond()
const trouble = ref('')
const wanted = computed(() => (props.search ?? '').trim().toLowerCase())
const shown = computed(() => all.value.filter((d) => `${d.name} ${d.canvas?.width}x${d.canvas?.height}`.toLowerCase().includes(wanted.value)))

async function copy(design: DesignSummary) {
  const { document } = await api.get<Saved<{ format: string; id: string; name: string }>>(`${props.plural}/${design.id}`)
  // The server gives the copy an id and the name beside it.
  await api.post(props.plural, { name: `${document.name}, copy`, display: design.display ?? undefined, document })
}

async function remove(design: DesignSummary) {
  if (confirm(`Delete “${design.name}” with all its ${design.revision} revisions?`)) await api.delete(`${props.plural}/${design.id}`)
}

async function guarded(work: (design: DesignSummary) => Promise<void>, design: DesignSummary) {
  trouble.value = ''
  try {
    await work(design)
    await queries.invalidateQueries({ queryKey: [props.plural] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}

watchEffect(() => {
  shelf.remark = `${all.value.length} ${all.value.length === 1 ? props.plural.slice(0, -1) : props.plural}`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <section class="body p-3" :aria-label="`All ${plural}`">
    <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
    <p v-if="query.isPending.value" class="empty">Reading the {{ plural }}.</p>
    <p v-else-if="query.error.value && all.length === 0" class="empty said-error">{{ query.error.value.message }}</p>
    <div v-else-if="all.length === 0" class="empty"><slot name="none"></slot></div>
    <p v-else-if="shown.length === 0" class="empty">Nothing fits this search.</p>
    <ul v-else class="grid">
      <DesignCard v-for="d in shown" :key="d.id" :design="d" :plural="plural" :at="at" @copy="guarded(copy, d)" @remove="guarded(remove, d)" />
    </ul>
  </section>
</template>

<style scoped>
.grid {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 22px 18px;
  grid-template-columns: repeat(auto-fill, minmax(284px, 1fr));
}
</style>
