<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import DisplayPicture from '../Estate/DisplayPicture.vue'
import type { DisplayState } from '../Estate/estate'
import { useDrag } from '../ui/drag'
import type { Rect } from '../ui/shelf'
import type { PlacedPanel, Wall } from './survey'
import { plain } from './survey'

/** A wall to scale in mm, from the front over what it shows, or from behind as the installer sees it. */
const props = defineProps<{
  wall: Wall
  display: DisplayState | null
  at: number
  behind: boolean
  chosen: ReadonlySet<string>
  /** Panels can be dragged: they hang freely. */
  movable: boolean
  /** Panels are pressed in turn to number their outputs. */
  numbering: boolean
  pointed: Rect | null
}>()
const emit = defineEmits<{ choose: [id: string | null, more: boolean]; move: [dx: number, dy: number, gesture: string] }>()

const room = useTemplateRef('room')
const { width, height } = useElementSize(room)
const MARGIN = { left: 72, top: 62, right: 40, bottom: 30 }
const outer = (p: PlacedPanel): Rect => ({
  x: p.place_mm.x - p.frame_mm.left,
  y: p.place_mm.y - p.frame_mm.top,
  width: p.place_mm.width + p.frame_mm.left + p.frame_mm.right,
  height: p.place_mm.height + p.frame_mm.top + p.frame_mm.bottom,
})
const bounds = computed(() => {
  const all = props.wall.panels.map(outer)
  const x = Math.min(...all.map((r) => r.x))
  const y = Math.min(...all.map((r) => r.y))
  return { x, y, width: Math.max(...all.map((r) => r.x + r.width)) - x, height: Math.max(...all.map((r) => r.y + r.height)) - y }
})
const scale = computed(() =>
  Math.max(
    0.001,
    Math.min((width.value - MARGIN.left - MARGIN.right) / bounds.value.width, (height.value - MARGIN.top - MARGIN.bottom) / bounds.value.height),
  ),
)
const origin = computed(() => ({
  x: MARGIN.left + (width.value - MARGIN.left - MARGIN.right - bounds.value.width * scale.value) / 2,
  y: MARGIN.top + (height.value - MARGIN.top - MARGIN.bottom - bounds.value.height * scale.value) / 2,
}))
/** Mm of the wall to px of the room; from behind everything is mirrored. */
const place = (r: Rect): Rect => {
  const x = props.behind ? bounds.value.x + bounds.value.width - (r.x - bounds.value.x) - r.width : r.x
  return {
    x: origin.value.x + (x - bounds.value.x) * scale.value,
    y: origin.value.y + (r.y - bounds.value.y) * scale.value,
    width: r.width * scale.value,
    height: r.height * scale.value,
  }
}
const canvas = computed(() => place({ x: 0, y: 0, ...props.wall.size_mm }))
/** A rectangle of the canvas, on the wall. */
const onWall = (r: Rect): Rect => {
  const k = 1 / props.wall.density
  return place({ x: r.x * k, y: r.y * k, width: r.width * k, height: r.height * k })
}
const frame = (p: PlacedPanel): string => {
  const [o, i] = [place(outer(p)), place(p.place_mm)]
  const ring = (r: Rect) => `M${r.x} ${r.y}h${r.width}v${r.height}h${-r.width}Z`
  return `${ring(o)} ${ring(i)}`
}
const tag = (p: PlacedPanel) => `${p.id} → ${p.output === null ? 'processor' : `${p.player && several.value ? `${p.player} ` : ''}${p.output}`}`
const several = computed(() => new Set(props.wall.panels.map((p) => p.player)).size > 1)
/** Where the panel's own top points, seen from here. */
const turn = (p: PlacedPanel) => (props.behind ? 360 - p.rotation : p.rotation) % 360
const figures = computed(() => ({
  across: `${props.wall.canvas.width} px · ${plain(props.wall.size_mm.width)} mm`,
  down: `${props.wall.canvas.height} px · ${plain(props.wall.size_mm.height)} mm`,
}))
const plate = (text: string) => text.length * 7.9 + 12

// --- the hand ---------------------------------------------------------------------------

const { drag } = useDrag()
let gestures = 0
function down(e: PointerEvent, id: string | null) {
  if (e.button !== 0) return
  if (id === null || props.numbering || !props.movable || !props.chosen.has(id) || e.shiftKey) emit('choose', id, e.shiftKey)
  if (id === null || props.numbering || !props.movable || props.behind || e.shiftKey) return
  const name = `hang ${++gestures}`
  /** So far from where it was, mm. */
  let [x, y] = [0, 0]
  const put = (dx: number, dy: number) => {
    emit('move', dx - x, dy - y, name)
    ;[x, y] = [dx, dy]
  }
  drag(e, {
    move(to) {
      const [dx, dy] = [(to.clientX - e.clientX) / scale.value, (to.clientY - e.clientY) / scale.value]
      const [byX, byY] = to.altKey ? [dx - x, dy - y] : snapped(dx - x, dy - y)
      put(x + byX, y + byY)
    },
    revert: () => (x || y) && put(0, 0),
  })
}
/** Frames draw frames: what is moved joins the edges of the others within six px of the screen. */
function snapped(dx: number, dy: number): [number, number] {
  const mine = props.wall.panels.filter((p) => props.chosen.has(p.id)).map(outer)
  const others = props.wall.panels.filter((p) => !props.chosen.has(p.id)).map(outer)
  const nearest = (by: number, of: (r: Rect) => number[]) => {
    let best = by
    let least = 6 / scale.value
    for (const m of mine.flatMap(of))
      for (const o of others.flatMap(of)) {
        const off = o - (m + by)
        if (Math.abs(off) < least) [least, best] = [Math.abs(off), by + off]
      }
    return best
  }
  return [nearest(dx, (r) => [r.x, r.x + r.width]), nearest(dy, (r) => [r.y, r.y + r.height])]
}
</script>

