<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import ChoiceField from '../../../ui/ChoiceField.vue'
import type { Style, TextElement } from '../../designs'
import { useComposer } from '../../composer/composer'
import { useFaces } from '../../composer/faces'
import FigureField from '../../composer/FigureField.vue'
import { type MarkLook, characterAt, lookOf, marked } from '../../composer/marks'
import StyleFields from '../../composer/details/StyleFields.vue'
import { useMeaning } from '../../style'
import LanguageFields from '../LanguageFields.vue'
import MessageFields from '../MessageFields.vue'

/** A text: its words, how they are set, how some of them are set otherwise, and what becomes of them where they have no room. */
const props = defineProps<{ one: TextElement }>()
const composer = useComposer()
const { weights } = useFaces()
const meaning = useMeaning()
const field = useTemplateRef('field')
const picked = ref<[number, number]>([0, 0])
const some = computed(() => picked.value[1] > picked.value[0])
const marks = computed(() => props.one.marks ?? [])
const look = computed(() => lookOf(marks.value, ...picked.value))
watch(
  () => props.one.id,
  () => (picked.value = [0, 0]),
)

function pick() {
  const area = field.value!
  picked.value = [characterAt(area.value, area.selectionStart), characterAt(area.value, area.selectionEnd)]
}
function put(change: MarkLook, gesture?: string) {
  const next = marked(marks.value, ...picked.value, change)
  composer.edit<TextElement>(props.one.id, { marks: next.length ? next : undefined }, gesture)
}
const WORDS = { report: 'tell me', shrink: 'smaller type', clip: 'cut with …' }
</script>

<template>
  <MessageFields :one="one" label="Text">
    <textarea
      ref="field"
      class="form-control"
      rows="3"
      :value="one.text"
      aria-label="Text"
      maxlength="20000"
      @input="composer.retext(one.id, ($event.target as HTMLTextAreaElement).value)"
      @select="pick"
      @keyup="pick"
      @pointerup="pick"
    ></textarea>
  </MessageFields>
  <LanguageFields :one="one" label="Text" />
  <fieldset v-if="!one.message" class="wide marks" :disabled="!some">
    <legend>{{ some ? 'The words chosen above' : 'Choose words above to set them otherwise' }}</legend>
    <label
      >Weight<select
        class="form-select form-select-sm"
        :value="look.weight ?? ''"
        @change="put({ weight: Number(($event.target as HTMLSelectElement).value) || undefined })"
      >
        <option value="">as the rest</option>
        <option v-for="w in weights(meaning.family(one.style.family))" :key="w" :value="w">{{ w }}</option>
      </select></label
    >
    <label
      >Size, %<FigureField
        :value="Math.round(100 * (look.size ?? 1))"
        :least="5"
        label="size of the words chosen, in % of the text"
        @change="(v, g) => put({ size: v === 100 ? undefined : Math.min(20, v / 100) }, g)"
    /></label>
    <label
      >Colour<input
        type="color"
        class="form-control form-control-color"
        :value="meaning.hex(look.color ?? one.style.color ?? '#000000')"
        @input="put({ color: ($event.target as HTMLInputElement).value }, `mark ${picked.join()}`)"
    /></label>
    <button type="button" class="btn btn-link btn-sm p-0" @click="put({ weight: undefined, size: undefined, color: undefined })">as the rest</button>
  </fieldset>
  <StyleFields
    :style="one.style"
    label="the text"
    @change="(style: Style, g) => composer.edit<TextElement>(one.id, { style }, g && `${g} ${one.id}`)"
  />
  <ChoiceField
    label="Without room"
    :value="one.overflow ?? 'report'"
    :options="Object.entries(WORDS).map(([value, text]) => ({ value, text }))"
    @change="(to) => composer.edit<TextElement>(one.id, { overflow: to === 'report' ? undefined : (to as TextElement['overflow']) })"
  />
  <label v-if="one.overflow === 'shrink'"
    >At least, px<FigureField
      :value="one.least_px ?? 1"
      :least="1"
      label="smallest type in px"
      @change="(v, g) => composer.edit<TextElement>(one.id, { least_px: v }, g)"
  /></label>
</template>

<style scoped>
.marks {
  display: grid;
  grid-template-columns: 1fr 60px 44px auto;
  gap: 4px 10px;
  align-items: end;
  padding: 0 0 6px;
  border-bottom: 1px solid var(--rule);
}
.marks legend {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0;
  grid-column: 1 / 5;
}
.form-control-color {
  width: 100%;
  height: 27px;
  padding: 2px;
}
</style>
