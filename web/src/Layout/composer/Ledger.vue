<script setup lang="ts">
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { type Rect, useShelf } from '../../ui/shelf'
import type { Analysis, Element, Sum } from '../designs'
import { useComposer } from './composer'
import FigureField from './FigureField.vue'

/** The sums that the zones have to keep, and the figures of all elements; what is chosen is told (slot) below its row. */
const props = defineProps<{ analysis: Analysis | null }>()
const composer = useComposer()
const rows = computed(() => composer.elements.value.map((element, i) => ({ element, n: i + 1 })))

/** Characters of a name that stand in one line beside the figures; a longer one takes two. */
const ONE_LINE = 12
/** From so many rows on those that are not seen are not drawn. */
const MANY = 100
const HEADS = ['element', 'x', 'y', 'width', 'height', 'share']
/** What is chosen is told below the last of its rows; the canvas, where nothing is, behind all of them. */
const last = computed(() => rows.value.filter(({ element }) => composer.chosen.value.has(element.id)).at(-1)?.element.id ?? null)
const place = computed(() => (last.value === null ? null : `[id="about-${last.value}"]`))
const list = useTemplateRef('list')
watch(composer.chosen, async () => {
  await nextTick()
  list.value?.querySelector('tr.more')?.previousElementSibling?.scrollIntoView({ block: 'nearest' })
})

/** The same object as long as it says the same, so that rows of which nothing changes are not drawn anew. */
const sideOf = (side: 'width' | 'height') =>
  computed<{ side_px: number; mm_per_px: number | null }>((before) => {
    const [side_px, mm_per_px] = [composer.document.value.canvas[side], props.analysis?.mm_per_px ?? null]
    return before?.side_px === side_px && before.mm_per_px === mm_per_px ? before : { side_px, mm_per_px }
  })
const across = sideOf('width')
const down = sideOf('height')
const FARTHEST = -1_000_000
const sides = computed(() => [
  { side: 'x' as const, least: FARTHEST, along: across.value },
  { side: 'y' as const, least: FARTHEST, along: down.value },
  { side: 'width' as const, least: 1, along: across.value },
  { side: 'height' as const, least: 1, along: down.value },
])

const share = (e: Element) => {
  const part = props.analysis?.shares[e.id]
  return part === undefined ? '' : `${(100 * part).toFixed(1)} %`
}
const put = (e: Element, side: keyof Rect, value: number, gesture?: string) =>
  composer.place(new Map([[e.id, { ...e.rect, [side]: value }]]), gesture && `${gesture} ${e.id}`)
const press = (e: Element, event: MouseEvent) => {
  const next = new Set(event.shiftKey || event.ctrlKey ? composer.chosen.value : [])
  if (next.has(e.id)) next.delete(e.id)
  else next.add(e.id)
  composer.choose(next)
}
const sums = computed(() => props.analysis?.sums ?? [])
/** What mends a sum in one press, where the checks know it. */
const shelf = useShelf()
const cure = (sum: Sum) =>
  props.analysis?.findings.find((f) => f.code === 'zone.sum' && f.fix && sum.elements.every((id, i) => f.elements[i] === id) && f.fix.rect) ?? null
const names = (ids: string[]) => ids.join(' + ')
/** With what lies behind the frames of a wall, as the core counts it. */
const addsUp = (sum: Sum) => sum.difference === 0 || sum.difference + sum.behind_frames === 0
</script>

