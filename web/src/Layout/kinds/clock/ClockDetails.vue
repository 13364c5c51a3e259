<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed, ref, watch } from 'vue'
import { api, sentence } from '../../../ui/api'
import ChoiceField from '../../../ui/ChoiceField.vue'
import ColourField from '../../../ui/ColourField.vue'
import { vKept } from '../../../ui/kept'
import type { ClockElement, Dial, Style } from '../../designs'
import { useComposer } from '../../composer/composer'
import StyleFields from '../../composer/details/StyleFields.vue'

/** A clock: the time or the date in words, hands on a dial, or the time that is left until an instant. */
const props = defineProps<{ one: ClockElement; timezone: string }>()
const composer = useComposer()
const put = (part: Partial<ClockElement>, gesture?: string) => composer.edit<ClockElement>(props.one.id, part, gesture)
const mode = computed(() => (props.one.dial ? 'dial' : props.one.until ? 'left' : 'words'))
const MODES = [
  { value: 'words', text: 'the time or date' },
  { value: 'dial', text: 'the time, by hands' },
  { value: 'left', text: 'the time that is left' },
]
const USUAL = {
  words: ['HH:mm', 'HH:mm:ss', 'h:mm a', 'EEEE, d MMMM', 'd MMMM y', 'dd.MM.y', "EEE d MMM, HH:mm 'h'"],
  left: ['HH:mm:ss', 'mm:ss', "d 'days' HH:mm", 'd'],
  dial: [],
}
const zones = Intl.supportedValuesOf('timeZone')
const zone = computed(() => props.one.timezone ?? props.timezone)
const style = (): Style => props.one.style ?? { family: 'Inter', size_px: 72, weight: 600, color: props.one.dial?.color ?? '#ffffff' }

function tell(to: string) {
  const words = { pattern: undefined, locale: props.one.locale, dial: undefined, until: undefined, after: undefined, style: style() }
  if (to === 'dial') put({ ...words, style: undefined, locale: undefined, dial: { color: props.one.style?.color ?? '#ffffff' } })
  else put(to === 'left' ? { ...words, until: new Date(Date.now() + 86_400_000).toISOString().replace(/:\d\d\.\d+Z/, ':00Z') } : words)
}
const dial = (part: Partial<Dial>, gesture?: string) => props.one.dial && put({ dial: { ...props.one.dial, ...part } }, gesture)

const wrong = ref<Record<string, string>>({})
watch(
  () => props.one.id,
  () => (wrong.value = {}),
)
/** What is typed is taken once the core can read it; until then its field keeps it, with the reason. */
async function typed(field: 'pattern' | 'locale' | 'timezone', event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const next = { pattern: props.one.pattern, locale: props.one.locale, timezone: props.one.timezone, [field]: text || undefined }
  wrong.value = {}
  try {
    await api.post('clock', {
      pattern: next.pattern ?? (props.one.until ? 'HH:mm:ss' : 'HH:mm'),
      at: new Date().toISOString(),
      ...(next.locale ? { locale: next.locale } : {}),
      ...(next.timezone ? { timezone: next.timezone } : {}),
      ...(props.one.until ? { until: props.one.until } : {}),
    })
    put({ [field]: text || undefined })
  } catch (e) {
    wrong.value = { [field]: sentence(e) }
  }
}
const untilLocal = computed(() => (props.one.until ? DateTime.fromISO(props.one.until, { zone: zone.value }).toFormat("yyyy-MM-dd'T'HH:mm:ss") : ''))
function until(event: Event) {
  const at = DateTime.fromISO((event.target as HTMLInputElement).value, { zone: zone.value })
  if (at.isValid) put({ until: at.toUTC().toISO({ suppressMilliseconds: true }) })
}
</script>

<template>
  <ChoiceField class="wide" label="Tells" :value="mode" :options="MODES" @change="tell" />
  <template v-if="one.dial">
    <ColourField label="Hands and marks" :value="one.dial.color" @change="(color) => dial({ color }, `dial ${one.id}`)" />
    <ColourField label="Ground" :value="one.dial.ground ?? '#000000'" @change="(ground) => dial({ ground }, `ground ${one.id}`)" />
    <label class="switch"
      ><input type="checkbox" :checked="one.dial.seconds ?? true" @change="dial({ seconds: !(one.dial!.seconds ?? true) })" /> Hand for the
      seconds</label
    >
    <label class="switch"
      ><input type="checkbox" :checked="!!one.dial.ground" @change="dial({ ground: one.dial!.ground ? undefined : '#17272e' })" /> On a ground</label
    >
  </template>
  <template v-else>
    <label
      >Pattern<input
        v-kept="one.pattern ?? (one.until ? 'HH:mm:ss' : 'HH:mm')"
        class="form-control form-control-sm figures"
        list="usual-patterns"
        aria-label="Pattern of the time"
        spellcheck="false"
        :aria-invalid="!!wrong.pattern"
        @change="typed('pattern', $event)"
    /></label>
    <datalist id="usual-patterns"><option v-for="p in USUAL[mode]" :key="p" :value="p" /></datalist>
    <label
      >Language<input
        v-kept="one.locale ?? ''"
        class="form-control form-control-sm"
        list="usual-languages"
        placeholder="en"
        aria-label="Language of the time"
        @change="typed('locale', $event)"
    /></label>
    <datalist id="usual-languages"><option v-for="l in ['en', 'en-GB', 'pt-PT', 'es', 'fr', 'de', 'el', 'uk', 'ar']" :key="l" :value="l" /></datalist>
  </template>
  <label class="wide"
    >Time zone<input
      v-kept="one.timezone ?? ''"
      class="form-control form-control-sm"
      list="all-zones"
      :placeholder="`that of its display: ${timezone}`"
      aria-label="Time zone of the clock"
      @change="typed('timezone', $event)"
  /></label>
  <datalist id="all-zones"><option v-for="z in zones" :key="z" :value="z" /></datalist>
  <p v-for="(said, field) in wrong" :key="field" class="wide said-error" role="alert">{{ said }}</p>
  <template v-if="one.until">
    <label
      >Until, {{ zone
      }}<input v-kept="untilLocal" type="datetime-local" step="1" class="form-control form-control-sm" aria-label="Until" @change="until"
    /></label>
    <label
      >Then<input
        v-kept="one.after ?? ''"
        class="form-control form-control-sm"
        placeholder="nothing left"
        aria-label="What is said when it is over"
        @change="put({ after: ($event.target as HTMLInputElement).value || undefined })"
    /></label>
  </template>
  <StyleFields v-if="one.style" :style="one.style" label="the clock" @change="(s: Style, g) => put({ style: s }, g && `${g} ${one.id}`)" />
</template>

<style scoped>
.switch {
  display: flex;
  gap: 6px;
  align-items: center;
}
.said-error {
  margin: 0;
  font-size: 0.8125rem;
}
</style>
