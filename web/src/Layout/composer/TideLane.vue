<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { Piece } from '../../pane/sheet'
import { type DeskFace, cut } from '../../ui/cut'
import { useDrag } from '../../ui/drag'
import { clock, seconds } from '../../ui/format'

/** One row of the tide table: what a zone plays, to scale. Names are taken hold of to change the order, right edges to change how long it lasts. */
const props = defineProps<{
  pieces: Piece[]
  /** Ids and names of what it plays, by scene. */
  scenes: { id: string; name: string; standby?: true }[]
  from: number
  span: number
  width: number
  timezone: string
  /** Ids of the items that can be moved and stretched here. */
  movable: Set<string>
  stretchable: Set<string>
  picked: string | null
  /** Where the cell begins that takes the focus, if it is one of these. */
  focused: number | null
  /** Where a related loop begins anew, and how far this one is apart then. */
  drifts: { at: number; by: number }[]
}>()
const emit = defineEmits<{ pick: [item: string]; stretch: [item: string, ms: number]; put: [item: string, target: string] }>()

const x = (t: number) => ((t - props.from) / props.span) * props.width
/** The standby is none of them. */
const items = computed(() => props.scenes.filter((scene) => !scene.standby).length)
const NAME_PX = 46
const EDGE_PX = 16
/** What a slot leaves free beside its words, which no clip keeps within it. */
const PADDING_PX = 8
const fitting = (text: string, width: number, face: DeskFace) => cut(text, width - PADDING_PX, face, 12)
const drawn = computed(() =>
  props.pieces.map((piece) => {
    const left = Math.max(0, x(piece.from))
    const width = Math.min(props.width, x(piece.to)) - left
    const scene = piece.scene === null ? null : (props.scenes[piece.scene] ?? null)
    return {
      ...piece,
      left,
      width,
      item: scene?.id ?? null,
      name: scene ? `${scene.standby ? 'standby: ' : ''}${scene.name.replace(/\.\w+$/, '')}` : '',
      time: piece.endless ? '' : clock(piece.from, props.timezone),
      said: said(piece, scene),
      edge: scene !== null && !piece.endless && width >= EDGE_PX && piece.to < props.from + props.span && props.stretchable.has(scene.id),
    }
  }),
)

function said(piece: Piece, scene: { name: string; standby?: true } | null): string {
  if (piece.period_ms !== undefined) return round(piece.period_ms)
  const what = scene ? `${scene.standby ? 'standby: ' : ''}${scene.name}` : 'nothing'
  return `${what}, from ${clock(piece.from, props.timezone)}${piece.endless ? ', without end' : ` for ${seconds(piece.to - piece.from)}`}`
}
const round = (ms: number) => `${items.value} ${items.value === 1 ? 'item' : 'items'}, a round of ${seconds(ms)}`

const lane = useTemplateRef('lane')
const ghost = ref<{ left: number; width: number; words: string } | null>(null)

const { drag } = useDrag()
function follow(event: PointerEvent, go: (dx: number, e: PointerEvent) => void, done: (moved: boolean) => void) {
  if (event.button !== 0) return
  event.preventDefault()
  event.stopPropagation()
  const revert = () => (ghost.value = null)
  drag(event, {
    move: (e) => go(e.clientX - event.clientX, e),
    end: (_, moved) => (revert(), done(moved)),
    revert,
  })
}

/** To whole seconds, or tenths where one is wide; Alt does without. */
function stretch(event: PointerEvent, piece: (typeof drawn.value)[number]) {
  const msPerPx = props.span / Math.max(1, props.width)
  const step = event.altKey ? 1 : msPerPx > 10 ? 1000 : 100
  const length = piece.to - piece.from
  let ms = length
  follow(
    event,
    (dx) => {
      ms = Math.max(step === 1 ? 1 : 100, Math.round((length + dx * msPerPx) / step) * step)
      ghost.value = { left: piece.left, width: Math.max(2, ms / msPerPx), words: seconds(ms) }
    },
    (moved) => (moved && ms !== length ? emit('stretch', piece.item!, ms) : emit('pick', piece.item!)),
  )
}
function hold(event: PointerEvent, piece: (typeof drawn.value)[number]) {
  let target: string | null = null
  follow(
    event,
    (_, e) => {
      if (!props.movable.has(piece.item!)) return
      const at = e.clientX - lane.value!.getBoundingClientRect().left
      const over = drawn.value.find((p) => at >= p.left && at < p.left + p.width)
      target = over?.item && over.item !== piece.item && props.movable.has(over.item) ? over.item : null
      ghost.value = target && over ? { left: over.left, width: over.width, words: `${piece.name} here` } : { left: at, width: 2, words: piece.name }
    },
    (moved) => (moved && target ? emit('put', piece.item!, target) : emit('pick', piece.item!)),
  )
}
</script>

