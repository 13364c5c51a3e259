<script setup lang="ts">
import { computed } from 'vue'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { count } from '../ui/format'
import { useGrowing } from '../ui/growing'
import { useGuarded } from '../ui/guarded'
import ListEnd from '../ui/ListEnd.vue'
import { useSecond } from '../ui/second'
import { useRemark } from '../ui/shelf'
import DesignCard from './DesignCard.vue'
import { type DesignSummary, NOUNS, type Pictured, type Saved, toHandOver, useDesigns } from './designs'
import { type Saying, excerpt, useWords, whereSaid } from './words'

/** All layouts, all that is filled in, or all playlists: each as it is at this instant, to open, copy, delete and hand over. */
const props = defineProps<{ plural: Pictured }>()
const { query, all } = useDesigns(props.plural)
const TITLES: Record<Pictured, string> = { layouts: 'Layouts', filled: 'Filled in', playlists: 'Playlists' }
const at = useSecond()
const { trouble, guarded } = useGuarded(props.plural)
const search = useAsked('search')
const order = useAsked('order')
const only = useAsked('only')
const { saying: words } = useWords(search)
const saying = computed<Record<string, Saying>>(() => Object.fromEntries(words.value.map((one) => [one.id, one])))
const found = computed(() => {
  const text = search.value.trim().toLowerCase()
  const kept = all.value.filter(
    (d) =>
      (`${d.name} ${d.canvas?.width}x${d.canvas?.height} ${d.template?.name ?? ''}`.toLowerCase().includes(text) || saying.value[d.id]) &&
      (only.value === '' || toHandOver(d)),
  )
  return order.value === 'newest' ? kept.sort((a, b) => b.saved_at.localeCompare(a.saved_at)) : kept
})
const { shown, left, end } = useGrowing(found, 24)

async function copy(design: DesignSummary) {
  const { document } = await api.get<Saved<{ format: string; id: string; name: string }>>(`${props.plural}/${design.id}`)
  // The server gives the copy an id and the name beside it.
  await api.post(props.plural, { name: `${document.name}, copy`, display: design.display ?? undefined, document })
}

async function remove(design: DesignSummary) {
  const text = `${design.revision === 1 ? 'It' : `All its ${design.revision} revisions`} will lie in the bin for 30 days, and can be put back from there.`
  if (await ask(`Delete “${design.name}”?`, text, 'Delete it')) await api.delete(`${props.plural}/${design.id}`)
}

useRemark(() => count(all.value.length, NOUNS[props.plural]))
</script>

<template>
  <div class="head">
    <div>
      <h1>{{ TITLES[plural] }}</h1>
      <p class="facts m-0"><slot name="facts"></slot></p>
    </div>
    <div class="actions">
      <BFormInput
        v-model="search"
        type="search"
        :placeholder="plural === 'playlists' ? 'Search name or words' : 'Search name, raster or words'"
        :aria-label="`Search ${TITLES[plural].toLowerCase()}`"
      />
      <ChoiceBar v-model="only" label="Which" :words="{ '': 'all', open: 'to hand over' }" />
      <BFormSelect
        v-model="order"
        aria-label="Order"
        class="w-auto"
        :options="[
          { value: '', text: 'by name' },
          { value: 'newest', text: 'newest first' },
        ]"
      />
      <slot name="actions"></slot>
    </div>
  </div>
  <section class="body p-3" :aria-label="`All ${plural}`">
    <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
    <p v-if="query.isPending.value" class="empty">Reading what there is.</p>
    <p v-else-if="query.error.value && all.length === 0" class="empty said-error">{{ query.error.value.message }}</p>
    <div v-else-if="all.length === 0" class="empty"><slot name="none"></slot></div>
    <p v-else-if="found.length === 0" class="empty">
      {{ only ? 'Nothing here waits to be handed over.' : 'Nothing fits this search.' }}
    </p>
    <ul v-else class="grid">
      <DesignCard
        v-for="d in shown"
        :key="d.id"
        :design="d"
        :plural="plural"
        :at="at"
        @copy="guarded(() => copy(d))"
        @remove="guarded(() => remove(d))"
      >
        <p v-if="saying[d.id]" class="says small m-0">
          says “{{ excerpt(saying[d.id]!.says, search) }}” <span v-if="!saying[d.id]!.saved" class="soft">{{ whereSaid(saying[d.id]!) }}</span>
        </p>
      </DesignCard>
    </ul>
    <div ref="end"><ListEnd :left="left" /></div>
  </section>
</template>

<style scoped>
.grid {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 22px 18px;
  grid-template-columns: repeat(auto-fill, minmax(284px, 1fr));
}
.says {
  overflow-wrap: anywhere;
}
</style>
