<script setup lang="ts">
import { computed, ref } from 'vue'
import { useComposer } from '../composer/composer'
import FigureField from '../composer/FigureField.vue'
import type { CodeElement, TextElement, TickerElement } from '../designs'

/** The same words in other languages: they take turns, or the place chooses among them. The first is the text itself. */
type Spoken = TextElement | TickerElement | CodeElement
const props = defineProps<{ one: Spoken; label: string }>()
const composer = useComposer()
const put = (part: Partial<Spoken>, gesture?: string) => composer.edit<Spoken>(props.one.id, part, gesture)

const languages = computed(() => Object.keys(props.one.texts ?? {}))
const first = ref('en')
const next = ref('')
const TAG = /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/
const wrong = computed(() => {
  if (next.value === '') return ''
  if (!TAG.test(next.value) || !TAG.test(first.value)) return 'a language such as en or pt-PT'
  return (languages.value.length ? languages.value : [first.value]).includes(next.value) ? 'it is there already' : ''
})
function add() {
  if (next.value === '' || wrong.value) return
  put({ texts: { ...(props.one.texts ?? { [first.value]: props.one.text }), [next.value]: props.one.text } })
  next.value = ''
}
const write = (language: string, text: string) => put({ texts: { ...props.one.texts, [language]: text } }, `text ${props.one.id} ${language}`)
function take(language: string) {
  const left = Object.fromEntries(Object.entries(props.one.texts ?? {}).filter(([one]) => one !== language))
  const [only] = Object.keys(left)
  put(
    Object.keys(left).length < 2
      ? { texts: undefined, turn_ms: undefined, text: left[only!] ?? props.one.text }
      : { texts: left, text: left[only!]! },
  )
}
</script>

<template>
  <details class="wide languages" :open="languages.length > 0">
    <summary>
      In other languages <span v-if="languages.length" class="figures soft"> {{ languages.join(', ') }}</span>
    </summary>
    <template v-if="languages.length">
      <p class="small soft m-0">
        The text above is in {{ languages[0] }}. They take turns, unless a place has chosen its languages.
        <button type="button" class="btn btn-link btn-sm p-0" @click="take(languages[0]!)">take {{ languages[0] }} out</button>
      </p>
      <label v-for="language in languages.slice(1)" :key="language" class="wide"
        ><span class="what"
          >{{ language }}
          <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Take ${language} out`" @click="take(language)">take out</button></span
        ><textarea
          class="form-control"
          rows="2"
          maxlength="20000"
          :lang="language"
          :value="one.texts![language]"
          :aria-label="`${label} in ${language}`"
          @input="write(language, ($event.target as HTMLTextAreaElement).value)"
        ></textarea>
      </label>
      <label
        >Each stands, s<FigureField
          :value="(one.turn_ms ?? 6000) / 1000"
          :least="0.5"
          label="how long each language stands, in s"
          @change="(v, g) => put({ turn_ms: Math.round(1000 * v) }, g)"
      /></label>
    </template>
    <form class="add" @submit.prevent="add">
      <template v-if="!languages.length">
        this one is in <input v-model.trim="first" class="form-control form-control-sm" aria-label="Language of this text" maxlength="20" />
      </template>
      also in <input v-model.trim="next" class="form-control form-control-sm" aria-label="Another language" placeholder="pt" maxlength="20" />
      <button type="submit" class="btn btn-outline-dark btn-sm" :disabled="!next || !!wrong">Add</button>
      <span class="small said-error">{{ wrong }}</span>
    </form>
  </details>
</template>

<style scoped>
.languages > * + * {
  margin-top: 6px;
}
.languages label {
  display: block;
}
.languages textarea {
  width: 100%;
}
.languages summary {
  font-size: 0.8125rem;
  font-weight: 650;
}
.what {
  display: flex;
  justify-content: space-between;
}
.add {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  font-size: 0.8125rem;
}
.add input {
  width: 58px;
}
</style>
