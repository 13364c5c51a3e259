<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useDropZone } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, useTemplateRef, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { api, sentence } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import DropNote from '../ui/DropNote.vue'
import FirstShown from '../Playback/FirstShown.vue'
import { bytes, moment } from '../ui/format'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import RecordButton from '../ui/RecordButton.vue'
import { useShelf } from '../ui/shelf'
import { ACCEPTED, useBringingIn } from './bringing'
import { type MediaState, facts, useMedia } from './media'
import UploadList from './UploadList.vue'

const { query, all, findings } = useMedia()
const queries = useQueryClient()
const router = useRouter()
const shelf = useShelf()
const area = useTemplateRef('area')
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const { uploads, bringIn, chosen, putAway } = useBringingIn()
const trouble = ref('')

const search = useAsked('search')
const kind = useAsked('kind')
const order = useAsked('order')

const found = computed(() => {
  const kept = all.value.filter(
    (m) => (kind.value === '' || (m.state === 'ready' && m.kind === kind.value)) && m.name.toLowerCase().includes(search.value.trim().toLowerCase()),
  )
  const by: Record<string, (a: MediaState, b: MediaState) => number> = {
    name: (a, b) => a.name.localeCompare(b.name),
    size: (a, b) => (b.width ?? 0) * (b.height ?? 0) - (a.width ?? 0) * (a.height ?? 0),
  }
  return by[order.value] ? [...kept].sort(by[order.value]) : kept
})
const { shown, left, end } = useGrowing(found)

const { isOverDropZone } = useDropZone(area, { onDrop: (files) => void bringIn(files) })

const isUseless = (m: MediaState) => m.state === 'refused' || m.state === 'failed'

async function again(m: MediaState) {
  trouble.value = ''
  try {
    await api.post(`media/${m.id}/again`, {})
    await queries.invalidateQueries({ queryKey: ['media'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}

async function remove(m: MediaState) {
  const text = 'What is handed over keeps it, and it lies in the bin for 30 days.'
  if (!isUseless(m) && !(await ask(`Delete “${m.name}”?`, text, 'Delete it'))) return
  trouble.value = ''
  try {
    await api.delete(`media/${m.id}`)
    await queries.invalidateQueries({ queryKey: ['media'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}

watchEffect(() => {
  shelf.findings = findings.value
  shelf.remark = `${all.value.length} pictures and films`
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main ref="area" class="station" :class="{ over: isOverDropZone }">
    <div class="head">
      <div>
        <h1>Media</h1>
        <p class="facts m-0">
          Drag pictures and films onto this page: PNG, JPEG, WebP, SVG, MP4, WebM, up to 2 GB · <RouterLink to="/media/faces">Type faces</RouterLink>
        </p>
      </div>
      <div class="actions">
        <BFormInput v-model="search" type="search" placeholder="Search by name" aria-label="Search media" />
        <ChoiceBar v-model="kind" label="Kind" :words="{ '': 'all', picture: 'pictures', film: 'films' }" />
        <BFormSelect
          v-model="order"
          aria-label="Order"
          class="w-auto"
          :options="[
            { value: '', text: 'newest first' },
            { value: 'name', text: 'by name' },
            { value: 'size', text: 'largest first' },
          ]"
        />
        <input ref="chooser" type="file" multiple hidden :accept="ACCEPTED" @change="chosen" />
        <BButton variant="primary" @click="chooser?.click()">Bring in…</BButton>
      </div>
    </div>
    <section class="body p-3" aria-label="Pictures and films">
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <UploadList :uploads="uploads" @away="putAway" />
      <p v-if="query.isPending.value" class="empty">Reading the media.</p>
      <p v-else-if="query.error.value && all.length === 0" class="empty said-error">{{ query.error.value.message }}</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>No picture or film yet</h2>
        <p>Drag files onto this page. Each is looked into, and shown with its size and length.</p>
      </div>
      <div v-else-if="found.length === 0" class="empty">
        <h2>Nothing fits this search</h2>
        <p>
          <a href="#" @click.prevent="router.replace({ query: {} })">Show all {{ all.length }}</a>
        </p>
      </div>
      <ul v-else class="grid">
        <li v-for="m in shown" :key="m.id" :class="m.state">
          <div class="still">
            <img v-if="m.thumbnail" :src="m.thumbnail" :alt="m.name" loading="lazy" />
            <span v-else-if="isUseless(m)" class="said-error">{{ m.state }}</span>
            <span v-else class="soft"><BSpinner small /> {{ m.state === 'waiting' ? 'waiting to be looked at' : 'being looked at' }}</span>
          </div>
          <div class="named">
            <span class="name" :title="m.name">{{ m.name }}</span>
            <FirstShown v-if="m.state === 'ready'" :id="m.id" plural="media" lazy="seen?" :name="m.name" />
          </div>
          <div v-if="m.state === 'ready'" class="figures soft">{{ facts(m) }}</div>
          <div v-else-if="isUseless(m)" class="small said-error">{{ m.refusal }}</div>
          <div class="foot soft" :title="`brought in ${moment(m.brought_in_at)}`">
            <span class="figures">{{ bytes(m.bytes) }}</span>
            <span>
              <RecordButton :id="m.id" kind="media" :name="m.name" />
              <RouterLink v-if="m.state === 'ready'" :to="`/handover?media=${m.id}`">hand over</RouterLink>
              <button v-if="m.state === 'failed'" type="button" class="btn btn-link btn-sm p-0 me-2" @click="again(m)">try again</button>
              <button
                type="button"
                class="btn btn-link btn-sm p-0"
                :aria-label="`${isUseless(m) ? 'Put away' : 'Delete'} ${m.name}`"
                @click="remove(m)"
              >
                {{ isUseless(m) ? 'put away' : 'delete' }}
              </button>
            </span>
          </div>
        </li>
      </ul>
      <div ref="end"><ListEnd :left="left" /></div>
    </section>
    <DropNote :over="isOverDropZone" />
  </main>
</template>

<style scoped>
.station {
  position: relative;
}
.grid {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 18px 16px;
  grid-template-columns: repeat(auto-fill, minmax(212px, 1fr));
}
.still {
  height: 132px;
  background: var(--ground);
  display: grid;
  place-items: center;
  margin-bottom: 4px;
  overflow: hidden;
}
.still img {
  max-width: 100%;
  max-height: 132px;
  display: block;
}
.still span {
  background: var(--sheet);
  padding: 3px 10px;
  font-size: 0.8125rem;
}
.name {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  font-weight: 600;
  font-size: 0.875rem;
}
.named {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: baseline;
}
.foot {
  display: flex;
  justify-content: space-between;
  border-top: 1px solid var(--rule);
  margin-top: 4px;
  padding-top: 2px;
  font-size: 0.8125rem;
  white-space: nowrap;
}
.foot > span:last-child {
  display: flex;
  gap: 9px;
}
.foot .btn {
  font-family: inherit;
  font-size: inherit;
}
</style>
