<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useNow } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import DesignCard from '../Layout/DesignCard.vue'
import { type DesignSummary, type PlaylistDocument, type Saved, useDesigns } from '../Layout/designs'
import { api, sentence } from '../ui/api'
import { useShelf } from '../ui/shelf'

const { query, all } = useDesigns('playlists')
const queries = useQueryClient()
const router = useRouter()
const shelf = useShelf()
const now = useNow({ interval: 1000 })
const at = computed(() => Math.floor(now.value.getTime() / 1000) * 1000)
const trouble = ref('')

const done = () => queries.invalidateQueries({ queryKey: ['playlists'] })

async function make(name: string, items: PlaylistDocument['items']) {
  const made = await api.post<Saved<PlaylistDocument>>('playlists', { name, document: { items } })
  await done()
  return made
}

async function guarded(work: () => Promise<unknown>) {
  trouble.value = ''
  try {
    await work()
  } catch (e) {
    trouble.value = sentence(e)
  }
}

const begin = () => guarded(async () => router.push(`/playlists/${(await make(`Playlist ${all.value.length + 1}`, [])).id}`))
const copy = (d: DesignSummary) =>
  guarded(async () => make(`${d.name}, copy`, (await api.get<Saved<PlaylistDocument>>(`playlists/${d.id}`)).document.items))
const remove = (d: DesignSummary) =>
  guarded(async () => {
    if (!confirm(`Delete “${d.name}” with all its ${d.revision} revisions?`)) return
    await api.delete(`playlists/${d.id}`)
    await done()
  })

watchEffect(() => {
  shelf.remark = `${all.value.length} playlists`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Playlists</h1>
        <p class="facts m-0">What a display can play as it is, full screen, without a layout</p>
      </div>
      <div class="actions"><BButton variant="primary" @click="begin">New playlist</BButton></div>
    </div>
    <section class="body p-3" aria-label="All playlists">
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <p v-if="query.isPending.value" class="empty">Reading the playlists.</p>
      <p v-else-if="query.error.value && all.length === 0" class="empty said-error">{{ query.error.value.message }}</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>No playlist yet</h2>
        <p>Put pictures and films in order, and hand them to a display as they are.</p>
      </div>
      <ul v-else class="grid">
        <DesignCard v-for="d in all" :key="d.id" :design="d" plural="playlists" :at="at" @copy="copy(d)" @remove="remove(d)" />
      </ul>
    </section>
  </main>
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
