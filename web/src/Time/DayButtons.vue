<script setup lang="ts">
import { DAY_NAMES, DAYS } from '../Layout/designs'

/** On which days of the week: each is pressed on or off, in the order of the week. The last one stays, since on no day at all nothing would ever be. */
const props = defineProps<{ days: readonly string[] }>()
const emit = defineEmits<{ change: [days: string[]] }>()
function toggle(day: string) {
  const next = DAYS.filter((one) => (one === day) !== props.days.includes(one))
  if (next.length) emit('change', next)
}
</script>

<template>
  <div class="days" role="group" aria-label="On which days">
    <button
      v-for="day in DAYS"
      :key="day"
      type="button"
      class="btn btn-sm"
      :class="days.includes(day) ? 'btn-dark' : 'btn-outline-dark'"
      :aria-pressed="days.includes(day)"
      @click="toggle(day)"
    >
      {{ DAY_NAMES[day] }}
    </button>
  </div>
</template>

<style scoped>
.days {
  display: flex;
  gap: 4px;
  flex-wrap: wrap;
}
.days .btn {
  padding: 2px 7px;
}
</style>
