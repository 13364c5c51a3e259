<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'

/** A message: plain words, and fields in braces. Typing a brace offers the fields; so does the button beside it. */
const props = defineProps<{ text: string; fields: string[]; label: string; rows?: number }>()
const emit = defineEmits<{ change: [text: string] }>()
const input = useTemplateRef<HTMLTextAreaElement>('input')
/** What stands behind the brace that is typed just now; null where none is. */
const begun = ref<string | null>(null)
const chosen = ref(0)
const offered = computed(() => (begun.value === null ? [] : props.fields.filter((name) => name.toLowerCase().startsWith(begun.value!.toLowerCase()))))

function look() {
  const area = input.value!
  const before = area.value.slice(0, area.selectionStart)
  const match = /\{([A-Za-z0-9_]*)$/.exec(before)
  begun.value = match ? match[1]! : null
  chosen.value = 0
}
function typed() {
  emit('change', input.value!.value)
  look()
}
async function put(name: string) {
  const area = input.value!
  const at = area.selectionStart
  const from = begun.value === null ? at : at - begun.value.length - 1
  const end = area.value.slice(at).startsWith('}') ? at + 1 : at
  const text = `${area.value.slice(0, from)}{${name}}${area.value.slice(end)}`
  begun.value = null
  emit('change', text)
  await nextTick()
  area.focus()
  area.setSelectionRange(from + name.length + 2, from + name.length + 2)
}
function key(event: KeyboardEvent) {
  if (offered.value.length === 0) return
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    chosen.value = (chosen.value + (event.key === 'ArrowDown' ? 1 : offered.value.length - 1)) % offered.value.length
  } else if (event.key === 'Enter' || event.key === 'Tab') void put(offered.value[chosen.value]!)
  else if (event.key === 'Escape') begun.value = null
  else return
  event.preventDefault()
  event.stopPropagation()
}
function left(event: FocusEvent) {
  if (!(event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null)) begun.value = null
}
async function offer() {
  begun.value = begun.value === null ? '' : null
  if (begun.value !== null) {
    const area = input.value!
    const at = area.selectionStart
    emit('change', `${area.value.slice(0, at)}{${area.value.slice(at)}`)
    await nextTick()
    area.focus()
    area.setSelectionRange(at + 1, at + 1)
  }
}
</script>

<template>
  <div class="message" @focusout="left">
    <textarea
      ref="input"
      class="form-control form-control-sm"
      :rows="rows ?? 1"
      :value="text"
      :aria-label="label"
      maxlength="20000"
      spellcheck="false"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="offered.length > 0"
      @input="typed"
      @keydown="key"
    ></textarea>
    <button
      v-if="fields.length"
      type="button"
      class="btn btn-link btn-sm p-0 figures"
      title="Put a field in"
      aria-label="Put a field in"
      @mousedown.prevent
      @click="offer"
    >
      {…}
    </button>
    <ul v-if="offered.length" role="listbox" aria-label="Fields">
      <li v-for="(name, n) in offered" :key="name" role="option" :aria-selected="n === chosen" @mousedown.prevent="put(name)">{{ name }}</li>
    </ul>
  </div>
</template>

<style scoped>
.message {
  position: relative;
  display: flex;
  gap: 6px;
  align-items: baseline;
  flex: 1;
  min-width: 0;
}
textarea {
  resize: vertical;
  min-height: 29px;
  font-family: var(--figures);
  font-size: 0.8125rem;
}
ul {
  position: absolute;
  top: 100%;
  left: 0;
  z-index: 5;
  min-width: 160px;
  max-height: 190px;
  overflow: auto;
  margin: 1px 0 0;
  padding: 2px 0;
  list-style: none;
  background: var(--sheet);
  border: 1px solid var(--soft);
}
li {
  padding: 3px 10px;
  font-family: var(--figures);
  font-size: 0.8125rem;
  cursor: pointer;
}
li[aria-selected='true'],
li:hover {
  background: var(--kelp);
  color: var(--sheet);
}
</style>
