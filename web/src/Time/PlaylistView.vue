<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed, onBeforeUnmount, watchEffect } from 'vue'
import DesignHead from '../Layout/DesignHead.vue'
import OpenAt from '../Layout/OpenAt.vue'
import type { PlaylistDocument } from '../Layout/designs'
import { useDesignWork } from '../Layout/work'
import { useMedia } from '../Media/media'
import PictureNow from '../pane/PictureNow.vue'
import { isZone, sceneAt } from '../pane/sheet'
import { useAnswer } from '../ui/answer'
import { api } from '../ui/api'
import { seconds } from '../ui/format'
import type { Addresses, Analysis, Listed } from '../Layout/designs'
import { useShelf } from '../ui/shelf'
import StandbyField from './StandbyField.vue'
import PlaylistPanel from './PlaylistPanel.vue'

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
            playlist: { items: document.value.items, ...(document.value.interleave ? { interleave: document.value.interleave } : {}) },
            ...(document.value.standby ? { standby: document.value.standby } : {}),
          },
        ],
      },
)
const { answer: analysis } = useAnswer(
  () => whole.value && { document: whole.value },
  (asked, signal) => api.post<Analysis>('analysis', asked, signal),
)
const loop = computed(() => analysis.value?.loops.whole)
const due = computed(() => {
  const sheet = analysis.value?.run_sheet
  const zone = sheet?.layers.find(isZone)
  const scene = sheet && zone ? sceneAt(zone, sheet.anchor_ms, now.value.getTime()) : null
  return scene === null ? null : (analysis.value?.playing.whole?.scenes[scene]?.id ?? null)
})

const change = ({ items, interleave }: Listed, gesture?: string) => document.value && work.change({ ...document.value, items, interleave }, gesture)

watchEffect(() => {
  shelf.findings = (analysis.value?.findings ?? []).filter((f) => ['zone.empty', 'zone.gap', 'item.cut'].includes(f.code))
  shelf.remark = 'Nothing is found.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <DesignHead :id="id" :work="work" noun="playlist" :handover="`/handover?playlist=${id}`" :rehearsal="`/rehearsal?source=playlist:${id}`">
      <template #actions>
        <OpenAt
          :id="id"
          plural="playlists"
          :revision="work.revision.value"
          label="Open for what is filled in at"
          :save="work.save"
          none="nowhere"
          @changed="work.reopen"
        />
      </template>
      <template v-if="document">{{ document.items.length }} items · {{ loop === null ? 'without end' : `loop of ${seconds(loop ?? 0)}` }}</template>
    </DesignHead>
    <div class="columns">
      <div class="leaf">
        <PlaylistPanel
          v-if="document"
          :list="document"
          :own="id"
          with-layouts
          :media="addresses"
          :due="due"
          :playing="analysis?.playing.whole"
          @change="change"
        />
        <div v-if="document" class="standby">
          <StandbyField
            label="Standby"
            title="Plays whenever nothing of the list is due"
            :standby="document.standby"
            :without="`playlist:${id}`"
            @change="work.change({ ...document!, standby: $event })"
          />
          <p class="soft small m-0">
            What plays when nothing of the list is due, where the list is handed over whole. In a zone the zone has a standby of its own.
          </p>
        </div>
      </div>
      <div class="view">
        <div v-if="analysis" class="screen">
          <PictureNow :sheet="analysis.run_sheet" :media="analysis.media" :at="now.getTime()" />
        </div>
        <p class="figures note">as it plays now, on a landscape display of 16:9</p>
      </div>
    </div>
  </main>
</template>

<style scoped>
.standby {
  padding: 10px 14px;
  display: grid;
  gap: 4px;
  border-top: 1px solid var(--rule);
  font-size: 0.8125rem;
  color: var(--soft);
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
