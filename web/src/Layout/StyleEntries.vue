<script setup lang="ts">
import { ref } from 'vue'
import type { MediaState } from '../Media/media'
import { refOf } from '../Media/media'
import MediaPicker from '../Media/MediaPicker.vue'
import { useFaces } from './composer/faces'
import { vKept } from '../ui/kept'
import EntryOrigin from './EntryOrigin.vue'
import NewEntry from './NewEntry.vue'
import { type Look, type StyleDocument, inWords } from './style'

/** What a style names: its own entries to change, those of the style that it extends to be overridden. */
const props = defineProps<{ document: StyleDocument; look: Look; own: string; called: (id: string) => string }>()
const emit = defineEmits<{ change: [document: StyleDocument] }>()
const { families, weights } = useFaces()
type Sort = 'colours' | 'faces' | 'sizes' | 'marks'
function put(sort: Sort, name: string, value: unknown) {
  emit('change', { ...props.document, [sort]: { ...props.document[sort], [name]: value } })
}
function take(sort: Sort, name: string) {
  const rest: Record<string, unknown> = { ...props.document[sort] }
  delete rest[name]
  emit('change', { ...props.document, [sort]: rest })
}
const HEX = /^#([0-9a-f]{6}|[0-9a-f]{8})$/
/** As it was typed, also where it is no colour. */
const hexOf = (one: Look['colours'][number]) => props.document.colours?.[one.name] ?? one.hex

const BEGUN = { colours: '#808080', faces: { family: 'Inter' }, sizes: { share: 0.05 } }
const namesOf = (sort: Sort) => props.look[sort].map((one) => one.name)
const origin = (from: string) => (from === props.own ? null : props.called(from))
const UNITS = { px: 'px', share: '% of height', arcmin: 'arc minutes' } as const
type Unit = keyof typeof UNITS
const figure = (size: { unit: string; value: number }) => (size.unit === 'share' ? +(100 * size.value).toFixed(3) : size.value)
const sized = (unit: Unit, shown: number) => ({ [unit]: unit === 'share' ? +(shown / 100).toFixed(6) : shown })
function setUnit(size: Look['sizes'][number], unit: Unit) {
  // As large as before where it is seen: what follows from there is the core's to say.
  put('sizes', size.name, sized(unit, unit === 'px' ? size.px : unit === 'share' ? 5 : 20))
}
const typedFigure = (event: Event) => Number((event.target as HTMLInputElement).value)

const picking = ref(false)
/** The mark whose picture is being chosen. */
const marking = ref('')
function picked([media]: MediaState[]) {
  if (media) put('marks', marking.value, refOf(media))
}
</script>

