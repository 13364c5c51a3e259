<script setup lang="ts">
import dagre from '@dagrejs/dagre'
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import StatePicture from './StatePicture.vue'
import { type Chosen, type LookTriggers, type Triggers, nameOf, secs } from './triggers'

/** The map drawn: states as the pictures that they are, ways as arrows; laid out by the library, so that nobody has to. */
const props = defineProps<{
  map: Triggers
  look: LookTriggers
  chosen: Chosen | null
  /** The state that is shown at the hand of the trial. */ now: string | null
}>()
const emit = defineEmits<{ choose: [chosen: Chosen] }>()
const WIDE = 104
const HIGH = 66
const FOOT = 24
/** A finger's height still where the map is drawn as small as it may be. */
const LABEL = 30
/** From any state. */
const ANY = '*'

const picture = computed(() => {
  const { width, height } = props.look.canvas
  return Math.min(WIDE, (HIGH * width) / height)
})
const standsOf = (id: string) => {
  const own = props.look.states.find((one) => one.id === id)
  if (id === props.map.rest) return 'rest'
  const state = props.map.states.find((one) => one.id === id)
  if (state?.linger === 'endless') return '∞'
  return own?.linger_ms ? secs(own.linger_ms) : ''
}

interface Edge {
  from: string
  to: string
  signals: string[]
  lapse: boolean
}
const edges = computed<Edge[]>(() => {
  const all = new Map<string, Edge>()
  const add = (from: string, to: string, signal: string | null) => {
    const key = `${from} ${to} ${signal === null}`
    const edge = all.get(key) ?? { from, to, signals: [], lapse: signal === null }
    if (signal !== null && !edge.signals.includes(signal)) edge.signals.push(signal)
    all.set(key, edge)
  }
  for (const { from, on, to } of props.map.transitions) for (const one of from) if (one !== to) add(one, to, on)
  for (const { id, then, linger } of props.map.states) if (id !== props.map.rest && linger !== 'endless') add(id, then ?? props.map.rest, null)
  return [...all.values()]
})
/** Signals by which a state begins again, or stands for longer. */
const again = (id: string) => props.map.transitions.filter(({ from, to }) => to === id && from.includes(id)).map(({ on }) => signalName(on))
const signalName = (id: string) => nameOf(props.map.signals.find((one) => one.id === id) ?? { id })
const labelOf = ({ signals, lapse, from }: Edge) => {
  if (lapse) return `after ${standsOf(from)}`
  const names = signals.map(signalName)
  return names.length > 2 ? `${names[0]} and ${names.length - 1} more` : names.join(', ')
}
/** A curve through all the points that the library gives, so that a label lies on its way (Catmull and Rom, 1974). */
function curve(points: { x: number; y: number }[]): string {
  const at = (n: number) => points[Math.max(0, Math.min(points.length - 1, n))]!
  const ends = points.slice(1).map((end, n) => {
    const [before, begin, after] = [at(n - 1), at(n), at(n + 2)]
    const one = `${begin.x + (end.x - before.x) / 6} ${begin.y + (end.y - before.y) / 6}`
    return `C${one} ${end.x - (after.x - begin.x) / 6} ${end.y - (after.y - begin.y) / 6} ${end.x} ${end.y}`
  })
  return points.length ? `M${at(0).x} ${at(0).y}${ends.join('')}` : ''
}
const laid = computed(() => {
  const graph = new dagre.graphlib.Graph({ multigraph: true })
  graph.setGraph({ rankdir: 'LR', nodesep: 6, ranksep: 40, edgesep: 2, marginx: 8, marginy: 8 })
  graph.setDefaultEdgeLabel(() => ({}))
  for (const { id } of props.map.states) graph.setNode(id, { width: WIDE + 4, height: HIGH + FOOT + 4 })
  if (edges.value.some(({ from }) => from === ANY)) graph.setNode(ANY, { width: 74, height: 26 })
  edges.value.forEach((edge, n) => {
    // What comes back to rest does not decide what stands to the left.
    const back = edge.to === props.map.rest
    const [a, b] = back ? [edge.to, edge.from] : [edge.from, edge.to]
    if (!graph.hasNode(a) || !graph.hasNode(b)) return
    graph.setEdge(
      a,
      b,
      { width: Math.max(LABEL, labelOf(edge).length * 6.6 + 10), height: LABEL, labelpos: 'c', weight: edge.lapse ? 1 : 2 },
      String(n),
    )
  })
  dagre.layout(graph)
  const { width = 0, height = 0 } = graph.graph() as { width?: number; height?: number }
  const nodes = props.map.states.map(({ id }) => ({ id, ...(graph.node(id) as { x: number; y: number }) }))
  const any = graph.hasNode(ANY) ? (graph.node(ANY) as { x: number; y: number }) : null
  const lines = edges.value.flatMap((edge, n) => {
    const back = edge.to === props.map.rest
    const own = graph.edge({ v: back ? edge.to : edge.from, w: back ? edge.from : edge.to, name: String(n) }) as
      { points: { x: number; y: number }[]; x: number; y: number } | undefined
    if (!own) return []
    const points = back ? [...own.points].reverse() : own.points
    return [{ edge, d: curve(points), x: own.x, y: own.y, label: labelOf(edge) }]
  })
  return { width, height, nodes, any, lines }
})
const room = useTemplateRef('room')
const { width, height } = useElementSize(room)
/** As large as there is room for, and never too small to be read: then one scrolls. */
const scale = computed(() =>
  Math.max(0.8, Math.min(1, (width.value - 4) / Math.max(1, laid.value.width), (height.value - 4) / Math.max(1, laid.value.height))),
)
const isOn = (edge: Edge) => {
  const { chosen } = props
  if (chosen?.is === 'signal') return edge.signals.includes(chosen.id)
  if (chosen?.is === 'state') return edge.from === chosen.id || edge.to === chosen.id
  return chosen?.is === 'way' && edge.signals.includes(chosen.signal) && (edge.from === chosen.state || edge.from === ANY)
}
const chooseEdge = (edge: Edge) =>
  edge.lapse ? emit('choose', { is: 'state', id: edge.from }) : emit('choose', { is: 'signal', id: edge.signals[0]! })
