<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { type Ref, computed, onBeforeUnmount, provide, ref, shallowRef, useTemplateRef, watch, watchEffect } from 'vue'
import { useDisplay } from '../Display/survey'
import { useEstate } from '../Estate/estate'
import { type MediaState, refOf } from '../Media/media'
import MediaPicker from '../Media/MediaPicker.vue'
import { offerActions } from '../ui/actions'
import { api, sentence } from '../ui/api'
import { size } from '../ui/format'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { type Finding, type Rect, useShelf } from '../ui/shelf'
import { useAnalysis } from './composer/analysis'
import AsSeen from './composer/AsSeen.vue'
import { type Tool, composerKey, makeComposer } from './composer/composer'
import Details from './composer/Details.vue'
import Divide from './composer/Divide.vue'
import { handKey, makeHand } from './composer/hand'
import Ledger from './composer/Ledger.vue'
import OtherRaster from './composer/OtherRaster.vue'
import PaneRoom from './composer/PaneRoom.vue'
import RecipeLine from './composer/RecipeLine.vue'
import TideTable from './composer/TideTable.vue'
import { shapeOf, useVariants } from './composer/variants'
import DesignHead from './DesignHead.vue'
import type { Item, LayoutDocument, Style, TextElement, ZoneElement } from './designs'
import type { Division, Recipe } from './division'
import DivisionPicker from './DivisionPicker.vue'
import RevisionList from './RevisionList.vue'
import { useDesignWork } from './work'

const props = defineProps<{ id: string }>()
const work = useDesignWork<LayoutDocument>('layouts', props.id)
const { displays } = useEstate()
const shelf = useShelf()
const queries = useQueryClient()
const hands = useVariants(work, displays)
const { variant, variants, seenOn } = hands
const composer = makeComposer(hands.document as Ref<LayoutDocument>, hands.change, hands.setDisplay)
provide(composerKey, composer)
const { analysis, trouble, ask } = useAnalysis(hands.document, seenOn, composer.moving)
const hand = makeHand(analysis, composer.elements)
provide(handKey, hand)
const display = computed(() => displays.value.find((d) => d.id === seenOn.value) ?? null)
const timezone = computed(() => display.value?.timezone ?? Intl.DateTimeFormat().resolvedOptions().timeZone)

// --- tools -------------------------------------------------------------------------------

const tools: { tool: Tool; name: string; key: string }[] = [
  { tool: 'choose', name: 'choose', key: 'v' },
  { tool: 'zone', name: 'zone', key: 'z' },
  { tool: 'text', name: 'text', key: 't' },
  { tool: 'shape', name: 'shape', key: 's' },
  { tool: 'picture', name: 'picture', key: 'p' },
]
const snapping = ref(true)
const inMm = ref(false)
const { data: surveyed } = useDisplay(seenOn)
const picking = ref(false)
const asked = shallowRef<Rect | null>(null)

function drawn(rect: Rect) {
  const tool = composer.tool.value
  if (tool === 'zone') composer.add({ id: '', kind: 'zone', rect, playlist: { items: [] } })
  else if (tool === 'text')
    composer.add({
      id: '',
      kind: 'text',
      rect,
      text: 'Text',
      style: {
        family: 'Inter',
        size_px: Math.max(12, Math.round(Math.min(rect.height * 0.6, composer.document.value.canvas.height / 12))),
        weight: 600,
        color: '#ffffff',
      },
    })
  else if (tool === 'shape') composer.add({ id: '', kind: 'shape', rect, fill: '#14665b' })
  else if (tool === 'picture') {
    asked.value = rect
    picking.value = true
  }
}
function picked([media]: MediaState[]) {
  if (asked.value && media) composer.add({ id: '', kind: 'picture', rect: asked.value, media: refOf(media), fit: 'contain' })
}

// --- findings ------------------------------------------------------------------------------

