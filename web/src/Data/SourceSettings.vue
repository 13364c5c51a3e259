<script setup lang="ts">
import { ref, useTemplateRef } from 'vue'
import { api } from '../ui/api'
import { useGuarded } from '../ui/guarded'
import MeasureField from '../ui/MeasureField.vue'
import { vKept } from '../ui/kept'
import type { SourceDocument, SourceState } from './sources'

/** Where a source comes from: its address or file, how it is asked and read, and when it is too old. */
const props = defineProps<{ document: SourceDocument; state: SourceState | null }>()
const emit = defineEmits<{ change: [to: SourceDocument] }>()
const open = defineModel<boolean>({ required: true })
const file = useTemplateRef<HTMLInputElement>('file')
const { trouble, busy, guarded } = useGuarded('data')
const headerName = ref('Authorization')
const headerValue = ref('')

function set(more: Partial<SourceDocument>) {
  const next = { ...props.document, ...more }
  for (const key of Object.keys(next) as (keyof SourceDocument)[]) if (next[key] === undefined) delete next[key]
  emit('change', next)
}
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()

async function bringIn() {
  const chosen = file.value?.files?.[0]
  if (chosen) await api.upload(`sources/${props.document.id}/file`, chosen, () => undefined)
}
async function seal() {
  await api.put(`sources/${props.document.id}/headers`, { headers: headerValue.value === '' ? {} : { [headerName.value.trim()]: headerValue.value } })
  headerValue.value = ''
}
</script>

<template>
  <BModal v-model="open" focus="input" title="Where it comes from" no-footer lazy>
    <div class="form">
      <template v-if="'address' in document.from">
        <label
          >Address<input
            v-kept="document.from.address"
            class="form-control figures"
            type="url"
            spellcheck="false"
            @change="set({ from: { address: typed($event) } })"
        /></label>
        <div class="pair">
          <span
            >Fetched every
            <MeasureField
              :value="document.every_s ?? 300"
              label="Fetched every"
              unit="s"
              :least="10"
              :most="2678400"
              :decimals="0"
              :step="10"
              @change="set({ every_s: $event })"
          /></span>
          <span
            >within
            <MeasureField
              :value="document.timeout_s ?? 20"
              label="Within"
              unit="s"
              :least="1"
              :most="120"
              :decimals="0"
              @change="set({ timeout_s: $event })"
          /></span>
        </div>
        <fieldset>
          <legend class="small">Asked with a header, which is sealed and never shown again</legend>
          <p class="soft small m-0">{{ state?.sealed.length ? `Sealed now: ${state.sealed.join(', ')}.` : 'Nothing is sealed.' }}</p>
          <form class="header" @submit.prevent="guarded(seal)">
            <input v-model="headerName" class="form-control form-control-sm figures" aria-label="Name of the header" required />
            <input
              v-model="headerValue"
              class="form-control form-control-sm figures"
              type="password"
              autocomplete="off"
              aria-label="Its value"
              placeholder="Bearer …"
            />
            <BButton size="sm" type="submit" variant="outline-dark" :disabled="busy">{{ headerValue ? 'Seal it' : 'Ask without' }}</BButton>
          </form>
        </fieldset>
      </template>
      <label v-else-if="'file' in document.from"
        >File: {{ state?.file ?? 'none yet' }}
        <input ref="file" type="file" class="form-control" @change="guarded(bringIn)" />
      </label>
      <p v-else class="m-0">It is typed in the table at the left.</p>
      <div class="pair">
        <label
          >Read as
          <select
            class="form-select form-select-sm"
            :value="document.as ?? ''"
            @change="set({ as: (typed($event) || undefined) as SourceDocument['as'] })"
          >
            <option value="">what it is</option>
            <option value="json">JSON</option>
            <option value="csv">CSV</option>
            <option value="xlsx">XLSX</option>
            <option value="rss">RSS, RDF, Atom</option>
            <option value="ical">iCalendar</option>
          </select></label
        >
        <label
          >Clock of its times
          <input
            v-kept="document.zone ?? ''"
            class="form-control form-control-sm"
            placeholder="Europe/Lisbon"
            @change="set({ zone: typed($event) || undefined })"
        /></label>
      </div>
      <div v-if="document.as === undefined || document.as === 'csv'" class="pair">
        <label
          >Table parted by
          <select
            class="form-select form-select-sm"
            :value="document.options?.delimiter ?? ''"
            @change="set({ options: { ...document.options, delimiter: (($event.target as HTMLSelectElement).value || undefined) as ',' } })"
          >
            <option value="">found out</option>
            <option value=",">comma</option>
            <option value=";">semicolon</option>
            <option :value="'\t'">tab</option>
            <option value="|">bar</option>
          </select></label
        >
        <label class="check"
          ><input
            type="checkbox"
            :checked="document.options?.header ?? true"
            @change="set({ options: { ...document.options, header: ($event.target as HTMLInputElement).checked ? undefined : false } })"
          />
          its first row names the columns</label
        >
      </div>
      <span
        >Too old after
        <MeasureField
          :value="document.stale_after_s === undefined ? null : document.stale_after_s / 60"
          label="Too old after"
          unit="min"
          :least="1"
          :most="525600"
          :decimals="0"
          @change="set({ stale_after_s: $event * 60 })"
        />
        <button v-if="document.stale_after_s" type="button" class="btn btn-link btn-sm p-0 ms-2" @click="set({ stale_after_s: undefined })">
          never
        </button>
      </span>
      <p v-if="trouble" class="said-error m-0" role="alert">{{ trouble }}</p>
      <div class="text-end"><BButton variant="primary" @click="open = false">Done</BButton></div>
    </div>
  </BModal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 13px;
}
label {
  display: grid;
  gap: 3px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: end;
}
.check {
  display: flex;
  gap: 7px;
  align-items: center;
}
.header {
  display: grid;
  grid-template-columns: 1fr 1.4fr auto;
  gap: 6px;
  margin-top: 4px;
}
fieldset {
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}
legend {
  float: none;
  font-size: 0.9375rem;
  margin: 0;
}
</style>
