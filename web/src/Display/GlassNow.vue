<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import DisplayPicture from '../Estate/DisplayPicture.vue'
import { useEstate } from '../Estate/estate'
import { api } from '../ui/api'
import { ago, clock } from '../ui/format'
import { useSecond } from '../ui/second'

/** What its players really have on the glass, as an agent beside them took it, beside what was due at that instant. */
const props = defineProps<{ id: string; timezone: string }>()

interface Glass {
  player: string
  name: string
  output: number
  at: string
}
const OFTEN_MS = 5000
const at = useSecond()
const { displays } = useEstate(false)
const display = computed(() => displays.value.find((d) => d.id === props.id) ?? null)
const query = useQuery({
  queryKey: ['glass', () => props.id],
  queryFn: async () => (await api.get<{ glass: Glass[] }>(`displays/${props.id}/glass`)).glass,
  refetchInterval: OFTEN_MS,
})
const glass = computed(() => query.data.value ?? [])
/** Of one screen alone: a page of a wall has a part of it. */
const isWhole = computed(() => glass.value.length === 1 && display.value?.panels === 1)
</script>

<template>
  <section v-if="glass.length" class="glass" aria-label="On the glass">
    <h2>On the glass</h2>
    <figure v-for="g in glass" :key="`${g.player} ${g.output}`">
      <img :src="`/api/players/${g.player}/glass/${g.output}?at=${g.at}`" :alt="`What ${g.name} has on its glass`" />
      <figcaption>
        {{ g.name }}<template v-if="glass.length > 1">, output {{ g.output }}</template>
        <span class="soft">{{ ago(g.at, at) }}, at {{ clock(Date.parse(g.at), timezone) }}</span>
      </figcaption>
    </figure>
    <figure v-if="isWhole && display?.release">
      <DisplayPicture :display="display" :at="Date.parse(glass[0]!.at)" />
      <figcaption>What was due then</figcaption>
    </figure>
  </section>
</template>

<style scoped>
.glass {
  margin-bottom: 18px;
}
h2 {
  font-size: 0.875rem;
  color: var(--soft);
  margin: 0 0 6px;
}
figure {
  margin: 0 0 10px;
}
img {
  display: block;
  width: 100%;
  background: #000;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 10px;
  font-size: 0.8125rem;
  padding-top: 2px;
}
</style>
