<script setup lang="ts">
import ChoiceField from '../../../ui/ChoiceField.vue'
import type { Style, TickerElement } from '../../designs'
import { useComposer } from '../../composer/composer'
import FigureField from '../../composer/FigureField.vue'
import StyleFields from '../../composer/details/StyleFields.vue'
import LanguageFields from '../LanguageFields.vue'
import MessageFields from '../MessageFields.vue'
import { vKept } from '../../../ui/kept'

/** Running text: its words, how fast they run, and which way. */
const props = defineProps<{ one: TickerElement }>()
const composer = useComposer()
const put = (part: Partial<TickerElement>, gesture?: string) => composer.edit<TickerElement>(props.one.id, part, gesture)
</script>

<template>
  <MessageFields :one="one" label="Running text">
    <textarea
      class="form-control"
      rows="3"
      :value="one.text"
      aria-label="Running text"
      maxlength="20000"
      @input="composer.retext(one.id, ($event.target as HTMLTextAreaElement).value)"
    ></textarea>
  </MessageFields>
  <LanguageFields :one="one" label="Running text" />
  <label v-if="one.rows"
    >Between rows<input
      v-kept="one.separator ?? ' · '"
      class="form-control form-control-sm"
      maxlength="100"
      @change="put({ separator: ($event.target as HTMLInputElement).value })"
  /></label>
  <label
    >Speed, px a second<FigureField
      :value="one.speed_px_s ?? 120"
      :least="1"
      label="speed in px a second"
      @change="(v, g) => put({ speed_px_s: v }, g)"
  /></label>
  <ChoiceField label="To the" :value="one.way ?? 'left'" :options="['left', 'right']" @change="(way) => put({ way: way as TickerElement['way'] })" />
  <StyleFields :style="one.style" label="the running text" @change="(style: Style, g) => put({ style }, g && `${g} ${one.id}`)" />
</template>
