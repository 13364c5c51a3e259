<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, sentence } from '../ui/api'
import { moment } from '../ui/format'

/** Every revision that was saved, also those kept aside; any can be put back. */
const props = defineProps<{ id: string; current: number }>()
const emit = defineEmits<{ restored: [] }>()
const open = defineModel<boolean>({ required: true })

interface Revision {
  id: number
  number: number | null
  saved_at: string
  saved_by: string | null
  note: string | null
}
const revisions = ref<Revision[]>([])
const trouble = ref('')

watch(open, async (now) => {
  if (!now) return
  try {
    revisions.value = (await api.get<{ revisions: Revision[] }>(`layouts/${props.id}/revisions`)).revisions
    trouble.value = ''
  } catch (e) {
    trouble.value = sentence(e)
  }
})

async function restore(revision: Revision) {
  try {
    await api.post(`layouts/${props.id}/restore`, { base: props.current, revision: revision.id })
    open.value = false
    emit('restored')
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <BModal v-model="open" lazy title="Revisions" no-footer scrollable>
    <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
    <table class="table table-sm m-0">
      <tbody>
        <tr v-for="r in revisions" :key="r.id">
          <th scope="row">{{ r.number === null ? 'kept aside' : `revision ${r.number}` }}</th>
          <td class="figures">{{ moment(r.saved_at) }}</td>
          <td>
            {{ r.saved_by }} <span class="soft small">{{ r.note }}</span>
          </td>
          <td class="text-end">
            <span v-if="r.number === current" class="soft">now</span>
            <button v-else type="button" class="btn btn-link btn-sm p-0" @click="restore(r)">put back</button>
          </td>
        </tr>
      </tbody>
    </table>
  </BModal>
</template>
