<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, sentence } from './api'
import { useAsked } from './asked'
import { moment } from './format'
import type { RecordedKind } from './record'
import RecordButton from './RecordButton.vue'
import { useRemark } from './shelf'

/** What was deleted: it lies here for 30 days, and comes back whole. */
interface Binned {
  id: number
  kind: Exclude<RecordedKind, 'place'>
  thing: string
  name: string
  deleted_at: string
  deleted_by: string | null
  gone_at: string
}

const KINDS: Record<Binned['kind'], string> = {
  layout: 'layout',
  filled: 'filled layout',
  playlist: 'playlist',
  schedule: 'schedule',
  source: 'source of data',
  style: 'house style',
  overlay: 'overlay',
  trigger: 'triggers',
  panel: 'panels',
  media: 'picture or film',
  display: 'display',
  face: 'type face',
}
const LEADS: Record<Binned['kind'], (thing: string) => string> = {
  layout: (id) => `/layouts/${id}`,
  filled: (id) => `/filled/${id}`,
  playlist: (id) => `/playlists/${id}`,
  schedule: (id) => `/schedules/${id}`,
  source: (id) => `/data/${id}`,
  style: (id) => `/layouts/styles/${id}`,
  overlay: (id) => `/overlays/${id}`,
  trigger: (id) => `/triggers/${id}`,
  panel: (id) => `/triggers/panels/${id}`,
  media: () => '/media',
  display: (id) => `/displays?display=${id}`,
  face: () => '/media/faces',
}
const queries = useQueryClient()
const query = useQuery({ queryKey: ['bin'], queryFn: () => api.get<{ binned: Binned[] }>('bin'), staleTime: 0 })
const search = useAsked('search')
const all = computed(() => query.data.value?.binned ?? [])
const found = computed(() =>
  all.value.filter((b) => `${b.name} ${KINDS[b.kind]} ${b.deleted_by ?? ''}`.toLowerCase().includes(search.value.trim().toLowerCase())),
)
const trouble = ref('')
const back = ref<Binned | null>(null)

async function putBack(one: Binned) {
  trouble.value = ''
  try {
    await api.post(`bin/${one.id}/back`, {})
    back.value = one
    await Promise.all(
      ['bin', 'layouts', 'playlists', 'schedules', 'sources', 'data', 'media', 'estate', 'known-faces', 'faces'].map((key) =>
        queries.invalidateQueries({ queryKey: [key] }),
      ),
    )
  } catch (e) {
    trouble.value = sentence(e)
  }
}

useRemark(() => `${all.value.length} deleted within the last 30 days`)
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Bin</h1>
        <p class="facts m-0">What was deleted lies here for 30 days, and comes back whole</p>
      </div>
      <div class="actions"><BFormInput v-model="search" type="search" placeholder="Search name, kind, who" aria-label="Search the bin" /></div>
    </div>
    <section class="body p-3" aria-label="Deleted" tabindex="0">
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <p v-if="back" class="done" role="status">
        <b>"{{ back.name }}" is back.</b> <RouterLink :to="LEADS[back.kind](back.thing)">Open it</RouterLink>
      </p>
      <p v-if="query.isPending.value" class="empty">Looking.</p>
      <p v-else-if="query.error.value && all.length === 0" class="empty said-error">{{ query.error.value.message }}</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>Nothing lies here</h2>
        <p>Layouts, playlists, schedules, media, type faces and displays that are deleted come here first.</p>
      </div>
      <p v-else-if="found.length === 0" class="empty">Nothing fits this search.</p>
      <table v-else class="table">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Kind</th>
            <th scope="col">Deleted</th>
            <th scope="col">By</th>
            <th scope="col">Gone for good</th>
            <th scope="col"><span class="visually-hidden">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="b in found" :key="b.id">
            <td>{{ b.name }}</td>
            <td class="soft">{{ KINDS[b.kind] }}</td>
            <td class="figures">{{ moment(b.deleted_at) }}</td>
            <td>{{ b.deleted_by }}</td>
            <td class="figures">{{ moment(b.gone_at) }}</td>
            <td class="text-end acts">
              <RecordButton :id="b.thing" :kind="b.kind" :name="b.name" />
              <button type="button" class="btn btn-outline-dark btn-sm" :aria-label="`Put ${b.name} back`" @click="putBack(b)">Put back</button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>

<style scoped>
.table {
  font-size: 0.875rem;
}
.done {
  background: var(--kelp-wash);
  border: 1px solid var(--kelp);
  padding: 6px 12px;
}
</style>
