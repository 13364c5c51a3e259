<script setup lang="ts">
import { computed } from 'vue'
import type { Rect } from '../../ui/shelf'

/** The dimension lines of what is chosen, as on an engineering drawing: its size, and what is left to the canvas edges. */
const props = defineProps<{
  rect: Rect
  canvas: { width: number; height: number }
  scale: number
  left: number
  top: number
  mmPerPx: number | null
}>()

interface Line {
  x1: number
  y1: number
  x2: number
  y2: number
  text: string
  main: boolean
  upright: boolean
}

const figure = (px: number) => (props.mmPerPx === null ? `${px} px` : `${px} px · ${Math.round(px * props.mmPerPx)} mm`)
const X = (px: number) => props.left + px * props.scale
const Y = (px: number) => props.top + px * props.scale

const lines = computed<Line[]>(() => {
  const { rect, canvas } = props
  const y = Math.min(Y(0), Y(rect.y)) - 16
  const x = Math.min(X(0), X(rect.x)) - 24
  const across = (from: number, to: number, main: boolean): Line => ({
    x1: X(from),
    x2: X(to),
    y1: y,
    y2: y,
    text: main ? figure(to - from) : `${to - from} px`,
    main,
    upright: false,
  })
  const down = (from: number, to: number, main: boolean): Line => ({
    x1: x,
    x2: x,
    y1: Y(from),
    y2: Y(to),
    text: main ? figure(to - from) : `${to - from} px`,
    main,
    upright: true,
  })
  const list = [across(rect.x, rect.x + rect.width, true), down(rect.y, rect.y + rect.height, true)]
  if (rect.x > 0) list.push(across(0, rect.x, false))
  if (rect.x + rect.width < canvas.width) list.push(across(rect.x + rect.width, canvas.width, false))
  if (rect.y > 0) list.push(down(0, rect.y, false))
  if (rect.y + rect.height < canvas.height) list.push(down(rect.y + rect.height, canvas.height, false))
  return list.filter((l) => Math.abs(l.x2 - l.x1) + Math.abs(l.y2 - l.y1) > 14)
})
/** Where the figure stands: in the middle, but within the canvas where its line is too short for it. */
const middle = (l: Line) => {
  const half = plate(l) / 2
  const kept = (at: number, from: number, to: number) => (to - from < 2 * half ? at : Math.max(from + half, Math.min(to - half, at)))
  const [x, y] = [(l.x1 + l.x2) / 2, (l.y1 + l.y2) / 2]
  return l.upright ? `${x} ${kept(y, Y(0) - 10, Y(props.canvas.height) + 10)}` : `${kept(x, X(0) - 10, X(props.canvas.width) + 10)} ${y}`
}
const plate = (l: Line) => l.text.length * 7.9 + 10
const roomy = (l: Line) => Math.abs(l.x2 - l.x1) + Math.abs(l.y2 - l.y1) > plate(l) + 16 || l.main
</script>

<template>
  <g class="dimensions" aria-hidden="true">
    <g v-for="(l, i) in lines" :key="i">
      <line :x1="l.x1" :y1="l.y1" :x2="l.x2" :y2="l.y2" />
      <template v-if="l.upright">
        <line :x1="l.x1 - 7" :x2="l.x1 + 7" :y1="l.y1" :y2="l.y1" /><line :x1="l.x1 - 7" :x2="l.x1 + 7" :y1="l.y2" :y2="l.y2" />
        <path :d="`M${l.x1} ${l.y1} l-3 8 h6 Z M${l.x1} ${l.y2} l-3 -8 h6 Z`" />
      </template>
      <template v-else>
        <line :x1="l.x1" :x2="l.x1" :y1="l.y1 - 7" :y2="l.y1 + 7" /><line :x1="l.x2" :x2="l.x2" :y1="l.y1 - 7" :y2="l.y1 + 7" />
        <path :d="`M${l.x1} ${l.y1} l8 -3 v6 Z M${l.x2} ${l.y1} l-8 -3 v6 Z`" />
      </template>
      <g v-if="roomy(l)" :transform="`translate(${middle(l)}) ${l.upright ? 'rotate(-90)' : ''}`">
        <rect :x="-plate(l) / 2" y="-9" :width="plate(l)" height="18" />
        <text text-anchor="middle" y="4.5" :class="{ main: l.main }">{{ l.text }}</text>
      </g>
    </g>
  </g>
</template>

<style scoped>
.dimensions line {
  stroke: var(--sheet);
}
.dimensions path {
  fill: var(--sheet);
}
.dimensions rect {
  fill: var(--sheet);
}
.dimensions text {
  font-family: var(--figures);
  font-size: 13px;
  fill: var(--soft);
}
.dimensions text.main {
  fill: var(--kelp);
  font-weight: 700;
}
</style>