<template>
  <div ref="lane" class="lane" role="row">
    <div
      v-for="piece in drawn"
      :key="piece.from"
      class="slot"
      :class="{ shade: piece.shade, first: piece.first, many: piece.period_ms !== undefined, picked: picked !== null && piece.item === picked }"
      :style="{ left: `${piece.left}px`, width: `${piece.width}px` }"
      role="gridcell"
      :tabindex="piece.from === focused ? 0 : -1"
      :data-from="piece.from"
      :data-to="piece.to"
      :data-item="piece.item"
      :aria-label="piece.said"
      :aria-selected="picked !== null && piece.item === picked"
      :title="piece.name ? `${piece.name}, ${clock(piece.from, timezone)}` : undefined"
    >
      <template v-if="piece.period_ms !== undefined">
        <span v-if="piece.width > 130" class="soft">{{ round(piece.period_ms) }}</span>
      </template>
      <template v-else-if="piece.item !== null && piece.width > NAME_PX">
        <span class="name" :class="{ movable: movable.has(piece.item) }" @pointerdown="hold($event, piece)">{{
          fitting(piece.name, piece.width, 'words')
        }}</span><br /><span class="figures">{{ fitting(piece.time, piece.width, 'figures') === piece.time ? piece.time : '' }}</span>
      </template>
      <i v-if="piece.edge" class="edge" title="Drag: how long it lasts" @pointerdown="stretch($event, piece)"></i>
    </div>
    <div
      v-for="d in drifts"
      :key="`d${d.at}`"
      class="drift"
      :style="{ left: `${Math.min(x(d.at), x(d.at - d.by))}px`, width: `${Math.abs(x(d.at) - x(d.at - d.by))}px` }"
    >
      <span v-if="(Math.abs(d.by) / span) * width > 34" class="figures">{{ seconds(Math.abs(d.by)) }}</span>
    </div>
    <div v-if="ghost" class="ghost" :style="{ left: `${ghost.left}px`, width: `${ghost.width}px` }">
      <span class="figures">{{ ghost.words }}</span>
    </div>
  </div>
</template>

<style scoped>
.lane {
  content-visibility: auto;
  contain-intrinsic-height: 38px;
  position: relative;
  height: 38px;
  border-bottom: 1px solid #efeadd;
  contain: strict;
}
.slot {
  position: absolute;
  top: 4px;
  bottom: 3px;
  background: #f0f3ef;
  border-left: 1px solid #fff;
  padding: 0 5px;
  font-size: 0.75rem;
  line-height: 15px;
  white-space: nowrap;
}
.slot.shade {
  background: #dfe8e4;
}
.slot.many {
  background: repeating-linear-gradient(90deg, #dfe8e4 0 6px, #f0f3ef 6px 12px);
  line-height: 30px;
}
.slot.many span {
  background: var(--sheet);
  padding: 1px 6px;
}
.slot.first {
  border-left: 2px solid var(--soft);
}
.slot.picked {
  background: var(--kelp-wash);
  box-shadow: inset 0 -2px 0 var(--kelp);
}
.slot:focus-visible {
  outline: 2px solid var(--chalk);
  outline-offset: -2px;
}
.slot .figures {
  color: var(--soft);
  font-size: 0.75rem;
}
.name {
  cursor: pointer;
}
.name.movable {
  cursor: grab;
}
.edge {
  position: absolute;
  right: 0;
  top: 0;
  bottom: 0;
  width: 7px;
  cursor: col-resize;
}
.edge:hover {
  background: var(--kelp);
}
.drift {
  position: absolute;
  bottom: 0;
  height: 4px;
  border: solid var(--warning);
  border-width: 0 1px 2px;
  pointer-events: none;
}
.drift span {
  position: absolute;
  bottom: -1px;
  left: 50%;
  transform: translateX(-50%);
  white-space: nowrap;
  background: var(--sheet);
  color: var(--warning);
  font-size: 0.75rem;
  line-height: 13px;
  padding: 0 3px;
}
.ghost {
  position: absolute;
  top: 2px;
  bottom: 2px;
  border: 2px solid var(--kelp);
  pointer-events: none;
  white-space: nowrap;
}
.ghost span {
  background: var(--sheet);
  color: var(--kelp);
  padding: 1px 4px;
  font-size: 0.75rem;
}
</style>
