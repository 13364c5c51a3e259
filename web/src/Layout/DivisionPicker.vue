<script setup lang="ts">
import { ref } from 'vue'
import { sentence } from '../ui/api'
import { type Division, useDivisions } from './division'
import DivisionDrawing from './DivisionDrawing.vue'

/** Divisions to begin with, drawn for the raster with their figures: those of the trade, then those that the team keeps. */
const props = defineProps<{ raster: { width: number; height: number }; chosen?: string | null; orEmpty?: boolean; display?: string | null }>()
const emit = defineEmits<{ choose: [division: Division | null] }>()
const { divisions, remove } = useDivisions(
  () => props.raster,
  () => props.display ?? null,
)
const trouble = ref('')
const written = (d: Division) =>
  d.recipe.rows === '1fr' ? d.recipe.columns : d.recipe.columns === '1fr' ? d.recipe.rows : `${d.recipe.columns} · ${d.recipe.rows}`
async function forget(division: Division) {
  trouble.value = ''
  await remove(division.id!).catch((e: unknown) => (trouble.value = sentence(e)))
}
</script>

<template>
  <div>
    <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
    <ul class="divisions" aria-label="Divisions">
      <li v-if="orEmpty">
        <button type="button" class="tile" :aria-pressed="chosen === null" @click="emit('choose', null)">
          <DivisionDrawing :canvas="raster" :areas="{}" />
          <b>Nothing yet</b>
          <span class="figures">draw it by hand</span>
        </button>
      </li>
      <li v-for="d in divisions" :key="d.id ?? d.name">
        <button type="button" class="tile" :aria-pressed="chosen === d.name" :disabled="!d.areas" @click="emit('choose', d)">
          <DivisionDrawing v-if="d.areas" :canvas="raster" :areas="d.areas" />
          <span v-else class="does-not-fit">{{ d.trouble }}</span>
          <b>{{ d.name }}</b>
          <span class="figures">{{ written(d) }}</span>
        </button>
        <button v-if="d.id" type="button" class="btn btn-link btn-sm p-0" :aria-label="`Remove the division ${d.name}`" @click="forget(d)">
          remove
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.divisions {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(184px, 1fr));
  gap: 10px;
}
.tile {
  width: 100%;
  height: 100%;
  border: 1px solid var(--rule);
  background: var(--sheet);
  color: inherit;
  padding: 8px;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  text-align: center;
}
.tile[aria-pressed='true'] {
  border-color: var(--kelp);
  box-shadow: inset 0 0 0 1px var(--kelp);
  background: var(--kelp-wash);
}
.tile .figures {
  color: var(--soft);
  font-size: 0.8125rem;
}
.does-not-fit {
  height: 112px;
  overflow: hidden;
  font-size: 0.8125rem;
  color: var(--warning);
}
</style>
