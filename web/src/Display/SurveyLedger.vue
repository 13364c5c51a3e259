<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { api, sentence } from '../ui/api'
import ChoiceBar from '../ui/ChoiceBar.vue'
import ChoiceField from '../ui/ChoiceField.vue'
import MeasureField from '../ui/MeasureField.vue'
import { type SurveyAct, eachPanel, meant } from './edit'
import { type DisplayDocument, type PanelDocument, type Sides, type Size, useSizes } from './survey'

/** What is on the label and on the wall, typed: of the panels chosen, else of all; from where it is looked at; how the panels hang. */
const props = defineProps<{ document: DisplayDocument; chosen: ReadonlySet<string> }>()
const emit = defineEmits<{ change: [document: DisplayDocument, gesture?: string]; act: [act: SurveyAct, gesture?: string] }>()
const { data: sizes } = useSizes()

const panels = computed(() => meant(props.document, props.chosen))
const who = computed(() => {
  const n = props.chosen.size
  if (props.document.panels.length === 1) return ''
  return n === 0 ? `all ${props.document.panels.length} panels` : n === 1 ? [...props.chosen][0]! : `${n} panels`
})
/** A figure that all of the panels share; null where they differ. */
const shared = (of: (p: PanelDocument) => number): number | null => {
  const first = of(panels.value[0]!)
  return panels.value.every((p) => of(p) === first) ? first : null
}
const set = (change: (p: PanelDocument) => PanelDocument, gesture?: string) =>
  emit('change', eachPanel(props.document, props.chosen, change), gesture)
const side = (of: 'native' | 'active_mm', name: keyof Size, value: number, gesture?: string) =>
  set((p) => ({ ...p, [of]: { ...p[of], [name]: value } }), gesture)
const bezel = (name: keyof Sides, value: number, gesture?: string) => set((p) => ({ ...p, bezel_mm: { ...p.bezel_mm, [name]: value } }), gesture)
const viewing = (more: Partial<DisplayDocument['viewing']>, gesture?: string) =>
  emit('change', { ...props.document, viewing: { ...props.document.viewing, ...more } }, gesture)
const put = (more: Partial<DisplayDocument>, gesture?: string) => emit('change', { ...props.document, ...more }, gesture)

const SIDES = ['width', 'height'] as const
type Length = keyof DisplayDocument['viewing']
const RANGES: [string, [string, Length], [string, Length]][] = [
  ['Nearest, farthest', ['Nearest viewer', 'nearest_mm'], ['Farthest viewer', 'farthest_mm']],
  ['Middle, eye height', ['Middle above the floor', 'centre_height_mm'], ['Eyes above the floor', 'eye_height_mm']],
]

// --- label and EDID ---------------------------------------------------------------------

const takeSize = (size: string) => size && emit('act', { do: 'size', panels: [...props.chosen], size })

interface Edid {
  name: string | null
  native: Size | null
  size_mm: Size | null
  timings: { width: number; height: number; refresh_hz: number }[]
}
const file = useTemplateRef('file')
const edidSays = ref('')
const edidWrong = ref('')
async function takeEdid(event: Event | DragEvent) {
  const one = 'dataTransfer' in event ? event.dataTransfer?.files[0] : (event.target as HTMLInputElement).files?.[0]
  if (!one) return
  edidSays.value = edidWrong.value = ''
  try {
    const said = await api.bytes<Edid>('survey/edid', one)
    const hz = said.timings[0]?.refresh_hz
    const next = eachPanel(props.document, props.chosen, (p) => ({
      ...p,
      ...(said.native ? { native: { width: said.native.width, height: said.native.height } } : {}),
      ...(said.size_mm ? { active_mm: { width: said.size_mm.width, height: said.size_mm.height } } : {}),
    }))
    emit('change', { ...next, ...(hz ? { refresh_hz: Math.round(hz * 1000) / 1000 } : {}) })
    edidSays.value = `${said.name ?? 'The panel'} says: ${said.native ? `${said.native.width} × ${said.native.height} px` : 'no raster'}, ${said.size_mm ? `${said.size_mm.width} × ${said.size_mm.height} mm` : 'no size'}${hz ? `, ${hz.toFixed(3)} Hz` : ''}. Bezels are on no EDID: type them.`
  } catch (e) {
    edidWrong.value = `${one.name}: ${sentence(e)}`
  } finally {
    if (file.value) file.value.value = ''
  }
}

