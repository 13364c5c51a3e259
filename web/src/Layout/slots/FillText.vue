<script setup lang="ts">
import { computed } from 'vue'
import { type Room, type SlotOf, type Value, isMissing } from '../filling'
import { languageName } from '../languages'
import SlotLine from './SlotLine.vue'

/** Words: one text, or one in each language; with the room that is left for more. */
const props = defineProps<{
  one: SlotOf<'text'>
  value: Value | undefined
  /** By language. */
  room: Record<string, Room | null> | undefined
  /** Words too many, by language. */
  tooMany: Record<string, number>
}>()
const emit = defineEmits<{ change: [value: Value | undefined, gesture: string] }>()
const languages = computed(() => props.one.languages ?? [''])
const texts = computed<Record<string, string>>(() => {
  const value = props.value
  if (typeof value === 'object' && !Array.isArray(value)) return value as Record<string, string>
  // One for all stands in each of them.
  return typeof value === 'string' ? Object.fromEntries(languages.value.map((language) => [language, value])) : {}
})
function write(language: string, text: string) {
  if (language === '') return emit('change', text === '' ? undefined : text, props.one.id)
  const left = Object.fromEntries(
    languages.value.flatMap((tag) => {
      const said = tag === language ? text : (texts.value[tag] ?? '')
      return said === '' ? [] : [[tag, said]]
    }),
  )
  emit('change', Object.keys(left).length ? left : undefined, `${props.one.id} ${language}`)
}
const name = (language: string) => (language === '' ? props.one.name : `${props.one.name}, ${languageName(language)}`)
/** So few are told one by one. */
const FEW_LETTERS = 12
const left = (language: string) => {
  const room = props.room?.[language]
  if (!room) return ''
  return room.letters < FEW_LETTERS ? `room for ${room.letters} letters` : `room for about ${room.words} words`
}
const wrong = (language: string) => {
  const words = props.tooMany[language] ?? props.tooMany['']
  return words ? `${words} ${words === 1 ? 'word' : 'words'} too many` : ''
}
</script>

<template>
  <SlotLine
    v-for="language in languages"
    :key="language"
    class="language"
    :name="name(language)"
    :missing="isMissing(one, texts[language])"
    :says="wrong(language) || left(language)"
    :over="wrong(language) !== ''"
  >
    <textarea
      class="form-control"
      :rows="(texts[language] ?? '').length > 60 ? 3 : 2"
      maxlength="20000"
      :lang="language || undefined"
      dir="auto"
      :value="texts[language] ?? ''"
      :aria-label="name(language)"
      :data-slot="one.id"
      :data-language="language"
      @input="write(language, ($event.target as HTMLTextAreaElement).value)"
    ></textarea>
  </SlotLine>
</template>

<style scoped>
.language + .language {
  margin-top: 8px;
}
</style>
