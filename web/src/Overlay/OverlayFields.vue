<script setup lang="ts">
import { computed } from 'vue'
import { useFaces } from '../Layout/composer/faces'
import { useDesigns, usePlayedLayouts } from '../Layout/designs'
import { nameIn } from '../Layout/style'
import { facts, isReadyPicture, refOf, useMedia } from '../Media/media'
import ChoiceField from '../ui/ChoiceField.vue'
import ColourField from '../ui/ColourField.vue'
import MeasureField from '../ui/MeasureField.vue'
import { CORNERS, EDGES, type NoticeOverlay, type Overlay, PLACES, type TickerOverlay, isStrip } from './overlays'
import ShareField from './ShareField.vue'
import WhereField from './WhereField.vue'
import { vKept } from '../ui/kept'

/** What an overlay of each kind says or shows, and where on the screen; sizes in %, px or mm of the display that is looked at. */
const props = defineProps<{
  overlay: Overlay
  on: { raster: { width: number; height: number }; active_mm: { width: number; height: number } } | null
}>()
const emit = defineEmits<{ change: [part: Partial<Overlay>, gesture?: string] }>()
const change = (part: object, gesture?: string) => emit('change', part, gesture)
const { all: media } = useMedia()
const layouts = usePlayedLayouts()
const { all: playlists } = useDesigns('playlists')
const { all: sources } = useDesigns('sources')
const { families } = useFaces()

const side = (which: 'width' | 'height' | 'shorter') => {
  if (!props.on) return null
  const { raster, active_mm: mm } = props.on
  const width = which === 'shorter' ? raster.width <= raster.height : which === 'width'
  return width ? { px: raster.width, mm: mm.width } : { px: raster.height, mm: mm.height }
}
const worded = computed(() => (isStrip(props.overlay) || props.overlay.kind === 'notice' ? props.overlay : null))
const isUpright = computed(() => isStrip(props.overlay) && ['left', 'right'].includes(props.overlay.edge))

// --- words ---------------------------------------------------------------------------------------

type Texts = Record<string, string>
const languages = computed<[string, string][]>(() => (worded.value && typeof worded.value.text === 'object' ? Object.entries(worded.value.text) : []))
const say = (text: string, language?: string) =>
  change({ text: language === undefined ? text : { ...(worded.value!.text as Texts), [language]: text } }, `text ${language ?? ''}`)
function addLanguage(language: string) {
  const text = worded.value!.text
  if (/^[a-z]{2}(-[A-Z]{2})?$/.test(language)) change({ text: typeof text === 'object' ? { ...text, [language]: '' } : { en: text, [language]: '' } })
}
const styled = (part: object, gesture?: string) => change({ style: { ...worded.value!.style, ...part } }, gesture)
const plain = (colour: string | null | undefined) => colour ?? '#000000'
/** Rows of a source told one after the other, in the place of words typed here. */
function tell(source: string) {
  if (source) change({ message: true, text: '{title}', rows: { source, path: '$.items[*]', fields: { title: '$.title' } } })
  else change({ message: undefined, rows: undefined, text: 'What is to be said' })
}
const rows = computed(() => worded.value?.rows ?? null)
const field = computed(() => Object.entries(rows.value?.fields ?? {})[0])

// --- what it plays -------------------------------------------------------------------------------

const playing = computed(() => ('plays' in props.overlay ? props.overlay.plays : null))
const played = computed(() => Object.entries(playing.value ?? {})[0]?.join(':') ?? '')
function play(chosen: string) {
  const [kind, id] = chosen.split(':')
  if (kind && id) change({ plays: { [kind]: id } })
}
const pictures = computed(() => media.value.filter(isReadyPicture))
const ownMark = computed(() => (props.overlay.kind === 'mark' ? ('mark' in props.overlay.media ? '' : (props.overlay.media.id ?? '')) : ''))
function picture(id: string) {
  const one = media.value.find((m) => m.id === id)
  change({ media: one ? refOf(one) : { mark: id.replace('mark:', '') } })
}
const named = computed(() => (props.overlay.kind === 'mark' && 'mark' in props.overlay.media ? props.overlay.media.mark : null))
</script>

