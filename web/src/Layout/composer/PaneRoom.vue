<script setup lang="ts">
import { refDebounced, useElementSize } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { Stage } from '../../pane/stage'
import type { Wall } from '../../Display/survey'
import { useDrag } from '../../ui/drag'
import type { Rect } from '../../ui/shelf'
import type { Analysis, Element, TextElement } from '../designs'
import Borders from './Borders.vue'
import { kindOf } from '../kinds/kinds'
import { useComposer } from './composer'
import { type Handle, HANDLES, around } from './gestures'
import { useHand } from './hand'
import HandLayer from './HandLayer.vue'
import OwnGuides from './OwnGuides.vue'
import { usePaneHands } from './paneHands'
import { usePaneScale } from './paneScale'
import Rulers from './Rulers.vue'
import { useMeaning } from '../style'

/** The pane: what is shown at the instant, and the hands that move and size it. */
const props = defineProps<{
  analysis: Analysis | null
  pointed: Rect | null
  snapping: boolean
  /** The wall that it is made for: drawn as it hangs, and its panels draw what is moved. */
  wall: Wall | null
}>()
/** Rulers in mm on the display, where it is known. */
const inMm = defineModel<boolean>('inMm', { required: true })
const emit = defineEmits<{ drawn: [rect: Rect] }>()
const composer = useComposer()
const meaning = useMeaning()
const { at, running } = useHand()

const room = useTemplateRef('room')
const host = useTemplateRef('host')
const { width, height } = useElementSize(room)
const canvas = computed(() => composer.document.value.canvas)
const view = usePaneScale(width, height, canvas)
const { scale, left, top } = view
/** What is chosen stays where it is while the rest grows around it. */
const aboutChosen = () => {
  const rects = composer.elements.value.filter((e) => composer.chosen.value.has(e.id)).map((e) => e.rect)
  if (rects.length === 0) return undefined
  const r = around(rects)
  return { x: left.value + (r.x + r.width / 2) * scale.value, y: top.value + (r.y + r.height / 2) * scale.value }
}
defineExpose({
  ...view,
  zoomIn: () => view.zoomIn(aboutChosen()),
  zoomOut: () => view.zoomOut(aboutChosen()),
  zoomTo: (to: number) => view.zoomTo(to, aboutChosen()),
  retype,
})
const ownGuides = useTemplateRef('ownGuides')

/** From here on single px of the canvas can be told apart, and are drawn as squares. */
const PIXELS = 6
const pixels = computed(() => scale.value >= PIXELS)

function wheel(e: WheelEvent) {
  e.preventDefault()
  const bounds = room.value!.getBoundingClientRect()
  const about = { x: e.clientX - bounds.left, y: e.clientY - bounds.top }
  if (e.ctrlKey || e.metaKey) view.zoomTo(scale.value * Math.exp(-e.deltaY / 300), about)
  else if (!view.isFitted.value) view.pan(e.shiftKey ? -e.deltaY : -e.deltaX, e.shiftKey ? 0 : -e.deltaY)
}

// --- what is shown ------------------------------------------------------------------

let stage: Stage | null = null
onMounted(() => {
  stage = new Stage(host.value!, () => null)
  show()
})
onBeforeUnmount(() => stage?.destroy())

function show() {
  if (!stage || !props.analysis) return
  const { media, run_sheet } = props.analysis
  stage.show(run_sheet, (id) => media[id] ?? null)
  stage.canvas.style.overflow = 'visible'
  draw()
  follow()
}
const draw = () => {
  stage?.place(left.value, top.value, scale.value)
  stage?.draw(at.value, running.value)
}
/** The answer of the server may be older than the hand: what was moved meanwhile stays where the hand has it. */
function follow() {
  if (!props.analysis) return
  const known = new Map(
    props.analysis.run_sheet.layers.map((l) => ('part' in l ? ([l.part.element, l.part.rect] as const) : ([l.zone, l.rect] as const))),
  )
  for (const e of composer.elements.value) {
    const shown = known.get(e.id)
    if (shown && (shown.x !== e.rect.x || shown.y !== e.rect.y || shown.width !== e.rect.width || shown.height !== e.rect.height))
      stage?.override(e.id, e.rect)
  }
}
watch(() => props.analysis?.run_sheet, show)
watch(() => [at.value, running.value, scale.value, left.value, top.value], draw)
watch(composer.elements, follow)

// --- hands --------------------------------------------------------------------------

const editing = ref<string | null>(null)
const sizable = computed(() => (composer.only.value && !composer.only.value.locked ? composer.only.value : null))
const { gesture, held, box, guides, panels, hidden, under, toCanvas, snappedBorder, down, moved, up, revert } = usePaneHands({
  composer,
  view,
  room,
  analysis: () => props.analysis,
  snapping: () => props.snapping,
  wall: () => props.wall,
  settle: () => (editing.value = null),
  sizable,
  drawn: (rect) => emit('drawn', rect),
})