// --- how it hangs -------------------------------------------------------------------------

const free = computed(() => props.document.panels[0]?.origin_mm !== undefined)
const columns = computed(() => Math.max(...props.document.panels.map((p) => p.column ?? 0)) + 1)
const rows = computed(() => Math.max(...props.document.panels.map((p) => p.row ?? 0)) + 1)
const hang = (way: 'free' | 'grid') => (way === 'free') !== free.value && emit('act', { do: 'hang', way })
const one = computed(() => (props.chosen.size === 1 ? props.document.panels.find((p) => props.chosen.has(p.id)) : undefined))
function rename(event: Event) {
  const field = event.target as HTMLInputElement
  const id = field.value.trim()
  const taken = props.document.panels.some((p) => p.id === id && p !== one.value)
  if (!one.value || taken || !/^[A-Za-z0-9][A-Za-z0-9._-]{0,79}$/.test(id)) field.value = one.value?.id ?? ''
  else set((p) => ({ ...p, id }))
}
</script>

<template>
  <section class="survey" aria-label="Survey" @dragover.prevent @drop.prevent="takeEdid">
    <h2>
      Panel <span class="soft figures">{{ who }}</span>
    </h2>
    <dl>
      <template v-if="one && document.panels.length > 1">
        <dt><label for="panel-id">Id</label></dt>
        <dd><input id="panel-id" :key="one.id" class="id figures" :value="one.id" maxlength="80" @change="rename" /></dd>
      </template>
      <dt>Raster unturned</dt>
      <dd>
        <template v-for="(name, i) in SIDES" :key="name"
          >{{ i ? '×' : '' }}
          <MeasureField
            :label="`Raster ${name}`"
            :unit="i ? 'px' : ''"
            :value="shared((p) => p.native[name])"
            :least="1"
            :decimals="0"
            @change="(v, g) => side('native', name, v, g)"
        /></template>
      </dd>
      <dt>Active area</dt>
      <dd>
        <template v-for="(name, i) in SIDES" :key="name"
          >{{ i ? '×' : '' }}
          <MeasureField
            :label="`Active ${name}`"
            :unit="i ? 'mm' : ''"
            :value="shared((p) => p.active_mm[name])"
            :least="0.1"
            :decimals="2"
            @change="(v, g) => side('active_mm', name, v, g)"
        /></template>
      </dd>
      <dt>Bezels l, t, r, b</dt>
      <dd class="four">
        <MeasureField
          v-for="s in ['left', 'top', 'right', 'bottom'] as const"
          :key="s"
          :label="`Bezel ${s}`"
          :unit="s === 'bottom' ? 'mm' : ''"
          :value="shared((p) => p.bezel_mm[s])"
          :decimals="2"
          :step="0.1"
          @change="(v, g) => bezel(s, v, g)"
        />
      </dd>
      <dt>Turned clockwise</dt>
      <dd>
        <ChoiceBar
          label="Turned clockwise"
          :words="{ 0: '0°', 90: '90°', 180: '180°', 270: '270°' }"
          :model-value="`${shared((p) => p.rotation) ?? ''}`"
          @update:model-value="set((p) => ({ ...p, rotation: Number($event) as PanelDocument['rotation'] }))"
        />
      </dd>
      <template v-if="one?.origin_mm">
        <dt>Hangs at x, y</dt>
        <dd>
          <MeasureField
            label="x"
            :value="one.origin_mm.x"
            :least="-1e6"
            @change="(v, g) => set((p) => ({ ...p, origin_mm: { x: v, y: p.origin_mm!.y } }), g)"
          />
          <MeasureField
            label="y"
            unit="mm"
            :value="one.origin_mm.y"
            :least="-1e6"
            @change="(v, g) => set((p) => ({ ...p, origin_mm: { x: p.origin_mm!.x, y: v } }), g)"
          />
        </dd>
      </template>
    </dl>
    <div class="from">
      <select class="form-select form-select-sm" aria-label="Begin with a size" @change="takeSize(($event.target as HTMLSelectElement).value)">
        <option value="">Begin with a size…</option>
        <option v-for="s in sizes?.sizes ?? []" :key="s.id" :value="s.id">{{ s.name }}</option>
      </select>
      <button type="button" class="btn btn-outline-dark btn-sm" title="Or drop the file here" @click="file?.click()">Read EDID…</button>
      <input ref="file" type="file" hidden aria-label="EDID file" @change="takeEdid" />
    </div>
    <p v-if="edidSays" class="small px-3 mb-1" role="status">{{ edidSays }}</p>
    <p v-if="edidWrong" class="small px-3 mb-1 said-error" role="alert">{{ edidWrong }}</p>

    <h2>Hangs</h2>
    <dl>
      <dt>Panels hang</dt>
      <dd>
        <ChoiceBar
          label="How panels hang"
          :words="{ grid: 'on a grid', free: 'freely' }"
          :model-value="free ? 'free' : 'grid'"
          @update:model-value="hang"
        />
      </dd>
      <template v-if="!free">
        <dt>Columns × rows</dt>
        <dd>
          <MeasureField
            label="Columns"
            :value="columns"
            :least="1"
            :most="32"
            :decimals="0"
            @change="(v, g) => emit('act', { do: 'grid', columns: v, rows }, g)"
          />
          ×
          <MeasureField
            label="Rows"
            :value="rows"
            :least="1"
            :most="32"
            :decimals="0"
            @change="(v, g) => emit('act', { do: 'grid', columns, rows: v }, g)"
          />
        </dd>
        <template v-if="document.panels.length > 1">
          <dt>Seams</dt>
          <dd>
            <ChoiceBar
              label="Seams"
              :words="{ hide: 'hidden', butt: 'butted' }"
              :titles="{ hide: 'The picture goes on behind the bezels', butt: 'The picture jumps across the bezels' }"
              :model-value="document.bezels ?? 'hide'"
              @update:model-value="put({ bezels: $event })"
            />
          </dd>
          <dt>Gap between frames</dt>
          <dd>
            <MeasureField
              label="Gap across"
              :value="document.gap_mm?.x ?? 0"
              :decimals="2"
              @change="(v, g) => put({ gap_mm: { x: v, y: document.gap_mm?.y ?? 0 } }, g)"
            />
            <MeasureField
              label="Gap down"
              unit="mm"
              :value="document.gap_mm?.y ?? 0"
              :decimals="2"
              @change="(v, g) => put({ gap_mm: { x: document.gap_mm?.x ?? 0, y: v } }, g)"
            />
          </dd>
        </template>
      </template>
      <dt>Technology</dt>
      <dd>
        <ChoiceBar
          label="Technology"
          :words="{ lcd: 'LCD', led: 'LED' }"
          :model-value="document.technology ?? 'lcd'"
          @update:model-value="put({ technology: $event })"
        />
      </dd>
      <dt>Refresh, depth</dt>
      <dd>
        <MeasureField
          label="Refresh"
          unit="Hz"
          :value="document.refresh_hz ?? 60"
          :least="1"
          :most="480"
          :decimals="3"
          @change="(v, g) => put({ refresh_hz: v }, g)"
        />
        <MeasureField
          label="Depth"
          unit="bit"
          :value="document.bits ?? 8"
          :least="6"
          :most="16"
          :decimals="0"
          @change="(v, g) => put({ bits: v }, g)"
        />
      </dd>
    </dl>

    <h2>Read from</h2>
    <dl>
      <template v-for="[words, first, second] in RANGES" :key="words">
        <dt>{{ words }}</dt>
        <dd>
          <MeasureField
            v-for="[label, name] in [first, second]"
            :key="name"
            :label="label"
            :unit="name === second[1] ? 'm' : ''"
            :value="(document.viewing[name] ?? 1600) / 1000"
            :least="0.05"
            :decimals="2"
            :step="0.1"
            @change="(v, g) => viewing({ [name]: Math.round(v * 1000) }, g)"
          />
        </dd>
      </template>
      <dt>Time zone</dt>
      <dd>
        <ChoiceField
          class="zone"
          label=""
          aria-label="Time zone"
          :value="document.timezone"
          :options="sizes?.timezones ?? [document.timezone]"
          @change="put({ timezone: $event })"
        />
      </dd>
    </dl>
  </section>
</template>

<style scoped>
.four :deep(input) {
  width: 38px;
}
.id {
  width: 120px;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  text-align: right;
}
.from {
  display: flex;
  gap: 8px;
  padding: 7px 14px 5px 16px;
}
.zone {
  width: 184px;
}
</style>
