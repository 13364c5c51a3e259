<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { onBeforeUnmount, ref, watchEffect } from 'vue'
import { saysOf, useHandings } from '../Handover/handings'
import { useEstate } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import { ago, moment } from '../ui/format'
import { useSecond } from '../ui/second'
import { type Finding, useShelf } from '../ui/shelf'
import PlaybackTabs from './PlaybackTabs.vue'

interface Work {
  workers: { name: string; heard_at: string | null }[]
  queues: { queue: string; waiting: number; in_hand: number; oldest_at: string | null }[]
  failed: { id: string; says: string; why: string; failed_at: string | null }[]
  chores: { name: string; done_at: string | null; next_at: string | null; trouble: string | null }[]
  findings: Finding[]
}

const DOES: Record<string, string> = {
  probe: 'looks into pictures and films that were brought in',
  release: 'makes releases and hands them over',
  keeper: 'hears players, writes pointers, and does what is done daily',
}

const OFTEN_MS = 3000
const shelf = useShelf()
const queries = useQueryClient()
const at = useSecond()
const { displays } = useEstate(false)
const handings = useHandings()
const query = useQuery({ queryKey: ['work'], queryFn: () => api.get<Work>('work'), refetchInterval: OFTEN_MS })
const trouble = ref('')
const nameOf = (id: string) => displays.value.find((d) => d.id === id)?.name ?? id
const queueOf = (worker: string) => query.data.value?.queues.find((q) => q.queue === worker)

async function act(what: () => Promise<unknown>) {
  trouble.value = ''
  try {
    await what()
    await Promise.all(['work', 'handings', 'media'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
  } catch (e) {
    trouble.value = sentence(e)
  }
}

watchEffect(() => {
  shelf.findings = query.data.value?.findings ?? []
  shelf.remark = 'All workers are heard, and nothing waits for nobody.'
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Work behind the desk</h1>
        <p class="facts m-0">Who works on what was asked for, what waits, and what failed</p>
      </div>
      <div class="actions"><PlaybackTabs /></div>
    </div>
    <section class="body p-3" aria-label="Work" tabindex="0">
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <p v-if="query.isPending.value" class="empty">Asking.</p>
      <p v-else-if="query.error.value && !query.data.value" class="empty said-error">{{ query.error.value.message }}</p>
      <template v-else-if="query.data.value">
        <h2>Failed</h2>
        <p v-if="query.data.value.failed.length === 0" class="soft">Nothing failed.</p>
        <table v-else class="table">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Why</th>
              <th scope="col">When</th>
              <th scope="col"><span class="visually-hidden">Actions</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="f in query.data.value.failed" :key="f.id">
              <td>{{ f.says }}</td>
              <td class="said-error">{{ f.why }}</td>
              <td class="figures">{{ moment(f.failed_at) }}</td>
              <td class="acts">
                <button type="button" class="btn btn-outline-dark btn-sm" @click="act(() => api.post(`work/failed/${f.id}/again`, {}))">
                  Try again
                </button>
                <button type="button" class="btn btn-link btn-sm" @click="act(() => api.delete(`work/failed/${f.id}`))">drop</button>
              </td>
            </tr>
          </tbody>
        </table>
        <h2>Workers</h2>
        <table class="table">
          <thead>
            <tr>
              <th scope="col">Worker</th>
              <th scope="col">What it does</th>
              <th scope="col">Heard</th>
              <th scope="col" class="text-end">In hand</th>
              <th scope="col" class="text-end">Waiting</th>
              <th scope="col">Oldest</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="w in query.data.value.workers" :key="w.name">
              <td>{{ w.name }}</td>
              <td class="soft">{{ DOES[w.name] ?? '' }}</td>
              <td class="figures">{{ ago(w.heard_at, at) }}</td>
              <td class="figures text-end">{{ queueOf(w.name)?.in_hand ?? 0 }}</td>
              <td class="figures text-end">{{ queueOf(w.name)?.waiting ?? 0 }}</td>
              <td class="figures">{{ queueOf(w.name)?.oldest_at ? ago(queueOf(w.name)!.oldest_at, at) : '' }}</td>
            </tr>
          </tbody>
        </table>
        <h2>Done by itself</h2>
        <p v-if="query.data.value.chores.length === 0" class="soft">Nothing yet: the keeper has not come round.</p>
        <table v-else class="table">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Done</th>
              <th scope="col">Next</th>
              <th scope="col">Trouble</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in query.data.value.chores" :key="c.name">
              <td>{{ c.name }}</td>
              <td class="figures">{{ moment(c.done_at) }}</td>
              <td class="figures">{{ moment(c.next_at) }}</td>
              <td class="said-error">{{ c.trouble }}</td>
            </tr>
          </tbody>
        </table>
        <h2>Handed over lately</h2>
        <p v-if="handings.all.value.length === 0" class="soft">Nothing yet.</p>
        <table v-else class="table">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">How far</th>
              <th scope="col">Begun</th>
              <th scope="col">By</th>
              <th scope="col"><span class="visually-hidden">Actions</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="h in handings.all.value" :key="h.id">
              <td>{{ h.name }}</td>
              <td :class="{ 'said-error': h.state === 'failed' }">{{ saysOf(h, nameOf) }}</td>
              <td class="figures">{{ moment(h.begun_at) }}</td>
              <td>{{ h.begun_by }}</td>
              <td class="acts">
                <button
                  v-if="h.state === 'failed'"
                  type="button"
                  class="btn btn-outline-dark btn-sm"
                  @click="act(() => api.post(`handings/${h.id}/again`, {}))"
                >
                  Try again
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </section>
  </main>
</template>

<style scoped>
h2 {
  font-size: 0.875rem;
  color: var(--soft);
  margin: 14px 0 5px;
}
.table {
  font-size: 0.875rem;
}
.acts {
  text-align: right;
  white-space: nowrap;
}
</style>