const pointed = shallowRef<Rect | null>(null)
watchEffect(() => {
  shelf.findings = analysis.value?.findings ?? []
  shelf.remark = trouble.value || (analysis.value ? 'Everything adds up.' : '')
})
shelf.chosen = (finding: Finding) => {
  pointed.value = finding.rect ?? null
  composer.choose(finding.elements)
}
shelf.fixed = ({ fix }: Finding) => {
  if (!fix?.element) return
  const text = composer.elements.value.find((e): e is TextElement => e.id === fix.element && e.kind === 'text')
  if (fix.style && text) {
    const style = Object.fromEntries(Object.entries({ ...text.style, ...fix.style }).filter(([, value]) => value !== null)) as unknown as Style
    return composer.edit<TextElement>(text.id, { style, ...(fix.rect ? { rect: fix.rect } : {}) })
  }
  if (fix.rect) composer.place(new Map([[fix.element, fix.rect]]))
  const zone = composer.elements.value.find((e): e is ZoneElement => e.id === fix.element && e.kind === 'zone')
  if (fix.item && fix.set && zone && 'items' in zone.playlist) {
    composer.edit<ZoneElement>(zone.id, {
      playlist: { items: zone.playlist.items.map((i) => (i.id === fix.item ? ({ ...i, ...fix.set } as Item) : i)) },
    })
  }
}
watch(composer.elements, () => (pointed.value = null))
onBeforeUnmount(() => shelf.clear())

// --- keys -----------------------------------------------------------------------------------

const pane = useTemplateRef('pane')
useEventListener('keydown', (e: KeyboardEvent) => {
  const target = e.target as HTMLElement
  if (!work.document.value || target.closest('input, textarea, select, [contenteditable], .modal')) return
  const ctrl = e.ctrlKey || e.metaKey
  const arrows: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  }
  const by = e.shiftKey ? 10 : 1
  const acts: Record<string, () => void> = ctrl
    ? {
        c: composer.copy,
        v: composer.paste,
        x: () => (composer.copy(), composer.remove()),
        d: composer.duplicate,
        a: () => composer.choose(composer.elements.value.map((el) => el.id)),
      }
    : {
        delete: composer.remove,
        backspace: composer.remove,
        escape: () => (composer.tool.value === 'choose' ? composer.choose([]) : (composer.tool.value = 'choose')),
        ' ': () => (hand.running.value = !hand.running.value),
        ',': () => hand.to(hand.at.value - 1000),
        '.': () => hand.to(hand.at.value + 1000),
        '<': () => hand.toChange(false),
        '>': () => hand.toChange(true),
        ...Object.fromEntries(tools.map((t) => [t.key, () => (composer.tool.value = t.tool)])),
        ...Object.fromEntries(Object.entries(arrows).map(([key, [dx, dy]]) => [key.toLowerCase(), () => composer.nudge(dx * by, dy * by)])),
      }
  const act = acts[e.key.toLowerCase()]
  if (!act || (e.key === ' ' && target.closest('button, a'))) return
  e.preventDefault()
  act()
})