const { drag } = useDrag(0)
function press(e: PointerEvent) {
  down(e)
  if (gesture.value) drag(e, { move: moved, end: up, revert })
}

/** What a hand holds moves on the pane alone, until it rests. */
watch(held, (now, before) => {
  for (const [id, rect] of now ?? []) stage?.override(id, rect)
  if (!now && before) follow()
})
const isHeld = computed(() => held.value !== null)

// --- text in place --------------------------------------------------------------------

const editor = useTemplateRef<HTMLTextAreaElement>('editor')
const edited = computed(
  () => (composer.elements.value.find((e) => e.id === editing.value && kindOf(e).isTypedOver) as TextElement | undefined) ?? null,
)
function twice(e: MouseEvent) {
  const hit = under(toCanvas(e))
  if (hit?.group) composer.choose([hit.id])
  if (hit) void type(hit)
}
/** Types over what is chosen, where that is words; all of it is marked, so that what is typed takes its place. */
function retype(): boolean {
  const only = composer.only.value
  if (!only || only.locked || !kindOf(only).isTypedOver) return false
  void type(only)
  return true
}
async function type(element: Element) {
  if (!kindOf(element).isTypedOver) return
  editing.value = element.id
  await nextTick()
  editor.value?.focus()
  editor.value?.select()
}
function typed() {
  editing.value = null
  room.value?.focus({ preventScroll: true })
}

const place = (r: Rect) => ({
  x: left.value + r.x * scale.value,
  y: top.value + r.y * scale.value,
  width: Math.max(1, r.width * scale.value),
  height: Math.max(1, r.height * scale.value),
})
const outlined = computed(() =>
  composer.elements.value.filter((e: Element) => (kindOf(e).isOutlined && !e.hidden) || composer.chosen.value.has(e.id)),
)
const handleAt = (h: Handle, r: Rect) => ({
  x: r.x + (h.includes('w') ? 0 : h.includes('e') ? r.width : r.width / 2),
  y: r.y + (h.includes('n') ? 0 : h.includes('s') ? r.height : r.height / 2),
})
/** What is chosen, and where, for who does not see the frame around it; once the hand rests. */
const said = computed(() => {
  const those = composer.elements.value.filter((e) => composer.chosen.value.has(e.id))
  if (!those.length) return 'Nothing is chosen.'
  const { x, y, width, height } = around(those.map((e) => e.rect))
  const where = `at ${x}, ${y}, ${width} × ${height} px`
  const [only] = those
  if (those.length > 1 || !only) return `${those.length} elements are chosen, ${where}.`
  const level = composer.elements.value.indexOf(only) + 1
  const more = [only.locked && 'locked', only.hidden && 'hidden', only.group && `of ${only.group}`].filter(Boolean)
  return `${[`${only.kind} ${only.name ?? only.id}`, ...more].join(', ')}, ${where}, number ${level} of ${composer.elements.value.length} from below.`
})
const told = refDebounced(said, 400)
const mmOfRulers = computed(() => (inMm.value ? (props.analysis?.mm_per_px ?? null) : null))
</script>

