<script setup lang="ts">
import { DateTime } from 'luxon'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { clock } from '../ui/format'
import type { Rehearsal } from './rehearsal'

/** All changes of a span, one a line; pressing one leads the hand there. */
const props = defineProps<{ told: Rehearsal; at: number }>()
const emit = defineEmits<{ at: [instant: number] }>()

const withDate = computed(() => props.told.days.length > 1)
const rows = computed(() =>
  props.told.course.map((s) => {
    const from = Date.parse(s.from)
    return {
      ...s,
      key: `${s.from} ${s.zone ?? ''}`,
      begin: from,
      end: Date.parse(s.to),
      date: DateTime.fromMillis(from, { zone: props.told.timezone }).toFormat('ccc d LLL', { locale: 'en-GB' }),
      time: clock(from, props.told.timezone),
    }
  }),
)

/** What is due is kept in view, unless somebody reads on in the list. */
const list = useTemplateRef('list')
const due = computed(() => rows.value.reduce((last, row, n) => (row.begin <= props.at ? n : last), 0))
watch(
  [due, rows],
  async () => {
    await nextTick()
    if (list.value?.matches(':hover') === false) list.value.children[due.value]?.scrollIntoView({ block: 'nearest' })
  },
  { immediate: true },
)
</script>

<template>
  <ol ref="list" class="course" :aria-label="`Changes, times of ${told.timezone}`">
    <li
      v-for="(row, n) in rows"
      :key="row.key"
      v-memo="[row, withDate, row.begin <= at && at < row.end]"
      :class="{ due: row.begin <= at && at < row.end }"
    >
      <b v-if="withDate && row.date !== rows[n - 1]?.date" class="date">{{ row.date }}</b>
      <button type="button" @click="emit('at', row.begin)">
        <span class="figures">{{ row.time }}</span>
        <span class="what" :class="{ inner: row.zone !== null }">
          <i v-if="row.zone">{{ row.zone }}</i> {{ row.name || 'nothing' }}
          <span v-if="row.kind !== 'item'" class="soft small why">{{ row.why }}</span>
        </span>
      </button>
    </li>
    <li v-if="told.left" class="soft small more">{{ told.left.toLocaleString('en') }} more changes are in the table as CSV.</li>
  </ol>
</template>

<style scoped>
.course {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 0.875rem;
}
.course li {
  /* What sticks above the list is not in its way. */
  scroll-margin-top: 56px;
  border-bottom: 1px solid #efeadd;
}
.date {
  display: block;
  padding: 6px 14px 1px;
  font-size: 0.8125rem;
  background: var(--paper);
}
.course button {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 3px 14px;
}
.course button:hover {
  background: var(--paper);
}
.course li.due button {
  background: var(--kelp-wash);
}
.what.inner {
  padding-left: 12px;
}
.what i {
  font-style: normal;
  color: var(--soft);
  margin-right: 6px;
}
.why {
  display: block;
  line-height: 1.2;
}
.more {
  padding: 6px 14px;
}
</style>
