<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import { api } from '../ui/api'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { size } from '../ui/format'
import { useGrowing } from '../ui/growing'
import ListEnd from '../ui/ListEnd.vue'
import { useShelf } from '../ui/shelf'

/** Layouts and displays as one table: how each pair fits. Displays of one raster are one column, since they fit alike. */
type Verdict = 'exact' | 'scaled' | 'padded' | 'crossed'
interface Named {
  id: string
  name: string
  place?: string
  /** Which of the canvases or rasters it has. */
  size: number
}
interface Size {
  width: number
  height: number
}
interface Table {
  layouts: Named[]
  displays: Named[]
  canvases: Size[]
  rasters: Size[]
  /** By canvas and raster: verdict, scale, share of the raster used, whether width and height are swapped. */
  matches: [Verdict, number, number, boolean][][]
}
const query = useQuery({ queryKey: ['matches'], staleTime: 0, queryFn: () => api.get<Table>('matches') })
const search = useAsked('search')
const only = useAsked('verdict')
const shelf = useShelf()
const table = computed(() => query.data.value)
const wanted = (text: string) => text.toLowerCase().includes(search.value.trim().toLowerCase())

const columns = computed(() => {
  const t = table.value
  if (!t) return []
  return t.rasters
    .map((raster, index) => ({ raster, index, displays: t.displays.filter((d) => d.size === index) }))
    .sort((a, b) => b.displays.length - a.displays.length)
})
const rows = computed(() => {
  const t = table.value
  if (!t) return []
  const fits = (l: Named) => only.value === '' || columns.value.some((c) => t.matches[l.size]![c.index]![0] === only.value)
  const named = t.layouts.filter((l) => wanted(`${l.name} ${size(t.canvases[l.size]!)}`))
  return (named.length || !search.value ? named : t.layouts).filter(fits)
})
/** What is searched for may be a layout or a display: columns are held against it only where no layout is called so. */
const shownColumns = computed(() => {
  const t = table.value
  if (!t || !search.value || t.layouts.some((l) => wanted(`${l.name} ${size(t.canvases[l.size]!)}`))) return columns.value
  return columns.value.filter((c) => c.displays.some((d) => wanted(d.name)) || wanted(size(c.raster)))
})
const { shown, left, end } = useGrowing(rows, 40)
// Hundreds of rasters too: columns come as one gets to them.
const { shown: drawnColumns, left: columnsLeft, end: lastColumn } = useGrowing(shownColumns, 20)

