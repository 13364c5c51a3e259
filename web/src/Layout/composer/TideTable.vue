<script setup lang="ts">
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { type Layer, type ZoneLayer, driftsBetween, isZone, piecesBetween } from '../../pane/sheet'
import { type ItemAct, itemActs } from '../../Time/itemEdits'
import { sentence } from '../../ui/api'
import { useHandTaken } from '../../ui/handTaken'
import { clock, seconds } from '../../ui/format'
import { vKept } from '../../ui/kept'
import { type Cell, nearest, nextCell } from '../../ui/roving'
import StepBar from '../../ui/StepBar.vue'
import type { Analysis, Element, Item, ZoneElement } from '../designs'
import { leaderOf, zonesAmong } from '../kinds/zone/zone'
import { useComposer } from './composer'
import { useHand } from './hand'
import { SPANS, instantTyped, spanWords, ticksBetween, zoomed } from './tide'
import TideItem from './TideItem.vue'
import TideLane from './TideLane.vue'

/** Wall-clock time from left to right: a row for each zone, where loops meet, and the hand. From a second to a week. */
const props = defineProps<{
  analysis: Analysis
  elements: Element[]
  timezone: string
  chosen: Set<string>
}>()
const emit = defineEmits<{ choose: [zone: string] }>()
const hand = useHand()
const composer = useComposer()
const { at, running } = hand

/** Folded to one line, the pane has the room. */
const folded = useLocalStorage('upper-pane:tide-folded', false)
const span = ref(150_000)
const from = ref(0)
const bed = useTemplateRef('bed')
const tide = useTemplateRef('tide')
const { width } = useElementSize(bed)
const to = computed(() => from.value + span.value)
const x = (t: number) => ((t - from.value) / span.value) * width.value

// The window stays where it is until the hand leaves it.
watch(
  at,
  (now) => {
    if (now >= from.value && now <= from.value + span.value * 0.92) return
    const step = span.value / 30
    from.value = Math.floor((now - span.value * 0.3) / step) * step
  },
  { immediate: true },
)
/** What is under the pointer, or the hand, stays where it is. */
function zoom(closer: boolean, around = at.value) {
  const next = zoomed(span.value, closer)
  from.value = Math.round(around - ((around - from.value) / span.value) * next)
  span.value = next
}
function zoomTo(next: number) {
  from.value = Math.round(at.value - ((at.value - from.value) / span.value) * next)
  span.value = next
}
/** The window goes on; the hand stays within it. */
function shift(ms: number) {
  running.value = false
  from.value += ms
  hand.to(Math.round(Math.max(from.value, Math.min(at.value, from.value + span.value * 0.92))))
}
function wheel(event: WheelEvent) {
  const left = bed.value!.getBoundingClientRect().left
  if (event.ctrlKey) {
    event.preventDefault()
    zoom(event.deltaY < 0, from.value + ((event.clientX - left) / Math.max(1, width.value)) * span.value)
  } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
    event.preventDefault()
    shift(((event.deltaX || event.deltaY) / Math.max(1, width.value)) * span.value)
  }
}

