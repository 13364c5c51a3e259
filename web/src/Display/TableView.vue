<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, shallowRef, useTemplateRef } from 'vue'
import { api, sentence } from '../ui/api'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import { useSizes } from './survey'

/** Many displays surveyed from a table: first what it would change, then changing it. */
interface Preview {
  applied: boolean
  encoding: string
  separator: string
  new: number
  changed: number
  unchanged: number
  bad: { line: number; reason: string }[]
  changes: { line: number; id: string | null; name: string; place: string; changes: string[] }[]
}
const queries = useQueryClient()
const { data: sizes } = useSizes()
const input = useTemplateRef('input')
const file = shallowRef<File | null>(null)
const preview = shallowRef<Preview | null>(null)
const trouble = ref('')
const busy = ref(false)
const over = ref(false)

async function ask(apply: boolean) {
  if (!file.value) return
  busy.value = true
  trouble.value = ''
  try {
    preview.value = await api.bytes<Preview>(`survey/table${apply ? '?apply=1' : ''}`, file.value)
    if (apply) await queries.invalidateQueries({ queryKey: ['estate'] })
  } catch (e) {
    trouble.value = sentence(e)
    if (!apply) preview.value = null
  } finally {
    busy.value = false
  }
}
function take(event: Event | DragEvent) {
  over.value = false
  const one = 'dataTransfer' in event ? event.dataTransfer?.files[0] : (event.target as HTMLInputElement).files?.[0]
  if (!one) return
  file.value = one
  preview.value = null
  void ask(false)
  if (input.value) input.value.value = ''
}
const changes = computed(() => preview.value?.changes ?? [])
const { shown, left, end } = useGrowing(changes, 60)
const { shown: shownBad, left: leftBad, end: endBad } = useGrowing(() => preview.value?.bad ?? [], 60)
const total = computed(() => (preview.value ? preview.value.new + preview.value.changed : 0))
const example =
  'name,place,width_px,height_px,width_mm,height_mm,bezel_mm,rotation,nearest_m,farthest_m\nPier 5,Island piers,1920,1080,698.4,392.9,11.5,270,0.8,7\n'
const exampleAddress = `data:text/csv;charset=utf-8,${encodeURIComponent(example)}`
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Displays from a table</h1>
        <p class="facts m-0">
          <RouterLink to="/displays">Displays</RouterLink> · a row for each display; what is there already is changed, the rest is new
        </p>
      </div>
      <div class="actions">
        <BButton variant="outline-dark" @click="input?.click()">Choose a file…</BButton>
        <BButton v-if="preview && !preview.applied" variant="primary" :disabled="busy || total === 0" @click="ask(true)">
          {{ busy ? 'Taking it in' : `Take in ${total} ${total === 1 ? 'row' : 'rows'}` }}
        </BButton>
        <input ref="input" type="file" accept=".csv,.txt,.tsv,text/csv" hidden aria-label="Table of displays" @change="take" />
      </div>
    </div>
    <div class="body p-3" :class="{ over }" @dragover.prevent="over = true" @dragleave="over = false" @drop.prevent="take">
      <p v-if="trouble" class="said-error" role="alert">{{ file?.name }}: {{ trouble }}</p>
      <div v-if="!preview && !busy" class="empty">
        <h2>Drop a CSV file here</h2>
        <p>
          UTF-8 or Latin-1; commas, semicolons or tabs. Nothing is changed before you have seen what would change. Rows that are wrong are listed and
          left out.
        </p>
        <p class="figures">{{ sizes?.columns.join(', ') }}</p>
        <p><a :href="exampleAddress" download="displays.csv">Save an example to begin with</a></p>
      </div>
      <p v-else-if="busy && !preview" class="empty">Reading {{ file?.name }}.</p>
      <template v-if="preview">
        <div class="said" :class="{ done: preview.applied }" role="status">
          <b>{{ preview.applied ? 'Taken in.' : `${file?.name} would bring` }}</b>
          {{ preview.new }} new, {{ preview.changed }} changed, {{ preview.unchanged }} as they are, {{ preview.bad.length }} left out.
          <span class="soft">Read as {{ preview.encoding }}, parted by {{ preview.separator }}.</span>
          <RouterLink v-if="preview.applied" to="/displays">See the displays</RouterLink>
        </div>
        <template v-if="preview.bad.length">
          <h2 class="said-error">Left out</h2>
          <table class="table" aria-label="Rows left out">
            <tbody>
              <tr v-for="b in shownBad" :key="b.line">
                <td class="figures">line {{ b.line }}</td>
                <td>{{ b.reason }}</td>
              </tr>
            </tbody>
          </table>
          <div ref="endBad"><ListEnd :left="leftBad" /></div>
        </template>
        <h2 v-if="changes.length">{{ preview.applied ? 'Changed' : 'Would change' }}</h2>
        <table v-if="changes.length" class="table" aria-label="Changes">
          <thead>
            <tr>
              <th scope="col">Line</th>
              <th scope="col">Display</th>
              <th scope="col">Place</th>
              <th scope="col">What</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in shown" :key="c.line">
              <td class="figures">{{ c.line }}</td>
              <td>{{ c.name }}</td>
              <td>{{ c.place }}</td>
              <td class="figures">{{ c.changes.join(' · ') }}</td>
            </tr>
          </tbody>
        </table>
        <div ref="end"><ListEnd :left="left" /></div>
        <p v-if="total > changes.length" class="soft">The first {{ changes.length }} of {{ total }} are shown.</p>
      </template>
    </div>
  </main>
</template>

<style scoped>
.over {
  outline: 3px dashed var(--kelp);
  outline-offset: -8px;
}
h2 {
  font-size: 1rem;
  margin: 14px 0 4px;
}
.said {
  border: 1px solid var(--rule);
  background: var(--sheet);
  padding: 7px 12px;
}
.said.done {
  background: var(--kelp-wash);
  border-color: var(--kelp);
}
</style>
