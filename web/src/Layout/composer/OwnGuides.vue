<script setup lang="ts">
import { computed, ref } from 'vue'
import { useDrag } from '../../ui/drag'
import { useComposer } from './composer'

/** The designer's own lines: drawn out of a ruler, moved by hand, put back into it to take one away. And the margin that is kept free. */
const props = defineProps<{ width: number; height: number; left: number; top: number; scale: number; canvas: { width: number; height: number } }>()
const composer = useComposer()
type Axis = 'x' | 'y'
const own = computed(() => ({ x: composer.document.value.guides?.x ?? [], y: composer.document.value.guides?.y ?? [] }))
const held = ref<{ axis: Axis; index: number; px: number } | null>(null)
const { drag } = useDrag(0)
let gestures = 0

const shown = computed(() =>
  (['x', 'y'] as const).flatMap((axis) =>
    own.value[axis].map((px, index) => {
      const now = held.value?.axis === axis && held.value.index === index ? held.value.px : px
      const at = axis === 'x' ? props.left + now * props.scale : props.top + now * props.scale
      return {
        axis,
        index,
        px: now,
        ...(axis === 'x' ? { x1: at, x2: at, y1: 22, y2: props.height } : { x1: 34, x2: props.width, y1: at, y2: at }),
      }
    }),
  ),
)
const safe = computed(() => {
  const by = composer.document.value.safe ?? 0
  const [width, height] = [props.canvas.width - 2 * by, props.canvas.height - 2 * by]
  return by > 0 && width > 0 && height > 0
    ? { x: props.left + by * props.scale, y: props.top + by * props.scale, width: width * props.scale, height: height * props.scale }
    : null
})
const put = (axis: Axis, next: number[], gesture?: string) => composer.set({ guides: { ...own.value, [axis]: next } }, gesture)
const frame = (e: PointerEvent) => (e.target as SVGElement).ownerSVGElement!.getBoundingClientRect()
const at = (axis: Axis, e: PointerEvent, box: DOMRect) =>
  Math.round(axis === 'x' ? (e.clientX - box.left - props.left) / props.scale : (e.clientY - box.top - props.top) / props.scale)

/** A line that has no place yet comes out of a ruler; one that is let go in the ruler is taken away. */
function hold(axis: Axis, index: number, pressed: PointerEvent) {
  if (pressed.button !== 0) return
  pressed.preventDefault()
  pressed.stopPropagation()
  const [before, box, name] = [own.value[axis], frame(pressed), `guide ${++gestures}`]
  const isNew = index === before.length
  if (isNew) put(axis, [...before, at(axis, pressed, box)], name)
  const show = (e: PointerEvent) => (held.value = { axis, index, px: at(axis, e, box) })
  if (isNew) show(pressed)
  drag(pressed, {
    move: show,
    end(e) {
      const px = held.value?.px
      held.value = null
      const back = axis === 'x' ? e.clientX - box.left < 34 : e.clientY - box.top < 22
      const next = back ? own.value[axis].filter((_, i) => i !== index) : own.value[axis].map((one, i) => (i === index ? (px ?? one) : one))
      if (JSON.stringify(next) !== JSON.stringify(own.value[axis])) put(axis, next, name)
    },
    revert() {
      held.value = null
      if (isNew) put(axis, before, name)
    },
  })
}
const begin = (axis: Axis, e: PointerEvent) => hold(axis, own.value[axis].length, e)
defineExpose({ begin })
</script>

<template>
  <g aria-hidden="true">
    <rect v-if="safe" class="safe" v-bind="safe" />
    <g v-for="g in shown" :key="`${g.axis}${g.index}`" class="own" :class="g.axis">
      <line class="grip" :x1="g.x1" :x2="g.x2" :y1="g.y1" :y2="g.y2" @pointerdown="hold(g.axis, g.index, $event)" />
      <line class="line" :x1="g.x1" :x2="g.x2" :y1="g.y1" :y2="g.y2" />
      <text v-if="held && held.axis === g.axis && held.index === g.index" :x="g.x1 + 5" :y="g.y1 + (g.axis === 'x' ? 14 : -5)">{{ g.px }} px</text>
    </g>
  </g>
</template>

<style scoped>
.safe {
  fill: none;
  stroke: #ffffff;
  stroke-dasharray: 2 5;
}
.grip {
  stroke: transparent;
  stroke-width: 7;
  pointer-events: stroke;
}
.x .grip {
  cursor: col-resize;
}
.y .grip {
  cursor: row-resize;
}
.line {
  stroke: #7fd3ff;
  stroke-dasharray: 9 4;
  pointer-events: none;
}
text {
  font: 700 12px var(--figures);
  fill: #ffffff;
  paint-order: stroke;
  stroke: #17272e;
  stroke-width: 3px;
}
</style>
