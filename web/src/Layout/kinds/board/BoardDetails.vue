<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import ConditionList from '../../../Data/ConditionList.vue'
import { looked } from '../../../Data/begin'
import FieldNames from '../../../Data/FieldNames.vue'
import type { Chosen, RowsDocument } from '../../../Data/sources'
import { useSources } from '../../../Data/sources'
import { api } from '../../../ui/api'
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import { useComposer } from '../../composer/composer'
import FieldGrid from '../../composer/details/FieldGrid.vue'
import StyleFields from '../../composer/details/StyleFields.vue'
import FigureField from '../../composer/FigureField.vue'
import { type Analysis, type BoardElement, type Style, TRANSITIONS, type Transition } from '../../designs'
import HighlightList from './HighlightList.vue'
import PartList from './PartList.vue'
import { resized } from './pattern'
import StressBar from '../StressBar.vue'

/** A board: whose rows it tells, how they are arranged and paged, what stands in one of them, and what becomes of it when there are none. */
const props = defineProps<{ one: BoardElement; analysis: Analysis | null }>()
const composer = useComposer()
const put = (part: Partial<BoardElement>, gesture?: string) =>
  composer.edit<BoardElement>(props.one.id, part, gesture && `${gesture} ${props.one.id}`)
const told = computed(() => props.analysis?.boards[props.one.id] ?? null)
const { all: sources } = useSources(false)
const source = computed(() => sources.value.find((one) => one.id === props.one.rows.source))

// --- the rows -------------------------------------------------------------------------------

const { data: chosen } = useQuery({
  queryKey: computed(() => ['rows', JSON.stringify(props.one.rows)]),
  queryFn: () => api.post<Chosen>('rows', { rows: props.one.rows }),
  placeholderData: (before) => before,
})
const fields = computed(() => chosen.value?.fields ?? Object.keys(props.one.rows.fields ?? {}))
const rows = computed(() => props.one.rows)
function choose(more: Partial<RowsDocument>) {
  const next = { ...rows.value, ...more }
  for (const key of Object.keys(next) as (keyof RowsDocument)[]) if (next[key] === undefined) delete next[key]
  put({ rows: next })
}
const sort = computed(() => rows.value.sort?.[0])
function sortBy(by: string) {
  choose({ sort: by === '' ? undefined : [{ by, ...(sort.value?.descending ? { descending: true } : {}) }] })
}
/** Where one looks into the source, the rows stand as they are here. */
const keep = () => localStorage.setItem(looked(rows.value.source), JSON.stringify(rows.value))
function take() {
  const kept = localStorage.getItem(looked(rows.value.source))
  if (kept) put({ rows: JSON.parse(kept) as BoardElement['rows'] })
}
const PAGE = ['page', 'pages', 'count', 'from', 'to', 'taken']

// --- places ---------------------------------------------------------------------------------

const pattern = computed(() => props.one.pattern)
const across = computed(() => props.one.direction === 'across')
function resize(side: 'width' | 'height', px: number, gesture?: string) {
  put({ pattern: resized(pattern.value, side, px) }, gesture)
}
const isRead = computed(() => typeof props.one.page_ms !== 'number')
const transition = computed(() => props.one.transition?.kind ?? 'cut')
const board = computed(() => ({ width: props.one.rect.width, height: props.one.rect.height }))
const whole = (height: number) => ({ x: 0, y: 0, width: props.one.rect.width, height })
const style = (height: number): Style => ({ size_px: Math.max(12, Math.round(height / 2)), weight: 600, color: '#ffffff', valign: 'middle' })
const addHeader = () =>
  put({ header: { height: 80, elements: [{ id: 'title', kind: 'text', text: source.value?.name ?? 'Title', rect: whole(80), style: style(80) }] } })
const addContinued = () =>
  put({
    continued: {
      text: '{page} / {pages}',
      rect: { x: props.one.rect.width - 200, y: props.one.rect.height - 50, width: 190, height: 40 },
      style: { size_px: 28, color: '#ffffff', align: 'end', valign: 'middle' },
    },
  })
const STALE = { nothing: 'goes on as it is', mark: 'its age is told', other: 'something else stands there' }
const stale = computed(() => (props.one.stale === undefined ? 'nothing' : props.one.stale === 'mark' ? 'mark' : 'other'))
function chooseStale(to: string) {
  if (to === stale.value) return
  const said = {
    id: 'late',
    kind: 'text' as const,
    text: 'Please ask at the desk',
    rect: whole(props.one.rect.height),
    style: { ...style(80), align: 'center' as const },
  }
  put({ stale: to === 'nothing' ? undefined : to === 'mark' ? 'mark' : { elements: [said] } })
}
const emptyParts = computed(() => props.one.empty?.elements ?? [])
const staleParts = computed(() => (typeof props.one.stale === 'object' ? (props.one.stale.elements ?? []) : []))
</script>