<template>
  <div
    ref="room"
    class="room"
    tabindex="0"
    role="application"
    aria-label="Pane: the layout at the instant of the hand. Arrows move what is chosen."
    :class="{ drawing: composer.tool.value !== 'choose', pixels, panning: gesture?.kind === 'panning' }"
    @wheel="wheel"
    @pointerdown="press"
    @dblclick="twice"
  >
    <div ref="host" class="host" aria-hidden="true"></div>
    <p class="visually-hidden" role="status">{{ told }}</p>
    <svg class="over" :width="width" :height="height">
      <g class="wall" aria-hidden="true">
        <rect v-for="(r, i) in hidden" :key="`h${i}`" class="hidden" v-bind="place(r)" />
        <rect v-for="(r, i) in panels" :key="`p${i}`" class="panel" v-bind="place(r)" />
      </g>
      <rect class="canvas-edge" v-bind="place({ x: 0, y: 0, ...canvas })" />
      <g v-if="pixels" class="grid" aria-hidden="true">
        <pattern id="px-grid" patternUnits="userSpaceOnUse" :x="left" :y="top" :width="scale" :height="scale">
          <path :d="`M${scale} 0H0V${scale}`" />
        </pattern>
        <rect v-bind="place({ x: 0, y: 0, ...canvas })" fill="url(#px-grid)" />
      </g>
      <rect
        v-for="e in outlined"
        :key="e.id"
        v-bind="place(e.rect)"
        :class="[
          composer.chosen.value.has(e.id) ? 'chosen' : 'zone',
          { locked: e.locked, absent: e.hidden, held: isHeld && composer.chosen.value.has(e.id) },
        ]"
      />
      <Borders
        v-if="composer.tool.value === 'choose' && analysis"
        :borders="analysis.borders"
        :left="left"
        :top="top"
        :scale="scale"
        :snapped="snappedBorder"
      />
      <rect v-if="pointed" class="pointed" v-bind="place(pointed)" />
      <rect v-if="box" class="box" v-bind="place(box)" />
      <OwnGuides ref="ownGuides" v-bind="{ width, height, left, top, scale, canvas }" />
      <HandLayer
        :held="held"
        :guides="guides"
        :drawn="gesture?.kind === 'drawing' ? box : null"
        :view="{ scale, left, top, width, height }"
        :mm-per-px="analysis?.mm_per_px ?? null"
      />
      <component
        :is="kindOf(composer.only.value).Handles"
        v-if="composer.only.value && kindOf(composer.only.value).Handles && !composer.only.value.locked && !editing && !isHeld"
        :one="composer.only.value"
        :analysis="analysis"
        :view="{ scale, left, top }"
      />
      <template v-if="sizable && !editing && !isHeld">
        <rect
          v-for="h in HANDLES"
          :key="h"
          class="handle"
          :data-handle="h"
          :style="{ cursor: `${h}-resize` }"
          :x="handleAt(h, place(sizable.rect)).x - 5"
          :y="handleAt(h, place(sizable.rect)).y - 5"
          width="10"
          height="10"
        />
      </template>
      <Rulers v-bind="{ width, height, left, top, scale }" :mm-per-px="mmOfRulers" @begin="(axis, e) => ownGuides?.begin(axis, e)" />
    </svg>
    <textarea
      v-if="edited"
      ref="editor"
      class="in-place"
      :value="edited.text"
      aria-label="Text"
      :style="{
        left: `${place(edited.rect).x}px`,
        top: `${place(edited.rect).y}px`,
        width: `${place(edited.rect).width}px`,
        height: `${place(edited.rect).height}px`,
        fontFamily: meaning.family(edited.style.family),
        fontSize: `${meaning.px(edited.style.size_px) * scale}px`,
        fontWeight: edited.style.weight,
        lineHeight: edited.style.line_height ?? 1.2,
      }"
      @input="composer.retext(edited!.id, ($event.target as HTMLTextAreaElement).value)"
      @blur="editing = null"
      @keydown.escape.stop="typed"
      @keydown.ctrl.enter.stop="typed"
      @pointerdown.stop
    ></textarea>
    <button
      v-if="analysis?.mm_per_px"
      type="button"
      class="unit figures"
      title="Rulers in px or in mm on the display"
      @click="inMm = !inMm"
      @pointerdown.stop
      @dblclick.stop
    >
      {{ inMm ? 'mm' : 'px' }}
    </button>
    <p v-if="composer.elements.value.length === 0" class="begin">Press <kbd>Z</kbd> and drag to draw the first zone</p>
  </div>
</template>

<style scoped>
.room {
  position: relative;
  overflow: hidden;
  background: var(--ground);
  touch-action: none;
  min-height: 0;
  min-width: 0;
  outline-offset: -3px;
}
.room.drawing {
  cursor: crosshair;
}
.host,
.over {
  position: absolute;
  inset: 0;
  user-select: none;
}
.over {
  overflow: hidden;
}
/* The picture and the lines over it are painted apart, so that moving the one does not paint the other. */
.host,
.over {
  will-change: transform;
}
.host {
  contain: strict;
}
.over rect {
  fill: none;
}
.over .hidden {
  fill: var(--ink);
}
.panel {
  stroke: var(--ink);
}
.canvas-edge {
  stroke: var(--ink);
}
.zone {
  stroke: rgb(255 253 248 / 0.55);
}
.chosen {
  stroke: var(--kelp);
  stroke-width: 2;
}
.chosen.locked {
  stroke-dasharray: 6 3;
}
.absent {
  stroke-dasharray: 2 4;
}
.held {
  visibility: hidden;
}
.grid path {
  fill: none;
  stroke: rgb(23 39 46 / 0.35);
}
.over .grid > rect {
  fill: url(#px-grid);
}
.room.panning {
  cursor: grabbing;
}
.room.pixels .host :deep(img),
.room.pixels .host :deep(video) {
  image-rendering: pixelated;
}
.pointed {
  stroke: var(--warning);
  stroke-width: 3;
  stroke-dasharray: 7 4;
}
.over .box {
  stroke: var(--kelp);
  stroke-width: 2;
  fill: rgb(20 102 91 / 0.18);
}
.over .handle {
  fill: var(--sheet);
  stroke: var(--kelp);
  stroke-width: 1.5;
}
.in-place {
  position: absolute;
  resize: none;
  border: 2px solid var(--kelp);
  padding: 0;
  background: var(--sheet);
  color: var(--ink);
}
.unit {
  position: absolute;
  left: 0;
  top: 0;
  width: 34px;
  height: 22px;
  border: 0;
  padding: 0;
  background: var(--paper);
  color: var(--kelp);
  font-size: 11px;
  text-decoration: underline;
}
.begin {
  position: absolute;
  left: 50%;
  top: 50%;
  transform: translate(-50%, -50%);
  background: var(--sheet);
  padding: 8px 16px;
  margin: 0;
  pointer-events: none;
}
</style>