<template>
  <div ref="room" class="room" @pointerdown.self="down($event, null)">
    <div
      v-if="display && !behind"
      class="shown"
      :style="{ left: `${canvas.x}px`, top: `${canvas.y}px`, width: `${canvas.width}px`, height: `${canvas.height}px` }"
    >
      <DisplayPicture :display="display" :at="at" bare />
    </div>
    <svg :width="width" :height="height">
      <rect v-for="(v, i) in behind ? [] : wall.voids" :key="`v${i}`" v-bind="onWall(v)" class="void" :class="{ free: wall.free }" />
      <g v-for="p in wall.panels" :key="p.id" class="panel" :class="{ on: chosen.has(p.id) }">
        <rect v-if="behind" v-bind="place(outer(p))" class="back" />
        <path :d="frame(p)" class="frame" fill-rule="evenodd" />
      </g>
      <g
        v-for="p in wall.panels"
        :key="`t${p.id}`"
        class="hit"
        role="button"
        tabindex="0"
        :aria-label="`Panel ${tag(p)}${p.rotation ? `, turned ${p.rotation} degrees` : ''}`"
        :aria-pressed="chosen.has(p.id)"
        @pointerdown="down($event, p.id)"
        @keydown.enter.prevent="$emit('choose', p.id, $event.shiftKey)"
        @keydown.space.prevent="$emit('choose', p.id, $event.shiftKey)"
      >
        <rect v-bind="place(outer(p))" fill="transparent" :class="{ chosen: chosen.has(p.id) }" />
        <g
          v-if="place(p.place_mm).width > 44"
          :transform="`translate(${place(p.place_mm).x + 5} ${place(p.place_mm).y + place(p.place_mm).height - 24})`"
        >
          <rect class="tag" :width="Math.min(plate(tag(p)) + 14, place(p.place_mm).width - 10)" height="19" />
          <text x="18" y="14">{{ tag(p) }}</text>
          <path :transform="`translate(9.5 9.5) rotate(${turn(p)})`" d="M0 5.5V-5.5M-3.5 -2L0 -5.5L3.5 -2" class="arrow" />
        </g>
      </g>
      <rect v-if="pointed && !behind" class="pointed" v-bind="onWall(pointed)" />
      <g class="dimensions" aria-hidden="true">
        <line :x1="canvas.x" :x2="canvas.x + canvas.width" :y1="canvas.y - 28" :y2="canvas.y - 28" />
        <line v-for="x in [canvas.x, canvas.x + canvas.width]" :key="x" :x1="x" :x2="x" :y1="canvas.y - 36" :y2="canvas.y - 8" />
        <g :transform="`translate(${canvas.x + canvas.width / 2} ${canvas.y - 28})`">
          <rect :x="-plate(figures.across) / 2" y="-9" :width="plate(figures.across)" height="18" />
          <text text-anchor="middle" y="4.5">{{ figures.across }}</text>
        </g>
        <line :x1="canvas.x - 28" :x2="canvas.x - 28" :y1="canvas.y" :y2="canvas.y + canvas.height" />
        <line v-for="y in [canvas.y, canvas.y + canvas.height]" :key="y" :x1="canvas.x - 36" :x2="canvas.x - 8" :y1="y" :y2="y" />
        <g :transform="`translate(${canvas.x - 28} ${canvas.y + canvas.height / 2}) rotate(-90)`">
          <rect :x="-plate(figures.down) / 2" y="-9" :width="plate(figures.down)" height="18" />
          <text text-anchor="middle" y="4.5">{{ figures.down }}</text>
        </g>
      </g>
    </svg>
    <p v-if="behind" class="note">From behind: left and right are those of whoever stands there with the cables.</p>
    <p v-else-if="numbering" class="note">Press the panels in the order of the outputs. Escape ends it.</p>
  </div>
</template>

<style scoped>
.room {
  position: relative;
  overflow: hidden;
  background: var(--ground);
  min-height: 0;
  min-width: 0;
  touch-action: none;
}
.shown {
  position: absolute;
  overflow: hidden;
  background: #000;
  pointer-events: none;
}
.shown :deep(.on-raster),
.shown :deep(.picture-now),
.shown :deep(.nothing) {
  height: 100%;
  aspect-ratio: auto !important;
}
svg {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.hit {
  pointer-events: all;
  cursor: pointer;
}
.hit:focus {
  outline: none;
}
.hit:focus-visible > rect:first-child {
  stroke: #ffd447;
  stroke-width: 3;
}
.frame {
  fill: var(--ink);
  stroke: var(--ink);
  stroke-width: 0.6;
}
.back {
  fill: var(--paper);
}
.void {
  fill: rgb(23 39 46 / 0.55);
}
/* Between panels that hang freely there is nothing but the wall of the building. */
.void.free {
  fill: var(--ground);
  stroke: var(--ground);
}
.chosen {
  stroke: var(--kelp);
  stroke-width: 3;
}
.tag {
  fill: var(--sheet);
}
text {
  font-family: var(--figures);
  font-size: 13px;
  fill: var(--kelp);
  font-weight: 700;
}
.arrow {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.pointed {
  fill: none;
  stroke: var(--warning);
  stroke-width: 3;
  stroke-dasharray: 7 4;
}
.dimensions line {
  stroke: var(--sheet);
}
.dimensions rect {
  fill: var(--sheet);
}
.note {
  position: absolute;
  left: 0;
  right: 0;
  top: 8px;
  margin: 0 auto;
  width: max-content;
  background: var(--sheet);
  padding: 2px 12px;
  font-size: 0.875rem;
}
</style>
