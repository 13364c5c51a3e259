<script setup lang="ts">
import { DateTime } from 'luxon'
import { bytes } from '../ui/format'
import { type Fetched, OUTCOME } from './sources'

/** What came of each fetch, the last first; what was read then can be looked at. */
defineProps<{ fetches: Fetched[]; timezone: string }>()
const emit = defineEmits<{ look: [fetch: number] }>()
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <BModal v-model="open" size="lg" title="Kept fetches" no-footer lazy scrollable>
    <p class="soft small">Kept for 14 days, and what was read last for as long as it is the last.</p>
    <p v-if="fetches.length === 0" class="empty">Nothing was fetched yet.</p>
    <table v-else class="table table-sm m-0">
      <thead>
        <tr>
          <th scope="col">When ({{ timezone }})</th>
          <th scope="col">What came of it</th>
          <th scope="col" class="text-end">Answer</th>
          <th scope="col" class="text-end">Came</th>
          <th scope="col" class="text-end">Took</th>
          <th scope="col"><span class="visually-hidden">Look at it</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in fetches" :key="one.id">
          <td class="figures text-nowrap">{{ DateTime.fromISO(one.at, { zone: timezone }).toFormat('dd MMM HH:mm:ss') }}</td>
          <td :class="{ 'said-error': one.outcome === 'failed' || one.outcome === 'refused' }">
            {{ OUTCOME[one.outcome] }}<span v-if="one.why" class="small">: {{ one.why }}</span>
          </td>
          <td class="figures text-end">{{ one.status ?? '–' }}</td>
          <td class="figures text-end text-nowrap">{{ bytes(one.came_bytes) }}</td>
          <td class="figures text-end text-nowrap">{{ one.took_ms }} ms</td>
          <td class="text-end">
            <button
              v-if="one.outcome === 'read' || one.outcome === 'same'"
              type="button"
              class="btn btn-link btn-sm p-0"
              @click="emit('look', one.id)"
            >
              look
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </BModal>
</template>