const ticks = computed(() => ticksBetween(from.value, to.value, width.value || 1000, props.timezone))
const zoneOf = (id: string) => zonesAmong(props.elements).find((e) => e.id === id) ?? null
const nameOf = (zone: string) => props.elements.find((e) => e.id === zone)?.name ?? zone
/** What the first row of a page tells. */
function firstTold(scene: Layer[]): string {
  const told = scene.flatMap((layer) => ('part' in layer && 'text' in layer.part && layer.part.row !== undefined ? [layer.part] : []))
  const first = Math.min(...told.map((part) => part.row!))
  return told
    .filter((part) => part.row === first)
    .slice(0, 2)
    .map((part) => part.text)
    .join(' ')
}
/** What the first words in a scene say. */
function saidIn(scene: Layer[]): string {
  const said = scene.find((layer) => 'part' in layer && 'text' in layer.part)
  return said && 'part' in said && 'text' in said.part ? String(said.part.text) : ''
}
/** What takes turns by a list, or by rows of data that fill pages; what is told over a row alone has no lane. */
const layers = computed(() => {
  const seen = new Set<string>()
  return props.analysis.run_sheet.layers.filter((layer): layer is ZoneLayer => {
    const isFirst = isZone(layer) && !seen.has(layer.zone)
    if (isFirst) seen.add(layer.zone)
    return isFirst && (zoneOf(layer.zone) !== null || layer.zone in props.analysis.boards)
  })
})
const none = new Set<string>()
/** Loops of as many items that are not equally long, as the checks find them: the second drifts against the first. */
function driftsOf(zone: ZoneLayer) {
  const found = props.analysis.findings.find((f) => f.code === 'loop.drift' && f.elements[0] === zone.zone)
  const leader = layers.value.find((l) => l.zone === found?.elements[1])
  if (!leader?.period_ms || (leader.period_ms / span.value) * width.value < 60) return []
  return driftsBetween(leader, zone, props.analysis.run_sheet.anchor_ms, from.value, to.value)
}
/** What a lane plays: by the names of its items, of what rows make of them, or of the pages of a board. */
function scenesOf(zone: ZoneLayer): { id: string; name: string; standby?: true }[] {
  const playing = props.analysis.playing[zone.zone]
  if (!playing) return zone.scenes.map((scene, n) => ({ id: `${n}`, name: firstTold(scene) }))
  if (!playing.row_by_row) return playing.scenes
  // Of rows those alone are in the sheet that are gone through.
  const standby = playing.scenes.find((scene) => scene.standby)
  return zone.scenes.map((scene) => {
    const first = scene[0]
    const item = first && 'part' in first ? first.part.item : undefined
    const known = playing.scenes.find((one) => one.id === item && !one.standby)
    if (!known) return standby ?? { id: '', name: '' }
    return playing.row_by_row!.includes(known.id) ? { id: known.id, name: saidIn(scene) || known.name } : known
  })
}
const rows = computed(() =>
  layers.value.map((zone) => {
    const scenes = scenesOf(zone)
    const element = zoneOf(zone.zone)
    const leader = leaderOf(element ?? undefined, props.elements)
    const own = element && 'items' in element.playlist ? new Set(element.playlist.items.map((i) => i.id)) : none
    const loop = zone.segments.length === 0 ? 'nothing to play' : zone.period_ms === null ? 'without end' : seconds(zone.period_ms)
    return {
      id: zone.zone,
      // What a lane shows; as long as it stays the same the lane is not drawn anew, though the hand moves at every frame.
      key: `${zone.period_ms} ${zone.segments.map((s) => `${s.start_ms}:${s.scene}`).join()} ${scenes.map((s) => s.name).join()} ${zone.turns?.length ?? 0} ${leader?.id} ${[...own].join()}`,
      loop,
      scenes,
      movable: own,
      stretchable: leader ? none : own,
      pieces: piecesBetween(zone, props.analysis.run_sheet.anchor_ms, from.value, to.value, width.value / span.value),
      drifts: driftsOf(zone),
    }
  }),
)
const picked = ref<{ zone: string; item: string } | null>(null)
const pickedZone = computed(() => (picked.value ? zoneOf(picked.value.zone) : null))
const pickedName = computed(() => rows.value.find((r) => r.id === picked.value?.zone)?.scenes.find((s) => s.id === picked.value?.item)?.name ?? '')
function pick(zone: string, item: string) {
  picked.value = { zone, item }
  emit('choose', zone)
}
/** Of the list of a zone, one act after the other; of a list that is saved apart there are none. */
const acts = new Map<string, ReturnType<typeof itemActs>>()
function act(zone: string, what: ItemAct) {
  const listOf = () => {
    const list = zoneOf(zone)?.playlist
    return list && 'items' in list ? list : null
  }
  if (!listOf()) return
  if (!acts.has(zone)) {
    const put = (items: Item[]) => composer.edit<ZoneElement>(zone, { playlist: { ...listOf()!, items } })
    const taken = () => {
      const between = listOf()?.interleave
      return between?.items?.map((i) => i.id) ?? []
    }
    acts.set(
      zone,
      itemActs(() => listOf()?.items ?? [], put, taken),
    )
  }
  acts.get(zone)!(what).catch((e: unknown) => (composer.notice.value = { wrong: true, said: [sentence(e)] }))
}
function stretch(id: string, item: string, ms: number) {
  act(id, { do: 'last', item, ms })
  pick(id, item)
}
function reorder(id: string, item: string, target: string) {
  act(id, { do: 'put', item, target })
  pick(id, item)
}
/** Zones whose loops come round: one alone, or none, meets nothing. */
const looping = computed(() => layers.value.filter((l) => zoneOf(l.zone) && l.segments.length > 0 && l.period_ms !== null).length)
const meets = computed(() => {
  const every = props.analysis.meets_every_ms
  const list: number[] = []
  if (!every || looping.value < 2 || every < span.value / 60) return list
  const anchor = props.analysis.run_sheet.anchor_ms
  for (let t = anchor + Math.ceil((from.value - anchor) / every) * every; t < to.value; t += every) list.push(t)
  return list
})
/** Whether there is room to write the time beside each line at which loops meet. */
const MEET_PX = 84
const roomy = computed(() => ((props.analysis.meets_every_ms ?? 0) / span.value) * width.value >= MEET_PX)
const meetsWords = computed(() => {
  if (looping.value < 2) return ''
  const every = props.analysis.meets_every_ms
  return every
    ? `loops meet every ${every >= 3_600_000 ? `${(every / 3_600_000).toFixed(1)} h` : every >= 120_000 ? `${(every / 60_000).toFixed(1)} min` : seconds(every)}`
    : 'loops never meet within a year'
})

