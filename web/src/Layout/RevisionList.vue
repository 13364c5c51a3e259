<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { api, sentence } from '../ui/api'
import { moment } from '../ui/format'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import type { Plural } from './designs'
import RevisionRow, { type Revision } from './RevisionRow.vue'

/** Every revision that was saved, also those kept aside, as it looks and what is another in it; any can be put back. */
const props = defineProps<{ id: string; plural: Plural; current: number }>()
const emit = defineEmits<{ restored: [] }>()
const open = defineModel<boolean>({ required: true })

const queries = useQueryClient()
const trouble = ref('')
const list = useQuery({
  queryKey: ['revisions', () => props.id],
  enabled: open,
  staleTime: 0,
  queryFn: async () => (await api.get<{ revisions: Revision[] }>(`${props.plural}/${props.id}/revisions`)).revisions,
})
const { shown, left, end } = useGrowing(() => list.data.value ?? [], 20)
watch(open, (now) => {
  trouble.value = ''
  if (now) void queries.invalidateQueries({ queryKey: ['revisions'] })
})

async function restore(revision: Revision) {
  try {
    await api.post(`${props.plural}/${props.id}/restore`, { base: props.current, revision: revision.id })
    open.value = false
    emit('restored')
  } catch (e) {
    trouble.value = sentence(e)
  }
}
const handed = ({ displays, last, now }: NonNullable<Revision['handed_over']>) => {
  const them = displays === 1 ? '1 display' : `${displays} displays`
  return `handed over to ${them}, ${moment(last)}${now ? `; stands on ${now === displays && displays > 1 ? 'all of them' : now}` : ''}`
}
</script>

<template>
  <BModal v-model="open" lazy title="Revisions" size="lg" no-footer scrollable>
    <p v-if="trouble || list.error.value" class="said-error" role="alert">{{ trouble || sentence(list.error.value) }}</p>
    <ol class="revisions">
      <li v-for="r in shown" :key="r.id">
        <RevisionRow :id="id" :plural="plural" :revision="r">
          <h3>
            {{ r.number === null ? 'kept aside' : `revision ${r.number}` }}
            <span class="figures soft">{{ moment(r.saved_at) }}{{ r.saved_by ? `, ${r.saved_by}` : '' }}</span>
            <span v-if="r.number === current" class="soft now">what you work on</span>
            <button v-else type="button" class="btn btn-link btn-sm p-0 now" @click="restore(r)">put back</button>
          </h3>
          <p v-if="r.note" class="soft">{{ r.note }}</p>
          <p v-if="r.handed_over" class="handed">{{ handed(r.handed_over) }}</p>
        </RevisionRow>
      </li>
    </ol>
    <div ref="end"><ListEnd :left="left" /></div>
  </BModal>
</template>

<style scoped>
.revisions {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--rule);
  padding: 10px 0;
}
li:first-child {
  border-top: 0;
  padding-top: 0;
}
h3 {
  display: flex;
  align-items: baseline;
  gap: 12px;
  font-size: 0.9375rem;
  margin: 0;
}
.now {
  margin-left: auto;
  font-weight: 400;
  font-size: 0.875rem;
}
p {
  margin: 0;
  font-size: 0.8125rem;
}
.handed {
  color: var(--kelp);
  font-weight: 650;
}
</style>
