<script setup lang="ts">
import { DateTime } from 'luxon'
import { vKept } from './kept'

/** A local date and time as `2026-12-01 08:00`, of no zone yet; emptied, it is taken away. What is no date is told and kept in the field. */
defineProps<{ label: string; value: string | undefined; name?: string }>()
const emit = defineEmits<{ change: [local: string | undefined] }>()

const shown = (local: string | undefined) => local?.slice(0, 16).replace('T', ' ') ?? ''
function typed(event: Event) {
  const field = event.target as HTMLInputElement
  const text = field.value.trim()
  const at = ['yyyy-MM-dd HH:mm', "yyyy-MM-dd'T'HH:mm", 'yyyy-MM-dd'].map((f) => DateTime.fromFormat(text, f)).find((d) => d.isValid)
  field.setCustomValidity(text === '' || at ? '' : 'A date and time such as 2026-12-01 08:00.')
  if (!field.reportValidity()) return
  emit('change', text === '' ? undefined : at!.toFormat("yyyy-MM-dd'T'HH:mm:ss"))
}
</script>

<template>
  <label
    >{{ label
    }}<input
      v-kept="shown(value)"
      class="form-control form-control-sm figures"
      placeholder="2026-12-01 08:00"
      :aria-label="name ?? label"
      @change="typed"
      @input="($event.target as HTMLInputElement).setCustomValidity('')"
  /></label>
</template>

<style scoped>
input {
  width: 166px;
}
</style>
