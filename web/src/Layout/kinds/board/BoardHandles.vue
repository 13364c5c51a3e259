<script setup lang="ts">
import { computed } from 'vue'
import { useDrag } from '../../../ui/drag'
import { useComposer } from '../../composer/composer'
import type { Analysis, BoardElement } from '../../designs'
import { pagesOf, resized } from './pattern'

/** On the pane, over the first row of a board: how long it is, and how far the next one is away. Rows, pages and seconds follow while one drags. */
const props = defineProps<{ one: BoardElement; analysis: Analysis | null; view: { scale: number; left: number; top: number } }>()
const composer = useComposer()
const { drag, isDragging } = useDrag()
const isDown = computed(() => props.one.direction !== 'across')
const side = computed(() => (isDown.value ? 'height' : 'width'))
const own = computed(() => props.one.pattern.size[side.value])
const gap = computed(() => props.one.gap ?? 0)
const place = computed(() => {
  const { scale, left, top } = props.view
  const { x, y } = props.one.rect
  return {
    x: left + scale * x,
    y: top + scale * (y + (props.one.header?.height ?? 0)),
    width: scale * props.one.pattern.size.width,
    height: scale * props.one.pattern.size.height,
  }
})
/** Where each is taken hold of: the end of the first row, and the beginning of the second. */
const ends = computed(() => {
  const { x, y, width, height } = place.value
  const next = props.view.scale * gap.value
  return isDown.value
    ? { row: { x: x + width / 3, y: y + height }, gap: { x: x + (2 * width) / 3, y: y + height + next } }
    : { row: { x: x + width, y: y + height / 3 }, gap: { x: x + width + next, y: y + (2 * height) / 3 } }
})
const told = computed(() => props.analysis?.boards[props.one.id])
const words = computed(() => (told.value ? `${own.value} px · ${pagesOf(told.value)}` : ''))

function take(what: 'row' | 'gap', event: PointerEvent) {
  event.stopPropagation()
  event.preventDefault()
  const before = props.one
  const from = what === 'row' ? own.value : gap.value
  const gesture = `${what} of ${before.id} ${event.timeStamp}`
  const along = (e: PointerEvent) => (isDown.value ? e.clientY - event.clientY : e.clientX - event.clientX) / props.view.scale
  const put = (px: number) =>
    composer.edit<BoardElement>(
      before.id,
      what === 'row' ? { pattern: resized(before.pattern, side.value, px) } : { gap: Math.max(0, Math.round(px)) || undefined },
      gesture,
    )
  composer.moving.value = true
  drag(event, {
    move: (e) => put(from + along(e)),
    end: () => (composer.moving.value = false),
    revert: () => {
      composer.edit<BoardElement>(before.id, { pattern: before.pattern, gap: before.gap }, gesture)
      composer.moving.value = false
    },
  })
}
</script>

<template>
  <g class="board-handles">
    <rect class="first" v-bind="place" />
    <g
      :transform="`translate(${ends.row.x} ${ends.row.y})`"
      :style="{ cursor: isDown ? 'ns-resize' : 'ew-resize' }"
      @pointerdown="take('row', $event)"
    >
      <rect x="-12" y="-12" width="24" height="24" fill="transparent" />
      <circle r="6" />
      <title>How long one row is</title>
    </g>
    <g
      :transform="`translate(${ends.gap.x} ${ends.gap.y})`"
      :style="{ cursor: isDown ? 'ns-resize' : 'ew-resize' }"
      @pointerdown="take('gap', $event)"
    >
      <rect x="-12" y="-12" width="24" height="24" fill="transparent" />
      <path d="M-6 0L0 -6L6 0L0 6Z" />
      <title>How far the next row is away</title>
    </g>
    <g v-if="isDragging && words" class="plate" :transform="`translate(${place.x + 6} ${place.y + place.height - 24})`">
      <rect width="1" height="20" :style="{ width: `${words.length * 7.4 + 12}px` }" />
      <text x="6" y="14">{{ words }}</text>
    </g>
  </g>
</template>

<style scoped>
.board-handles > g {
  pointer-events: all;
}
.first {
  fill: none;
  stroke: var(--kelp);
  stroke-dasharray: 5 4;
  pointer-events: none;
}
circle,
path {
  fill: var(--sheet);
  stroke: var(--kelp);
  stroke-width: 2;
}
.board-handles > .plate {
  pointer-events: none;
}
.plate rect {
  fill: var(--sheet);
}
.plate text {
  font-family: var(--figures);
  font-size: 12px;
  fill: var(--ink);
}
</style>
