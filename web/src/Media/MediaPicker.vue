<script setup lang="ts">
import { computed, ref } from 'vue'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import { type MediaState, facts, useMedia } from './media'

/** Chooses media by their pictures: one, or several in the order they are pressed. */
const props = defineProps<{ picturesOnly?: boolean; several?: boolean }>()
const emit = defineEmits<{ chosen: [media: MediaState[]] }>()
const open = defineModel<boolean>({ required: true })

const { ready } = useMedia()
const search = ref('')
const picked = ref<MediaState[]>([])
const found = computed(() =>
  ready.value.filter((m) => (!props.picturesOnly || m.kind === 'picture') && m.name.toLowerCase().includes(search.value.trim().toLowerCase())),
)
const { shown, left, end } = useGrowing(found, 40)

function press(m: MediaState) {
  if (!props.several) {
    take([m])
    return
  }
  picked.value = picked.value.includes(m) ? picked.value.filter((p) => p !== m) : [...picked.value, m]
}

function take(media: MediaState[]) {
  emit('chosen', media)
  picked.value = []
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
    @hidden="picked = []"
  >
    <div class="bar">
      <BFormInput v-model="search" type="search" placeholder="Search by name" aria-label="Search media" />
      <BButton v-if="several" variant="primary" :disabled="picked.length === 0" @click="take(picked)">
        {{ picked.length ? `Add ${picked.length} ${picked.length === 1 ? 'item' : 'items'}` : 'Add' }}
      </BButton>
    </div>
    <p v-if="ready.length === 0" class="empty">There is nothing yet. <RouterLink to="/media">Bring in pictures and films</RouterLink> first.</p>
    <p v-else-if="found.length === 0" class="empty">Nothing fits this search.</p>
    <ul class="grid">
      <li v-for="m in shown" :key="m.id">
        <button type="button" class="pick" :aria-pressed="several ? picked.includes(m) : undefined" @click="press(m)">
          <img :src="m.thumbnail ?? ''" alt="" loading="lazy" />
          <span v-if="picked.includes(m)" class="nth figures">{{ picked.indexOf(m) + 1 }}</span>
          <span class="name">{{ m.name }}</span>
          <span class="figures soft">{{ facts(m) }}</span>
        </button>
      </li>
    </ul>
    <div ref="end"><ListEnd :left="left" /></div>
  </BModal>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 8px;
  margin-bottom: 12px;
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
