<script setup lang="ts">
import { computed } from 'vue'
import { useMedia } from '../../Media/media'
import PlaylistEditor from '../../Time/PlaylistEditor.vue'
import type { Addresses, Item } from '../designs'
import { type SlotOf, type Value, isMissing } from '../filling'
import SlotLine from './SlotLine.vue'

/** What plays in a zone, in order. */
const props = defineProps<{ one: SlotOf<'list'>; value: Value | undefined }>()
const emit = defineEmits<{ change: [value: Value | undefined, gesture?: string] }>()
const { ready } = useMedia()
const items = computed(() => (Array.isArray(props.value) ? (props.value as Item[]) : (props.one.default ?? [])))
const addresses = computed<Addresses>(() =>
  Object.fromEntries(ready.value.map((m) => [m.id, { url: m.url ?? '', thumbnail: m.thumbnail, type: m.type ?? '' }])),
)
</script>

<template>
  <SlotLine
    :name="one.name"
    :missing="isMissing(one, value)"
    :says="one.at_most ? `${items.length} of at most ${one.at_most}` : ''"
    of="div"
    :data-slot="one.id"
  >
    <PlaylistEditor :items="items" :media="addresses" @change="(next, gesture) => emit('change', next.length ? next : undefined, gesture)" />
  </SlotLine>
</template>
