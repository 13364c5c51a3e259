<script setup lang="ts">
import { useDropZone } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import { ACCEPTED, useBringingIn } from './bringing'
import { type MediaState, facts, useMedia } from './media'
import UploadList from './UploadList.vue'

/** Chooses media by their pictures: one, or several in the order they are pressed. */
const props = defineProps<{ picturesOnly?: boolean; several?: boolean }>()
const emit = defineEmits<{ chosen: [media: MediaState[]] }>()
const open = defineModel<boolean>({ required: true })

const { ready, all } = useMedia()
const search = ref('')
/** Ids, in the order in which they were pressed. */
const picked = ref<string[]>([])
const found = computed(() =>
  ready.value.filter((m) => (!props.picturesOnly || m.kind === 'picture') && m.name.toLowerCase().includes(search.value.trim().toLowerCase())),
)
// --- what is brought in from here -----------------------------------------------------------

const chooser = useTemplateRef<HTMLInputElement>('chooser')
const area = useTemplateRef('area')
/** Ids, in the order in which they came. */
const brought = ref<string[]>([])
const { uploads, bringIn, chosen, putAway } = useBringingIn((media) => brought.value.push(media.id))
const { isOverDropZone } = useDropZone(area, { onDrop: (files) => void bringIn(files) })
const those = computed(() => brought.value.flatMap((id) => all.value.find((m) => m.id === id) ?? []))
const looked = computed(() => those.value.filter((m) => m.state === 'waiting' || m.state === 'probing'))
const refused = computed(() => those.value.filter((m) => m.state === 'refused' || m.state === 'failed'))
// Who brings files in from here means to use them.
watch(those, (now) => {
  if (!props.several) return
  const fit = now.filter((m) => m.state === 'ready' && (!props.picturesOnly || m.kind === 'picture') && !offered.has(m.id)).map((m) => m.id)
  fit.forEach((id) => offered.add(id))
  picked.value = [...new Set([...picked.value, ...fit])]
})
/** Picked once; pressed again they are let go as any other. */
const offered = new Set<string>()
function forget() {
  picked.value = []
  brought.value = []
}

const { shown, left, end } = useGrowing(found, 40)

function press(m: MediaState) {
  if (!props.several) {
    take([m])
    return
  }
  picked.value = picked.value.includes(m.id) ? picked.value.filter((id) => id !== m.id) : [...picked.value, m.id]
}

const takePicked = () => take(picked.value.flatMap((id) => all.value.find((m) => m.id === id) ?? []))
function take(media: MediaState[]) {
  emit('chosen', media)
  forget()
  open.value = false
}
</script>

<template>
  <BModal
    v-model="open"
    no-close-on-backdrop
    lazy
    :title="picturesOnly ? 'Choose a picture' : 'Choose what plays'"
    size="xl"
    scrollable
    no-footer
    @hidden="forget"
  >
    <div ref="area" class="area" :class="{ over: isOverDropZone }">
      <div class="bar">
        <BFormInput v-model="search" type="search" placeholder="Search by name" aria-label="Search media" />
        <input ref="chooser" type="file" :multiple="several" hidden :accept="ACCEPTED" @change="chosen" />
        <BButton variant="outline-dark" title="Or drag files onto this dialogue" @click="chooser?.click()">Bring in…</BButton>
        <BButton v-if="several" variant="primary" :disabled="picked.length === 0" @click="takePicked">
          {{ picked.length ? `Add ${picked.length} ${picked.length === 1 ? 'item' : 'items'}` : 'Add' }}
        </BButton>
      </div>
      <UploadList :uploads="uploads" @away="putAway" />
      <p v-if="looked.length" class="small" role="status">{{ looked.map((m) => m.name).join(', ') }}: being looked into</p>
      <p v-for="m in refused" :key="m.id" class="small said-error" role="alert">{{ m.name }}: {{ m.refusal }}</p>
      <p v-if="ready.length === 0" class="empty">There is nothing yet. Bring in pictures and films, or drag them here.</p>
      <p v-else-if="found.length === 0" class="empty">Nothing fits this search.</p>
      <ul class="grid">
        <li v-for="m in shown" :key="m.id">
          <button type="button" class="pick" :aria-pressed="several ? picked.includes(m.id) : undefined" @click="press(m)">
            <img :src="m.thumbnail ?? ''" alt="" loading="lazy" />
            <span v-if="picked.includes(m.id)" class="nth figures">{{ picked.indexOf(m.id) + 1 }}</span>
            <span class="name">{{ m.name }}</span>
            <span class="figures soft">{{ facts(m) }}</span>
          </button>
        </li>
      </ul>
      <div ref="end"><ListEnd :left="left" /></div>
    </div>
  </BModal>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 8px;
  margin-bottom: 12px;
}
.area {
  min-height: 320px;
}
.area.over {
  outline: 3px dashed var(--kelp);
  outline-offset: 6px;
}
.grid {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 12px;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
}
.pick {
  position: relative;
  width: 100%;
  border: 2px solid transparent;
  background: none;
  padding: 4px;
  text-align: left;
  display: flex;
  flex-direction: column;
  color: var(--ink);
}
.pick:hover {
  border-color: var(--rule);
}
.pick[aria-pressed='true'] {
  border-color: var(--kelp);
  background: var(--kelp-wash);
}
img {
  height: 104px;
  width: 100%;
  object-fit: contain;
  background: var(--ground);
}
.nth {
  position: absolute;
  left: 8px;
  top: 8px;
  background: var(--kelp);
  color: var(--sheet);
  padding: 0 7px;
}
.name {
  font-size: 0.875rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 100%;
}
</style>
