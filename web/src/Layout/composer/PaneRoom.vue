<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { Stage } from '../../pane/stage'
import type { Wall } from '../../Display/survey'
import type { Rect } from '../../ui/shelf'
import type { Analysis, Element, TextElement } from '../designs'
import Borders from './Borders.vue'
import { useComposer } from './composer'
import Dimensions from './Dimensions.vue'
import { type Handle, HANDLES, around, meets, sized, spanned } from './gestures'
import { useHand } from './hand'
import { snap } from './snap'

/** The pane: what is shown at the instant, and the hands that move and size it. */
const props = defineProps<{
  analysis: Analysis | null
  pointed: Rect | null
  snapping: boolean
  /** The wall that it is made for: drawn as it hangs, and its panels draw what is moved. */
  wall: Wall | null
  /** Rulers in mm on the display, where it is known. */
  inMm: boolean
}>()
const emit = defineEmits<{ drawn: [rect: Rect] }>()
const composer = useComposer()
const { at, running } = useHand()

const room = useTemplateRef('room')
const host = useTemplateRef('host')
const { width, height } = useElementSize(room)
const MARGIN = { left: 66, top: 60, right: 36, bottom: 30 }
const canvas = computed(() => composer.document.value.canvas)
const scale = computed(() =>
  Math.max(
    0.01,
    Math.min((width.value - MARGIN.left - MARGIN.right) / canvas.value.width, (height.value - MARGIN.top - MARGIN.bottom) / canvas.value.height),
  ),
)
const left = computed(() => Math.round(MARGIN.left + (width.value - MARGIN.left - MARGIN.right - canvas.value.width * scale.value) / 2))
const top = computed(() => Math.round(MARGIN.top + (height.value - MARGIN.top - MARGIN.bottom - canvas.value.height * scale.value) / 2))
defineExpose({ scale })

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
    props.analysis.run_sheet.layers.flatMap((l) =>
      'part' in l
        ? [[l.part.element, l.part.rect] as const]
        : l.scenes.flat().flatMap((s) => ('part' in s ? [[s.part.element, s.part.rect] as const] : [])),
    ),
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

// --- the hand -----------------------------------------------------------------------

type Gesture =
  | { kind: 'moving'; x: number; y: number; start: Map<string, Rect>; name: string; moved: boolean }
  | { kind: 'sizing'; x: number; y: number; start: Rect; id: string; handle: Handle; name: string }
  | { kind: 'drawing'; x: number; y: number }
  | { kind: 'marquee'; x: number; y: number; before: Set<string> }
const gesture = shallowRef<Gesture | null>(null)
watch(gesture, (g) => (composer.moving.value = g?.kind === 'moving' || g?.kind === 'sizing'))
const box = shallowRef<Rect | null>(null)
const guides = shallowRef<{ x: number[]; y: number[] }>({ x: [], y: [] })
let gestures = 0

const toCanvas = (e: PointerEvent | MouseEvent) => {
  const bounds = room.value!.getBoundingClientRect()
  return {
    x: Math.round((e.clientX - bounds.left - left.value) / scale.value),
    y: Math.round((e.clientY - bounds.top - top.value) / scale.value),
  }
}
const under = (p: { x: number; y: number }) => [...composer.elements.value].reverse().find((e) => meets(e.rect, { ...p, width: 1, height: 1 }))
/** The panels of the wall in px of this canvas; none of a single screen. */
const onCanvas = (rects: Rect[]): Rect[] => {
  const match = props.analysis?.match
  if (!match) return []
  const [kx, ky] = [canvas.value.width / match.target.width, canvas.value.height / match.target.height]
  return rects.map((r) => ({ x: (r.x - match.target.x) * kx, y: (r.y - match.target.y) * ky, width: r.width * kx, height: r.height * ky }))
}
const panels = computed(() => (props.wall && props.wall.panels.length > 1 ? onCanvas(props.wall.panels.map((p) => p.source)) : []))
const hidden = computed(() => (props.wall && props.wall.panels.length > 1 ? onCanvas([...props.wall.strips, ...props.wall.voids]) : []))

const lines = (without: Set<string>) => {
  const others = composer.elements.value.filter((e) => !without.has(e.id)).map((e) => e.rect)
  const { width: w, height: h } = canvas.value
  return {
    x: [
      0,
      Math.round(w / 2),
      w,
      ...(props.analysis?.tracks.columns ?? []),
      ...[...others, ...panels.value].flatMap((r) => [Math.round(r.x), Math.round(r.x + r.width)]),
    ],
    y: [
      0,
      Math.round(h / 2),
      h,
      ...(props.analysis?.tracks.rows ?? []),
      ...[...others, ...panels.value].flatMap((r) => [Math.round(r.y), Math.round(r.y + r.height)]),
    ],
  }
}
const ALL = { left: true, right: true, top: true, bottom: true, centre: true }
const reach = () => Math.round(6 / scale.value)

