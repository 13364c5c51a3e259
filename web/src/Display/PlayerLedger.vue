<script setup lang="ts">
import { computed } from 'vue'
import ChoiceBar from '../ui/ChoiceBar.vue'
import MeasureField from '../ui/MeasureField.vue'
import TypedLine from '../ui/TypedLine.vue'
import { type SurveyAct, without } from './edit'
import HeardList from './HeardList.vue'
import { type DisplayDocument, type PlayerDocument, type Said, type SensorDocument, type SensorKind, linkName, useSizes } from './survey'

/** What each player of the display can do, its live inputs and its sensors. */
const props = defineProps<{ id: string; document: DisplayDocument; processor: Said['processor'] }>()
const emit = defineEmits<{ change: [document: DisplayDocument, gesture?: string]; act: [act: SurveyAct, gesture?: string] }>()
const { data: sizes } = useSizes()

const KINDS = computed(() => sizes.value?.kinds ?? [])
const players = computed(() => props.document.players ?? [])
const put = (more: Partial<DisplayDocument>, gesture?: string) => emit('change', { ...props.document, ...more }, gesture)
const change = (id: string, next: (player: PlayerDocument) => PlayerDocument, gesture?: string) =>
  put({ players: players.value.map((p) => (p.id === id ? next(p) : p)) }, gesture)
const link = (player: PlayerDocument, value: string) =>
  change(player.id, (p) => ({ ...p, outputs: (p.outputs ?? []).map((o) => ({ ...o, link: value })) }))
const links = (player: PlayerDocument) => new Set((player.outputs ?? []).map((o) => o.link))
const toggle = (player: PlayerDocument, kind: string) =>
  change(player.id, (p) => {
    const all = p.kinds ?? KINDS.value
    const kinds = all.includes(kind) ? all.filter((k) => k !== kind) : [...all, kind]
    return kinds.length === KINDS.value.length ? without(p, 'kinds') : { ...p, kinds }
  })
const words = (text: string) =>
  text
    .split(/[\s,;]+/)
    .map((w) => w.trim())
    .filter(Boolean)

const SENSORS = computed(() => sizes.value?.sensors ?? [])
function sensor(id: string, more: Partial<SensorDocument>) {
  put({ sensors: (props.document.sensors ?? []).map((s) => (s.id === id ? { ...s, ...more } : s)) })
}
/** Ends of bands in m, as mm; a comma within a figure is its point. */
const bandsOf = (text: string) =>
  text
    .split(/[\s;]+|,\s+/)
    .map((w) => Math.round(Number(w.replace(',', '.')) * 1000))
    .filter((mm) => mm > 0)
/** As some were called before. */
const BEFORE: Record<string, string> = { press: 'buttons', key: 'keys' }
const kindOf = (s: SensorDocument) => BEFORE[s.kind] ?? s.kind
</script>

