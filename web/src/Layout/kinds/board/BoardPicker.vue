<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { rowsBegun } from '../../../Data/begin'
import SourceChoice from '../../../Data/SourceChoice.vue'
import { api, sentence } from '../../../ui/api'
import type { Rect } from '../../../ui/shelf'
import { useComposer } from '../../composer/composer'

/** What a board begins with: whose rows it tells, and in which ready pattern. */
const props = defineProps<{ rect: Rect | null }>()
const emit = defineEmits<{ chosen: [fields: object] }>()
const open = defineModel<boolean>({ required: true })
const composer = useComposer()
const source = ref<string | null>(null)
const ready = ref('departures')
const trouble = ref('')
const busy = ref(false)
const { data } = useQuery({
  queryKey: ['boards', 'ready'],
  queryFn: () => api.get<{ ready: Record<string, string> }>('boards/ready'),
  staleTime: Infinity,
})
watch(open, () => (trouble.value = ''))

async function take() {
  if (!source.value || !props.rect) return
  busy.value = true
  trouble.value = ''
  try {
    const rows = await rowsBegun(source.value)
    const ground = composer.document.value.background?.color
    const { fields } = await api.post<{ fields: object }>('boards/ready', {
      ready: ready.value,
      rows,
      rect: props.rect,
      ...(ground ? { ground } : {}),
    })
    open.value = false
    emit('chosen', fields)
  } catch (e) {
    trouble.value = sentence(e)
  }
  busy.value = false
}
</script>

<template>
  <BModal v-model="open" title="A board" lazy no-footer size="lg">
    <form @submit.prevent="take">
      <h3>Whose rows</h3>
      <SourceChoice v-model="source" label="Source of the rows" />
      <h3>Begin with</h3>
      <div class="ready" role="radiogroup" aria-label="Ready patterns">
        <label v-for="(name, id) in data?.ready ?? {}" :key="id" :class="{ on: ready === id }">
          <input v-model="ready" type="radio" name="ready" :value="id" />
          <span>{{ name }}</span>
        </label>
      </div>
      <p class="soft small mt-3 mb-2">Every field, its place and its type can be changed on the board itself.</p>
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <BButton type="submit" variant="primary" :disabled="!source || busy">Make the board</BButton>
    </form>
  </BModal>
</template>

<style scoped>
h3 {
  font-size: 0.9375rem;
  margin: 14px 0 6px;
}
h3:first-child {
  margin-top: 0;
}
.ready {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}
.ready label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 32px;
  padding: 0 10px;
  border: 1px solid var(--rule);
}
.ready label.on {
  border-color: var(--kelp);
  background: var(--paper);
}
</style>