const take = useHandTaken(hand, (e) => {
  const left = bed.value!.getBoundingClientRect().left
  return Math.round(from.value + (Math.max(0, Math.min(width.value, e.clientX - left)) / Math.max(1, width.value)) * span.value)
})
function typed(event: Event) {
  const field = event.target as HTMLInputElement
  const instant = instantTyped(field.value, at.value, props.timezone)
  field.setCustomValidity(instant === null ? 'A time such as 14:03 or 14:03:20, or a day and a time such as 2026-12-01 14:03.' : '')
  if (!field.reportValidity() || instant === null) return
  hand.to(instant)
  field.value = clock(instant, props.timezone)
}
function keys(event: KeyboardEvent) {
  if (event.key === '+' || event.key === '-') {
    event.preventDefault()
    event.stopPropagation()
    return zoom(event.key === '+')
  }
  const forward = event.key === 'ArrowRight'
  if (!forward && event.key !== 'ArrowLeft') return
  event.preventDefault()
  event.stopPropagation()
  if (event.shiftKey) hand.toChange(forward)
  else hand.to(at.value + (forward ? 1000 : -1000))
}

// --- what plays, by keyboard ------------------------------------------------------------------

const grid = useTemplateRef('grid')
interface Slot extends Cell {
  element: HTMLElement
}
/** Where the cell is that Tab leads to: where one was last, else what is due in the first row. */
const cell = ref<{ zone: string; from: number } | null>(null)
const focused = computed(() => {
  const there = rows.value.find((row) => row.id === cell.value?.zone)?.pieces.some((piece) => piece.from === cell.value!.from)
  if (there) return cell.value
  const first = rows.value.find((row) => row.pieces.length)
  const due = first?.pieces.find((piece) => piece.from <= at.value && at.value < piece.to) ?? first?.pieces[0]
  return first && due ? { zone: first.id, from: due.from } : null
})
const slots = (): Slot[][] =>
  [...grid.value!.querySelectorAll('.lane')].map((lane, row) =>
    [...lane.querySelectorAll<HTMLElement>('.slot')].map((element) => ({
      row,
      from: Number(element.dataset.from),
      to: Number(element.dataset.to),
      element,
    })),
  )
