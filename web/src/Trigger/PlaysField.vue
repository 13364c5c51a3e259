<script setup lang="ts">
import { computed } from 'vue'
import { usePlayables } from '../Time/playables'
import ChoiceField from '../ui/ChoiceField.vue'
import type { Played } from './triggers'

/** What a state plays: a layout, a playlist or media. */
const props = defineProps<{ value: Played | null | undefined; label: string; none: string }>()
const emit = defineEmits<{ change: [plays: Played | null] }>()
const all = usePlayables(() => props.none)
const value = computed(() => {
  const [kind, id] = Object.entries(props.value ?? {})[0] ?? []
  return kind ? `${kind}:${String(id)}` : ''
})
function chosen(key: string) {
  const [kind, id] = key.split(':')
  emit('change', kind && id ? ({ [kind]: id } as unknown as Played) : null)
}
</script>

<template>
  <ChoiceField :label="label" :value="value" :options="all" @change="chosen" />
</template>
