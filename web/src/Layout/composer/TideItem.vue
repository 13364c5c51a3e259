<script setup lang="ts">
import { computed } from 'vue'
import { type ItemAct } from '../../Time/itemEdits'
import { seconds } from '../../ui/format'
import { vKept } from '../../ui/kept'
import { type ZoneElement, useDesigns } from '../designs'
import { mediaOf } from '../named'

/** The item that is picked in the tide table: how long it lasts, typed, and its place in the order. */
const props = defineProps<{ zone: ZoneElement; item: string; name: string; leader: string | null }>()
const emit = defineEmits<{ act: [act: ItemAct]; done: [] }>()

const { all } = useDesigns('playlists')
const list = computed(() => props.zone.playlist)
const saved = computed(() => ('ref' in list.value ? list.value.ref : null))
const items = computed(() => ('items' in list.value ? list.value.items : []))
const index = computed(() => items.value.findIndex((i) => i.id === props.item))
const one = computed(() => items.value[index.value] ?? null)
const own = computed(() => (one.value?.media ? mediaOf(one.value.media).length_ms : undefined))
const length = computed(() => one.value?.duration_ms ?? own.value ?? null)

const typed = (event: Event) => emit('act', { do: 'last', item: props.item, typed: (event.target as HTMLInputElement).value })
const step = (by: 1 | -1) => emit('act', { do: 'move', item: props.item, by })
</script>

<template>
  <span class="picked">
    <b class="text-truncate">{{ name }}</b>
    <RouterLink v-if="saved" :to="`/playlists/${saved}`">of playlist {{ all.find((p) => p.id === saved)?.name ?? saved }}</RouterLink>
    <span v-else-if="!one" class="soft">is put in between</span>
    <template v-else>
      <span v-if="leader" class="soft">changes with {{ leader }}</span>
      <label v-else-if="length !== null" class="figures"
        ><input
          v-kept="length / 1000"
          class="form-control form-control-sm figures"
          inputmode="decimal"
          :aria-label="`How long ${name} lasts, s`"
          @change="typed"
        />
        s<template v-if="own && own !== length"> of {{ seconds(own) }}</template></label
      >
      <span v-else class="soft">{{ one.lasts === 'endless' ? 'without end' : 'as long as its loop' }}</span>
      <button type="button" class="btn btn-link btn-sm p-0" :disabled="index === 0" @click="step(-1)">earlier</button>
      <button type="button" class="btn btn-link btn-sm p-0" :disabled="index === items.length - 1" @click="step(1)">later</button>
    </template>
    <button type="button" class="btn btn-link btn-sm p-0" aria-label="Put the item away" @click="emit('done')">×</button>
  </span>
</template>

<style scoped>
.picked {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
  max-width: 460px;
  padding: 0 10px;
  border-left: 1px solid var(--rule);
  white-space: nowrap;
}
label {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
input {
  width: 64px;
  min-height: 0;
  padding-block: 0;
  text-align: right;
}
.btn:disabled {
  color: var(--soft);
  text-decoration: none;
}
</style>
