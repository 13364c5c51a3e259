<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { PlaceState } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import { type WholeDisplay, useSizes } from './survey'

/** The first lines of a survey: a name, a place, a size to begin with; everything else is typed on the display itself. */
const props = defineProps<{ places: { place: PlaceState; way: string[] }[] }>()
const open = defineModel<boolean>({ required: true })
const router = useRouter()
const queries = useQueryClient()
const { data: sizes } = useSizes()

const name = ref('')
const place = ref('')
const sizeId = ref('wide-43')
const turned = ref(0)
const columns = ref(1)
const rows = ref(1)
const trouble = ref('')
const busy = ref(false)
watch(
  () => props.places.length,
  () => (place.value ||= props.places[0]?.place.id ?? ''),
  { immediate: true },
)
const size = computed(() => sizes.value?.sizes.find((s) => s.id === sizeId.value) ?? null)

async function make() {
  trouble.value = ''
  busy.value = true
  try {
    const made = await api.post<WholeDisplay>('displays', {
      place: place.value,
      begin: {
        name: name.value.trim(),
        timezone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        size: sizeId.value,
        columns: columns.value,
        rows: rows.value,
        rotation: Number(turned.value),
      },
    })
    await queries.invalidateQueries({ queryKey: ['estate'] })
    await router.push(`/displays/${made.id}?new`)
  } catch (e) {
    trouble.value = sentence(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BModal v-model="open" focus="input" no-close-on-backdrop lazy title="New display" no-footer>
    <form class="form" @submit.prevent="make">
      <label>Name<BFormInput v-model="name" required maxlength="200" placeholder="Check-in 5" /></label>
      <label
        >Place
        <select v-model="place" class="form-select" required>
          <option v-for="p in places" :key="p.place.id" :value="p.place.id">{{ p.way.join(' › ') }}</option>
        </select></label
      >
      <label
        >Panel, to begin with
        <select v-model="sizeId" class="form-select">
          <option v-for="s in sizes?.sizes ?? []" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select></label
      >
      <p v-if="size" class="soft figures m-0">
        {{ size.native.width }} × {{ size.native.height }} px · {{ size.active_mm.width }} × {{ size.active_mm.height }} mm: the label, or the EDID,
        knows better
      </p>
      <div class="row3">
        <label
          >Turned clockwise
          <select v-model.number="turned" class="form-select">
            <option v-for="r in [0, 90, 180, 270]" :key="r" :value="r">{{ r }}°</option>
          </select></label
        >
        <label>Columns<BFormInput v-model.number="columns" type="number" min="1" max="16" /></label>
        <label>Rows<BFormInput v-model.number="rows" type="number" min="1" max="16" /></label>
      </div>
      <p v-if="trouble" class="said-error m-0" role="alert">{{ trouble }}</p>
      <div class="text-end"><BButton type="submit" variant="primary" :disabled="busy || !size || !place">Survey it</BButton></div>
    </form>
  </BModal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
.row3 {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr;
  gap: 10px;
}
</style>
