<script setup lang="ts">
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import type { CodeElement, Style } from '../../designs'
import { useComposer } from '../../composer/composer'
import FigureField from '../../composer/FigureField.vue'
import StyleFields from '../../composer/details/StyleFields.vue'
import LanguageFields from '../LanguageFields.vue'
import MessageFields from '../MessageFields.vue'

/** A code to be scanned: what stands in it, how much of it may be lost, and the words beside it for those who cannot scan it. */
const props = defineProps<{ one: CodeElement }>()
const composer = useComposer()
const put = (part: Partial<CodeElement>, gesture?: string) => composer.edit<CodeElement>(props.one.id, part, gesture)
const LEVELS = [
  { value: 'L', text: 'L, 7 % may be lost' },
  { value: 'M', text: 'M, 15 %' },
  { value: 'Q', text: 'Q, 25 %' },
  { value: 'H', text: 'H, 30 %' },
]
const caption = () =>
  put({
    caption: props.one.caption
      ? undefined
      : { text: 'Scan me', style: { family: 'Inter', weight: 600, size_px: 40, color: '#ffffff', align: 'center', valign: 'middle' } },
  })
function typed(event: Event) {
  const text = (event.target as HTMLTextAreaElement).value
  if (text !== '') composer.retext(props.one.id, text)
}
</script>

<template>
  <MessageFields :one="one" label="What stands in the code">
    <textarea
      class="form-control"
      rows="2"
      :value="one.text"
      aria-label="What stands in the code"
      maxlength="8000"
      spellcheck="false"
      @input="typed"
    ></textarea>
  </MessageFields>
  <LanguageFields :one="one" label="What stands in the code" />
  <ChoiceField
    label="Error correction"
    :value="one.level ?? 'M'"
    :options="LEVELS"
    @change="(level) => put({ level: level as CodeElement['level'] })"
  />
  <label
    >Quiet zone, modules<FigureField
      :value="one.quiet ?? 4"
      :least="0"
      label="quiet zone in modules"
      @change="(v, g) => put({ quiet: Math.min(40, v) }, g)"
  /></label>
  <ColourField label="Modules" :value="one.color ?? '#000000'" @change="(color) => put({ color }, `colour ${one.id}`)" />
  <ColourField label="Ground" :value="one.ground ?? '#ffffff'" @change="(ground) => put({ ground }, `ground ${one.id}`)" />
  <label class="switch wide"><input type="checkbox" :checked="!!one.caption" @change="caption" /> With words beside it</label>
  <template v-if="one.caption">
    <label class="wide"
      >Words<input
        class="form-control form-control-sm"
        :value="one.caption.text"
        maxlength="200"
        aria-label="Words beside the code"
        @input="
          ($event.target as HTMLInputElement).value &&
          put({ caption: { ...one.caption!, text: ($event.target as HTMLInputElement).value } }, `caption ${one.id}`)
        "
    /></label>
    <StyleFields
      :style="one.caption.style"
      label="the words beside the code"
      plain
      @change="(style: Style, g) => put({ caption: { ...one.caption!, style } }, g && `${g} ${one.id}`)"
    />
  </template>
</template>

<style scoped>
.switch {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
