<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '../ui/ChoiceField.vue'
import { usePlayables } from './playables'
import { type Played, type Standby, playedOf, standbyKey } from './schedule'

/** What plays whenever nothing of a list is due. */
const props = defineProps<{ standby?: Standby; label: string; without?: string }>()
defineEmits<{ change: [standby: Played | undefined] }>()

const all = usePlayables(() => 'nothing')
const value = computed(() => (props.standby ? standbyKey(props.standby) : ''))
const options = computed(() => {
  const offered = all.value.filter((one) => one.value !== props.without)
  return offered.some((one) => one.value === value.value) ? offered : [...offered, { value: value.value, text: value.value.replace(/^\w+:/, '') }]
})
</script>

<template>
  <ChoiceField :label="label" :value="value" :options="options" @change="$emit('change', $event === '' ? undefined : playedOf($event))" />
</template>