<template>
  <div class="columns">
    <section aria-label="Colours">
      <h2>Colours</h2>
      <table class="entries">
        <tbody>
          <tr v-for="one in look.colours" :key="one.name">
            <th scope="row">{{ one.name }}</th>
            <td>
              <input
                type="color"
                class="form-control form-control-color"
                :aria-label="`Colour ${one.name}`"
                :value="one.hex.slice(0, 7)"
                @input="put('colours', one.name, ($event.target as HTMLInputElement).value + one.hex.slice(7))"
              />
            </td>
            <td>
              <input
                v-kept="hexOf(one)"
                class="form-control form-control-sm figures hex"
                :aria-label="`Hex of ${one.name}`"
                :aria-invalid="!HEX.test(hexOf(one))"
                maxlength="9"
                @change="put('colours', one.name, ($event.target as HTMLInputElement).value.trim().toLowerCase())"
              />
            </td>
            <EntryOrigin :name="one.name" :from="origin(one.from)" :inherits="!!document.extends" @take="take('colours', one.name)" />
          </tr>
        </tbody>
      </table>
      <NewEntry noun="colour" :taken="namesOf('colours')" @add="put('colours', $event, BEGUN.colours)" />
    </section>

    <div>
      <section aria-label="Faces">
        <h2>Faces</h2>
        <table class="entries">
          <tbody>
            <tr v-for="one in look.faces" :key="one.name">
              <th scope="row">{{ one.name }}</th>
              <td>
                <select
                  class="form-select form-select-sm"
                  :aria-label="`Family of ${one.name}`"
                  :value="one.family"
                  @change="put('faces', one.name, { family: ($event.target as HTMLSelectElement).value })"
                >
                  <option v-for="family in families.includes(one.family) ? families : [one.family, ...families]" :key="family" :value="family">
                    {{ family }}
                  </option>
                </select>
              </td>
              <td>
                <select
                  class="form-select form-select-sm"
                  :aria-label="`Weight of ${one.name}`"
                  :value="one.weight ?? ''"
                  @change="
                    put('faces', one.name, {
                      family: one.family,
                      ...(($event.target as HTMLSelectElement).value ? { weight: Number(($event.target as HTMLSelectElement).value) } : {}),
                    })
                  "
                >
                  <option value="">as each text says</option>
                  <option v-for="weight in weights(one.family)" :key="weight" :value="weight">{{ weight }}</option>
                </select>
              </td>
              <EntryOrigin :name="one.name" :from="origin(one.from)" :inherits="!!document.extends" @take="take('faces', one.name)" />
            </tr>
          </tbody>
        </table>
        <NewEntry noun="face" :taken="namesOf('faces')" @add="put('faces', $event, BEGUN.faces)" />
      </section>

      <section aria-label="Sizes">
        <h2>Sizes <slot name="sizes"></slot></h2>
        <table class="entries">
          <tbody>
            <tr v-for="one in look.sizes" :key="one.name">
              <th scope="row">{{ one.name }}</th>
              <td>
                <input
                  type="number"
                  step="any"
                  min="0"
                  class="form-control form-control-sm figures"
                  :aria-label="`Size of ${one.name}`"
                  :value="figure(one)"
                  @change="put('sizes', one.name, sized(one.unit, typedFigure($event)))"
                />
              </td>
              <td>
                <select
                  class="form-select form-select-sm"
                  :aria-label="`Unit of ${one.name}`"
                  :value="one.unit"
                  @change="setUnit(one, ($event.target as HTMLSelectElement).value as Unit)"
                >
                  <option v-for="(text, unit) in UNITS" :key="unit" :value="unit">{{ text }}</option>
                </select>
              </td>
              <td class="figures small text-nowrap" :title="inWords(one)">= {{ one.px }} px</td>
              <EntryOrigin :name="one.name" :from="origin(one.from)" :inherits="!!document.extends" @take="take('sizes', one.name)" />
            </tr>
          </tbody>
        </table>
        <NewEntry noun="size" :taken="namesOf('sizes')" @add="put('sizes', $event, BEGUN.sizes)" />
      </section>
    </div>
  </div>

  <section aria-label="Marks">
    <h2>Marks</h2>
    <p v-if="look.marks.length === 0" class="small soft m-0">
      None yet: a mark is a picture that layouts show by its name, and each place may have its own.
    </p>
    <table class="entries">
      <tbody>
        <tr v-for="one in look.marks" :key="one.name">
          <th scope="row">{{ one.name }}</th>
          <td class="figures small">{{ one.media.name }}, {{ one.media.width }} × {{ one.media.height }} px</td>
          <EntryOrigin :name="one.name" :from="origin(one.from)" :inherits="!!document.extends" @take="take('marks', one.name)" />
        </tr>
      </tbody>
    </table>
    <NewEntry noun="mark" :taken="namesOf('marks')" act="Choose its picture…" @add="((marking = $event), (picking = true))" />
    <MediaPicker v-model="picking" pictures-only @chosen="picked" />
  </section>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 0 40px;
}
h2 {
  font-size: 0.9375rem;
  font-weight: 650;
  margin-top: 14px;
  display: flex;
  align-items: center;
  gap: 14px;
}
h2 :deep(label) {
  display: flex;
  align-items: center;
  gap: 8px;
  font-weight: 400;
}
.entries th {
  font-family: var(--figures);
  font-weight: 400;
  padding: 3px 16px 3px 0;
  min-width: 70px;
}
.entries td {
  padding: 3px 8px 3px 0;
}
.entries .form-control-color {
  width: 54px;
  height: 28px;
  padding: 2px;
}
.hex {
  width: 104px;
}
.entries input[type='number'] {
  width: 76px;
}
.entries select {
  min-width: 132px;
}
</style>