function down(e: PointerEvent) {
  if (e.button !== 0 || editing.value) return
  room.value!.setPointerCapture(e.pointerId)
  room.value!.focus({ preventScroll: true })
  const p = toCanvas(e)
  const handle = (e.target as globalThis.Element).getAttribute('data-handle') as Handle | null
  gestures++
  if (composer.tool.value !== 'choose') {
    gesture.value = { kind: 'drawing', ...snapPoint(p, e.altKey) }
  } else if (handle && composer.only.value) {
    gesture.value = {
      kind: 'sizing',
      ...p,
      start: composer.only.value.rect,
      id: composer.only.value.id,
      handle,
      name: `size ${gestures}`,
    }
  } else {
    const hit = under(p)
    if (hit && e.shiftKey) {
      const next = new Set(composer.chosen.value)
      if (!next.delete(hit.id)) next.add(hit.id)
      composer.choose(next)
    } else if (hit) {
      if (!composer.chosen.value.has(hit.id)) composer.choose([hit.id])
    } else {
      if (!e.shiftKey) composer.choose([])
      gesture.value = { kind: 'marquee', ...p, before: composer.chosen.value }
      return
    }
    const start = new Map(composer.elements.value.filter((el) => composer.chosen.value.has(el.id)).map((el) => [el.id, el.rect]))
    gesture.value = { kind: 'moving', ...p, start, name: `move ${gestures}`, moved: false }
  }
}

function snapPoint(p: { x: number; y: number }, free: boolean) {
  if (free || !props.snapping) return p
  const at = lines(new Set())
  const s = snap({ ...p, width: 0, height: 0 }, at.x, at.y, reach(), {
    left: true,
    right: false,
    top: true,
    bottom: false,
    centre: false,
  })
  guides.value = { x: s.linesX, y: s.linesY }
  return { x: p.x + s.dx, y: p.y + s.dy }
}

/** Where a border of the zones is drawn to: an edge of what does not move with it, a panel, a track of the recipe. */
function snappedBorder(side: 'x' | 'y', at: number, without: string[]) {
  if (!props.snapping) return at
  const near = lines(new Set(without))[side].reduce((best, line) => (Math.abs(line - at) < Math.abs(best - at) ? line : best), Infinity)
  return Math.abs(near - at) <= reach() ? near : at
}

let waiting: PointerEvent | null = null
function moved(e: PointerEvent) {
  if (!gesture.value) return
  if (waiting === null) requestAnimationFrame(() => waiting && (apply(waiting), (waiting = null)))
  waiting = e
}

function apply(e: PointerEvent) {
  const g = gesture.value
  if (!g) return
  const p = toCanvas(e)
  const free = e.altKey || !props.snapping
  if (g.kind === 'drawing') {
    const to = snapPoint(p, e.altKey)
    box.value = spanned(g.x, g.y, to.x, to.y)
  } else if (g.kind === 'marquee') {
    box.value = spanned(g.x, g.y, p.x, p.y)
    composer.choose(new Set([...g.before, ...composer.elements.value.filter((el) => meets(el.rect, box.value!)).map((el) => el.id)]))
  } else if (g.kind === 'moving') {
    let [dx, dy] = [p.x - g.x, p.y - g.y]
    if (!g.moved && Math.hypot(dx, dy) * scale.value < 3) return
    g.moved = true
    if (!free) {
      const whole = around([...g.start.values()])
      const at = lines(new Set(g.start.keys()))
      const s = snap({ ...whole, x: whole.x + dx, y: whole.y + dy }, at.x, at.y, reach(), ALL)
      guides.value = { x: s.linesX, y: s.linesY }
      dx += s.dx
      dy += s.dy
    } else guides.value = { x: [], y: [] }
    composer.place(new Map([...g.start].map(([id, r]) => [id, { ...r, x: r.x + dx, y: r.y + dy }])), g.name)
  } else {
    let rect = sized(g.start, g.handle, p.x - g.x, p.y - g.y, e.shiftKey)
    if (!free && !e.shiftKey) {
      const at = lines(new Set([g.id]))
      const edges = {
        left: g.handle.includes('w'),
        right: g.handle.includes('e'),
        top: g.handle.includes('n'),
        bottom: g.handle.includes('s'),
        centre: false,
      }
      const s = snap(rect, at.x, at.y, reach(), edges)
      guides.value = { x: s.linesX, y: s.linesY }
      rect = sized(g.start, g.handle, p.x - g.x + s.dx, p.y - g.y + s.dy, false)
    }
    composer.place(new Map([[g.id, rect]]), g.name)
  }
}

function up(e: PointerEvent) {
  if (waiting) {
    apply(waiting)
    waiting = null
  }
  const g = gesture.value
  gesture.value = null
  guides.value = { x: [], y: [] }
  if (g?.kind === 'drawing' && box.value) {
    const small = box.value.width * scale.value < 6 && box.value.height * scale.value < 6
    emit('drawn', small ? { ...toCanvas(e), width: Math.round(canvas.value.width / 3), height: Math.round(canvas.value.height / 5) } : box.value)
  }
  box.value = null
}
function cancel() {
  gesture.value = box.value = null
  guides.value = { x: [], y: [] }
}

// --- text in place --------------------------------------------------------------------

