<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref, computed, onBeforeUnmount, provide, ref, shallowRef, useTemplateRef, watch, watchEffect } from 'vue'
import { useDisplay } from '../Display/survey'
import { useEstate } from '../Estate/estate'
import { type MediaState, refOf } from '../Media/media'
import MediaPicker from '../Media/MediaPicker.vue'
import { offerActions } from '../ui/actions'
import { api, sentence } from '../ui/api'
import { size } from '../ui/format'
import { type Finding, type Rect, useShelf } from '../ui/shelf'
import { useAnalysis } from './composer/analysis'
import AsSeen from './composer/AsSeen.vue'
import { composerKey, makeComposer } from './composer/composer'
import Details from './composer/Details.vue'
import Divide from './composer/Divide.vue'
import { usual } from './composer/gestures'
import { handKey, makeHand } from './composer/hand'
import { useComposerKeys } from './composer/keys'
import Ledger from './composer/Ledger.vue'
import OtherRaster from './composer/OtherRaster.vue'
import PaneBar from './composer/PaneBar.vue'
import PaneRoom from './composer/PaneRoom.vue'
import RecipeLine from './composer/RecipeLine.vue'
import { TOOLS } from './composer/tools'
import TideTable from './composer/TideTable.vue'
import { shapeOf, turning, useVariants } from './composer/variants'
import DesignHead from './DesignHead.vue'
import type { LayoutDocument } from './designs'
import type { Division, Recipe } from './division'
import DivisionPicker from './DivisionPicker.vue'
import { kindOf } from './kinds/kinds'
import { styleKey, useHouseStyle } from './style'
import { useDesignWork } from './work'

const props = defineProps<{ id: string }>()
const work = useDesignWork<LayoutDocument>('layouts', props.id)
const { displays } = useEstate(false)
const shelf = useShelf()
const queries = useQueryClient()
const hands = useVariants(work, displays)
const { variant, seenOn } = hands
const composer = makeComposer(work.document as Ref<LayoutDocument>, variant, work.change, (id) => hands.setDisplay(id))
provide(composerKey, composer)
/** First now, then wherever the hand stands when it is asked. */
let instant = () => Date.now()
const { analysis, trouble, ask } = useAnalysis(work.document, variant, seenOn, composer.moving, () => Math.round(instant()), composer.stress)
watch(analysis, (told) => (composer.toldOver.value = told?.told_over ?? null))
const hand = makeHand(analysis, composer.moving)
instant = () => hand.at.value
provide(handKey, hand)
const display = computed(() => displays.value.find((d) => d.id === seenOn.value) ?? null)
provide(
  styleKey,
  useHouseStyle(seenOn, () => hands.document.value?.canvas ?? null),
)
const timezone = computed(() => display.value?.timezone ?? Intl.DateTimeFormat().resolvedOptions().timeZone)

// --- tools -------------------------------------------------------------------------------

const snapping = ref(true)
const inMm = ref(false)
const { data: surveyed } = useDisplay(seenOn)
const picking = ref(false)
const asked = shallowRef<{ kind: string; rect: Rect } | null>(null)
const beginning = ref(false)
const picker = computed(() => {
  const begins = asked.value && kindOf(asked.value).begins
  return begins && begins !== 'media' ? begins : null
})
const begun = (fields: object) => asked.value && void composer.add(asked.value.kind, asked.value.rect, fields)

function drawn(rect: Rect) {
  const tool = composer.tool.value
  if (tool === 'choose') return
  const { begins } = kindOf({ kind: tool })
  if (begins) {
    asked.value = { kind: tool, rect }
    if (begins === 'media') picking.value = true
    else beginning.value = true
  } else void composer.add(tool, rect).then((isDone) => isDone && pane.value?.retype())
}
function picked([media]: MediaState[]) {
  if (asked.value && media) void composer.add(asked.value.kind, asked.value.rect, { media: refOf(media) })
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
  if (finding.rect) pane.value?.show(finding.rect)
}
shelf.fixed = ({ fix }: Finding) => fix && void composer.tell({ do: 'cure', fix })
watch(composer.elements, () => (pointed.value = null))
watch(composer.chosen, (chosen) => (shelf.about = chosen))
onBeforeUnmount(() => shelf.clear())

// --- keys -----------------------------------------------------------------------------------

const pane = useTemplateRef<InstanceType<typeof PaneRoom>>('pane')
useComposerKeys(
  composer,
  hand,
  () => (work.document.value ? pane.value : null),
  () => drawn(usual(composer.document.value.canvas)),
  () => pane.value?.retype() ?? false,
)

