<script setup lang="ts">
import { ref } from 'vue'
import { DAYS } from '../Layout/designs'
import DayButtons from '../Time/DayButtons.vue'
import { type Open, onDays } from './hours'
import { vKept } from '../ui/kept'

/** When a place is open: windows of the day, each on some days of the week or on all. */
const props = defineProps<{ value: Open[] | undefined }>()
const emit = defineEmits<{ change: [value: Open[]] }>()
const open = ref<Open[]>(props.value?.length ? [...props.value] : [{ hours: ['08:00', '18:00'] }])

function make(next: Open[]) {
  open.value = next
  if (next.every(({ hours: [from, to] }) => from !== to)) emit('change', next)
}
const put = (n: number, one: Open) => make(open.value.map((other, place) => (place === n ? one : other)))
function time(n: number, edge: 0 | 1, event: Event) {
  const value = (event.target as HTMLInputElement).value
  if (!/^\d\d:\d\d$/.test(value)) return
  const hours: [string, string] = [...open.value[n]!.hours]
  // Midnight as the end of a day, not as its beginning.
  hours[edge] = edge === 1 && value === '00:00' ? '24:00' : value
  put(n, { ...open.value[n]!, hours })
}
const more = () => make([...open.value, { days: ['SA', 'SU'], hours: ['09:00', '17:00'] }])
</script>

<template>
  <div class="field">
    <fieldset v-for="(one, n) in open" :key="n">
      <legend class="visually-hidden">Window {{ n + 1 }}</legend>
      <DayButtons :days="one.days?.length ? one.days : DAYS" @change="put(n, onDays(one, $event))" />
      <div class="times">
        <input
          v-kept="one.hours[0]"
          type="time"
          class="form-control form-control-sm"
          :aria-label="`Opens, window ${n + 1}`"
          @change="time(n, 0, $event)"
        />
        to
        <input
          v-kept="one.hours[1] === '24:00' ? '00:00' : one.hours[1]"
          type="time"
          class="form-control form-control-sm"
          :aria-label="`Closes, window ${n + 1}`"
          @change="time(n, 1, $event)"
        />
        <button v-if="open.length > 1" type="button" class="btn btn-link btn-sm p-0" @click="make(open.filter((other) => other !== one))">
          take away
        </button>
      </div>
      <p v-if="one.hours[0] === one.hours[1]" class="said-error small m-0" role="alert">
        It closes when it opens; 00:00 to 00:00 of the next day is a whole day.
      </p>
      <p v-else-if="one.hours[1] < one.hours[0]" class="small soft m-0">closes after midnight, on the next day</p>
    </fieldset>
    <div class="bar">
      <button type="button" class="btn btn-outline-dark btn-sm" @click="more">Other hours on other days</button>
      <button v-if="!value?.length" type="button" class="btn btn-outline-dark btn-sm" @click="make(open)">See what it reaches</button>
    </div>
    <p class="small soft">Things put up in a hurry can stand until closing time; each place closes on its own clock.</p>
  </div>
</template>

<style scoped>
.field {
  margin: 8px 0;
}
fieldset {
  margin: 0 0 12px;
}
.times {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 6px;
}
.times input {
  width: 110px;
}
.bar {
  display: flex;
  gap: 8px;
  margin-bottom: 8px;
}
</style>