<template>
  <section class="fields" aria-label="What it shows">
    <template v-if="worded">
      <template v-if="languages.length">
        <label v-for="[language, text] in languages" :key="language"
          >In {{ language
          }}<textarea
            class="form-control"
            rows="2"
            :value="text"
            maxlength="20000"
            @input="say(($event.target as HTMLTextAreaElement).value, language)"
          ></textarea>
        </label>
      </template>
      <label v-else
        >{{ worded.message ? 'What is said of each row' : 'Words'
        }}<textarea
          class="form-control"
          rows="2"
          :value="String(worded.text)"
          maxlength="20000"
          @input="say(($event.target as HTMLTextAreaElement).value)"
        ></textarea>
      </label>
      <div class="pair">
        <label
          >From
          <select class="form-select form-select-sm" :value="rows?.source ?? ''" @change="tell(($event.target as HTMLSelectElement).value)">
            <option value="">words typed here</option>
            <option v-for="one in sources" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select></label
        >
        <label v-if="!rows"
          >Another language
          <select class="form-select form-select-sm" value="" @change="addLanguage(($event.target as HTMLSelectElement).value)">
            <option value="">add one</option>
            <option v-for="one in ['en', 'pt', 'es', 'fr', 'de', 'ar']" :key="one" :value="one">{{ one }}</option>
          </select></label
        >
        <label v-else
          >Rows
          <input
            v-kept="rows.path"
            class="form-control form-control-sm figures"
            aria-label="Path of the rows"
            @change="change({ rows: { ...rows, path: ($event.target as HTMLInputElement).value } })"
        /></label>
      </div>
      <label v-if="rows && field"
        >{{ '{' + field[0] + '}' }} is
        <input
          class="form-control form-control-sm figures"
          :value="field[1]"
          aria-label="Path of what is told"
          @change="change({ rows: { ...rows, fields: { ...rows.fields, [field[0]]: ($event.target as HTMLInputElement).value } } })"
      /></label>
      <div class="pair">
        <ChoiceField
          label="Face"
          :value="worded.style.family ?? ''"
          :options="[
            ...(worded.style.family && !families.includes(worded.style.family)
              ? [{ value: worded.style.family, text: nameIn(worded.style.family) ?? worded.style.family }]
              : []),
            { value: '', text: 'of the house' },
            ...families,
          ]"
          @change="styled({ family: $event || undefined })"
        />
        <label
          >Size, px
          <MeasureField
            v-if="typeof worded.style.size_px === 'number'"
            label="Size of the type, px"
            :value="worded.style.size_px"
            :least="4"
            :most="2000"
            @change="styled({ size_px: $event }, 'size')"
          /><span v-else class="figures">{{ worded.style.size_px }}</span></label
        >
      </div>
      <div class="pair">
        <ColourField label="Colour" :value="plain(worded.style.color)" @change="styled({ color: $event }, 'colour')" />
        <div>
          <ColourField
            :label="isStrip(overlay) ? 'Ground' : 'Plate'"
            :value="plain(isStrip(overlay) ? overlay.ground : (overlay as NoticeOverlay).plate)"
            @change="change(isStrip(overlay) ? { ground: $event } : { plate: $event }, 'ground')"
          />
        </div>
      </div>
    </template>
    <label v-if="overlay.kind === 'mark'"
      >Picture
      <select class="form-select" :value="named ? `mark:${named}` : ownMark" @change="picture(($event.target as HTMLSelectElement).value)">
        <option v-if="named" :value="`mark:${named}`">{{ named }}, of the house style of each place</option>
        <option v-for="one in pictures" :key="one.id" :value="one.id">{{ one.name }}, {{ facts(one) }}</option>
      </select></label
    >
    <label v-if="playing"
      >{{ overlay.kind === 'window' ? 'What it shows around the programme' : 'What takes over' }}
      <select class="form-select" :value="played" @change="play(($event.target as HTMLSelectElement).value)">
        <optgroup label="Layouts">
          <option v-for="one in layouts" :key="one.id" :value="`layout:${one.id}`">{{ one.name }}</option>
        </optgroup>
        <optgroup v-if="overlay.kind === 'takeover'" label="Playlists">
          <option v-for="one in playlists" :key="one.id" :value="`playlist:${one.id}`">{{ one.name }}</option>
        </optgroup>
        <optgroup label="Pictures">
          <option v-for="one in pictures" :key="one.id" :value="`media:${one.id}`">{{ one.name }}</option>
        </optgroup>
      </select>
      <span v-if="overlay.kind === 'window'" class="small soft"
        >A layout with an element “programme”, or a picture with a transparent part.</span
      ></label
    >
    <label v-if="overlay.kind === 'takeover'"
      >Reason<input
        v-kept="overlay.reason"
        class="form-control"
        maxlength="500"
        @change="change({ reason: ($event.target as HTMLInputElement).value })"
    /></label>
  </section>

  <section v-if="overlay.kind !== 'takeover'" class="fields" aria-label="Where on the screen">
    <template v-if="overlay.kind === 'mark'">
      <WhereField label="Corner" :places="CORNERS" :value="overlay.corner" @change="change({ corner: $event })" />
      <ShareField
        label="Height, of the shorter side"
        :value="overlay.size"
        :side="side('shorter')"
        :least="0.001"
        @change="(size, g) => change({ size }, g)"
      />
      <ShareField label="Away from the edges" :value="overlay.inset ?? 0" :side="side('shorter')" @change="(inset, g) => change({ inset }, g)" />
      <div class="line">
        <span>Opacity</span
        ><MeasureField
          label="Opacity"
          unit="%"
          :value="100 * (overlay.opacity ?? 1)"
          :most="100"
          :decimals="0"
          @change="(v, g) => change({ opacity: v / 100 }, g)"
        />
      </div>
    </template>
    <template v-else-if="isStrip(overlay)">
      <div class="pair">
        <ChoiceField label="Edge" :value="overlay.edge" :options="EDGES" @change="change({ edge: $event, direction: undefined })" />
        <ChoiceField
          label="Runs"
          :value="overlay.direction ?? (isUpright ? 'up' : 'to-left')"
          :options="
            isUpright
              ? ['up', 'down']
              : [
                  { value: 'to-left', text: 'to the left' },
                  { value: 'to-right', text: 'to the right' },
                ]
          "
          @change="change({ direction: $event as TickerOverlay['direction'] })"
        />
      </div>
      <ShareField
        :label="isUpright ? 'Thickness, of the width' : 'Thickness, of the height'"
        :value="overlay.thickness"
        :side="side(isUpright ? 'width' : 'height')"
        :least="0.001"
        @change="(thickness, g) => change({ thickness }, g)"
      />
      <div class="line">
        <span>Speed</span
        ><MeasureField
          label="Speed"
          unit="px/s"
          :value="overlay.speed_px_s"
          :least="1"
          :most="5000"
          :decimals="0"
          @change="(v, g) => change({ speed_px_s: v }, g)"
        />
      </div>
      <ChoiceField
        label="What plays"
        :value="overlay.room ?? 'cover'"
        :options="[
          { value: 'cover', text: 'lies below it' },
          { value: 'squeeze', text: 'is squeezed beside it' },
        ]"
        @change="change({ room: $event as 'cover' | 'squeeze' })"
      />
    </template>
    <template v-else-if="overlay.kind === 'notice'">
      <WhereField label="Place" :places="PLACES" :value="overlay.place" @change="change({ place: $event })" />
      <ShareField label="Width" :value="overlay.width" :side="side('width')" :least="0.01" @change="(w, g) => change({ width: w }, g)" />
      <ShareField
        label="Padding, of the shorter side"
        :value="overlay.padding ?? 0"
        :side="side('shorter')"
        @change="(padding, g) => change({ padding }, g)"
      />
      <ChoiceField
        label="It"
        :value="overlay.moves ?? 'stands'"
        :options="[
          { value: 'stands', text: 'stands' },
          { value: 'to-left', text: 'runs to the left' },
          { value: 'to-right', text: 'runs to the right' },
        ]"
        @change="change($event === 'stands' ? { moves: undefined } : { moves: $event, speed_px_s: overlay.speed_px_s ?? 120 })"
      />
    </template>
    <template v-else>
      <div class="line">
        <span>Its own sound</span
        ><MeasureField
          label="Its own sound"
          unit="%"
          :value="overlay.volume ?? 0"
          :most="100"
          :decimals="0"
          @change="(v, g) => change({ volume: v }, g)"
        />
      </div>
      <div class="line">
        <span>Sound of the programme</span
        ><MeasureField
          label="Sound of the programme"
          unit="%"
          :value="overlay.programme_volume ?? 100"
          :most="100"
          :decimals="0"
          @change="(v, g) => change({ programme_volume: v }, g)"
        />
      </div>
      <p class="small soft m-0">The louder of the two is heard, of equals the window.</p>
    </template>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
}
.fields > label,
.pair > label {
  display: block;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: end;
}
.line {
  display: grid;
  grid-template-columns: 1fr 136px;
  align-items: baseline;
  gap: 8px;
}
</style>
