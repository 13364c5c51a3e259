<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useEstate } from '../../Estate/estate'
import { api, Problem, sentence } from '../../ui/api'
import ChoiceBar from '../../ui/ChoiceBar.vue'
import { size } from '../../ui/format'
import type { LayoutDocument, Saved } from '../designs'
import { type Act, type Arranged, arrangedInTurn } from '../division'
import DivisionDrawing from '../DivisionDrawing.vue'
import { zonesAmong } from '../kinds/zone/zone'
import { useComposer } from './composer'

/** The layout for another raster: what it becomes is seen before it is made so, here or as a layout of its own. */
const open = defineModel<boolean>({ required: true })
const composer = useComposer()
const router = useRouter()
const queries = useQueryClient()
const { displays } = useEstate(false)
const width = ref(3840)
const height = ref(2160)
const displayId = ref('')
const way = ref<'solve' | 'scale'>('solve')
const inShares = ref(false)
const result = shallowRef<Arranged | null>(null)
const seen = computed(() => result.value?.seen ?? null)
const trouble = ref('')
const pxDoNotFit = ref(false)
const display = computed(() => displays.value.find((d) => d.id === displayId.value) ?? null)
watch(display, (d) => d && ([width.value, height.value] = [d.raster.width, d.raster.height]))
watch(open, (now) => {
  if (!now) return
  ;[inShares.value, way.value] = [false, composer.document.value.recipe ? 'solve' : 'scale']
})

let asked = 0
watch(
  [open, width, height, way, inShares],
  async () => {
    if (!open.value) return
    const mine = ++asked
    trouble.value = ''
    pxDoNotFit.value = false
    const raster = { width: Number(width.value), height: Number(height.value) }
    const acts: Act[] = [...(inShares.value ? [{ do: 'shares' } as Act] : []), { do: way.value, raster }]
    try {
      const answer = await arrangedInTurn(composer.whole.value, composer.variant.value, acts)
      if (mine === asked) result.value = answer
    } catch (e) {
      if (mine !== asked) return
      result.value = null
      trouble.value = sentence(e)
      pxDoNotFit.value = e instanceof Problem && e.code === 'tracks.too-long' && /px/.test(JSON.stringify(composer.document.value.recipe ?? ''))
    }
  },
  { immediate: true },
)
const areas = computed(() => Object.fromEntries(zonesAmong(seen.value?.elements ?? []).map((e) => [e.name ?? e.id, e.rect])))

function here() {
  if (!result.value) return
  composer.become(result.value.document)
  if (display.value) composer.forDisplay(display.value.id)
  open.value = false
}
async function apart() {
  if (!seen.value) return
  try {
    const made = await api.post<Saved<LayoutDocument>>('layouts', {
      name: `${composer.document.value.name}, ${size(seen.value.canvas)}`.slice(0, 200),
      display: displayId.value || undefined,
      document: seen.value,
    })
    await queries.invalidateQueries({ queryKey: ['layouts'] })
    open.value = false
    await router.push(`/layouts/${made.id}`)
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <BModal v-model="open" no-close-on-backdrop lazy title="For another raster" size="lg" no-footer>
    <div class="other">
      <div>
        <label for="other-display">For the display</label>
        <BFormSelect
          id="other-display"
          v-model="displayId"
          :options="[{ value: '', text: 'none: type a raster' }, ...displays.map((d) => ({ value: d.id, text: `${d.name}, ${size(d.raster)} px` }))]"
        />
        <fieldset class="raster">
          <legend>Raster, px</legend>
          <BFormInput
            v-model="width"
            class="figures"
            type="number"
            min="1"
            max="1000000"
            aria-label="Width of the other raster"
            :disabled="!!display"
          />
          ×
          <BFormInput
            v-model="height"
            class="figures"
            type="number"
            min="1"
            max="1000000"
            aria-label="Height of the other raster"
            :disabled="!!display"
          />
        </fieldset>
        <ChoiceBar v-model="way" class="mt-3" label="How" :words="{ solve: 'solve the recipe', scale: 'scale everything' }" />
        <p v-if="trouble" class="said-error small mt-3" role="alert">
          {{ trouble }}
          <button v-if="pxDoNotFit" type="button" class="btn btn-link btn-sm p-0" @click="inShares = true">Turn its px into fr</button>
        </p>
        <p v-if="inShares" class="small soft mt-3">Its tracks of px are shares now, as they lie on {{ size(composer.document.value.canvas) }} px.</p>
        <ul v-if="result" class="changes small" aria-label="What changes">
          <li v-for="said in result.said" :key="said">{{ said }}</li>
          <li v-if="result.said.length === 0">Nothing changes its size.</li>
        </ul>
      </div>
      <div class="drawn">
        <DivisionDrawing v-if="result" :canvas="result.document.canvas" :areas="areas" :width="340" :height="300" />
      </div>
    </div>
    <div class="buttons">
      <BButton variant="primary" :disabled="!result" @click="here">Make this layout so</BButton>
      <BButton variant="outline-dark" :disabled="!result" @click="apart">As a layout of its own</BButton>
    </div>
  </BModal>
</template>

<style scoped>
.other {
  display: grid;
  grid-template-columns: 1fr 350px;
  gap: 20px;
  min-height: 320px;
}
label,
legend {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0 0 2px;
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
  white-space: nowrap;
}
.changes {
  margin: 14px 0 0;
  padding-left: 18px;
  max-height: 150px;
  overflow: auto;
}
.buttons {
  display: flex;
  gap: 10px;
  margin-top: 12px;
}
</style>
