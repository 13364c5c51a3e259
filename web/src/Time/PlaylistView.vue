<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useNow } from '@vueuse/core'
import { computed, onBeforeUnmount, watchEffect } from 'vue'
import type { Item, PlaylistDocument } from '../Layout/designs'
import SaveNote from '../Layout/SaveNote.vue'
import StaleNote from '../Layout/StaleNote.vue'
import { useDesignWork } from '../Layout/work'
import { useMedia } from '../Media/media'
import PictureNow from '../pane/PictureNow.vue'
import { dueAt, isZone } from '../pane/sheet'
import { api } from '../ui/api'
import { seconds } from '../ui/format'
import type { Addresses, Analysis } from '../Layout/designs'
import { useShelf } from '../ui/shelf'
import PlaylistEditor from './PlaylistEditor.vue'

const props = defineProps<{ id: string }>()
const work = useDesignWork<PlaylistDocument>('playlists', props.id)
const shelf = useShelf()
const { ready } = useMedia()
const now = useNow({ interval: 250 })
const document = work.document

const addresses = computed<Addresses>(() =>
  Object.fromEntries(ready.value.map((m) => [m.id, { url: m.url ?? '', thumbnail: m.thumbnail, type: m.type ?? '' }])),
)
// Seen as it would play on a 16:9 display, whole screen.
const whole = computed(() =>
  document.value === null
    ? null
    : {
        format: 'upper-pane/layout@1',
        id: props.id,
        name: document.value.name,
        canvas: { width: 1920, height: 1080 },
        elements: [
          {
            id: 'whole',
            kind: 'zone',
            rect: { x: 0, y: 0, width: 1920, height: 1080 },
            playlist: { items: document.value.items },
          },
        ],
      },
)
const analysis = useQuery({
  queryKey: computed(() => ['playlist-analysis', props.id, JSON.stringify(whole.value)]),
  enabled: computed(() => whole.value !== null),
  placeholderData: (old: Analysis | undefined) => old,
  queryFn: () => api.post<Analysis>('analysis', { document: whole.value }),
})
const loop = computed(() => analysis.data.value?.loops.whole)
const due = computed(() => {
  const sheet = analysis.data.value?.run_sheet
  return sheet && sheet.layers.some((l) => isZone(l) && l.segments.length) ? (dueAt(sheet, now.value.getTime()).at(-1)?.part.item ?? null) : null
})

const items = (next: Item[], gesture?: string) => document.value && work.change({ ...document.value, items: next }, gesture)
const rename = (e: Event) => {
  const name = (e.target as HTMLInputElement).value.trim()
  if (name && document.value) work.change({ ...document.value, name })
}

watchEffect(() => {
  shelf.findings = (analysis.data.value?.findings ?? []).filter((f) => f.code === 'zone.empty' || f.code === 'item.cut')
  shelf.remark = 'Nothing is found.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div class="flex-grow-1">
        <input v-if="document" class="title" :value="document.name" aria-label="Name of the playlist" maxlength="200" @change="rename" />
        <p class="facts m-0">
          <template v-if="document"
            >{{ document.items.length }} items · {{ loop === null ? 'without end' : `loop of ${seconds(loop ?? 0)}` }} ·
          </template>
          <SaveNote :state="work.state.value" :revision="work.revision.value" :saved-at="work.savedAt.value" />
        </p>
      </div>
      <div class="actions">
        <BButton variant="outline-dark" :disabled="!work.canUndo.value" @click="work.undo">Undo</BButton>
        <BButton variant="outline-dark" :disabled="!work.canRedo.value" @click="work.redo">Redo</BButton>
        <RouterLink class="btn btn-primary" :to="`/handover?playlist=${id}`">Hand over…</RouterLink>
      </div>
    </div>
    <StaleNote
      :trouble="work.trouble.value"
      :state="work.state.value"
      :restored="work.restored.value"
      @mine="work.settle(true)"
      @theirs="work.settle(false)"
    />
    <div class="columns">
      <div class="leaf">
        <PlaylistEditor v-if="document" :items="document.items" :media="addresses" :due="due" @change="items" />
      </div>
      <div class="view">
        <div v-if="analysis.data.value" class="screen">
          <PictureNow :sheet="analysis.data.value.run_sheet" :media="analysis.data.value.media" :at="now.getTime()" />
        </div>
        <p class="figures note">as it plays now, on a landscape display of 16:9</p>
      </div>
    </div>
  </main>
</template>

<style scoped>
.title {
  border: 0;
  background: none;
  font-size: 1.25rem;
  font-weight: 650;
  width: 100%;
  padding: 0;
}
.view {
  background: var(--ground);
  display: grid;
  place-content: center;
  gap: 10px;
  justify-items: center;
}
.screen {
  width: min(760px, 56vw);
}
.note {
  background: var(--sheet);
  padding: 0 8px;
  margin: 0;
}
</style>