</script>

<template>
  <section class="graph" aria-label="States and ways">
    <h2>States and ways</h2>
    <div ref="room" class="room">
      <div class="drawn" :style="{ width: `${laid.width * scale}px`, height: `${laid.height * scale}px` }">
        <div class="scaled" :style="{ transform: `scale(${scale})`, width: `${laid.width}px`, height: `${laid.height}px` }">
          <svg :width="laid.width" :height="laid.height" aria-hidden="true">
            <defs>
              <marker
                id="tip"
                viewBox="0 0 10 10"
                refX="9"
                refY="5"
                markerWidth="9"
                markerHeight="9"
                markerUnits="userSpaceOnUse"
                orient="auto-start-reverse"
              >
                <path d="M0 0L10 5L0 10z" fill="context-stroke" />
              </marker>
            </defs>
            <path
              v-for="(line, n) in laid.lines"
              :key="n"
              :d="line.d"
              class="way"
              :class="{ lapse: line.edge.lapse, on: isOn(line.edge) }"
              marker-end="url(#tip)"
            />
          </svg>
          <button
            v-for="(line, n) in laid.lines"
            :key="n"
            type="button"
            class="label"
            :class="{ lapse: line.edge.lapse, on: isOn(line.edge) }"
            :style="{ left: `${line.x}px`, top: `${line.y}px` }"
            :title="`${line.edge.from === ANY ? 'any state' : line.edge.from} to ${line.edge.to}: ${line.edge.lapse ? line.label : line.edge.signals.map(signalName).join(', ')}`"
            @click="chooseEdge(line.edge)"
          >
            <span>{{ line.label }}</span>
          </button>
          <span v-if="laid.any" class="any" :style="{ left: `${laid.any.x}px`, top: `${laid.any.y}px` }">any state</span>
          <button
            v-for="node in laid.nodes"
            :key="node.id"
            type="button"
            class="state"
            :class="{ on: chosen?.is === 'state' && chosen.id === node.id, now: now === node.id, rest: node.id === map.rest }"
            :style="{ left: `${node.x}px`, top: `${node.y}px`, width: `${WIDE + 4}px` }"
            :aria-label="`${node.id}, ${standsOf(node.id)}`"
            @click="emit('choose', { is: 'state', id: node.id })"
          >
            <span class="still"><StatePicture :look="look" :state="node.id" :width="picture" /></span>
            <span class="foot"
              ><b>{{ node.id }}</b> <span v-if="again(node.id).length" class="figures soft" :title="`again: ${again(node.id).join(', ')}`">↻</span>
              <span class="figures soft">{{ standsOf(node.id) }}</span></span
            >
          </button>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.graph {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  padding: 6px 0 0 16px;
}
h2 {
  font-size: 0.9375rem;
}
.room {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.drawn {
  position: relative;
}
.scaled {
  position: absolute;
  transform-origin: 0 0;
}
svg {
  position: absolute;
  inset: 0;
  overflow: visible;
}
.way {
  fill: none;
  stroke: var(--kelp);
  stroke-width: 1.5;
}
.way.lapse {
  stroke: var(--soft);
  stroke-dasharray: 5 4;
}
.way.on {
  stroke-width: 3;
}
.label,
.any {
  position: absolute;
  transform: translate(-50%, -50%);
  border: 0;
  padding: 0 4px;
  background: none;
  color: var(--kelp);
  font-size: 0.8125rem;
  white-space: nowrap;
  line-height: 1.25;
  min-height: 30px;
  min-width: 30px;
}
.label span {
  background: var(--paper);
  padding: 0 2px;
}
.label.lapse {
  color: var(--soft);
  font-family: var(--figures);
}
.label.on {
  font-weight: 650;
}
.any {
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--soft);
  line-height: 24px;
}
.state {
  position: absolute;
  transform: translate(-50%, -50%);
  border: 1px solid var(--ink);
  background: var(--sheet);
  padding: 1px;
  text-align: left;
}
.state.on {
  outline: 2px solid var(--kelp);
}
.state.now {
  box-shadow: 0 3px 0 var(--stop);
}
.still {
  height: 66px;
  background: var(--ground);
  display: grid;
  place-items: center;
  overflow: hidden;
}
.foot {
  display: flex;
  justify-content: space-between;
  gap: 4px;
  padding: 1px 5px 0;
  height: 24px;
  white-space: nowrap;
  overflow: hidden;
}
</style>
