<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api } from '../ui/api'
import { count, moment, size } from '../ui/format'
import { useGrowing } from '../ui/growing'
import { useGuarded } from '../ui/guarded'
import ListEnd from '../ui/ListEnd.vue'
import { useRemark } from '../ui/shelf'
import BeforeAfter from './BeforeAfter.vue'
import type { LayoutDocument, Saved } from './designs'
import { useFilledInto } from './filling'
import FromRows from './FromRows.vue'
import type { Newer } from './newer'
import OpenAt from './OpenAt.vue'
import SamplePicture from './SamplePicture.vue'

/** A template as it looks with its defaults, with the least and with the most that can be filled in, on each of its rasters; and all that is filled into it. */
const props = defineProps<{ id: string }>()
const queries = useQueryClient()
const saved = useQuery({ queryKey: ['template', () => props.id], queryFn: () => api.get<Saved<LayoutDocument>>(`layouts/${props.id}`) })
const template = computed(() => saved.data.value ?? null)
const revision = computed(() => template.value?.revision ?? 0)
const rasters = computed(() => {
  const document = template.value?.document
  return document ? [{ id: null, canvas: document.canvas }, ...(document.variants ?? []).map(({ id, canvas }) => ({ id, canvas }))] : []
})
const SAMPLES = { nothing: 'as it begins', least: 'the least', longest: 'the most that fits' } as const
const { query, filled } = useFilledInto(
  computed(() => props.id),
  revision,
)
const older = computed(() => filled.value.filter((one) => one.is_older))
const { shown, left, end } = useGrowing(filled, 30)
const newer = ref<Record<string, Newer>>({})
const load = async (id: string) => (newer.value[id] = await api.get<Newer>(`filled/${id}/newer`))
const { trouble, guarded } = useGuarded('filled')
const done = ref('')
const take = (ids: string[]) =>
  guarded(async () => {
    const answer = await api.post<{ filled: { id: string }[] }>(`layouts/${props.id}/filled`, { filled: ids })
    done.value = `${count(answer.filled.length, 'filled layout')} took over revision ${revision.value}. Each can be put back from its revisions.`
    await queries.invalidateQueries({ queryKey: ['filled-into'] })
  })
const filledAnew = () => Promise.all(['filled', 'filled-into'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
useRemark(() => (template.value ? `${count(filled.value.length, 'layout')} filled in, ${older.value.length} of an earlier revision` : ''))
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>{{ template?.name ?? 'Template' }}</h1>
        <p class="facts m-0">
          revision {{ revision }} · {{ count(template?.document.slots?.length ?? 0, 'slot') }}:
          {{ (template?.document.slots ?? []).map((slot) => slot.name).join(', ') }}
        </p>
      </div>
      <div class="actions">
        <OpenAt :id="id" plural="layouts" :revision="revision" label="Free for" none="all places" @changed="() => void saved.refetch()" />
        <RouterLink class="btn btn-outline-dark" :to="`/layouts/${id}`">Open in the composer</RouterLink>
        <RouterLink class="btn btn-primary" :to="`/filled?into=${id}`">Fill it in</RouterLink>
      </div>
    </div>
    <section class="body p-3">
      <p v-if="saved.error.value" class="said-error">{{ saved.error.value.message }}</p>
      <p v-if="template && !template.document.slots?.length" class="empty">
        Nothing is left open in this layout. Choose an element in the composer and open its words, its picture or a figure in it.
      </p>
      <template v-else-if="template">
        <h2>How it looks</h2>
        <table class="looks">
          <thead>
            <tr>
              <th scope="col">raster</th>
              <th v-for="(words, sample) in SAMPLES" :key="sample" scope="col">{{ words }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="raster in rasters" :key="raster.id ?? ''">
              <th scope="row" class="figures">{{ raster.id ?? 'as drawn' }}<br />{{ size(raster.canvas) }}</th>
              <td v-for="(_, sample) in SAMPLES" :key="sample">
                <SamplePicture :document="template.document" :variant="raster.id" :sample="sample" :canvas="raster.canvas" />
              </td>
            </tr>
          </tbody>
        </table>
        <div class="between">
          <h2>Filled in</h2>
          <BButton v-if="older.length" size="sm" variant="primary" @click="take(older.map((one) => one.id))"
            >All {{ older.length }} take over revision {{ revision }}</BButton
          >
        </div>
        <p v-if="done" class="small" role="status">{{ done }}</p>
        <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
        <p v-if="query.isPending.value" class="soft">Looking.</p>
        <p v-else-if="filled.length === 0" class="soft">Nobody has filled it in yet.</p>
        <ul class="filled">
          <li v-for="one in shown" :key="one.id">
            <div>
              <RouterLink :to="`/filled/${one.id}`" class="name">{{ one.name }}</RouterLink>
              <div class="figures soft">revision {{ one.revision }}, {{ moment(one.saved_at) }}{{ one.saved_by ? `, ${one.saved_by}` : '' }}</div>
              <div class="small">
                {{ one.displays ? `on ${count(one.displays, 'display')}` : 'not handed over' }} ·
                <b v-if="one.is_older" class="older">stays at revision {{ one.template_revision }} of the template</b
                ><span v-else class="soft">goes by the newest</span>
              </div>
              <template v-if="one.is_older">
                <p v-for="slot in newer[one.id]?.left ?? []" :key="slot" class="small said-error m-0">
                  “{{ slot }}” is open no more: what stands there goes.
                </p>
                <p v-for="words in newer[one.id]?.worse ?? []" :key="words" class="small older m-0">{{ words }}</p>
                <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`${one.name} takes it over`" @click="take([one.id])">
                  take over
                </button>
              </template>
            </div>
            <BeforeAfter v-if="one.is_older" :of="`${one.id} ${one.revision} ${revision}`" :load="() => load(one.id)" />
          </li>
        </ul>
        <div ref="end"><ListEnd :left="left" /></div>
        <FromRows :template="id" :slots="template.document.slots ?? []" :name="template.name" @done="filledAnew" />
      </template>
    </section>
  </main>
</template>

<style scoped>
.looks {
  margin: 8px 0 22px;
  border-collapse: collapse;
}
.looks th {
  font-weight: 400;
  color: var(--soft);
  font-size: 0.8125rem;
  text-align: left;
  vertical-align: top;
  padding: 4px 16px 4px 0;
}
.looks td {
  padding: 4px 12px 10px 0;
  vertical-align: top;
}
.between {
  display: flex;
  gap: 18px;
  align-items: baseline;
  margin-bottom: 6px;
}
.filled {
  list-style: none;
  margin: 0;
  padding: 0;
}
.filled li {
  display: grid;
  grid-template-columns: minmax(260px, 1fr) minmax(0, 420px);
  gap: 16px;
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
.name {
  font-weight: 650;
  color: var(--ink);
  text-decoration: none;
}
.older {
  color: var(--warning);
}
</style>
