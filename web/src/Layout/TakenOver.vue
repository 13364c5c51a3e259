<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../ui/api'
import { useGuarded } from '../ui/guarded'
import BeforeAfter from './BeforeAfter.vue'
import type { Newer } from './newer'

/** Where the template of what is filled in has gone on: what another revision of it would change, and taking it over. */
const props = defineProps<{ id: string; revision: number; template: { id: string; newest: number | null }; goesBy: number | undefined }>()
const emit = defineEmits<{ taken: [] }>()
const isOlder = computed(() => props.goesBy !== undefined && props.template.newest !== null && props.goesBy < props.template.newest)
const looking = ref(false)
const newer = ref<Newer | null>(null)
const load = async () => (newer.value = await api.get<Newer>(`filled/${props.id}/newer`))
const { trouble, guarded } = useGuarded('filled')
const take = () =>
  guarded(async () => {
    await api.post(`layouts/${props.template.id}/filled`, { filled: [props.id] })
    looking.value = false
    emit('taken')
  })
</script>

<template>
  <div v-if="isOlder" class="older" role="status">
    <p class="m-0">
      Its template was changed since: this goes by revision {{ goesBy }} of {{ template.newest }}.
      <button type="button" class="btn btn-link btn-sm p-0" :aria-expanded="looking" @click="looking = !looking">
        {{ looking ? 'close' : 'see what would change' }}
      </button>
    </p>
    <div v-if="looking" class="change">
      <div class="pictures"><BeforeAfter :of="`${id} ${revision} ${template.newest}`" :load="load" /></div>
      <div>
        <p v-for="one in newer?.left ?? []" :key="one" class="small said-error m-0">“{{ one }}” is open no more: what stands there goes.</p>
        <p v-for="one in newer?.worse ?? []" :key="one" class="small changed m-0">{{ one }}</p>
        <p v-if="newer && newer.left.length + newer.worse.length === 0" class="small m-0">All that is filled in fits as before.</p>
        <p v-if="trouble" class="small said-error m-0" role="alert">{{ trouble }}</p>
        <BButton size="sm" variant="primary" class="mt-2" @click="take">Take it over</BButton>
        <span class="small soft ms-2">It can be put back from its revisions.</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.older {
  border-bottom: 1px solid var(--rule);
  border-left: 4px solid var(--chalk);
  background: var(--sheet);
  padding: 6px 14px;
  font-size: 0.875rem;
}
.change {
  display: grid;
  grid-template-columns: minmax(280px, 420px) 1fr;
  gap: 16px;
  padding-top: 8px;
}
.changed {
  color: var(--warning);
}
@media (max-width: 800px) {
  .change {
    grid-template-columns: 1fr;
  }
}
</style>
