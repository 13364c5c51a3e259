<script setup lang="ts">
import { computed } from 'vue'
import { useMedia } from '../../../Media/media'
import PlaylistPanel from '../../../Time/PlaylistPanel.vue'
import { useComposer } from '../../composer/composer'
import FieldGrid from '../../composer/details/FieldGrid.vue'
import GroundField from '../../composer/details/GroundField.vue'
import { useHand } from '../../composer/hand'
import type { Addresses, Analysis, Listed, ZoneElement } from '../../designs'
import { leaderOf } from './zone'
import ZoneTimes from './ZoneTimes.vue'
import { mediaOf } from '../../named'

/** A zone: whose list it plays, what is in that, and its ground. */
const props = defineProps<{ one: ZoneElement; analysis: Analysis | null }>()
const emit = defineEmits<{ again: [] }>()
const composer = useComposer()
const hand = useHand()
const due = hand.due
const { ready } = useMedia()

const addresses = computed<Addresses>(() =>
  Object.fromEntries(ready.value.map((m) => [m.id, { url: m.url ?? '', thumbnail: m.thumbnail, type: m.type ?? '' }])),
)
const list = computed<Listed | null>(() => ('items' in props.one.playlist ? props.one.playlist : null))
const saved = computed(() => ('ref' in props.one.playlist ? props.one.playlist.ref : ''))
const firstMedia = computed(() => list.value?.items.flatMap((i) => (i.media ? (mediaOf(i.media).id ?? []) : []))[0])
const change = (part: Partial<ZoneElement>, gesture?: string) => composer.edit<ZoneElement>(props.one.id, part, gesture)
</script>

<template>
  <ZoneTimes :one="one" :layout="composer.document.value.id" :elements="composer.elements.value" @change="change($event)" />
  <PlaylistPanel
    v-if="list"
    :list="list"
    :playing="analysis?.playing[one.id]"
    :follows="leaderOf(one, composer.elements.value) !== undefined"
    :media="addresses"
    :due="due[one.id]"
    :zone="{ layout: composer.document.value.id, width: one.rect.width, height: one.rect.height }"
    :findings="analysis?.findings.filter((f) => f.elements[0] === one.id)"
    @change="(playlist, gesture) => change({ playlist }, gesture)"
    @goto="hand.toItem(one.id, $event)"
    @again="((composer.notice.value = { wrong: false, said: [$event] }), emit('again'))"
  />
  <p v-else class="px-3 pt-2">
    <RouterLink :to="`/playlists/${saved}`">Open the saved playlist</RouterLink>: what is changed in it changes wherever it plays.
  </p>
  <FieldGrid><GroundField :ground="one.ground" :media="firstMedia" @change="(ground, g) => change({ ground }, g)" /></FieldGrid>
</template>
