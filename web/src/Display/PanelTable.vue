<script setup lang="ts">
import { computed } from 'vue'
import MeasureField from '../ui/MeasureField.vue'
import type { SurveyAct } from './edit'
import { type DisplayDocument, type Said, linkName, plain } from './survey'

/** The panels as a table of figures that adds up: what feeds each of them, and which part of the canvas it shows. */
const props = defineProps<{ document: DisplayDocument; said: Said; chosen: ReadonlySet<string>; display: string; numbering: boolean }>()
const emit = defineEmits<{ act: [act: SurveyAct]; choose: [id: string, more: boolean]; number: [] }>()

const wall = computed(() => props.said.wall)
const linkOf = (id: string) => props.said.feeds.find((f) => f.panels.includes(id))?.link ?? ''
const pair = computed(() => (props.chosen.size === 2 ? ([...props.chosen] as [string, string]) : null))
const feed = computed(() => (props.chosen.size === 1 ? props.said.feeds.find((f) => f.panels.includes([...props.chosen][0]!)) : undefined))
const only = computed(() => (props.chosen.size === 1 ? wall.value.panels.find((p) => props.chosen.has(p.id)) : undefined))

/** How the canvas adds up, across and down: `3 × 1920 + 2 × 4 = 5768`. */
const sums = computed(() =>
  wall.value.sums.map(({ terms, total, canvas }) => ({
    text: `${terms.map(([times, px]) => `${times} × ${px}`).join(' + ')} = ${total}`,
    right: total === canvas,
  })),
)
const error = computed(() => {
  const { x, y } = wall.value.error_mm
  const told = [x && `${plain(x, 2)} mm across`, y && `${plain(y, 2)} down`].filter(Boolean)
  return told.length ? `rounded: ${told.join(', ')}` : ''
})
const several = computed(() => (props.document.players ?? []).length > 1 && !props.said.processor)
/** Another player feeds it: through an output that is free there, which the core finds. */
const play = (panel: string, player: string) => emit('act', { do: 'feed', panel, player, output: null })
const output = (panel: string, value: number) =>
  emit('act', { do: 'feed', panel, player: wall.value.panels.find((p) => p.id === panel)?.player ?? null, output: value })
/** The panel that one more is like: the first that is chosen, or the last. */
const like = computed(() => wall.value.panels.find((p) => props.chosen.has(p.id))?.id ?? wall.value.panels.at(-1)!.id)
</script>

<template>
  <section class="survey" aria-label="Panels and outputs">
    <h2>
      Panels and outputs <span class="soft figures">{{ plain(wall.density, 4) }} px/mm</span>
    </h2>
    <table class="figures">
      <thead>
        <tr>
          <th scope="col">panel</th>
          <th v-if="several" scope="col">player</th>
          <th scope="col" class="n">out</th>
          <th scope="col" class="n">x</th>
          <th scope="col" class="n">y</th>
          <th scope="col" class="n">turn</th>
          <th scope="col" class="n">link</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in wall.panels" :key="p.id" :class="{ on: chosen.has(p.id) }" @click="$emit('choose', p.id, $event.shiftKey || $event.ctrlKey)">
          <th scope="row">{{ p.id }}</th>
          <td v-if="several" @click.stop>
            <select :aria-label="`Player of ${p.id}`" :value="p.player ?? ''" @change="play(p.id, ($event.target as HTMLSelectElement).value)">
              <option v-for="id in (document.players ?? []).map((q) => q.id)" :key="id">{{ id }}</option>
            </select>
          </td>
          <td class="n" @click.stop>
            <MeasureField
              v-if="p.output !== null"
              :label="`Output of ${p.id}`"
              :value="p.output"
              :least="1"
              :most="64"
              :decimals="0"
              @change="output(p.id, $event)"
            />
            <span v-else class="soft">–</span>
          </td>
          <td class="n">{{ p.source.x }}</td>
          <td class="n">{{ p.source.y }}</td>
          <td class="n">{{ p.rotation }}°</td>
          <td class="n link">{{ linkName(linkOf(p.id)) }}</td>
        </tr>
      </tbody>
    </table>
    <div class="tools">
      <button v-if="pair" type="button" class="btn btn-outline-dark btn-sm" @click="$emit('act', { do: 'swap', panels: pair })">
        {{ pair[0] }} and {{ pair[1] }} are swapped
      </button>
      <template v-if="wall.panels.length > 1 && !said.processor">
        <button type="button" class="btn btn-outline-dark btn-sm" :aria-pressed="numbering" @click="$emit('number')">
          {{ numbering ? 'End' : 'Number by pressing' }}
        </button>
        <button type="button" class="btn btn-link btn-sm" title="From left to right, top to bottom" @click="$emit('act', { do: 'renumber' })">
          in order
        </button>
      </template>
      <button type="button" class="btn btn-link btn-sm" @click="$emit('act', { do: 'add', like })">+ panel</button>
      <button
        v-if="chosen.size && chosen.size < wall.panels.length"
        type="button"
        class="btn btn-link btn-sm"
        @click="$emit('act', { do: 'remove', panels: [...chosen] })"
      >
        take away
      </button>
    </div>
    <p v-for="s in sums" :key="s.text" class="sum figures" :class="{ wrong: !s.right }">{{ s.text }} {{ s.right ? '✓' : '✗' }}</p>
    <p v-if="error" class="sum figures soft">{{ error }}</p>
    <template v-if="feed && only">
      <h2>
        {{ only.id }}
        <span class="figures">{{ feed.timing ? `${feed.timing.refresh_hz.toFixed(3)} Hz` : '' }}</span>
      </h2>
      <dl class="figures">
        <dt>Shows of the canvas</dt>
        <dd>{{ only.source.width }} × {{ only.source.height }} px</dd>
        <template v-if="feed.timing">
          <dt>Pixel clock</dt>
          <dd>{{ (feed.timing.pixel_clock_khz / 1000).toFixed(2) }} MHz</dd>
        </template>
        <template v-if="feed.load_says">
          <dt>Link load</dt>
          <dd :class="{ 'said-error': (feed.load ?? 0) > 1 }">{{ feed.load_says }}</dd>
        </template>
        <dt>Own EDID</dt>
        <dd><a :href="`/api/displays/${display}/panels/${only.id}/edid`" download>save a custom EDID</a></dd>
      </dl>
    </template>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  border-bottom: 1px solid var(--rule);
  padding: 3px 4px;
  font-weight: 400;
  white-space: nowrap;
}
thead th {
  color: var(--soft);
}
tbody th {
  font-weight: 700;
}
th:first-child {
  padding-left: 16px;
}
th:last-child,
td:last-child {
  padding-right: 14px;
}
.n {
  text-align: right;
}
td :deep(input) {
  width: 26px;
}
td select {
  border: 0;
  background: none;
  border-bottom: 1px dotted var(--soft);
}
tr.on {
  background: var(--kelp-wash);
  box-shadow: inset 4px 0 0 var(--kelp);
}
tbody tr {
  cursor: pointer;
}
.link {
  max-width: 120px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.tools {
  padding: 6px 14px;
  gap: 6px;
  flex-wrap: wrap;
}
.sum {
  margin: 0;
  padding: 2px 16px;
  color: var(--kelp);
}
.sum.soft {
  color: var(--soft);
}
.sum.wrong {
  color: var(--stop);
}
</style>
