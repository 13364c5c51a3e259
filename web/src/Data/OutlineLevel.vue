<script setup lang="ts">
import { computed } from 'vue'
import { type Level, typesOf } from './sources'

/**
 * A level of what came, with those in it: a list is pressed to choose what it repeats, a member within the rows to make a field of it, or to
 * take it out again.
 */
const props = defineProps<{ level: Level; depth: number; rows: string; fields: Set<string> | null }>()
const emit = defineEmits<{ rows: [path: string]; field: [level: Level] }>()

/** A list and the things in it are told on one line. */
const each = computed(() => props.level.levels.find((one) => one.name === '[*]') ?? null)
const isRows = computed(() => each.value !== null && each.value.path === props.rows)
const inner = computed(() => [...props.level.levels.filter((one) => one.name !== '[*]'), ...(each.value?.levels ?? [])])
const isWithin = computed(() => props.level.path.startsWith(`${props.rows}.`) || props.level.path.startsWith(`${props.rows}[`))
const isField = computed(
  () =>
    props.fields?.has(props.level.path) ?? (isWithin.value && inner.value.length === 0 && props.level.path.lastIndexOf('.') === props.rows.length),
)
const told = computed(() => {
  if (each.value) return `${each.value.count} ${each.value.count === 1 ? 'row' : 'rows'}`
  return props.level.examples[0] ?? (inner.value.length ? '' : 'nothing')
})
const more = computed(() => {
  const missing = props.level.missing > 0 ? `, ${props.level.missing} have none` : ''
  return `${typesOf(props.level)}${missing}${props.level.examples.length > 1 ? `: ${props.level.examples.join(', ')}` : ''}`
})
</script>

<template>
  <li>
    <component
      :is="each || isWithin ? 'button' : 'div'"
      class="level"
      :type="each || isWithin ? 'button' : undefined"
      :class="{ rows: isRows, field: isField && !each, still: !each && !isWithin }"
      :style="{ paddingLeft: `${16 + 18 * depth}px` }"
      :title="more"
      :aria-pressed="each ? isRows : isWithin ? isField : undefined"
      @click="each ? emit('rows', each.path) : isWithin && emit('field', level)"
    >
      <span class="name">{{ depth === 0 && level.name === '$' ? 'all of it' : level.name }}</span>
      <span class="told figures">{{ told }}</span>
      <span v-if="level.missing > 0" class="missing figures" :title="`${level.missing} have none`">−{{ level.missing }}</span>
    </component>
    <ul v-if="inner.length">
      <OutlineLevel
        v-for="one in inner"
        :key="one.path"
        :level="one"
        :depth="depth + 1"
        :rows="rows"
        :fields="fields"
        @rows="emit('rows', $event)"
        @field="emit('field', $event)"
      />
      <li v-if="level.more" class="small soft ps-3">and {{ level.more }} more</li>
    </ul>
  </li>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.level {
  display: flex;
  gap: 8px;
  width: 100%;
  min-height: 24px;
  border: 0;
  border-left: 4px solid transparent;
  background: none;
  padding: 2px 14px 2px 0;
  text-align: left;
  color: inherit;
  font-size: 0.875rem;
  align-items: baseline;
}
button.level:hover {
  background: var(--paper);
}
.rows {
  background: var(--kelp-wash);
  border-left-color: var(--kelp);
  color: var(--kelp);
  font-weight: 650;
}
.field .name {
  color: var(--kelp);
  font-weight: 600;
}
.name {
  white-space: nowrap;
}
.told {
  margin-left: auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--soft);
  font-weight: 400;
}
.rows .told {
  color: var(--kelp);
}
.missing {
  color: var(--warning);
}
</style>
