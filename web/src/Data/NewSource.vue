<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Saved } from '../Layout/designs'
import { api, sentence } from '../ui/api'
import ChoiceBar from '../ui/ChoiceBar.vue'
import type { SourceDocument } from './sources'

/** Where a source comes from: its first lines; all else is said on its own page, beside what is in it. */
const props = defineProps<{ taken: string[] }>()
const open = defineModel<boolean>({ required: true })
const router = useRouter()
const queries = useQueryClient()
const kind = ref<'address' | 'file' | 'table'>('address')
const name = ref('')
const address = ref('')
const file = useTemplateRef<HTMLInputElement>('file')
const trouble = ref('')
const busy = ref(false)

const WORDS = {
  address: 'JSON, CSV, XLSX, RSS, RDF, Atom or iCalendar: found out from what comes. It is fetched every five minutes, to begin with.',
  file: 'JSON, CSV, XLSX, RSS, RDF, Atom or iCalendar, up to 20 MB. A new one takes the place of the last.',
  table: 'A few rows that are kept here: prices, opening hours, names. Several rows at once can be pasted from a spreadsheet.',
}
/** What it is called where nobody says it: by the host, or by the file. */
function called(): string {
  if (name.value.trim()) return name.value.trim()
  if (kind.value === 'address') return new URL(address.value).pathname.split('/').filter(Boolean).at(-1) ?? new URL(address.value).host
  const base = kind.value === 'file' ? (file.value?.files?.[0]?.name.replace(/\.[^.]+$/, '') ?? 'File') : 'Table'
  let one = base
  for (let n = 2; props.taken.includes(one); n++) one = `${base} ${n}`
  return one
}

async function make() {
  trouble.value = ''
  busy.value = true
  try {
    const chosen = file.value?.files?.[0]
    const from = {
      address: { address: address.value.trim() },
      file: { file: chosen?.name ?? '' },
      table: { table: [{ item: '', price: null }] },
    }[kind.value]
    const made = await api.post<Saved<SourceDocument>>('sources', { name: called(), document: { from } })
    try {
      if (kind.value === 'file' && chosen) await api.upload(`sources/${made.id}/file`, chosen, () => undefined)
    } catch (e) {
      // A source of a file that cannot be read is none.
      await api.delete(`sources/${made.id}`)
      throw e
    }
    await router.push(`/data/${made.id}`)
  } catch (e) {
    trouble.value = sentence(e)
  } finally {
    await queries.invalidateQueries({ queryKey: ['data'] })
    busy.value = false
  }
}
</script>

<template>
  <BModal v-model="open" focus="input" no-close-on-backdrop lazy title="New source" no-footer>
    <form class="form" @submit.prevent="make">
      <div>
        <span class="d-block mb-1">Where it is known</span>
        <ChoiceBar
          v-model="kind"
          label="Where it is known"
          :words="{ address: 'at an address', file: 'in a file', table: 'in a table typed here' }"
        />
      </div>
      <p class="soft small m-0">{{ WORDS[kind] }}</p>
      <label v-if="kind === 'address'"
        >Address<BFormInput v-model="address" type="url" required pattern="https?://.+" placeholder="https://quay.example/sailings.json"
      /></label>
      <label v-if="kind === 'file'">File<input ref="file" type="file" class="form-control" required /></label>
      <label>Name<BFormInput v-model="name" maxlength="200" placeholder="what it is called among the sources" /></label>
      <p v-if="trouble" class="said-error m-0" role="alert">{{ trouble }}</p>
      <div class="text-end">
        <BButton type="submit" variant="primary" :disabled="busy">Make it</BButton>
      </div>
    </form>
  </BModal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
label {
  display: grid;
  gap: 3px;
}
</style>