const editing = ref<string | null>(null)
const editor = useTemplateRef<HTMLTextAreaElement>('editor')
const edited = computed(() => composer.elements.value.find((e): e is TextElement => e.id === editing.value && e.kind === 'text') ?? null)
async function twice(e: MouseEvent) {
  const hit = under(toCanvas(e))
  if (hit?.kind !== 'text') return
  editing.value = hit.id
  await nextTick()
  editor.value?.focus()
  editor.value?.select()
}

const place = (r: Rect) => ({
  x: left.value + r.x * scale.value,
  y: top.value + r.y * scale.value,
  width: Math.max(1, r.width * scale.value),
  height: Math.max(1, r.height * scale.value),
})
const outlined = computed(() => composer.elements.value.filter((e: Element) => e.kind === 'zone' || composer.chosen.value.has(e.id)))
const handleAt = (h: Handle, r: Rect) => ({
  x: r.x + (h.includes('w') ? 0 : h.includes('e') ? r.width : r.width / 2),
  y: r.y + (h.includes('n') ? 0 : h.includes('s') ? r.height : r.height / 2),
})
/** Of the rulers: where they stand in px of the canvas, and what is written there. */
const ticks = (length: number) => {
  const mm = props.inMm ? (props.analysis?.mm_per_px ?? null) : null
  const unit = mm === null ? 1 : 1 / mm
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000].find((s) => s * unit * scale.value >= 60) ?? 10_000
  return Array.from({ length: Math.floor(length / (step * unit)) + 1 }, (_, i) => ({ at: i * step * unit, text: i * step }))
}
</script>

<template>
  <div
    ref="room"
    class="room"
    tabindex="0"
    role="application"
    aria-label="Pane: the layout at the instant of the hand. Arrows move what is chosen."
    :class="{ drawing: composer.tool.value !== 'choose' }"
    @pointerdown="down"
    @pointermove="moved"
    @pointerup="up"
    @pointercancel="cancel"
    @dblclick="twice"
  >
    <div ref="host" class="host"></div>
    <svg class="over" :width="width" :height="height">
      <g class="ruler" aria-hidden="true">
        <rect x="0" y="0" :width="width" height="22" />
        <rect x="0" y="0" width="34" :height="height" />
        <g v-for="t in ticks(canvas.width)" :key="`x${t.text}`" :transform="`translate(${left + t.at * scale} 0)`">
          <line y1="16" y2="22" />
          <text x="3" y="13">{{ t.text }}</text>
        </g>
        <g v-for="t in ticks(canvas.height)" :key="`y${t.text}`" :transform="`translate(0 ${top + t.at * scale})`">
          <line x1="28" x2="34" />
          <text x="32" y="-3" text-anchor="end">{{ t.text }}</text>
        </g>
      </g>
      <g class="wall" aria-hidden="true">
        <rect v-for="(r, i) in hidden" :key="`h${i}`" class="hidden" v-bind="place(r)" />
        <rect v-for="(r, i) in panels" :key="`p${i}`" class="panel" v-bind="place(r)" />
      </g>
      <rect class="canvas-edge" v-bind="place({ x: 0, y: 0, ...canvas })" />
      <rect v-for="e in outlined" :key="e.id" v-bind="place(e.rect)" :class="composer.chosen.value.has(e.id) ? 'chosen' : 'zone'" />
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
      <line v-for="g in guides.x" :key="`gx${g}`" class="guide" :x1="left + g * scale" :x2="left + g * scale" y1="22" :y2="height" />
      <line v-for="g in guides.y" :key="`gy${g}`" class="guide" x1="34" :x2="width" :y1="top + g * scale" :y2="top + g * scale" />
      <Dimensions
        v-if="(box && gesture?.kind === 'drawing') || composer.only.value"
        :rect="box && gesture?.kind === 'drawing' ? box : composer.only.value!.rect"
        :canvas="canvas"
        :scale="scale"
        :left="left"
        :top="top"
        :mm-per-px="analysis?.mm_per_px ?? null"
      />
      <template v-if="composer.only.value && !editing">
        <rect
          v-for="h in HANDLES"
          :key="h"
          class="handle"
          :data-handle="h"
          :style="{ cursor: `${h}-resize` }"
          :x="handleAt(h, place(composer.only.value.rect)).x - 5"
          :y="handleAt(h, place(composer.only.value.rect)).y - 5"
          width="10"
          height="10"
        />
      </template>
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
        fontFamily: edited.style.family,
        fontSize: `${edited.style.size_px * scale}px`,
        fontWeight: edited.style.weight,
        lineHeight: edited.style.line_height ?? 1.2,
      }"
      @input="composer.edit<TextElement>(edited!.id, { text: ($event.target as HTMLTextAreaElement).value }, `text ${edited!.id}`)"
      @blur="editing = null"
      @keydown.escape.stop="editing = null"
      @pointerdown.stop
    ></textarea>
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
.ruler rect {
  fill: var(--paper);
}
.ruler line {
  stroke: var(--soft);
}
.ruler text {
  font: 11px var(--figures);
  fill: var(--soft);
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
.guide {
  stroke: #ffd447;
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
