<script setup lang="ts">
import { computed, ref } from 'vue'
import { size } from '../ui/format'
import { useSecond } from '../ui/second'
import DesignPicture from './DesignPicture.vue'
import { usePlayedLayouts } from './designs'

/** Chooses a saved layout to play within a zone; those of the zone's own size stand first. */
const props = defineProps<{ without: string; box: { width: number; height: number } }>()
const emit = defineEmits<{ chosen: [layout: { id: string; name: string }] }>()
const at = useSecond()
const open = defineModel<boolean>({ required: true })
const all = usePlayedLayouts()
const search = ref('')
const same = (c: { width: number; height: number } | null) => c?.width === props.box.width && c.height === props.box.height
const found = computed(() =>
  all.value
    .filter((d) => d.id !== props.without && d.name.toLowerCase().includes(search.value.trim().toLowerCase()))
    .sort((a, b) => Number(same(b.canvas)) - Number(same(a.canvas)))
    .slice(0, 60),
)
function take(layout: { id: string; name: string }) {
  emit('chosen', layout)
  open.value = false
}
</script>

<template>
  <BModal v-model="open" focus="input" lazy title="Choose a layout" size="lg" scrollable no-footer>
    <BFormInput v-model="search" type="search" placeholder="Search by name" aria-label="Search layouts to play" />
    <p v-if="found.length === 0" class="empty">No other layout fits this search.</p>
    <ul class="layouts">
      <li v-for="d in found" :key="d.id">
        <button type="button" class="pick" @click="take(d)">
          <DesignPicture v-if="open" :plural="d.kind === 'filled' ? 'filled' : 'layouts'" :design="d" :at="at" />
          <b>{{ d.name }}</b>
          <span class="figures soft">{{ d.canvas ? `${size(d.canvas)} px` : '' }}{{ same(d.canvas) ? ', just this size' : '' }}</span>
        </button>
      </li>
    </ul>
  </BModal>
</template>

<style scoped>
.layouts {
  list-style: none;
  margin: 12px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 12px;
  align-items: start;
}
.pick {
  border: 1px solid var(--rule);
  background: var(--sheet);
  color: inherit;
  padding: 8px;
  width: 100%;
  text-align: left;
}
.pick b,
.pick .figures {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