const otherRaster = ref(false)
const seen = ref(false)
const dividing = ref(false)
const keeping = ref<string | null>(null)
const recipe = computed(() => (hands.document.value?.recipe as Recipe | undefined) ?? null)
async function turn() {
  if (!(await composer.tell(() => turning(composer.whole.value.canvas)))) return
  composer.choose([])
  composer.notice.value ??= {
    wrong: false,
    said: [`This is the ${variant.value} variant: it shares what plays and what is written; move, size or take out what you like here.`],
  }
}
const drop = () => void composer.tell(() => (variant.value ? { do: 'drop', variant: variant.value } : null))
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
  ...(composer.chosen.value.size
    ? [
        { kind: 'action', name: 'Group what is chosen', more: 'Ctrl + G', act: composer.group },
        { kind: 'action', name: 'Ungroup what is chosen', more: 'Ctrl + Shift + G', act: composer.ungroup },
        { kind: 'action', name: 'Hide or show what is chosen', more: 'H', act: () => composer.toggle('hidden') },
        { kind: 'action', name: 'Lock or unlock what is chosen', more: 'L', act: () => composer.toggle('locked') },
      ]
    : []),
  { kind: 'action', name: 'Fit the canvas into the pane', more: '0', act: () => pane.value?.fit() },
  { kind: 'action', name: 'Pixel for pixel', more: '1', act: () => pane.value?.zoomTo(1) },
  ...(work.document.value ? TOOLS : [])
    .slice(1)
    .map((t) => ({ kind: 'action', name: `Draw a ${t.name}`, more: t.key.toUpperCase(), act: () => (composer.tool.value = t.tool) })),
  ...composer.elements.value.map((e) => ({ kind: e.kind, name: e.name ?? e.id, more: 'in this layout', act: () => composer.choose([e.id]) })),
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
</script>

<template>
  <main class="station">
    <DesignHead
      :id="id"
      :work="work"
      noun="layout"
      :handover="
        variant
          ? `/handover?layout=${id}&variant=${variant}&seen=${seenOn ?? ''}`
          : `/handover?layout=${id}${work.display.value ? `&display=${work.display.value}` : ''}`
      "
      :rehearsal="`/rehearsal?source=layout:${id}${work.display.value ? `&display=${work.display.value}` : ''}`"
    >
      {{ words }}
      <template #actions>
        <BButton variant="outline-dark" :pressed="seen" @click="seen = !seen">{{ display ? 'From the back row' : 'Contrast map' }}</BButton>
      </template>
    </DesignHead>
    <template v-if="work.document.value">
      <div class="columns">
        <div class="leaf">
          <RecipeLine />
          <Ledger :analysis="analysis">
            <Divide />
            <Details :analysis="analysis" :display="seenOn" :timezone="display?.timezone ?? 'UTC'" @display="hands.setDisplay" @again="ask" />
          </Ledger>
        </div>
        <AsSeen v-if="seen && analysis" :analysis="analysis" :display="seenOn" :display-name="display?.name ?? ''" @close="seen = false" />
        <div v-else class="right">
          <PaneBar
            v-model:snapping="snapping"
            :pane="pane"
            :variant="variant"
            :variants="hands.words.value"
            @variant="((variant = $event), composer.choose([]))"
            @turn="turn"
            @drop="drop"
            @other="otherRaster = true"
            @divide="dividing = true"
          />
          <PaneRoom
            ref="pane"
            v-model:in-mm="inMm"
            :analysis="analysis"
            :pointed="pointed"
            :snapping="snapping"
            :wall="surveyed?.wall ?? null"
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
    <component :is="picker" v-if="picker" v-model="beginning" :rect="asked?.rect ?? null" @chosen="begun" />
    <OtherRaster v-if="work.document.value" v-model="otherRaster" />
    <BModal v-if="work.document.value" v-model="dividing" no-close-on-backdrop lazy title="Divide the canvas" size="xl" scrollable no-footer>
      <form v-if="recipe" class="keep" @submit.prevent="keep">
        <template v-if="keeping !== null">
          <BFormInput v-model="keeping" size="sm" maxlength="200" placeholder="Name of the division" aria-label="Name of the division" autofocus />
          <BButton size="sm" type="submit" variant="primary" :disabled="!keeping.trim()">Keep it</BButton>
        </template>
        <BButton v-else size="sm" variant="outline-dark" @click="keeping = ''">Keep this layout's division for the team…</BButton>
      </form>
      <DivisionPicker :raster="composer.document.value.canvas" :display="seenOn" @choose="divide" />
    </BModal>
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
