<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { MediaState } from '../../Media/media'
import { useAnswer } from '../../ui/answer'
import { api, sentence } from '../../ui/api'
import { size } from '../../ui/format'

/** Which part of a picture is taken, in the shape of its place: dragged, or moved with the arrows. */
const props = defineProps<{ media: MediaState; shape: { width: number; height: number } }>()
const emit = defineEmits<{ cut: [media: MediaState]; whole: []; close: [] }>()
const queries = useQueryClient()
const open = computed({ get: () => true, set: (is) => is || emit('close') })
const whole = computed(() => ({ width: props.media.width ?? 1, height: props.media.height ?? 1 }))
/** How much of the largest part that there is, from 1 down. */
const share = ref(1)
const middle = ref<[number, number]>([0.5, 0.5])
const part = computed(() => {
  const { width, height } = whole.value
  const most = Math.min(width / props.shape.width, height / props.shape.height) * share.value
  const box = { width: Math.max(1, Math.round(props.shape.width * most)), height: Math.max(1, Math.round(props.shape.height * most)) }
  const at = (side: number, part_: number, share_: number) => Math.round(Math.min(Math.max(side * share_ - part_ / 2, 0), side - part_))
  return { x: at(width, box.width, middle.value[0]), y: at(height, box.height, middle.value[1]), ...box }
})
/** What the core says of it once the hand rests. */
const { answer: seen } = useAnswer(
  () => ({ part: part.value, box: { width: Math.round(props.shape.width), height: Math.round(props.shape.height) } }),
  (asked, signal) => api.post<{ lost: number; scale: number; soft: boolean }>(`media/${props.media.id}/cut/look`, asked, signal),
)
const percent = (n: number, of: number) => `${(100 * n) / of}%`
const STEP = 0.02
function move(dx: number, dy: number) {
  const half = [part.value.width / whole.value.width / 2, part.value.height / whole.value.height / 2] as const
  const within = (at: number, edge: number) => Math.min(Math.max(at, edge), 1 - edge)
  middle.value = [within(middle.value[0] + dx, half[0]), within(middle.value[1] + dy, half[1])]
}
function key(e: KeyboardEvent) {
  const way = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] }[e.key]
  if (!way) return
  e.preventDefault()
  move(way[0]!, way[1]!)
}
function drag(e: PointerEvent) {
  if (!(e.buttons & 1)) return
  const box = (e.currentTarget as HTMLElement).parentElement!.getBoundingClientRect()
  move(e.movementX / box.width, e.movementY / box.height)
}
const busy = ref(false)
const trouble = ref('')
async function cut() {
  ;[busy.value, trouble.value] = [true, '']
  try {
    const made = await api.post<MediaState>(`media/${props.media.id}/cut`, part.value)
    await queries.invalidateQueries({ queryKey: ['media'] })
    emit('cut', made)
  } catch (e) {
    trouble.value = sentence(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BModal v-model="open" no-close-on-backdrop title="Which part of it" size="lg" no-footer>
    <div class="board">
      <img :src="media.url ?? ''" :alt="media.name" draggable="false" />
      <button
        type="button"
        class="part"
        aria-label="The part that is taken; arrows move it"
        :style="{
          left: percent(part.x, whole.width),
          top: percent(part.y, whole.height),
          width: percent(part.width, whole.width),
          height: percent(part.height, whole.height),
        }"
        @keydown="key"
        @pointerdown="($event.currentTarget as HTMLElement).setPointerCapture($event.pointerId)"
        @pointermove="drag"
      ></button>
    </div>
    <p class="figures soft my-2" role="status">
      {{ size(part) }} of {{ size(whole) }} px<template v-if="seen"
        >, {{ Math.round(100 * seen.lost) }} % is left out{{
          seen.soft ? `; it is drawn at ${seen.scale.toFixed(2)} times its size and looks soft` : ''
        }}</template
      >
    </p>
    <label class="larger"
      >Smaller part
      <input v-model.number="share" type="range" min="0.2" max="1" step="0.01" aria-label="How large the part is" @input="move(0, 0)" /> larger</label
    >
    <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
    <div class="acts">
      <BButton variant="primary" :disabled="busy" @click="cut">Take this part</BButton>
      <BButton variant="outline-dark" :disabled="busy" @click="emit('whole')">Take it whole</BButton>
    </div>
  </BModal>
</template>

<style scoped>
.board {
  position: relative;
  width: fit-content;
  margin: 0 auto;
  background: var(--ground);
  overflow: hidden;
}
.board img {
  display: block;
  max-width: 100%;
  max-height: 56vh;
  user-select: none;
}
.part {
  position: absolute;
  border: 2px solid var(--sheet);
  outline: 2px solid var(--kelp);
  outline-offset: 0;
  box-shadow: 0 0 0 2000px rgb(23 39 46 / 55%);
  background: none;
  padding: 0;
  cursor: move;
  touch-action: none;
}
.part:focus-visible {
  outline: 3px solid var(--chalk);
}
.larger {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--soft);
}
.larger input {
  flex: 1;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
</style>
