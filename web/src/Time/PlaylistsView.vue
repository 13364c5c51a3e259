<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import DesignList from '../Layout/DesignList.vue'
import { type PlaylistDocument, type Saved, useDesigns } from '../Layout/designs'
import { api, sentence } from '../ui/api'
import TimeTabs from './TimeTabs.vue'

const { all } = useDesigns('playlists')
const router = useRouter()
const trouble = ref('')

async function make() {
  trouble.value = ''
  try {
    const made = await api.post<Saved<PlaylistDocument>>('playlists', { name: `Playlist ${all.value.length + 1}`, document: { items: [] } })
    await router.push(`/playlists/${made.id}`)
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <main class="station">
    <p v-if="trouble" class="said-error px-3 pt-2 m-0" role="alert">{{ trouble }}</p>
    <DesignList plural="playlists">
      <template #facts>What a display can play as it is, full screen, without a layout</template>
      <template #actions><TimeTabs /><BButton variant="primary" @click="make">New playlist</BButton></template>
      <template #none>
        <h2>No playlist yet</h2>
        <p>Put pictures and films in order, and hand them to a display as they are.</p>
        <BButton variant="primary" @click="make">New playlist</BButton>
      </template>
    </DesignList>
  </main>
</template>