async function focus(row: number, at: Pick<Cell, 'from' | 'to'>) {
  await nextTick()
  const there = slots()[row]
  if (!there?.length) return
  const { from, element } = nearest(there, at)
  cell.value = { zone: rows.value[row]!.id, from }
  element.focus()
}
function walk(event: KeyboardEvent) {
  const element = (event.target as HTMLElement).closest<HTMLElement>('.slot')
  const there = slots()
  const here = there.flat().find((slot) => slot.element === element)
  if (!here) return
  const { id, movable } = rows.value[here.row]!
  const item = here.element.dataset.item
  const { key } = event
  const forward = key === 'ArrowRight' || key === 'PageDown'
  if (key === 'Enter' && item) {
    if (event.shiftKey) hand.to(here.from)
    pick(id, item)
    void nextTick(() => tide.value?.querySelector<HTMLElement>('.picked input, .picked button')?.focus())
  } else if (key.startsWith('Arrow') && event.altKey) {
    if (item && movable.has(item) && (forward || key === 'ArrowLeft')) {
      moved = { ...here, item }
      act(id, { do: 'move', item, by: forward ? 1 : -1 })
    }
  } else if (key.startsWith('Page')) {
    shift(forward ? span.value : -span.value)
    void focus(here.row, { from: from.value, to: from.value + 1 })
  } else if (key.startsWith('Arrow') || key === 'Home' || key === 'End') {
    const next = nextCell(there, here, key, event.ctrlKey)
    if (next) void focus(next.row, next)
    else if (key === 'ArrowLeft' || key === 'ArrowRight') {
      // Half a window on there is the next one.
      const edge = forward ? here.to : here.from - 1
      shift((forward ? span.value : -span.value) / 2)
      void focus(here.row, { from: edge, to: edge + 1 })
    }
  } else return
  running.value = false
  event.preventDefault()
  event.stopPropagation()
}
/** What was moved by a key keeps the focus, wherever it stands then. */
let moved: (Cell & { item: string }) | null = null
watch(
  () => props.analysis,
  async () => {
    if (!moved) return
    const { row, item, from, to } = moved
    moved = null
    await nextTick()
    const there = slots()[row]?.filter((slot) => slot.element.dataset.item === item) ?? []
    if (there.length) await focus(row, nearest(there, { from, to }))
  },
)
function putAway() {
  picked.value = null
  if (cell.value)
    void focus(
      rows.value.findIndex((row) => row.id === cell.value!.zone),
      { from: cell.value.from, to: cell.value.from + 1 },
    )
}
</script>

