<script lang="ts">
import { ref } from 'vue'

const picked = ref('')
</script>

<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { useDrag } from '../ui/drag'
import ChoiceField from '../ui/ChoiceField.vue'
import MeasureField from '../ui/MeasureField.vue'
import StatePicture from './StatePicture.vue'
import { type LookTriggers, type Rect, type Signal, type Triggers, nameOf, wayAt } from './triggers'

/** The areas that are touched, on what the display shows: moved and sized by hand or typed, in px and in mm on the glass. */
const props = defineProps<{ map: Triggers; look: LookTriggers; signal: Signal & { kind: 'touch' } }>()
const emit = defineEmits<{ change: [rect: Rect, gesture?: string] }>()
const WIDE = 240
const HIGH = 300
const width = computed(() => Math.min(WIDE, (HIGH * props.look.canvas.width) / props.look.canvas.height))
const scale = computed(() => width.value / props.look.canvas.width)
const areas = computed(() => props.map.signals.filter((one): one is Signal & { kind: 'touch' } => one.kind === 'touch'))
/** Over which state it is drawn: one in which it is answered, unless another is chosen, then that for all of them. */
const over = computed(() => {
  if (props.map.states.some(({ id }) => id === picked.value)) return picked.value
  const answered = props.map.states.filter(({ id }) => wayAt(props.map, id, props.signal.id) >= 0).map(({ id }) => id)
  return props.map.states.find(({ id, zone, plays }) => answered.includes(id) && plays && zone)?.id ?? answered[0] ?? props.map.rest
})
const mm = (px: number) => (props.look.on ? `${(px * props.look.on.mm_per_px).toFixed(1)} mm` : '')

const { drag } = useDrag(2)
const box = useTemplateRef('box')
const whole = (rect: Rect): Rect => {
  const { width: w, height: h } = props.look.canvas
  const [width_, height_] = [Math.max(8, Math.min(Math.round(rect.width), w)), Math.max(8, Math.min(Math.round(rect.height), h))]
  return {
    x: Math.max(0, Math.min(w - width_, Math.round(rect.x))),
    y: Math.max(0, Math.min(h - height_, Math.round(rect.y))),
    width: width_,
    height: height_,
  }
}
function take(event: PointerEvent, sizes: boolean) {
  event.preventDefault()
  const before = { ...props.signal.rect }
  const { clientX, clientY } = event
  drag(event, {
    move: (e) => {
      const [dx, dy] = [(e.clientX - clientX) / scale.value, (e.clientY - clientY) / scale.value]
      const next = sizes ? { ...before, width: before.width + dx, height: before.height + dy } : { ...before, x: before.x + dx, y: before.y + dy }
      emit('change', whole(next), 'drag')
    },
    revert: () => emit('change', before, 'drag'),
  })
}
function keys(event: KeyboardEvent) {
  const step = event.shiftKey ? 10 : 1
  const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key]
  if (!by) return
  event.preventDefault()
  const { rect } = props.signal
  emit('change', whole({ ...rect, x: rect.x + by[0]!, y: rect.y + by[1]! }), 'arrows')
}
const put = (part: Partial<Rect>, gesture?: string) => emit('change', whole({ ...props.signal.rect, ...part }), gesture)
const SIDES = ['x', 'y', 'width', 'height'] as const
</script>

<template>
  <div class="touch">
    <div ref="box" class="areas" :style="{ width: `${width}px` }">
      <StatePicture :look="look" :state="over" :width="width" />
      <div
        v-for="one in areas"
        :key="one.id"
        class="area"
        :class="{ own: one.id === signal.id }"
        :style="{
          left: `${one.rect.x * scale}px`,
          top: `${one.rect.y * scale}px`,
          width: `${one.rect.width * scale}px`,
          height: `${one.rect.height * scale}px`,
        }"
        :tabindex="one.id === signal.id ? 0 : undefined"
        :role="one.id === signal.id ? 'group' : undefined"
        :aria-label="one.id === signal.id ? `Area of ${nameOf(one)}; arrows move it` : undefined"
        @pointerdown="one.id === signal.id && take($event, false)"
        @keydown="one.id === signal.id && keys($event)"
      >
        <span v-if="one.id === signal.id" class="corner" @pointerdown.stop="take($event, true)"></span>
        <span v-else class="small name">{{ nameOf(one) }}</span>
      </div>
    </div>
    <div class="figures">
      <ChoiceField label="Drawn over" :value="over" :options="map.states.map(({ id }) => id)" @change="picked = $event" />
      <template v-for="side in SIDES" :key="side">
        <span class="side">{{ side }}</span>
        <MeasureField
          :label="side"
          :value="signal.rect[side]"
          unit="px"
          :decimals="0"
          :most="100000"
          @change="(value, gesture) => put({ [side]: value }, gesture)"
        />
        <span class="soft">{{ mm(signal.rect[side]) }}</span>
      </template>
    </div>
  </div>
</template>

<style scoped>
.touch {
  display: flex;
  gap: 14px;
  align-items: flex-start;
}
.areas {
  position: relative;
  background: var(--ground);
  flex: none;
}
.area {
  position: absolute;
  border: 1px dashed var(--sheet);
  outline: 1px dashed var(--ink);
}
.area.own {
  border: 2px solid var(--kelp);
  outline: 1px solid var(--sheet);
  background: rgb(20 102 91 / 22%);
  cursor: move;
  touch-action: none;
}
.name {
  background: var(--sheet);
  padding: 0 3px;
}
.corner {
  position: absolute;
  right: -7px;
  bottom: -7px;
  width: 14px;
  height: 14px;
  background: var(--kelp);
  border: 2px solid var(--sheet);
  cursor: nwse-resize;
  touch-action: none;
}
.figures {
  display: grid;
  grid-template-columns: 46px 116px 1fr;
  gap: 6px 10px;
  align-items: baseline;
}
.figures > :first-child {
  grid-column: 1 / -1;
}
</style>
