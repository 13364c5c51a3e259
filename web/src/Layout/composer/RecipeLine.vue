<script setup lang="ts">
import { computed, ref } from 'vue'
import { sentence } from '../../ui/api'
import { vKept } from '../../ui/kept'
import type { Recipe } from '../division'
import { isZone } from '../kinds/zone/zone'
import { useComposer } from './composer'

/** The recipe of the layout, typed over: tracks as CSS grid writes them. What cannot be read stays in its field until it is right, or put back with Escape. */
const composer = useComposer()
const recipe = computed<Recipe | null>(() => {
  const r = composer.document.value.recipe
  return r ? { columns: r.columns ?? '1fr', rows: r.rows ?? '1fr', gap: r.gap ?? 0, margin: r.margin ?? 0, areas: r.areas ?? [] } : null
})
const fields = ['columns', 'rows', 'gap', 'margin'] as const
const wrong = ref<Partial<Record<(typeof fields)[number], string>>>({})

async function typed(field: (typeof fields)[number], event: Event) {
  const now = recipe.value
  const input = event.target as HTMLInputElement
  const text = input.value.trim()
  wrong.value = {}
  if (!now || text === String(now[field])) return
  const figure = field === 'gap' || field === 'margin'
  if (figure && !/^\d{1,6}$/.test(text)) return void (wrong.value = { [field]: `The ${field} is a whole number of px.` })
  try {
    await composer.arrange({
      do: 'write',
      recipe: { columns: now.columns, rows: now.rows, gap: now.gap, margin: now.margin, [field]: figure ? Number(text) : text },
    })
  } catch (e) {
    const at = /at character (\d+)/.exec(sentence(e))?.[1]
    wrong.value = { [field]: sentence(e) }
    if (at && document.activeElement === document.body) input.focus()
    if (at) input.setSelectionRange(Number(at) - 1, input.value.length)
  }
}
function back(field: (typeof fields)[number], event: KeyboardEvent) {
  const input = event.target as HTMLInputElement
  input.value = String(recipe.value?.[field] ?? '')
  wrong.value = {}
  input.blur()
}
const write = () => composer.tell({ do: 'retell' })
</script>

<template>
  <section class="recipe figures" aria-label="Recipe">
    <template v-if="recipe">
      <label v-for="f in fields" :key="f" :class="f"
        ><span>{{ f }}</span
        ><input
          v-kept="String(recipe[f])"
          :class="{ wrong: wrong[f] }"
          :aria-label="`${f} of the recipe`"
          :aria-invalid="!!wrong[f]"
          spellcheck="false"
          maxlength="2000"
          @change="typed(f, $event)"
          @keydown.enter="($event.target as HTMLInputElement).blur()"
          @keydown.esc.stop="back(f, $event)"
      /></label>
      <p v-for="(said, f) in wrong" :key="f" class="said-error" role="alert">{{ said }}</p>
    </template>
    <p v-else class="none">
      No recipe: nothing says how this divides another raster.
      <button v-if="composer.elements.value.some(isZone)" type="button" class="btn btn-link btn-sm p-0" @click="write">
        Write it from the zones
      </button>
    </p>
  </section>
</template>

<style scoped>
.recipe {
  padding: 7px 14px;
  border-bottom: 1px solid var(--rule);
  display: grid;
  grid-template-columns: 1fr 76px;
  gap: 2px 14px;
}
label {
  display: flex;
  gap: 8px;
  align-items: baseline;
  min-width: 0;
}
label span {
  color: var(--soft);
}
.columns {
  order: 1;
}
.gap {
  order: 2;
}
.rows {
  order: 3;
}
.margin {
  order: 4;
}
.columns span,
.rows span {
  width: 58px;
}
.gap span,
.margin span {
  width: 46px;
}
p {
  order: 5;
  grid-column: 1 / 3;
  margin: 2px 0 0;
  font-family: var(--bs-body-font-family);
  font-size: 0.8125rem;
}
.none {
  color: var(--soft);
}
input {
  flex: 1;
  min-height: 24px;
  min-width: 0;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  padding: 0;
  color: inherit;
}
input:focus {
  outline: 2px solid var(--kelp);
  outline-offset: 1px;
}
input.wrong {
  outline: 2px solid var(--stop);
}
</style>
