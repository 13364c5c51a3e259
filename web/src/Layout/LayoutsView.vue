<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useEstate } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import { size } from '../ui/format'
import DesignList from './DesignList.vue'
import type { LayoutDocument, Saved } from './designs'
import { type Division, arranged } from './division'
import DivisionPicker from './DivisionPicker.vue'

const { displays } = useEstate(false)
const queries = useQueryClient()
const route = useRoute()
const router = useRouter()

const making = ref(false)
const name = ref('')
const forDisplay = ref('')
const width = ref(1920)
const height = ref(1080)
const trouble = ref('')
const division = ref<Division | null>(null)
// A division for a landscape screen is none for a portrait one.
watch(
  () => Number(width.value) >= Number(height.value),
  () => (division.value = null),
)
const chosen = computed(() => displays.value.find((d) => d.id === forDisplay.value) ?? null)
watch(chosen, (display) => {
  if (display) {
    width.value = display.raster.width
    height.value = display.raster.height
    if (name.value === '') name.value = `${display.name}, new layout`
  }
})
watch(
  () => [route.query.new, displays.value.length] as const,
  ([wanted]) => {
    if (wanted === 'none' || (typeof wanted === 'string' && displays.value.some((d) => d.id === wanted))) {
      forDisplay.value = wanted === 'none' ? '' : wanted
      making.value = true
      void router.replace({ query: { ...route.query, new: undefined } })
    }
  },
  { immediate: true },
)

async function make() {
  trouble.value = ''
  try {
    let document: LayoutDocument = {
      format: 'upper-pane/layout@1',
      id: 'new',
      name: name.value.trim(),
      canvas: { width: Number(width.value), height: Number(height.value) },
      background: { color: '#17272e' },
      elements: [],
    }
    if (division.value) document = (await arranged(document, null, { do: 'start', recipe: division.value.recipe })).document
    const made = await api.post<Saved<LayoutDocument>>('layouts', { name: document.name, display: forDisplay.value || undefined, document })
    await queries.invalidateQueries({ queryKey: ['layouts'] })
    await router.push(`/layouts/${made.id}`)
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <main class="station">
    <DesignList plural="layouts">
      <template #facts>Each as it is at this instant</template>
      <template #actions
        ><RouterLink class="btn btn-outline-dark" to="/filled">Filled in</RouterLink>
        <RouterLink class="btn btn-outline-dark" to="/layouts/styles">House styles</RouterLink>
        <BButton variant="primary" @click="making = true">New layout…</BButton></template
      >
      <template #none>
        <h2>No layout yet</h2>
        <p>Make one for a display: its canvas takes the raster and orientation of the display by itself.</p>
        <BButton variant="primary" @click="making = true">New layout…</BButton>
      </template>
    </DesignList>
    <BModal v-model="making" no-close-on-backdrop title="New layout" size="xl" no-footer>
      <form class="make" @submit.prevent="make">
        <label for="for-display">For which display</label>
        <BFormSelect
          id="for-display"
          v-model="forDisplay"
          :options="[
            { value: '', text: 'none yet: type a raster' },
            ...displays.map((d) => ({ value: d.id, text: `${d.name}, ${size(d.raster)} px, ${d.orientation}` })),
          ]"
        />
        <label for="layout-name">Name</label>
        <BFormInput id="layout-name" v-model="name" required maxlength="200" />
        <fieldset class="raster">
          <legend>Canvas, px</legend>
          <BFormInput v-model="width" class="figures" type="number" min="1" max="1000000" aria-label="Width in px" :disabled="!!chosen" />
          ×
          <BFormInput v-model="height" class="figures" type="number" min="1" max="1000000" aria-label="Height in px" :disabled="!!chosen" />
          <button v-if="!chosen" type="button" class="btn btn-link btn-sm" @click="[width, height] = [height, width]">turn</button>
        </fieldset>
        <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
        <BButton type="submit" variant="primary">Make it</BButton>
        <div class="begin-with">
          <p id="begin-with">Begin with</p>
          <DivisionPicker
            :raster="{ width, height }"
            :chosen="division?.name ?? null"
            :display="forDisplay || null"
            or-empty
            @choose="division = $event"
          />
        </div>
      </form>
    </BModal>
  </main>
</template>

<style scoped>
.make {
  display: grid;
  grid-template-columns: 300px 1fr;
  column-gap: 24px;
  grid-auto-rows: max-content;
}
.make > * {
  grid-column: 1;
}
.make .begin-with {
  grid-column: 2;
  grid-row: 1 / 20;
  max-height: 62vh;
  overflow: auto;
}
.begin-with p {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 8px 0 2px;
}
.make label,
.raster legend {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 8px 0 2px;
}
.raster {
  margin-top: 12px;
  display: flex;
  align-items: center;
  gap: 8px;
}
.raster legend {
  float: left;
  width: auto;
  margin: 0;
  white-space: nowrap;
}
.raster input {
  width: 80px;
}
.raster .btn {
  padding-inline: 0;
}
.make .btn-primary {
  margin-top: 14px;
}
</style>
