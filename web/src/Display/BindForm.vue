<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { onMounted, ref, useId, useTemplateRef } from 'vue'
import type { PlayerState } from '../Estate/estate'
import { api, sentence } from '../ui/api'

/** The code that a new player shows, typed: it plays what is handed over to the display from then on. */
const props = defineProps<{ display: { id: string; name: string }; /** Whether it begins with the focus. */ focused?: boolean }>()
const queries = useQueryClient()
const id = useId()
const form = useTemplateRef('form')
const code = ref('')
const trouble = ref('')
const said = ref('')
onMounted(() => props.focused && form.value?.querySelector('input')?.focus())

async function bind() {
  trouble.value = said.value = ''
  try {
    await api.post<PlayerState>('players', { code: code.value, display: props.display.id })
    said.value = `The player is bound to ${props.display.name}. It begins to play what is handed over.`
    code.value = ''
    await queries.invalidateQueries({ queryKey: ['estate'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <form ref="form" class="bind" @submit.prevent="bind">
    <p v-if="trouble" class="said-error small m-0" role="alert">{{ trouble }}</p>
    <p v-if="said" class="small m-0" role="status">{{ said }}</p>
    <label :for="id">Code on the new player</label>
    <BFormInput :id="id" v-model="code" class="figures code" maxlength="9" autocomplete="off" placeholder="K7M 4TX" required />
    <BButton type="submit" variant="primary" size="sm">Bind</BButton>
  </form>
</template>

<style scoped>
.bind {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 8px;
}
.bind p,
.bind label {
  grid-column: 1 / 3;
}
.bind label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.bind input {
  text-transform: uppercase;
  letter-spacing: 0.08em;
}
</style>
