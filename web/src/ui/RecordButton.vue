<script setup lang="ts">
import { ref } from 'vue'
import type { RecordedKind } from './record'
import RecordList from './RecordList.vue'

/** Leads to the record of a thing. */
defineProps<{ kind: RecordedKind; id: string; name: string; timezone?: string }>()
const open = ref(false)
</script>

<template>
  <button type="button" class="btn btn-link btn-sm p-0 align-baseline" :aria-label="`Record of ${name}`" @click="open = true">record</button>
  <BModal v-model="open" lazy :title="`Record of ${name}`" no-footer scrollable>
    <RecordList :id="id" :kind="kind" :timezone="timezone" />
  </BModal>
</template>
