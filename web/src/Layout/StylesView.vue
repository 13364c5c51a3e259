<script setup lang="ts">
import { useQueries } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useSettings } from '../Display/settings'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { useGuarded } from '../ui/guarded'
import { useRemark } from '../ui/shelf'
import { type DesignSummary, type Saved, useDesigns } from './designs'
import type { StyleDocument } from './style'

/** All house styles: what is in each, which one it extends, where it holds. */
const { query, all } = useDesigns('styles')
const { all: layouts } = useDesigns('layouts')
const router = useRouter()
const { places } = useSettings()
const documents = useQueries({
  queries: computed(() =>
    all.value.map((one) => ({
      queryKey: ['style', one.id, one.revision],
      queryFn: () => api.get<Saved<StyleDocument>>(`styles/${one.id}`),
    })),
  ),
})
const documentOf = (id: string) => documents.value.find((one) => one.data?.id === id)?.data?.document
const nameOf = (id: string | null | undefined) => all.value.find((one) => one.id === id)?.name ?? null
const holdsAt = (id: string) => places.value.filter((place) => place.settings.style === id).map((place) => place.name)

const making = ref(false)
const name = ref('')
const beginning = ref('')
const { trouble, guarded } = useGuarded('styles')
const { trouble: said, guarded: guardedRemoval } = useGuarded('styles')

const make = () =>
  guarded(async () => {
    const [how, id] = beginning.value.split(':')
    if (how === 'layout') {
      const found = await api.post<{ id: string; colours: number; near: [string, string][] }>(`styles/of/${id}`, { name: name.value.trim() })
      const near = found.near.map(([a, b]) => `${a} and ${b}`).join(', ')
      await router.push({
        path: `/layouts/styles/${found.id}`,
        query: { found: `Found ${found.colours} colours${near ? `; nearly equal: ${near}` : ''}.` },
      })
      return
    }
    const document = { name: name.value.trim(), extends: how === 'extends' ? id : null, colours: {}, faces: {}, sizes: {}, marks: {} }
    const made = await api.post<Saved<StyleDocument>>('styles', { name: name.value.trim(), document })
    await router.push(`/layouts/styles/${made.id}`)
  })

async function remove(style: DesignSummary) {
  if (await ask(`Delete “${style.name}”?`, 'It will lie in the bin for 30 days, and can be put back from there.', 'Delete it'))
    await guardedRemoval(() => api.delete(`styles/${style.id}`))
}
useRemark(() => `${all.value.length} ${all.value.length === 1 ? 'house style' : 'house styles'}`)
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>House styles</h1>
        <p class="facts m-0">Colours, faces, sizes and marks by name; layouts name them, places say which style holds</p>
      </div>
      <div class="actions">
        <RouterLink class="btn btn-outline-dark" to="/displays/settings">Where they hold</RouterLink>
        <BButton variant="primary" @click="making = true">New style…</BButton>
      </div>
    </div>
    <section class="body p-3" aria-label="All house styles">
      <p v-if="said" class="said-error" role="alert">{{ said }}</p>
      <p v-if="query.isPending.value" class="empty">Reading the house styles.</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>No house style yet</h2>
        <p>Make one of a layout that looks as it should: its colours, faces and sizes get names, and other layouts can name them.</p>
        <BButton variant="primary" @click="making = true">New style…</BButton>
      </div>
      <ul v-else class="styles">
        <li v-for="one in all" :key="one.id">
          <RouterLink :to="`/layouts/styles/${one.id}`" class="swatches" :aria-label="one.name">
            <span
              v-for="(hex, colour) in documentOf(one.id)?.colours ?? {}"
              :key="colour"
              :style="{ background: hex }"
              :title="String(colour)"
            ></span>
          </RouterLink>
          <RouterLink :to="`/layouts/styles/${one.id}`" class="name">{{ one.name }}</RouterLink>
          <div class="figures soft">
            {{ Object.keys(documentOf(one.id)?.colours ?? {}).length }} colours, {{ Object.keys(documentOf(one.id)?.faces ?? {}).length }} faces,
            {{ Object.keys(documentOf(one.id)?.sizes ?? {}).length }} sizes
          </div>
          <div class="small">
            <template v-if="documentOf(one.id)?.extends">extends {{ nameOf(documentOf(one.id)?.extends) }}; </template>
            {{ holdsAt(one.id).length ? `holds at ${holdsAt(one.id).join(', ')}` : 'holds nowhere yet' }}
          </div>
          <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Delete ${one.name}`" @click="remove(one)">delete</button>
        </li>
      </ul>
    </section>
    <BModal v-model="making" no-close-on-backdrop title="New house style" no-footer>
      <form class="make" @submit.prevent="make">
        <label>Name<BFormInput v-model="name" required maxlength="200" /></label>
        <label
          >Begin with
          <select v-model="beginning" class="form-select">
            <option value="">nothing</option>
            <optgroup label="What another has, and some of its own">
              <option v-for="one in all" :key="one.id" :value="`extends:${one.id}`">{{ one.name }}</option>
            </optgroup>
            <optgroup label="What is found in a layout">
              <option v-for="one in layouts" :key="one.id" :value="`layout:${one.id}`">{{ one.name }}</option>
            </optgroup>
          </select></label
        >
        <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
        <BButton type="submit" variant="primary">Make it</BButton>
      </form>
    </BModal>
  </main>
</template>

<style scoped>
.styles {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 22px 18px;
  grid-template-columns: repeat(auto-fill, minmax(284px, 1fr));
}
.swatches {
  display: flex;
  height: 84px;
  margin-bottom: 5px;
  border: 1px solid var(--rule);
}
.swatches span {
  flex: 1;
}
.name {
  font-weight: 650;
  color: var(--ink);
  text-decoration: none;
}
.make {
  display: grid;
  gap: 10px;
}
</style>