<template>
  <div class="board">
    <dl v-if="told" class="figures told" :class="{ many: told.rows >= 10_000 }" aria-live="polite">
      <div>
        <dt>at once</dt>
        <dd>{{ told.at_once }}</dd>
      </div>
      <div>
        <dt>rows</dt>
        <dd>{{ told.rows }}</dd>
      </div>
      <div>
        <dt>pages</dt>
        <dd>{{ told.pages.length }}</dd>
      </div>
      <div>
        <dt>seconds</dt>
        <dd>{{ told.total_ms / 1000 }}</dd>
      </div>
      <div>
        <dt>values</dt>
        <dd>{{ told.values }}</dd>
      </div>
      <div :class="{ few: told.legible_rows !== null && told.legible_rows < told.at_once }">
        <dt title="From the farthest viewer, were the row as large as it may be then">still read</dt>
        <dd>{{ told.legible_rows ?? '·' }}</dd>
      </div>
    </dl>
    <StressBar />
    <details open>
      <summary>Rows</summary>
      <div class="inner">
        <p class="m-0">
          <RouterLink :to="`/data/${rows.source}`" @click="keep">{{ source?.name ?? rows.source }}</RouterLink>
          <span class="soft figures path">{{ rows.path ?? '$[*]' }}</span>
        </p>
        <p class="soft small m-0">
          {{ chosen ? `${chosen.count} of ${chosen.nodes} now.` : '' }} What is chosen at the source can be
          <button type="button" class="btn btn-link btn-sm p-0" @click="take">taken over</button>.
        </p>
        <ConditionList :rows="rows" :fields="fields" :sample="chosen?.rows ?? []" @change="choose" />
        <div class="pair">
          <ChoiceField label="In the order of" :value="sort?.by ?? ''" :options="[{ value: '', text: 'the source' }, ...fields]" @change="sortBy" />
          <ChoiceField
            v-if="sort"
            label="which"
            :value="sort.descending ? 'falls' : 'rises'"
            :options="['rises', 'falls']"
            @change="(to) => choose({ sort: [{ by: sort!.by, ...(to === 'falls' ? { descending: true } : {}) }] })"
          />
        </div>
      </div>
    </details>
    <details open>
      <summary>One row</summary>
      <PartList
        :parts="pattern.elements"
        label="row"
        :fields="fields"
        :pictures="chosen?.pictures"
        :room="pattern.size"
        @change="(elements, g) => put({ pattern: { ...pattern, elements } }, g)"
      />
    </details>
    <details open>
      <summary>Places and pages</summary>
      <FieldGrid>
        <ChoiceField
          label="A line goes"
          :value="one.direction ?? 'down'"
          :options="['down', 'across']"
          @change="(to) => put({ direction: to === 'down' ? undefined : 'across' })"
        />
        <label
          >{{ across ? 'Lines, one below the other' : 'Lines, side by side'
          }}<FigureField
            :value="one.across ?? 1"
            :least="1"
            label="lines beside one another"
            @change="(v, g) => put({ across: v === 1 ? undefined : Math.min(100, v) }, g)"
        /></label>
        <label
          >Row height, px<FigureField :value="pattern.size.height" :least="1" label="height of a row" @change="(v, g) => resize('height', v, g)"
        /></label>
        <label
          >Row width, px<FigureField :value="pattern.size.width" :least="1" label="width of a row" @change="(v, g) => resize('width', v, g)"
        /></label>
        <label
          >Gap, px<FigureField :value="one.gap ?? 0" :least="0" label="gap between rows" @change="(v, g) => put({ gap: v || undefined }, g)"
        /></label>
        <label
          >At most, rows<FigureField
            :value="one.at_most ?? told?.at_once ?? 1"
            :least="1"
            label="rows at most"
            @change="(v, g) => put({ at_most: v }, g)"
          />
          <button v-if="one.at_most" type="button" class="btn btn-link btn-sm p-0" @click="put({ at_most: undefined })">as many as fit</button>
        </label>
        <ChoiceField
          label="A page stands"
          :value="isRead ? 'read' : 'stated'"
          :options="[
            { value: 'read', text: 'until it is read' },
            { value: 'stated', text: 'for seconds' },
          ]"
          @change="(to) => put({ page_ms: to === 'read' ? undefined : (told?.pages[0]?.length_ms ?? 5000) })"
        />
        <label v-if="!isRead"
          >Each, ms<FigureField :value="one.page_ms as number" :least="1" label="length of a page in ms" @change="(v, g) => put({ page_ms: v }, g)"
        /></label>
        <ChoiceField
          label="Pages are"
          :value="one.balance === false ? 'filled' : 'balanced'"
          :options="['balanced', 'filled']"
          @change="(to) => put({ balance: to === 'filled' ? false : undefined })"
        />
        <ChoiceField
          label="and follow by"
          :value="transition"
          :options="TRANSITIONS"
          @change="(kind) => put({ transition: kind === 'cut' ? undefined : { kind: kind as Transition['kind'], ms: 500 } })"
        />
        <ColourField label="Every second row" :value="one.stripe ?? '#000000'" @change="(c) => put({ stripe: `${c}20` }, 'stripe')" />
        <label v-if="one.stripe" class="align-self-end"
          ><button type="button" class="btn btn-link btn-sm p-0" @click="put({ stripe: undefined })">no stripe</button></label
        >
      </FieldGrid>
    </details>
    <details :open="(one.highlight ?? []).length > 0">
      <summary>Highlights</summary>
      <HighlightList :one="one" :fields="fields" :sample="chosen?.rows ?? []" @change="(highlight, g) => put({ highlight }, g)" />
    </details>
    <details :open="one.header !== undefined">
      <summary>Header</summary>
      <template v-if="one.header">
        <FieldGrid>
          <label
            >Height, px<FigureField
              :value="one.header.height"
              :least="1"
              label="height of the header"
              @change="(v, g) => put({ header: { ...one.header, height: v } }, g)"
          /></label>
          <label class="align-self-end"
            ><button type="button" class="btn btn-link btn-sm p-0" @click="put({ header: undefined })">no header</button></label
          >
        </FieldGrid>
        <PartList
          :parts="one.header.elements ?? []"
          label="header"
          :fields="PAGE"
          :room="{ width: one.rect.width, height: one.header.height }"
          @change="(elements, g) => put({ header: { ...one.header!, elements } }, g)"
        />
      </template>
      <div v-else class="inner"><button type="button" class="btn btn-link btn-sm p-0" @click="addHeader">add a header</button></div>
    </details>
    <details :open="one.continued !== undefined">
      <summary>Where there are several pages</summary>
      <div class="inner">
        <template v-if="one.continued">
          <FieldNames
            :text="one.continued.text"
            :fields="PAGE"
            label="What is told of the page"
            @change="(text) => put({ continued: { ...one.continued!, text } }, 'continued')"
          />
          <FieldGrid>
            <label v-for="side in ['x', 'y', 'width', 'height'] as const" :key="side"
              >{{ side
              }}<FigureField
                :value="one.continued.rect[side]"
                :least="side === 'width' || side === 'height' ? 1 : -100000"
                :label="`${side} of what is told of the page`"
                @change="(v, g) => put({ continued: { ...one.continued!, rect: { ...one.continued!.rect, [side]: v } } }, g)"
            /></label>
            <StyleFields
              :style="one.continued.style"
              label="the page"
              plain
              @change="(s: Style, g) => put({ continued: { ...one.continued!, style: s } }, g)"
            />
          </FieldGrid>
          <button type="button" class="btn btn-link btn-sm p-0" @click="put({ continued: undefined })">tell nothing</button>
        </template>
        <button v-else type="button" class="btn btn-link btn-sm p-0" @click="addContinued">tell which page it is</button>
      </div>
    </details>
    <details>
      <summary>Without rows, and when data are too old</summary>
      <PartList :parts="emptyParts" label="without rows" :fields="PAGE" :room="board" @change="(elements, g) => put({ empty: { elements } }, g)" />
      <FieldGrid>
        <ChoiceField
          label="When data are too old"
          :value="stale"
          :options="Object.entries(STALE).map(([value, text]) => ({ value, text }))"
          @change="chooseStale"
        />
      </FieldGrid>
      <PartList
        v-if="stale === 'other'"
        :parts="staleParts"
        label="too old"
        :fields="PAGE"
        :room="board"
        @change="(elements, g) => put({ stale: { elements } }, g)"
      />
    </details>
  </div>
</template>

<style scoped>
.told {
  display: grid;
  grid-template-columns: repeat(6, auto);
  justify-content: space-between;
  gap: 0 8px;
  margin: 0;
  padding: 6px 14px;
  border-top: 1px solid var(--rule);
}
.told dt {
  font-size: 0.8125rem;
  font-weight: 400;
  font-family: var(--bs-body-font-family);
  color: var(--soft);
  white-space: nowrap;
}
.told dd {
  margin: 0;
  font-size: 1.125rem;
}
.told.many {
  column-gap: 4px;
}
.told.many dd {
  font-size: 0.875rem;
}
.few dd {
  color: var(--warning);
  font-weight: 700;
}
details {
  border-top: 1px solid var(--rule);
}
summary {
  padding: 5px 14px;
  font-size: 0.8125rem;
  font-weight: 700;
}
.inner {
  display: grid;
  gap: 6px;
  padding: 0 14px 10px;
}
.inner :deep(.form) {
  padding: 0;
  border: 0;
}
.path {
  margin-left: 8px;
  font-size: 0.8125rem;
  overflow-wrap: anywhere;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.pair :deep(label) {
  font-size: 0.8125rem;
  color: var(--soft);
}
</style>