<template>
  <section aria-label="Ledger">
    <ul v-if="sums.length" class="figures sums" aria-label="Sums">
      <li v-for="(sum, i) in sums" :key="i" :class="{ off: !addsUp(sum) }">
        <span class="who" :title="names(sum.elements)">{{ names(sum.elements) }}</span>
        <span v-if="sum.sizes.length === 1">{{ sum.total }}</span>
        <span v-else>{{ sum.sizes.join(' + ') }} = {{ sum.total }}</span>
        <b v-if="addsUp(sum)" class="right" aria-label="adds up">{{ sum.difference ? `+ ${sum.behind_frames} px behind frames ` : '' }}✓</b>
        <b v-else>{{ sum.difference > 0 ? '+' : '−' }}{{ Math.abs(sum.difference) }} px</b>
        <button v-if="!addsUp(sum) && cure(sum)" type="button" class="btn btn-link btn-sm p-0" @click="shelf.fixed?.(cure(sum)!)">
          {{ cure(sum)!.fix!.label }}
        </button>
      </li>
    </ul>
    <div ref="list">
      <!-- Its rows are no boxes of a table, so that those that are not seen need not be drawn: roles say what they are. -->
      <table class="figures ledger" role="table" aria-label="Elements with place and size in canvas px">
        <thead role="rowgroup">
          <tr role="row">
            <th v-for="head in HEADS" :key="head" scope="col" role="columnheader">{{ head }}</th>
          </tr>
        </thead>
        <tbody role="rowgroup" :class="{ many: rows.length > MANY }">
          <!-- eslint-disable vue/no-useless-template-attributes -- a row and what is told of it are kept together -->
          <template
            v-for="{ element: e, n } in rows"
            :key="e.id"
            v-memo="[e, n, composer.chosen.value.has(e.id), e.id === last, analysis?.shares[e.id], sides]"
          >
            <tr role="row" :class="{ on: composer.chosen.value.has(e.id), absent: e.hidden, long: (e.name ?? e.id).length > ONE_LINE }">
              <th scope="row" role="rowheader">
                <button type="button" :title="e.name ?? e.id" :aria-pressed="composer.chosen.value.has(e.id)" @click="press(e, $event)">
                  <span class="soft figures">{{ n }}</span> {{ e.name ?? e.id }}
                </button>
              </th>
              <td v-for="{ side, least, along } in sides" :key="side" role="cell">
                <FigureField
                  :value="e.rect[side]"
                  :least="least"
                  :label="`${side} of ${e.id}`"
                  :of="along"
                  :fixed="e.locked"
                  quiet
                  @change="(v, g) => put(e, side, v, g)"
                />
              </td>
              <td class="share" :class="{ said: !share(e) }" role="cell">{{ e.hidden ? 'hidden' : e.locked ? 'locked' : share(e) || e.kind }}</td>
            </tr>
            <tr v-if="e.id === last" class="more" role="row">
              <td :id="`about-${e.id}`" role="cell" colspan="6" class="about"></td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <Teleport defer :disabled="place === null" :to="place"><slot /></Teleport>
    <p v-if="rows.length === 0" class="soft small px-3 py-2 m-0">Nothing yet. Draw a zone on the pane: press Z and drag.</p>
  </section>
</template>

<style scoped>
thead {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper);
}
.ledger,
thead,
tbody {
  display: block;
}
tr {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(4, 46px) 68px;
}
thead th {
  font-weight: 400;
  color: var(--soft);
  text-align: right;
  padding: 5px 3px 3px;
}
thead th:first-child {
  text-align: left;
  padding-left: 14px;
}
thead th:last-child {
  padding-right: 14px;
}
tbody tr {
  height: 26px;
  align-items: center;
  border-top: 1px solid var(--rule);
  contain: strict;
}
tbody tr.long {
  height: 42px;
}
tbody.many tr {
  content-visibility: auto;
  contain-intrinsic-height: 26px;
}
tbody.many tr.long {
  contain-intrinsic-height: 42px;
}
tbody tr.more,
tbody.many tr.more {
  display: block;
  height: auto;
  contain: none;
  content-visibility: visible;
  border: 0;
}
.about {
  display: block;
  padding: 0 0 6px;
  font-family: var(--bs-body-font-family);
  font-size: var(--bs-body-font-size);
  box-shadow: inset 4px 0 var(--kelp);
}
tbody tr.on {
  /* Not lost below the heads, which stay; and what is told of it begins in sight. */
  scroll-margin: 30px 0 190px;
  background: var(--kelp-wash);
  box-shadow: inset 4px 0 var(--kelp);
}
tbody th {
  font-weight: 400;
  padding: 2px 2px 2px 14px;
}
tbody th button {
  border: 0;
  background: none;
  padding: 0;
  color: inherit;
  font-family: var(--bs-body-font-family);
  font-size: 0.8125rem;
  line-height: 1.2;
  text-align: left;
  overflow: hidden;
  overflow-wrap: anywhere;
  max-width: 100%;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 1;
}
tr.long th button {
  -webkit-line-clamp: 2;
}
tr.absent {
  color: var(--soft);
  font-style: italic;
}
tr.on th button {
  font-weight: 700;
}
td {
  padding: 2px 3px;
}
td.said {
  font-family: var(--bs-body-font-family);
  font-size: 0.8125rem;
}
td.share {
  text-align: right;
  padding-right: 14px;
  white-space: nowrap;
}
.sums {
  list-style: none;
  margin: 0;
  padding: 7px 14px;
  border-top: 1px solid var(--rule);
}
.sums li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
}
.sums li > span:not(.who) {
  flex: 0 0 auto;
  max-width: 250px;
}
.who {
  flex: 0 1 auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.right {
  color: var(--kelp);
}
.off b {
  color: var(--warning);
}
</style>
