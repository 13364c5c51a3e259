<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { refDebounced, useStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import { useSettings } from '../Display/settings'
import { useEstate } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import { count, some } from '../ui/format'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import RecordButton from '../ui/RecordButton.vue'
import { useShelf } from '../ui/shelf'
import TypedLine from '../ui/TypedLine.vue'
import BeforeAfter from './BeforeAfter.vue'
import ContrastTable from './ContrastTable.vue'
import { type Saved, useDesigns, wayTo } from './designs'
import RevisionList from './RevisionList.vue'
import { type Look, type Picture, type StyleDocument, type StyleReach } from './style'
import StyleEntries from './StyleEntries.vue'

/** A house style: what it names, what can be read on what, and what a change reaches, before it happens. Nothing is changed before it is said. */
const props = defineProps<{ id: string }>()
const queries = useQueryClient()
const route = useRoute()
const shelf = useShelf()
const { all } = useDesigns('styles')
const { places } = useSettings()
const { displays } = useEstate(false)
const revisions = ref(false)
const trouble = ref('')
const done = ref<{ before: StyleDocument; reach: StyleReach } | null>(null)
const handed = ref('')

const saved = useQuery({ queryKey: ['style', props.id], queryFn: () => api.get<Saved<StyleDocument>>(`styles/${props.id}`) })
/** What was typed and is not yet the style, kept by this browser: with the revision that it was typed over. */
const typed = useStorage<{ base: number; text: string } | null>(`upper-pane:style:${props.id}`, null, undefined, {
  serializer: { read: (text) => JSON.parse(text) as { base: number; text: string }, write: (value) => JSON.stringify(value) },
})
const document = computed<StyleDocument | null>(() =>
  typed.value ? (JSON.parse(typed.value.text) as StyleDocument) : (saved.data.value?.document ?? null),
)
const isChanged = computed(() => typed.value !== null && typed.value.text !== JSON.stringify(saved.data.value?.document))
function change(next: StyleDocument) {
  trouble.value = ''
  done.value = null
  typed.value = { base: typed.value?.base ?? saved.data.value!.revision, text: JSON.stringify(next) }
}
const discard = () => ((typed.value = null), (trouble.value = ''))

// --- what it means, and what it reaches ---------------------------------------------------------

const seenOn = ref('')
const rested = refDebounced(document, 150)
const look = ref<Look | null>(null)
const wrong = ref('')
watch(
  () => [rested.value, seenOn.value] as const,
  async ([asked, display]) => {
    if (!asked) return
    try {
      const raster = displays.value.find((d) => d.id === display)?.raster
      look.value = await api.post<Look>('styles/look', { document: asked, display: display || null, ...(raster ?? {}) })
      wrong.value = ''
    } catch (e) {
      wrong.value = sentence(e)
    }
  },
  { immediate: true },
)
const settled = refDebounced(document, 400)
const reach = ref<StyleReach | null>(null)
watch(
  () => [settled.value, isChanged.value, wrong.value] as const,
  async ([asked, changed, isWrong]) => {
    if (!asked || !changed || isWrong) {
      reach.value = null
      return
    }
    try {
      reach.value = await api.post<StyleReach>(`styles/${props.id}/reach`, { document: asked })
    } catch (e) {
      trouble.value = sentence(e)
    }
  },
)
const pictures = (layout: string) => () =>
  api.post<{ before: Picture | null; after: Picture | null }>(`styles/${props.id}/reach/${layout}`, { document: document.value })
const worse = computed(() => reach.value?.designs.filter((one) => one.worse.length).length ?? 0)

async function save(next: StyleDocument, base: number) {
  await api.put(`styles/${props.id}`, { base, document: next })
  typed.value = null
  for (const key of ['style', 'styles', 'house-style', 'layouts', 'picture', 'estate']) await queries.invalidateQueries({ queryKey: [key] })
}
async function apply() {
  const before = saved.data.value!.document
  const reached = reach.value
  trouble.value = ''
  try {
    await save(document.value!, typed.value!.base)
    done.value = { before, reach: reached ?? { names: [], designs: [], displays: [] } }
    handed.value = ''
  } catch (e) {
    trouble.value = sentence(e)
  }
}
async function takeBack() {
  trouble.value = ''
  try {
    await save(done.value!.before, saved.data.value!.revision)
    done.value = null
  } catch (e) {
    trouble.value = sentence(e)
  }
}
/** What stands on the displays that it reaches is handed over again, as it is saved by now. */
async function handOver() {
  const groups = new Map<string, { kind: string; id: string; displays: string[] }>()
  for (const one of done.value!.reach.displays) {
    const key = `${one.kind} ${one.source}`
    groups.set(key, { kind: one.kind, id: one.source, displays: [...(groups.get(key)?.displays ?? []), one.id] })
  }
  trouble.value = ''
  try {
    for (const { kind, id, displays } of groups.values()) await api.post('handover', { source: { kind, id }, displays })
    handed.value = `Being handed over to ${count(done.value!.reach.displays.length, 'display')}.`
    await queries.invalidateQueries({ queryKey: ['estate'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}

const { shown: shownDesigns, left, end } = useGrowing(() => reach.value?.designs ?? [], 24)
const others = computed(() => all.value.filter((one) => one.id !== props.id))
const nameOf = (id: string) => all.value.find((one) => one.id === id)?.name ?? id
const holdsAt = computed(() => places.value.filter((place) => place.settings.style === props.id).map((place) => place.name))
watchEffect(() => {
  shelf.findings = []
  shelf.remark = wrong.value || (isChanged.value ? 'Nothing is changed yet.' : 'This is the style as it holds.')
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div class="words">
        <div class="named">
          <TypedLine v-if="document" class="title" :value="document.name" label="Name of the style" @change="change({ ...document, name: $event })" />
          <button v-if="document" type="button" class="btn btn-link btn-sm p-0" @click="revisions = true">revisions</button>
          <RecordButton v-if="document" :id="id" kind="style" :name="document.name" />
        </div>
        <p class="facts m-0 text-truncate">
          {{ holdsAt.length ? `holds at ${holdsAt.join(', ')}` : 'holds nowhere yet' }} ·
          <RouterLink to="/displays/settings?setting=style">settings of places</RouterLink> · revision {{ saved.data.value?.revision }}
        </p>
      </div>
      <div class="actions">
        <BButton v-if="isChanged" variant="outline-dark" @click="discard">Discard</BButton>
        <BButton variant="primary" :disabled="!isChanged || wrong !== ''" @click="apply">Change it everywhere</BButton>
      </div>
    </div>
    <p v-if="saved.error.value" class="empty said-error">{{ saved.error.value.message }}</p>
    <div v-else-if="document && look" class="split">
      <div role="region" aria-label="What it names">
        <p v-if="typeof route.query.found === 'string'" class="note small" role="status">{{ route.query.found }}</p>
        <p v-if="wrong" class="said-error small" role="alert">{{ wrong }}</p>
        <label class="extends small"
          >Extends
          <select
            class="form-select form-select-sm w-auto"
            :value="document.extends ?? ''"
            @change="change({ ...document, extends: ($event.target as HTMLSelectElement).value || null })"
          >
            <option value="">no other style</option>
            <option v-for="one in others" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select>
        </label>
        <StyleEntries :document="document" :look="look" :own="id" :called="nameOf" @change="change">
          <template #sizes>
            <label class="small"
              >as seen on
              <select v-model="seenOn" class="form-select form-select-sm w-auto">
                <option value="">no display: 1920 × 1080, 1 mm a px, at 10 m</option>
                <option v-for="d in displays" :key="d.id" :value="d.id">{{ d.name }}</option>
              </select></label
            >
          </template>
        </StyleEntries>
        <ContrastTable :look="look" />
      </div>
      <aside aria-label="What a change reaches">
        <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
        <template v-if="done">
          <h2>Changed</h2>
          <p role="status">
            {{ count(done.reach.designs.length, 'design') }} {{ done.reach.designs.length === 1 ? 'has' : 'have' }} it from now on.
            <template v-if="handed">{{ handed }}</template>
            <template v-else-if="done.reach.displays.length">
              {{ count(done.reach.displays.length, 'display') }} {{ done.reach.displays.length === 1 ? 'shows' : 'show' }} it once it is handed over:
              {{ some(done.reach.displays.map((one) => one.name)) }}.
            </template>
          </p>
          <div class="doing">
            <BButton v-if="done.reach.displays.length && !handed" variant="primary" @click="handOver"
              >Hand over to {{ done.reach.displays.length }}</BButton
            >
            <BButton variant="outline-dark" @click="takeBack">Take it back</BButton>
          </div>
        </template>
        <template v-else-if="isChanged && reach">
          <h2>Reaches {{ count(reach.designs.length, 'design') }} and {{ count(reach.displays.length, 'display') }}</h2>
          <p class="small soft m-0">
            {{ reach.names.map((name) => name.split('/')[1]).join(', ') || 'Nothing that is named means something else.' }}
          </p>
          <p v-if="worse" class="small warn m-0">{{ count(worse, 'design') }} would have something wrong that it has not now.</p>
          <ul class="reached">
            <li v-for="one in shownDesigns" :key="one.id">
              <RouterLink :to="wayTo(one)" class="name">{{ one.name }}</RouterLink>
              <p v-for="said in one.worse.slice(0, 3)" :key="said" class="small warn m-0">then: {{ said }}</p>
              <p v-for="said in one.better.slice(0, 2)" :key="said" class="small soft m-0">no longer: {{ said }}</p>
              <BeforeAfter v-if="one.kind === 'layout' || one.kind === 'filled'" :of="`${one.id} ${typed?.text}`" :load="pictures(one.id)" />
            </li>
          </ul>
          <div ref="end"><ListEnd :left="left" /></div>
          <p v-if="reach.displays.length" class="small">Stands on {{ some(reach.displays.map((one) => one.name)) }}.</p>
        </template>
        <template v-else>
          <h2>What a change reaches</h2>
          <p class="soft">
            Change a colour, a face, a size or a mark: everything that names it stands here, as it is and as it would be, with what the checks would
            say, before anything happens.
          </p>
        </template>
      </aside>
    </div>
    <RevisionList :id="id" v-model="revisions" plural="styles" :current="saved.data.value?.revision ?? 0" @restored="() => void saved.refetch()" />
  </main>
</template>

<style scoped>
.extends,
.extends + * label {
  display: flex;
  align-items: center;
  gap: 8px;
}
.warn {
  color: var(--warning);
}
.doing {
  display: flex;
  gap: 8px;
}
</style>