<template>
  <section ref="tide" class="tide" aria-label="Tide table">
    <div class="top">
      <b>Tide table</b> <span class="figures soft">{{ timezone }}</span>
      <TideItem
        v-if="picked && pickedZone"
        :zone="pickedZone"
        :item="picked.item"
        :name="pickedName"
        :leader="leaderOf(pickedZone, elements)?.id ? nameOf(pickedZone.follows!) : null"
        @act="act(pickedZone.id, $event)"
        @done="putAway"
        @keydown.esc.stop="putAway"
      />
      <label class="at"
        >hand at<input
          v-kept="clock(at, timezone)"
          class="form-control form-control-sm figures"
          aria-label="Instant of the hand"
          title="A time such as 14:03 or 14:03:20, or a day and a time such as 2026-12-01 14:03"
          @focus="running = false"
          @change="typed"
          @input="($event.target as HTMLInputElement).setCustomValidity('')"
      /></label>
      <StepBar :running="running" @change="hand.toChange" @second="(forward) => hand.to(at + (forward ? 1000 : -1000))" @run="running = !running" />
      <span class="choice" role="group" aria-label="Span of the tide table">
        <button
          type="button"
          :disabled="span === SPANS.at(-1)"
          title="A longer span; Ctrl and the wheel"
          aria-label="A longer span"
          @click="zoom(false)"
        >
          −
        </button>
        <button type="button" class="figures span" title="Back to 2.5 min" @click="zoomTo(150_000)">{{ spanWords(span) }}</button>
        <button
          type="button"
          :disabled="span === SPANS[0]"
          title="A shorter span; Ctrl and the wheel"
          aria-label="A shorter span"
          @click="zoom(true)"
        >
          +
        </button>
      </span>
      <button
        type="button"
        class="btn btn-link btn-sm p-0 fold"
        :aria-expanded="!folded"
        :title="folded ? 'Show the zones in time' : 'Leave the room to the pane'"
        @click="folded = !folded"
      >
        {{ folded ? 'unfold' : 'fold' }}
      </button>
    </div>
    <div v-if="!folded" class="rows">
      <div class="names">
        <div class="scale"></div>
        <button v-for="row in rows" :key="row.id" type="button" class="row-name" :class="{ on: chosen.has(row.id) }" @click="emit('choose', row.id)">
          <span class="whole">{{ nameOf(row.id) }}</span><span class="figures soft">{{ row.loop }}</span>
        </button>
        <div class="soft meets">{{ meetsWords }}</div>
      </div>
      <div ref="bed" class="bed" @pointerdown="take" @wheel="wheel">
        <div class="scale figures">
          <span v-for="t in ticks" :key="t.at" class="tick" :style="{ left: `${x(t.at)}px` }">{{ t.label }}</span>
        </div>
        <div ref="grid" role="grid" aria-label="What plays; arrows go from one to the next, Enter takes one" @keydown="walk">
          <TideLane
            v-for="row in rows"
            :key="row.id"
            v-memo="[row.key, from, span, width, timezone, picked, row.drifts.length, focused?.zone === row.id && focused.from]"
            :aria-label="nameOf(row.id)"
            :focused="focused?.zone === row.id ? focused.from : null"
            :pieces="row.pieces"
            :scenes="row.scenes"
            :from="from"
            :span="span"
            :width="width"
            :timezone="timezone"
            :movable="row.movable"
            :stretchable="row.stretchable"
            :picked="picked?.zone === row.id ? picked.item : null"
            :drifts="row.drifts"
            @pick="pick(row.id, $event)"
            @stretch="(item, ms) => stretch(row.id, item, ms)"
            @put="(item, target) => reorder(row.id, item, target)"
            @focusin="cell = { zone: row.id, from: Number(($event.target as HTMLElement).dataset.from) }"
          />
        </div>
        <div v-for="t in meets" :key="t" class="meet" :style="{ left: `${x(t)}px` }">
          <button
            v-if="roomy"
            type="button"
            class="figures"
            tabindex="-1"
            title="Loops meet: press to put the hand there"
            @pointerdown.stop
            @click="hand.to(t)"
          >
            {{ clock(t, timezone) }}
          </button>
        </div>
        <div
          class="hand"
          role="slider"
          tabindex="0"
          aria-label="Instant shown on the pane"
          :aria-valuemin="from"
          :aria-valuemax="to"
          :aria-valuenow="at"
          :aria-valuetext="clock(at, timezone)"
          :style="{ transform: `translateX(${x(at)}px)` }"
          @keydown="keys"
        >
          <span class="figures">{{ clock(at, timezone) }}</span>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.tide {
  background: var(--sheet);
  border-top: 1px solid var(--ink);
  display: flex;
  flex-direction: column;
  max-height: 232px;
  min-height: 0;
}
.top {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 3px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 0.875rem;
}
.span {
  min-width: 74px;
}
.rows {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  overflow-y: auto;
  min-height: 0;
}
.names {
  border-right: 1px solid var(--rule);
}
.scale {
  height: 24px;
  border-bottom: 1px solid var(--rule);
  position: relative;
}
.row-name {
  height: 38px;
  width: 100%;
  display: flex;
  justify-content: space-between;
  align-items: center;
  border: 0;
  background: none;
  gap: 8px;
  padding: 0 14px;
  font-size: 0.8125rem;
  line-height: 1.15;
  white-space: nowrap;
}
.whole {
  text-align: left;
  white-space: normal;
  overflow-wrap: anywhere;
}
.row-name.on {
  background: var(--kelp-wash);
  font-weight: 650;
}
.bed {
  position: relative;
  overflow: hidden;
  touch-action: none;
  cursor: ew-resize;
}
.tick {
  position: absolute;
  padding-left: 4px;
  border-left: 1px solid var(--soft);
  height: 8px;
  bottom: 0;
  line-height: 0;
  color: var(--soft);
}
.meets {
  padding: 1px 14px;
  white-space: nowrap;
  font-size: 0.8125rem;
  height: 20px;
}
.meet {
  position: absolute;
  top: 24px;
  bottom: 0;
  border-left: 1px dashed var(--chalk);
  pointer-events: none;
}
.meet button {
  pointer-events: auto;
  cursor: pointer;
  font-size: inherit;
  position: absolute;
  bottom: 1px;
  left: 0;
  transform: translateX(-50%);
  border: 1px solid var(--chalk);
  color: var(--chalk);
  background: var(--sheet);
  padding: 0 4px;
  line-height: 15px;
  z-index: 1;
}
.bed {
  padding-bottom: 20px;
}
.at {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
  color: var(--soft);
  white-space: nowrap;
}
.at input {
  width: 82px;
  min-height: 0;
  padding-block: 0;
}
.hand {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 0;
  left: 0;
  border-left: 2px solid var(--stop);
  margin-left: -1px;
  /* A layer of its own: it moves at every frame, and nothing below it has to be painted anew. */
  will-change: transform;
}
.hand:focus-visible {
  outline: none;
}
.hand:focus-visible span {
  outline: 2px solid var(--chalk);
}
.hand span {
  position: absolute;
  top: 3px;
  left: 6px;
  border: 1px solid var(--stop);
  color: var(--stop);
  background: var(--sheet);
  padding: 0 4px;
  line-height: 16px;
}
</style>
