<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '../../../ui/ChoiceField.vue'
import StandbyField from '../../../Time/StandbyField.vue'
import { type Element, type ZoneElement, useDesigns } from '../../designs'
import { leaderOf, zonesAmong } from './zone'

/** Whose list a zone plays, what plays when nothing of that is due, and which zone sets its moments. */
const props = defineProps<{ one: ZoneElement; elements: Element[]; layout: string }>()
const emit = defineEmits<{ change: [change: Partial<ZoneElement>] }>()

const { all } = useDesigns('playlists')
const saved = computed(() => ('ref' in props.one.playlist ? props.one.playlist.ref : ''))
const lists = computed(() => [{ value: '', text: 'its own list' }, ...all.value.map((p) => ({ value: p.id, text: p.name }))])
const zones = computed(() => zonesAmong(props.elements))
const leader = computed(() => leaderOf(props.one, props.elements))
const leads = computed(() => zones.value.some((z) => z.follows === props.one.id))
/** A leader follows none. */
const leaders = computed(() => [
  { value: '', text: 'for itself' },
  ...zones.value.filter((z) => z.id !== props.one.id && !leaderOf(z, props.elements)).map((z) => ({ value: z.id, text: `with ${z.name ?? z.id}` })),
])
const follow = (leader: string) => emit('change', { follows: leader === '' ? undefined : leader })
const play = (list: string) => emit('change', { playlist: list === '' ? { items: [] } : { ref: list } })
</script>

<template>
  <div class="zone-times">
    <ChoiceField label="Plays" :value="saved" :options="lists" @change="play" />
    <ChoiceField v-if="!leads && leaders.length > 1" label="Changes" :value="leader?.id ?? ''" :options="leaders" @change="follow" />
    <StandbyField
      v-if="!leader"
      label="Standby"
      title="Plays whenever nothing of the list is due"
      :standby="one.standby"
      :without="`layout:${layout}`"
      @change="emit('change', { standby: $event })"
    />
    <p v-if="leads" class="soft small m-0">
      Sets the moments of
      {{
        zones
          .filter((z) => z.follows === one.id)
          .map((z) => z.name ?? z.id)
          .join(' and ')
      }}.
    </p>
  </div>
</template>

<style scoped>
.zone-times {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px 10px;
  padding: 6px 14px 8px;
  align-items: end;
  border-bottom: 1px solid var(--rule);
}
p {
  grid-column: 1 / 4;
}
label {
  font-size: 0.8125rem;
  min-width: 0;
}
</style>
