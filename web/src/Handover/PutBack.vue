<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { type ReleaseState, useEstate } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import { moment } from '../ui/format'
import { type Handing, arrivalOf, told, useHandings } from './handings'
import { type Offer, countOf } from './offers'
import OfferWords from './OfferWords.vue'

/** Puts an earlier release back on one display or on many: says what that undoes, and does it in one press. */
const props = defineProps<{ asked: { releases: { display: string; number: number }[] } | { handing: string } }>()
const open = defineModel<boolean>({ required: true })

const queries = useQueryClient()
const { displays } = useEstate(false)
const { all } = useHandings()
const preview = useQuery({
  queryKey: computed(() => ['preview', 'back', props.asked]),
  enabled: open,
  staleTime: 0,
  retry: false,
  queryFn: () => api.post<{ offers: (Offer & { back_to: ReleaseState })[] }>('handover/back/preview', props.asked),
})
const offers = computed(() => preview.data.value?.offers ?? [])
const isStopped = computed(() => offers.value.some((o) => o.stops > 0))
const isNothing = computed(() => offers.value.every((o) => o.unchanged))
const nameOf = (id: string) => displays.value.find((d) => d.id === id)?.name ?? id
const zoneOf = (id: string) => displays.value.find((d) => d.id === id)?.timezone

const handing = ref<string | null>(null)
const trouble = ref('')
const now = computed(() => all.value.find((h) => h.id === handing.value))
watch(open, () => {
  handing.value = null
  trouble.value = ''
})

async function putBack() {
  trouble.value = ''
  try {
    handing.value = (await api.post<{ handing: Handing }>('handover/back', props.asked)).handing.id
    await queries.invalidateQueries({ queryKey: ['handings'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <BModal v-model="open" lazy title="Put back" no-footer size="lg" scrollable>
    <p v-if="preview.error.value" class="said-error" role="alert">{{ preview.error.value.message }}</p>
    <p v-else-if="preview.isPending.value" class="soft">Looking at what that undoes.</p>
    <article v-for="o in offers" :key="o.displays[0]">
      <h3>{{ told(o.displays, o.displays.length, nameOf) }}</h3>
      <p class="m-0 small">
        {{ o.current ? `release ${o.current.number}, "${o.current.name}"` : 'nothing' }} <span aria-hidden="true">→</span
        ><span class="visually-hidden">goes, and back comes</span> <b>release {{ o.back_to.number }}, "{{ o.back_to.name }}"</b>
        <span class="soft"
          >, of {{ moment(o.back_to.handed_over_at, zoneOf(o.displays[0]!))
          }}{{ o.back_to.handed_over_by ? ` by ${o.back_to.handed_over_by}` : '' }}</span
        >
      </p>
      <OfferWords :offer="o" :timezone="zoneOf(o.displays[0]!)" />
    </article>
    <p v-if="trouble || now?.state === 'failed'" class="said-error" role="alert">{{ trouble || now?.trouble }}</p>
    <div class="foot">
      <span v-if="now?.state === 'done'" role="status"
        ><b>Back.</b> The players change over when they have all of it. <RouterLink :to="arrivalOf(now)">Watch it arrive</RouterLink></span
      >
      <span v-else class="soft small">It becomes a new release, with all that was in it then, and can be undone in the same way.</span>
      <BButton
        v-if="now?.state !== 'done'"
        variant="primary"
        :disabled="offers.length === 0 || isStopped || isNothing || now !== undefined"
        @click="putBack"
      >
        {{ now ? 'Putting back' : `Put back on ${countOf(offers)} ${countOf(offers) === 1 ? 'display' : 'displays'}` }}
      </BButton>
      <BButton v-else variant="outline-dark" @click="open = false">Close</BButton>
    </div>
  </BModal>
</template>

<style scoped>
article {
  border-bottom: 1px solid var(--rule);
  padding: 0 0 10px;
  margin-bottom: 10px;
}
h3 {
  font-size: 0.9375rem;
  margin: 0;
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 14px;
}
</style>