<template>
  <section class="survey" aria-label="Players">
    <h2>Players <button type="button" class="btn btn-link btn-sm p-0" @click="emit('act', { do: 'add-player' })">+ player</button></h2>
    <p v-if="players.length === 0" class="soft small px-3 m-0">Not surveyed: what they can do is not checked.</p>
    <dl v-for="p in players" :key="p.id">
      <dt>
        <b class="figures">{{ p.id }}</b>
      </dt>
      <dd><button type="button" class="btn btn-link btn-sm p-0" @click="emit('act', { do: 'remove-player', player: p.id })">take away</button></dd>
      <dt>Outputs, link</dt>
      <dd>
        <MeasureField
          :label="`Outputs of player ${p.id}`"
          :value="p.outputs?.length ?? 0"
          :most="64"
          :decimals="0"
          @change="(v, g) => emit('act', { do: 'outputs', player: p.id, count: v }, g)"
        />
        <select
          class="form-select form-select-sm"
          :aria-label="`Link of player ${p.id}`"
          :value="links(p).size === 1 ? [...links(p)][0] : ''"
          @change="link(p, ($event.target as HTMLSelectElement).value)"
        >
          <option v-if="links(p).size !== 1" value="" disabled>several</option>
          <option v-for="l in new Set([...(sizes?.links ?? []), ...links(p)])" :key="l" :value="l">{{ linkName(l) }}</option>
        </select>
      </dd>
      <dt v-if="links(p).size > 1" class="wide">
        <span v-for="o in p.outputs" :key="o.number" class="one figures"
          >{{ o.number }}
          <select
            :aria-label="`Link of output ${o.number}`"
            :value="o.link"
            @change="
              change(p.id, (q) => ({
                ...q,
                outputs: (q.outputs ?? []).map((x) => (x.number === o.number ? { ...x, link: ($event.target as HTMLSelectElement).value } : x)),
              }))
            "
          >
            <option v-for="l in new Set([...(sizes?.links ?? []), o.link])" :key="l" :value="l">{{ linkName(l) }}</option>
          </select></span
        >
      </dt>
      <dt>Films at once</dt>
      <dd>
        <MeasureField
          :label="`Films at once of player ${p.id}`"
          :value="p.films_at_once ?? null"
          :most="64"
          :decimals="0"
          @change="(v, g) => change(p.id, (q) => ({ ...q, films_at_once: v }), g)"
        />
      </dd>
      <dt>Largest film</dt>
      <dd>
        <MeasureField
          v-for="side in ['width', 'height', 'fps'] as const"
          :key="side"
          :label="`Largest film ${side} of player ${p.id}`"
          :unit="side === 'height' ? 'px' : side === 'fps' ? 'fps' : ''"
          :value="p.largest_film?.[side] ?? null"
          :least="1"
          :decimals="side === 'fps' ? 2 : 0"
          @change="
            (v, g) => change(p.id, (q) => ({ ...q, largest_film: { ...(q.largest_film ?? { width: 3840, height: 2160, fps: 60 }), [side]: v } }), g)
          "
        />
      </dd>
      <dt>Codecs</dt>
      <dd>
        <TypedLine
          class="figures text-end"
          :value="(p.codecs ?? []).join(' ')"
          :label="`Codecs of player ${p.id}`"
          @change="change(p.id, (q) => ({ ...q, codecs: words($event) }))"
        />
      </dd>
      <dt class="wide kinds">
        <label v-for="k in KINDS" :key="k"><input type="checkbox" :checked="(p.kinds ?? KINDS).includes(k)" @change="toggle(p, k)" /> {{ k }}</label>
      </dt>
    </dl>
    <dl v-if="document.panels.length > 1">
      <dt>Wall processor</dt>
      <dd>
        <ChoiceBar
          label="Wall processor"
          :words="{ apart: 'none', together: 'one output for all' }"
          :model-value="processor ? 'together' : 'apart'"
          @update:model-value="emit('act', { do: $event })"
        />
      </dd>
      <template v-if="processor">
        <dt>Its raster</dt>
        <dd>
          <MeasureField
            v-for="side in ['width', 'height'] as const"
            :key="side"
            :label="`Processor ${side}`"
            :unit="side === 'height' ? 'px' : ''"
            :value="processor.raster[side]"
            :least="1"
            :decimals="0"
            @change="
              (v, g) =>
                put(
                  {
                    processor: {
                      ...(document.processor ?? { player: players[0]?.id ?? 'a', output: 1 }),
                      raster: { ...processor!.raster, [side]: v },
                    },
                  },
                  g,
                )
            "
          />
        </dd>
      </template>
    </dl>
    <h2>
      Live inputs
      <button type="button" class="btn btn-link btn-sm p-0" @click="emit('act', { do: 'add-input' })">+ input</button>
    </h2>
    <dl>
      <template v-for="i in document.inputs ?? []" :key="i.id">
        <dt>
          <TypedLine
            :value="i.name"
            :label="`Name of input ${i.id}`"
            @change="put({ inputs: document.inputs!.map((x) => (x.id === i.id ? { ...x, name: $event } : x)) })"
          />
        </dt>
        <dd>
          <MeasureField
            v-for="side in ['width', 'height'] as const"
            :key="side"
            :label="`${i.name} ${side}`"
            :unit="side === 'height' ? 'px' : ''"
            :value="i.raster[side]"
            :least="1"
            :decimals="0"
            @change="(v, g) => put({ inputs: document.inputs!.map((x) => (x.id === i.id ? { ...x, raster: { ...x.raster, [side]: v } } : x)) }, g)"
          />
          <button
            type="button"
            class="btn btn-link btn-sm p-0"
            :aria-label="`Take ${i.name} away`"
            @click="put({ inputs: document.inputs!.filter((x) => x.id !== i.id) })"
          >
            ×
          </button>
        </dd>
      </template>
    </dl>
    <h2>
      Sensors
      <button type="button" class="btn btn-link btn-sm p-0" @click="emit('act', { do: 'add-sensor' })">+ sensor</button>
    </h2>
    <dl class="m-0">
      <template v-for="s in document.sensors ?? []" :key="s.id">
        <dt class="figures">{{ s.id }}</dt>
        <dd>
          <select
            class="form-select form-select-sm kind"
            :aria-label="`Kind of sensor ${s.id}`"
            :value="kindOf(s)"
            @change="sensor(s.id, { kind: ($event.target as HTMLSelectElement).value as SensorKind })"
          >
            <option v-for="k in SENSORS" :key="k">{{ k }}</option>
          </select>
          <template v-if="s.kind === 'presence'"
            ><TypedLine
              class="figures bands"
              :value="(s.bands_mm ?? []).map((mm) => mm / 1000).join(' ') || '–'"
              :label="`Distance bands of sensor ${s.id}, m`"
              @change="sensor(s.id, { bands_mm: bandsOf($event) })"
            /><span class="soft figures">m</span></template
          >
          <TypedLine
            v-else-if="kindOf(s) === 'buttons'"
            class="figures bands"
            :value="(s.buttons ?? []).join(' ') || '–'"
            :label="`Buttons of ${s.id}`"
            @change="sensor(s.id, { buttons: words($event) })"
          />
          <button
            type="button"
            class="btn btn-link btn-sm p-0"
            :aria-label="`Take sensor ${s.id} away`"
            @click="put({ sensors: document.sensors!.filter((x) => x.id !== s.id) })"
          >
            ×
          </button>
        </dd>
        <dd v-if="s.kind === 'presence'" class="wide more small soft">
          hysteresis
          <MeasureField
            :value="s.hysteresis_mm ?? 0"
            :label="`Hysteresis of sensor ${s.id}`"
            unit="mm"
            :most="100000"
            :decimals="0"
            @change="sensor(s.id, { hysteresis_mm: $event })"
          />, band 1 is the
          <select
            class="form-select form-select-sm kind"
            :aria-label="`Which band of sensor ${s.id} is 1`"
            :value="s.numbering ?? 'near-first'"
            @change="sensor(s.id, { numbering: ($event.target as HTMLSelectElement).value as 'near-first' | 'far-first' })"
          >
            <option value="near-first">nearest</option>
            <option value="far-first">farthest</option>
          </select>
        </dd>
        <dd v-if="Object.keys(s.names ?? {}).length" class="wide more small soft">
          <span v-for="(is, sends) in s.names" :key="sends"
            >“{{ sends }}” is “{{ is }}”
            <button
              type="button"
              class="btn btn-link btn-sm p-0"
              :aria-label="`Forget that ${sends} is ${is}`"
              @click="sensor(s.id, { names: without(s.names!, sends) as Record<string, string> })"
            >
              ×
            </button></span
          >
        </dd>
        <dd v-if="s.at_mm" class="wide more small soft">
          hangs
          <MeasureField
            :value="s.at_mm.x"
            :label="`Where ${s.id} hangs, from the middle to the right`"
            unit="mm"
            :least="-100000"
            :decimals="0"
            @change="sensor(s.id, { at_mm: { ...s.at_mm, x: $event } })"
          />
          right,
          <MeasureField
            :value="s.at_mm.y"
            :label="`Where ${s.id} hangs, from the middle down`"
            unit="mm"
            :least="-100000"
            :decimals="0"
            @change="sensor(s.id, { at_mm: { ...s.at_mm, y: $event } })"
          />
          down from the middle
          <button
            type="button"
            class="btn btn-link btn-sm p-0"
            @click="put({ sensors: document.sensors!.map((x) => (x.id === s.id ? without(x, 'at_mm') : x)) })"
          >
            forget it
          </button>
        </dd>
        <dd v-else class="wide more small">
          <button
            type="button"
            class="btn btn-link btn-sm p-0"
            :aria-label="`Say where ${s.id} hangs`"
            @click="sensor(s.id, { at_mm: { x: 0, y: 0 } })"
          >
            where it hangs…
          </button>
        </dd>
      </template>
    </dl>
    <HeardList :display="id" :sensors="document.sensors ?? []" class="mb-4" @choose="put({ sensors: $event })" />
  </section>
</template>

<style scoped>
.wide {
  grid-column: 1 / 3;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  padding-right: 12px;
}
.kinds label {
  font-size: 0.8125rem;
}
.one select {
  border: 0;
  background: none;
  border-bottom: 1px dotted var(--soft);
}
select.form-select {
  width: 130px;
}
.kind {
  width: 96px !important;
}
.more {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: flex-end;
  gap: 4px;
}
.bands {
  width: 84px;
  text-align: right;
  border-bottom: 1px dotted var(--soft);
}
</style>