const revisions = ref(false)
const otherRaster = ref(false)
const seen = ref(false)
const dividing = ref(false)
const keeping = ref<string | null>(null)
const recipe = computed(() => (hands.document.value?.recipe as Recipe | undefined) ?? null)
async function turn() {
  try {
    const name = await hands.turn()
    composer.choose([])
    composer.notice.value = {
      wrong: false,
      said: [`This is the ${name} variant: it shares what plays and what is written; move, size or take out what you like here.`],
    }
  } catch (e) {
    composer.notice.value = { wrong: true, said: [sentence(e)] }
  }
}
async function divide(division: Division | null) {
  if (division && (await composer.tell({ do: 'start', recipe: division.recipe }))) dividing.value = false
}
async function keep() {
  if (!recipe.value || !keeping.value?.trim()) return
  try {
    await api.post('divisions', { name: keeping.value.trim(), recipe: recipe.value })
    await queries.invalidateQueries({ queryKey: ['divisions'] })
    composer.notice.value = { wrong: false, said: [`The division "${keeping.value.trim()}" is kept for the team.`] }
    keeping.value = null
  } catch (e) {
    composer.notice.value = { wrong: true, said: [sentence(e)] }
  }
}
offerActions(() => [
  ...(work.document.value ? tools : [])
    .slice(1)
    .map((t) => ({ kind: 'action', name: `Draw a ${t.name}`, more: t.key.toUpperCase(), act: () => (composer.tool.value = t.tool) })),
  ...composer.elements.value.map((e) => ({ kind: e.kind, name: e.name ?? e.id, more: 'in this layout', act: () => composer.choose([e.id]) })),
  { kind: 'action', name: 'Revisions', more: 'of this layout', act: () => (revisions.value = true) },
  { kind: 'action', name: 'Divide the canvas', more: 'starting divisions', act: () => (dividing.value = true) },
  { kind: 'action', name: 'From the back row', more: 'and contrast map', act: () => (seen.value = !seen.value) },
  { kind: 'action', name: 'Turned variant', more: 'of this layout', act: () => void turn() },
  { kind: 'action', name: 'For another raster', more: 'solve the recipe', act: () => (otherRaster.value = true) },
  ...(recipe.value
    ? [{ kind: 'action', name: 'Keep this division', more: 'for the team', act: () => ((dividing.value = true), (keeping.value = '')) }]
    : []),
  { kind: 'action', name: 'Run or stop the clock', more: 'space', act: () => (hand.running.value = !hand.running.value) },
  { kind: 'action', name: 'Next change', more: '>', act: () => hand.toChange(true) },
  { kind: 'action', name: 'Previous change', more: '<', act: () => hand.toChange(false) },
])
const words = computed(() => {
  const canvas = hands.document.value?.canvas
  if (!canvas) return ''
  const turned = shapeOf(canvas)
  const d = display.value
  const on = d
    ? ` · ${d.name}, ${d.active_mm.width.toFixed(0)} × ${d.active_mm.height.toFixed(0)} mm, read from ${(d.viewing.nearest_mm / 1000).toFixed(1)} to ${(d.viewing.farthest_mm / 1000).toFixed(1)} m`
    : ' · for no display yet'
  return `${size(canvas)} px, ${turned}${on}`
})
const canvasZoom = computed(() => (pane.value ? `${Math.round(pane.value.scale * 100)} %` : ''))
</script>

