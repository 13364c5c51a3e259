<script setup lang="ts">
import { computed, shallowRef } from 'vue'
import { useDrag } from '../../ui/drag'
import type { Rect } from '../../ui/shelf'
import type { Border } from '../division'
import { useComposer } from './composer'

/** The borders between zones: dragged, or moved with the arrows where one has the focus, with all that share them. */
const props = defineProps<{
  borders: Border[]
  left: number
  top: number
  scale: number
  /** Where a border at this px of the canvas is drawn to. */
  snapped: (side: 'x' | 'y', at: number, without: string[]) => number
}>()
const composer = useComposer()
const dragged = shallowRef<{ border: Border; at: number } | null>(null)
const { drag } = useDrag()
let gestures = 0

const lines = computed(() =>
  props.borders.map((b) => {
    const at = (dragged.value?.border === b ? dragged.value.at : b.at) + b.gap / 2
    const along = [b.from, b.to]
    const px = b.between === 'columns' ? { x: props.left, y: props.top } : { x: props.top, y: props.left }
    const [a, c, d] = [px.x + at * props.scale, px.y + along[0]! * props.scale, px.y + along[1]! * props.scale]
    return {
      border: b,
      key: `${b.between} ${b.before.join()}`,
      ...(b.between === 'columns' ? { x1: a, x2: a, y1: c, y2: d } : { x1: c, x2: d, y1: a, y2: a }),
    }
  }),
)
const rectsAt = (b: Border, by: number, start: Map<string, Rect>) => {
  const wide = b.between === 'columns'
  const moved = new Map<string, Rect>()
  for (const [id, r] of start) {
    if (b.before.includes(id)) moved.set(id, wide ? { ...r, width: r.width + by } : { ...r, height: r.height + by })
    else moved.set(id, wide ? { ...r, x: r.x + by, width: r.width - by } : { ...r, y: r.y + by, height: r.height - by })
  }
  return moved
}
const held = (b: Border, at: number) => Math.max(b.least, Math.min(b.most, Math.round(at)))
const startOf = (b: Border) =>
  new Map(composer.elements.value.filter((e) => b.before.includes(e.id) || b.behind.includes(e.id)).map((e) => [e.id, e.rect] as const))

function down(b: Border, pressed: PointerEvent) {
  if (pressed.button !== 0) return
  pressed.preventDefault()
  ;(pressed.target as SVGElement).focus({ preventScroll: true })
  const [start, name, wide] = [startOf(b), `border ${++gestures}`, b.between === 'columns']
  const along = (e: PointerEvent) => (wide ? e.clientX : e.clientY)
  const put = (at: number) => {
    dragged.value = { border: b, at }
    composer.place(rectsAt(b, at - b.at, start), name)
  }
  const over = () => {
    dragged.value = null
    composer.moving.value = false
  }
  dragged.value = { border: b, at: b.at }
  composer.moving.value = true
  drag(pressed, {
    move(e) {
      const free = b.at + (along(e) - along(pressed)) / props.scale
      const at = held(b, e.altKey ? free : props.snapped(wide ? 'x' : 'y', Math.round(free), [...b.before, ...b.behind]))
      if (at !== dragged.value?.at) put(at)
    },
    end() {
      const isElsewhere = dragged.value?.at !== b.at
      over()
      if (isElsewhere) settle(name)
    },
    revert() {
      if (dragged.value?.at !== b.at) put(b.at)
      over()
    },
  })
}
/** The zones lie where the hand left them; the recipe is told anew, as part of the same step. */
const settle = (gesture: string) => void composer.tell({ do: 'follow' }, gesture)

function key(b: Border, e: KeyboardEvent) {
  const by = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[e.key]
  const across = b.between === 'columns' ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown']
  if (!by || !across.includes(e.key)) return
  e.preventDefault()
  e.stopPropagation()
  const at = held(b, b.at + by * (e.shiftKey ? 10 : 1))
  const name = `border key ${b.between} ${b.before.join()}`
  composer.place(rectsAt(b, at - b.at, startOf(b)), name)
  settle(name)
}
const words = (b: Border) => `Border between ${b.before.join(', ')} and ${b.behind.join(', ')}`
</script>

<template>
  <g class="borders">
    <template v-for="l in lines" :key="l.key">
      <line class="line" :class="{ on: dragged?.border === l.border }" :x1="l.x1" :x2="l.x2" :y1="l.y1" :y2="l.y2" />
      <line
        class="grip"
        role="separator"
        tabindex="0"
        :aria-label="words(l.border)"
        :aria-orientation="l.border.between === 'columns' ? 'vertical' : 'horizontal'"
        :aria-valuenow="l.border.at"
        :aria-valuemin="l.border.least"
        :aria-valuemax="l.border.most"
        :x1="l.x1"
        :x2="l.x2"
        :y1="l.y1"
        :y2="l.y2"
        :style="{ cursor: l.border.between === 'columns' ? 'col-resize' : 'row-resize' }"
        @pointerdown.stop="down(l.border, $event)"
        @keydown="key(l.border, $event)"
      >
        <title>{{ words(l.border) }}: drag it, or move it with the arrows</title>
      </line>
    </template>
  </g>
</template>

<style scoped>
.line {
  stroke: none;
  pointer-events: none;
}
.line:has(+ .grip:hover),
.line:has(+ .grip:focus-visible),
.line.on {
  stroke: var(--kelp);
  stroke-width: 3;
}
.grip {
  stroke: transparent;
  stroke-width: 9;
  pointer-events: stroke;
  outline: none;
}
</style>
