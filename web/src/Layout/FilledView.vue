<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, sentence } from '../ui/api'
import { count } from '../ui/format'
import { useSecond } from '../ui/second'
import DesignList from './DesignList.vue'
import DesignPicture from './DesignPicture.vue'
import { type DesignSummary, type Saved, useDesigns } from './designs'
import type { FilledDocument } from './filling'

/** All that is filled in, and the templates that wait for it. */
const { all: layouts } = useDesigns('layouts')
const queries = useQueryClient()
const route = useRoute()
const router = useRouter()
const at = useSecond()
const templates = computed(() => layouts.value.filter((one) => (one.slots ?? 0) > 0))
const choosing = ref(false)
const name = ref('')
const trouble = ref('')
watch(
  () => [route.query.into, templates.value.length] as const,
  ([into]) => {
    const template = templates.value.find((one) => one.id === into)
    if (template) {
      void router.replace({ query: { ...route.query, into: undefined } })
      void begin(template)
    }
  },
  { immediate: true },
)
async function begin(template: DesignSummary) {
  trouble.value = ''
  try {
    const called = name.value.trim() || `${template.name}, new`
    const made = await api.post<Saved<FilledDocument>>('filled', {
      name: called,
      document: { template: template.id, template_revision: template.revision, values: {} },
    })
    await queries.invalidateQueries({ queryKey: ['filled'] })
    await router.push(`/filled/${made.id}`)
  } catch (e) {
    trouble.value = sentence(e)
    choosing.value = true
  }
}
</script>

<template>
  <main class="station">
    <DesignList plural="filled">
      <template #facts>Templates with their words, pictures and figures, each as it is at this instant</template>
      <template #actions
        ><RouterLink v-if="$may('design')" class="btn btn-outline-dark" to="/layouts">Layouts</RouterLink>
        <BButton variant="primary" @click="choosing = true">Fill in…</BButton></template
      >
      <template #none>
        <h2>Nothing filled in yet</h2>
        <p v-if="templates.length">Choose a template, type its words and look at the picture beside them.</p>
        <p v-else>There is no template yet: open the words, the picture or a figure of an element in a layout, and it is one.</p>
        <BButton v-if="templates.length" variant="primary" @click="choosing = true">Fill in…</BButton>
      </template>
    </DesignList>
    <BModal v-model="choosing" no-close-on-backdrop lazy title="Which template" size="xl" scrollable no-footer>
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
      <label class="called"
        >Name of what is filled in<BFormInput v-model="name" maxlength="200" placeholder="as the template, unless you say"
      /></label>
      <p v-if="templates.length === 0" class="empty">
        There is no template yet: open the words, the picture or a figure of an element in a layout, and it is one.
      </p>
      <ul class="templates">
        <li v-for="one in templates" :key="one.id">
          <button type="button" class="pick" :aria-label="`Fill in ${one.name}`" @click="begin(one)">
            <DesignPicture :design="one" plural="layouts" :at="at" />
            <b>{{ one.name }}</b>
            <span class="figures soft">{{ count(one.slots ?? 0, 'slot') }}</span>
          </button>
        </li>
      </ul>
    </BModal>
  </main>
</template>

<style scoped>
.called {
  display: block;
  max-width: 420px;
  font-size: 0.8125rem;
  color: var(--soft);
  margin-bottom: 12px;
}
.templates {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 16px;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
}
.pick {
  display: block;
  width: 100%;
  text-align: left;
  border: 2px solid transparent;
  background: none;
  padding: 4px;
  color: var(--ink);
}
.pick:hover {
  border-color: var(--kelp);
}
.pick b {
  margin-right: 8px;
}
</style>
