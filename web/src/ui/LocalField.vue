<script setup lang="ts">
import { DateTime } from 'luxon'
import { useTemplateRef } from 'vue'
import { vKept } from './kept'

/** A local date and time as `2026-12-01 08:00`, of no zone yet, typed or pressed in a calendar; emptied, it is taken away. What is no date is told and kept in the field. */
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
const calendar = useTemplateRef<HTMLInputElement>('calendar')
function pressed() {
  if (calendar.value?.value) emit('change', `${calendar.value.value.slice(0, 16)}:00`)
}
</script>

<template>
  <label class="local"
    >{{ label
    }}<span class="both"
      ><input
        v-kept="shown(value)"
        class="form-control form-control-sm figures"
        placeholder="2026-12-01 08:00"
        :aria-label="name ?? label"
        @change="typed"
        @input="($event.target as HTMLInputElement).setCustomValidity('')" /><input
        ref="calendar"
        v-kept="value?.slice(0, 16)"
        type="datetime-local"
        class="calendar"
        tabindex="-1"
        aria-hidden="true"
        @change="pressed" /><button type="button" class="open" :aria-label="`Calendar of ${name ?? label}`" @click="calendar?.showPicker()">
        <svg width="13" height="13" viewBox="0 0 13 13" aria-hidden="true">
          <path d="M1.5 2.5h10v9h-10zM1.5 5h10M4 1v3M9 1v3M4 7.5h1M8 7.5h1M4 9.5h1" />
        </svg></button></span
  ></label>
</template>

<style scoped>
.both {
  position: relative;
  display: flex;
}
.form-control {
  width: 148px;
}
.calendar {
  position: absolute;
  inset: auto 0 0 0;
  height: 1px;
  opacity: 0;
  pointer-events: none;
}
.open {
  width: 26px;
  border: 1px solid var(--ink);
  border-left: 0;
  background: var(--sheet);
  padding: 0;
}
path {
  fill: none;
  stroke: var(--ink);
}
</style>