<template>
  <main class="station">
    <DesignHead :work="work" noun="layout" :handover="`/handover?layout=${id}${work.display.value ? `&display=${work.display.value}` : ''}`">
      {{ words }}
      <template #actions>
        <BButton variant="outline-dark" :pressed="seen" @click="seen = !seen">{{ display ? 'From the back row' : 'Contrast map' }}</BButton>
        <BButton variant="outline-dark" @click="otherRaster = true">Other raster…</BButton>
        <BButton variant="outline-dark" @click="revisions = true">Revisions</BButton>
      </template>
    </DesignHead>
    <template v-if="work.document.value">
      <div class="columns">
        <div class="leaf">
          <RecipeLine /><Ledger :analysis="analysis" /><Divide /><Details :analysis="analysis" :display="seenOn" @display="hands.setDisplay" />
        </div>
        <AsSeen v-if="seen && analysis" :analysis="analysis" :display="seenOn" :display-name="display?.name ?? ''" @close="seen = false" />
        <div v-else class="right">
          <div class="bar">
            <div class="choice" role="group" aria-label="Tools">
              <button
                v-for="t in tools"
                :key="t.tool"
                type="button"
                :aria-pressed="composer.tool.value === t.tool"
                :title="`${t.name} (${t.key.toUpperCase()})`"
                @click="composer.tool.value = t.tool"
              >
                {{ t.name }}
              </button>
            </div>
            <BButton size="sm" variant="outline-dark" @click="dividing = true">Divide…</BButton>
            <ChoiceBar
              v-if="variants.length"
              :model-value="variant ?? ''"
              label="Variant"
              :words="hands.words.value"
              @update:model-value="((variant = $event || null), composer.choose([]))"
            />
            <button v-if="variant" type="button" class="btn btn-link btn-sm p-0" @click="hands.drop">remove it</button>
            <BButton v-else size="sm" variant="outline-dark" title="The same content for the canvas turned" @click="turn">Turned variant</BButton>
            <span class="figures soft ms-auto text-nowrap">{{ canvasZoom }}</span>
            <div v-if="analysis?.mm_per_px" class="choice" role="group" aria-label="Rulers">
              <button type="button" :aria-pressed="!inMm" @click="inMm = false">px</button>
              <button type="button" :aria-pressed="inMm" @click="inMm = true">mm</button>
            </div>
            <div class="choice">
              <button type="button" :aria-pressed="snapping" title="Edges draw what is moved; Alt does without" @click="snapping = !snapping">
                snap
              </button>
            </div>
          </div>
          <PaneRoom
            ref="pane"
            :analysis="analysis"
            :pointed="pointed"
            :snapping="snapping"
            :wall="surveyed?.wall ?? null"
            :in-mm="inMm"
            @drawn="drawn"
          />
          <div
            v-if="composer.notice.value"
            class="notice"
            :role="composer.notice.value.wrong ? 'alert' : 'status'"
            :class="{ wrong: composer.notice.value.wrong }"
          >
            <span>{{ composer.notice.value.said.join(' ') }}</span>
            <button type="button" class="btn btn-link btn-sm p-0" @click="composer.notice.value = null">close</button>
          </div>
        </div>
      </div>
      <TideTable
        v-if="analysis"
        :analysis="analysis"
        :elements="composer.elements.value"
        :timezone="timezone"
        :chosen="composer.chosen.value"
        @choose="composer.choose([$event])"
      />
    </template>
    <p v-else-if="work.state.value === 'refused'" class="empty">
      This layout cannot be opened. <RouterLink to="/layouts">See all layouts</RouterLink>
    </p>
    <p v-else class="empty">Opening.</p>
    <p v-if="trouble && !analysis" class="empty said-error">
      {{ trouble }} <button type="button" class="btn btn-link p-0" @click="ask">Try again</button>
    </p>
    <MediaPicker v-model="picking" pictures-only @chosen="picked" />
    <OtherRaster v-if="work.document.value" v-model="otherRaster" />
    <BModal v-if="work.document.value" v-model="dividing" title="Divide the canvas" size="xl" scrollable no-footer>
      <form v-if="recipe" class="keep" @submit.prevent="keep">
        <template v-if="keeping !== null">
          <BFormInput v-model="keeping" size="sm" maxlength="200" placeholder="Name of the division" aria-label="Name of the division" autofocus />
          <BButton size="sm" type="submit" variant="primary" :disabled="!keeping.trim()">Keep it</BButton>
        </template>
        <BButton v-else size="sm" variant="outline-dark" @click="keeping = ''">Keep this layout's division for the team…</BButton>
      </form>
      <DivisionPicker :raster="composer.document.value.canvas" @choose="divide" />
    </BModal>
    <RevisionList :id="id" v-model="revisions" :current="work.revision.value" @restored="work.reopen" />
  </main>
</template>

<style scoped>
.right {
  display: grid;
  position: relative;
  grid-template-rows: auto minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
}
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 10px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.notice {
  position: absolute;
  left: 46px;
  right: 12px;
  bottom: 10px;
  display: flex;
  gap: 14px;
  justify-content: space-between;
  align-items: baseline;
  background: var(--sheet);
  border-left: 4px solid var(--chalk);
  padding: 6px 12px;
  font-size: 0.875rem;
  max-height: 120px;
  overflow: auto;
}
.notice.wrong {
  border-color: var(--stop);
}
.keep {
  display: flex;
  gap: 8px;
  margin-bottom: 12px;
  max-width: 420px;
}
</style>
