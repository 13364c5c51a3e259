<script setup lang="ts">
import { computed, ref } from 'vue'
import { byId, type MediaState, refOf, useMedia } from '../../Media/media'
import MediaPicker from '../../Media/MediaPicker.vue'
import { size } from '../../ui/format'
import type { Rect } from '../../ui/shelf'
import { type SlotOf, type Value, isMissing } from '../filling'
import { useStyleHere } from '../style'
import CutPicture from './CutPicture.vue'
import SlotLine from './SlotLine.vue'

/** A picture, cut to the shape of its place on the way in; or a mark of the house style. */
const props = defineProps<{ one: SlotOf<'picture'> & { places?: Rect[] }; value: Value | undefined }>()
const emit = defineEmits<{ change: [value: Value | undefined, gesture: string] }>()
const { ready } = useMedia()
const house = useStyleHere()
const picking = ref(false)
const cutting = ref<MediaState | null>(null)

interface Chosen {
  id?: string
  name?: string
  mark?: string
  width?: number
  height?: number
}
const chosen = computed(() => (props.value ?? props.one.default ?? null) as Chosen | null)
const asset = computed(() => byId(ready.value).get(chosen.value?.id ?? '') ?? null)
const place = computed(() => props.one.places?.[0] ?? null)
const facts = computed(() => (place.value ? `${size(place.value)} px` : ''))
/** Whether it has the shape of its place, to the px. */
const isAlike = (m: MediaState) =>
  !place.value || !m.width || !m.height || Math.abs(m.width - (m.height * place.value.width) / place.value.height) <= 1
const take = (m: MediaState) => emit('change', refOf(m), props.one.id)
function picked([media]: MediaState[]) {
  if (!media) return
  if (isAlike(media) || media.type === 'image/svg+xml') take(media)
  else cutting.value = media
}
</script>

<template>
  <SlotLine :name="one.name" :missing="isMissing(one, value)" :says="facts" of="div">
    <div class="picture" :data-slot="one.id">
      <img v-if="asset?.thumbnail" :src="asset.thumbnail" alt="" />
      <span class="named">{{ chosen?.mark ? `mark ${chosen.mark}` : (chosen?.name ?? 'the picture of the template') }}</span>
      <button type="button" class="btn btn-outline-dark btn-sm" :aria-label="`${value ? 'Another' : 'Choose'} ${one.name}`" @click="picking = true">
        {{ value ? 'another…' : 'choose…' }}
      </button>
      <button v-if="asset && !isAlike(asset)" type="button" class="btn btn-link btn-sm p-0" @click="cutting = asset">cut…</button>
      <button
        v-if="value"
        type="button"
        class="btn btn-link btn-sm p-0"
        :aria-label="`Take ${one.name} out`"
        @click="emit('change', undefined, one.id)"
      >
        take out
      </button>
    </div>
    <p v-if="house?.marks.length" class="small soft m-0">
      or a mark:
      <button
        v-for="mark in house.marks"
        :key="mark.name"
        type="button"
        class="btn btn-link btn-sm p-0 me-2"
        @click="emit('change', { mark: mark.name }, one.id)"
      >
        {{ mark.name }}
      </button>
    </p>
    <MediaPicker v-model="picking" pictures-only @chosen="picked" />
    <CutPicture
      v-if="cutting && place"
      :media="cutting"
      :shape="place"
      @cut="((cutting = null), take($event))"
      @whole="(take(cutting), (cutting = null))"
      @close="cutting = null"
    />
  </SlotLine>
</template>

<style scoped>
.picture {
  display: flex;
  align-items: center;
  gap: 10px;
  border: 1px solid var(--soft);
  background: var(--sheet);
  padding: 4px 8px;
  min-height: 44px;
}
.picture img {
  height: 40px;
  max-width: 80px;
  object-fit: contain;
  background: var(--ground);
}
.named {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
