<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { DisplayState } from '../Estate/estate'
import { clock } from '../ui/format'
import { type Rehearsal, pictureTimes } from './rehearsal'
import RehearsedPicture from './RehearsedPicture.vue'

/** A span of one display as a strip: what plays as a thick line, and below it pictures at even steps. */
const props = defineProps<{ display: DisplayState; told: Rehearsal; from: number; to: number }>()
const emit = defineEmits<{ at: [instant: number] }>()

const HEIGHT = 56
const bed = useTemplateRef('bed')
const { width } = useElementSize(bed)
const pictureWidth = computed(() => Math.min(132, Math.max(18, (HEIGHT * props.display.raster.width) / props.display.raster.height)))
const times = computed(() => pictureTimes(props.from, props.to, Math.floor(width.value / Math.max(38, pictureWidth.value + 8))))
const share = (t: number) => (Math.max(props.from, Math.min(props.to, t)) - props.from) / (props.to - props.from)
/** The same layout has the same shade wherever it comes. */
const shades = computed(() => {
  const names = [...new Set(whole.value.filter((s) => props.told.source?.kind !== 'schedule' || s.booking !== null).map((s) => s.name))]
  return new Map(names.map((name, n) => [name, n % 4]))
})
const whole = computed(() => props.told.course.filter((s) => s.zone === null))
const plays = computed(() =>
  whole.value.map((s) => {
    const [left, right] = [share(Date.parse(s.from)), share(Date.parse(s.to))]
    return {
      ...s,
      left,
      width: right - left,
      look: s.kind === 'nothing' ? 'dark' : props.told.source?.kind === 'schedule' && s.booking === null ? 'standby' : `s${shades.value.get(s.name)}`,
    }
  }),
)
</script>

<template>
  <div ref="bed" class="strip">
    <div
      v-for="p in plays"
      :key="p.from"
      class="plays"
      :class="p.look"
      :style="{ left: `${p.left * 100}%`, width: `${p.width * 100}%` }"
      :title="`${p.name || 'nothing'}, from ${clock(Date.parse(p.from), told.timezone)}: ${p.why}`"
    >
      <span>{{ p.name || 'nothing' }}</span>
    </div>
    <button
      v-for="t in width > 0 ? times : []"
      :key="t"
      type="button"
      class="picture"
      :style="{ left: `${share(t) * 100}%`, width: `${pictureWidth}px` }"
      :aria-label="`${display.name} at ${clock(t, told.timezone)}`"
      @click.stop="emit('at', t)"
    >
      <RehearsedPicture :display="display" :file="told.release" :at="t" />
      <span class="figures">{{ clock(t, told.timezone, to - from < 3_600_000) }}</span>
    </button>
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  height: 104px;
}
.plays {
  position: absolute;
  top: 5px;
  height: 21px;
  padding: 1px 6px;
  font-size: 0.8125rem;
  line-height: 19px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  color: #fffdf8;
  border-right: 1px solid var(--sheet);
}
.plays.standby {
  background: #2e3b44;
}
.plays.dark {
  background: repeating-linear-gradient(135deg, #fffdf8 0 5px, #d9d3c3 5px 7px);
  color: var(--ink);
}
.plays.dark span {
  background: var(--sheet);
  padding: 0 4px;
}
.plays.s0 {
  background: #2a6f61;
}
.plays.s1 {
  background: #2f5d8a;
}
.plays.s2 {
  background: #855a12;
}
.plays.s3 {
  background: #6a4a7c;
}
.picture {
  position: absolute;
  top: 30px;
  padding: 0;
  border: 0;
  background: none;
  font-size: 0.75rem;
  line-height: 14px;
  color: var(--soft);
  text-align: left;
}
.picture:hover {
  color: var(--ink);
  text-decoration: underline;
}
</style>