const chosen = ref<{ layout: Named; column: number } | null>(null)
const sentence = computed(() => {
  const t = table.value
  const c = chosen.value
  if (!t || !c) return null
  const [verdict, scale, used, isSwapped] = t.matches[c.layout.size]![c.column]!
  const canvas = t.canvases[c.layout.size]!
  const raster = t.rasters[c.column]!
  const displays = t.displays.filter((d) => d.size === c.column)
  const why = {
    exact: 'pixel for pixel',
    scaled: `same aspect, scaled by ${scale}${Number.isInteger(scale) ? ', a whole factor' : ''}`,
    padded: `another aspect: scaled by ${scale}, ${(used * 100).toFixed(1)} % of the raster is used, the rest stays black`,
    crossed: isSwapped ? 'width and height are swapped' : 'one is portrait, the other landscape',
  }[verdict]
  return { verdict, why, canvas, raster, displays, layout: c.layout }
})
watchEffect(() => {
  const t = table.value
  shelf.remark = t ? `${t.layouts.length} layouts on ${t.displays.length} displays of ${t.rasters.length} rasters` : ''
})
onBeforeUnmount(() => shelf.clear())
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>What fits where</h1>
        <p class="facts m-0">
          <RouterLink to="/displays">Displays</RouterLink> · each layout on each display; displays of one raster stand in one column
        </p>
      </div>
      <div class="actions">
        <BFormInput v-model="search" type="search" placeholder="Search layout, display, raster" aria-label="Search layouts and displays" />
        <ChoiceBar v-model="only" label="Verdict" :words="{ '': 'all', exact: 'exact', scaled: 'scaled', padded: 'padded', crossed: 'crossed' }" />
      </div>
    </div>
    <div class="body">
      <p v-if="query.isPending.value" class="empty">Matching.</p>
      <p v-else-if="query.error.value" class="empty said-error">{{ query.error.value.message }}</p>
      <div v-else-if="table && (table.layouts.length === 0 || table.displays.length === 0)" class="empty">
        <h2>Nothing to match yet</h2>
        <p>It takes a <RouterLink to="/layouts">layout</RouterLink> and a <RouterLink to="/displays">display</RouterLink>.</p>
      </div>
      <table v-else-if="table">
        <thead>
          <tr>
            <th class="corner" scope="col">Layout, canvas px</th>
            <th v-for="c in drawnColumns" :key="c.index" scope="col" :title="c.displays.map((d) => d.name).join(', ')">
              <span class="figures">{{ size(c.raster) }}</span>
              <span class="names"
                >{{
                  c.displays
                    .slice(0, 2)
                    .map((d) => d.name)
                    .join(', ')
                }}{{ c.displays.length > 2 ? ` +${c.displays.length - 2}` : '' }}</span
              >
            </th>
            <th ref="lastColumn" class="more" scope="col">
              <span v-if="columnsLeft" class="soft small">{{ columnsLeft }} more</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in shown" :key="l.id">
            <th scope="row">
              <RouterLink :to="`/layouts/${l.id}`">{{ l.name }}</RouterLink> <span class="figures soft">{{ size(table.canvases[l.size]!) }}</span>
            </th>
            <td
              v-for="c in drawnColumns"
              :key="c.index"
              :class="[table.matches[l.size]![c.index]![0], { dim: only && only !== table.matches[l.size]![c.index]![0] }]"
            >
              <button
                type="button"
                :aria-pressed="chosen?.layout.id === l.id && chosen.column === c.index"
                @click="chosen = { layout: l, column: c.index }"
              >
                {{ table.matches[l.size]![c.index]![0]
                }}<small v-if="table.matches[l.size]![c.index]![0] === 'scaled'" class="figures"> {{ table.matches[l.size]![c.index]![1] }}</small
                ><small v-else-if="table.matches[l.size]![c.index]![0] === 'padded'" class="figures">
                  {{ (table.matches[l.size]![c.index]![2] * 100).toFixed(0) }} %</small
                >
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <div ref="end"><ListEnd :left="left" /></div>
    </div>
    <div v-if="sentence" class="why" role="status">
      <span
        ><b>{{ sentence.layout.name }}</b> (<span class="figures">{{ size(sentence.canvas) }}</span
        >) on
        <b
          >{{
            sentence.displays
              .slice(0, 6)
              .map((d) => d.name)
              .join(', ')
          }}{{ sentence.displays.length > 6 ? ` and ${sentence.displays.length - 6} more` : '' }}</b
        >
        (<span class="figures">{{ size(sentence.raster) }}</span
        >): <b :class="sentence.verdict">{{ sentence.verdict }}</b>, {{ sentence.why }}.</span
      >
      <RouterLink
        v-if="sentence.verdict !== 'crossed'"
        class="btn btn-outline-dark btn-sm"
        :to="{ path: '/handover', query: { layout: sentence.layout.id, display: sentence.displays.map((d) => d.id) } }"
        >Hand over…</RouterLink
      >
      <RouterLink v-else class="btn btn-outline-dark btn-sm" :to="`/layouts?new=${sentence.displays[0]!.id}`">New layout for it</RouterLink>
      <button type="button" class="btn btn-link btn-sm" @click="chosen = null">close</button>
    </div>
  </main>
</template>

<style scoped>
table {
  border-collapse: separate;
  border-spacing: 0;
}
th,
td {
  border-bottom: 1px solid var(--rule);
  border-right: 1px solid var(--rule);
  padding: 0;
  font-size: 0.875rem;
  text-align: left;
  white-space: nowrap;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 2;
  padding: 6px 10px;
  vertical-align: bottom;
  font-weight: 600;
}
.names {
  display: block;
  font-weight: 400;
  font-size: 0.8125rem;
  color: var(--soft);
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
}
tbody th {
  position: sticky;
  left: 0;
  background: var(--paper);
  padding: 4px 12px;
  z-index: 1;
  font-weight: 600;
}
.more {
  border: 0;
  min-width: 1px;
}
.corner {
  left: 0;
  z-index: 3 !important;
}
td button {
  border: 0;
  background: none;
  width: 100%;
  padding: 5px 10px;
  text-align: left;
  color: inherit;
}
td button[aria-pressed='true'] {
  outline: 2px solid var(--kelp);
  outline-offset: -2px;
}
td small {
  margin-left: 6px;
}
td.exact {
  background: var(--kelp-wash);
  color: var(--kelp);
  font-weight: 650;
}
td.scaled {
  background: #f1f5f1;
}
td.padded {
  color: var(--soft);
}
.crossed {
  color: var(--stop);
}
td.dim {
  opacity: 0.35;
}
.why {
  display: flex;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--ink);
  background: var(--sheet);
  padding: 8px 16px;
}
.why > span {
  margin-right: auto;
}
</style>
