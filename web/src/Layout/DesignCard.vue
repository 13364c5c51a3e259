<script setup lang="ts">
import { computed } from 'vue'
import FirstShown from '../Playback/FirstShown.vue'
import { moment, size } from '../ui/format'
import DesignPicture from './DesignPicture.vue'
import type { DesignSummary, Pictured } from './designs'

/** A design in a list: its true picture at this instant, and where it is shown. */
const props = defineProps<{ design: DesignSummary; plural: Pictured; at: number }>()
defineEmits<{ remove: []; copy: [] }>()

const used = computed(() => (props.design.used_in.length > 2 ? `${props.design.used_in.length} designs` : props.design.used_in.join(' and ')))
const standing = computed(() => props.design.standing)
</script>

<template>
  <li class="design">
    <RouterLink :to="`/${plural}/${design.id}`" class="way" :aria-label="design.name"
      ><DesignPicture :design="design" :plural="plural" :at="at"
    /></RouterLink>
    <RouterLink :to="`/${plural}/${design.id}`" class="name">{{ design.name }}</RouterLink>
    <div class="figures soft">
      {{ design.canvas ? `${size(design.canvas)} px, ` : '' }}revision {{ design.revision }},
      {{ moment(design.saved_at) }}
    </div>
    <slot></slot>
    <div class="small">
      <template v-if="standing.displays">
        on {{ standing.displays > 2 ? `${standing.displays} displays` : standing.some.join(' and ') }}
        <RouterLink v-if="standing.again && $may('hand-over')" class="changed" :to="`/handover?${standing.again.kind}=${standing.again.id}&older`"
          >changed since handover</RouterLink
        >
      </template>
      <span v-else class="soft">{{ design.used_in.length ? '' : 'not handed over' }}</span>
      <span v-if="design.used_in.length" class="soft">{{ standing.displays ? `(part of ${used})` : `part of ${used}` }}</span>
      <FirstShown :id="design.id" :plural="plural" :revision="design.revision" lazy="when seen?" :name="design.name" />
    </div>
    <div class="foot">
      <RouterLink v-if="$may('hand-over')" class="small" :to="`/handover?${design.kind}=${design.id}`">hand over</RouterLink>
      <button type="button" class="btn btn-link btn-sm p-0" @click="$emit('copy')">copy</button>
      <a v-if="plural !== 'filled'" class="small" :href="`/api/${plural}/${design.id}/design.smil`" download :aria-label="`${design.name} as SMIL`"
        >SMIL</a
      >
      <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Delete ${design.name}`" @click="$emit('remove')">delete</button>
    </div>
  </li>
</template>

<style scoped>
.way {
  display: block;
}
.name {
  font-weight: 650;
  color: var(--ink);
  text-decoration: none;
}
.changed {
  color: var(--warning);
  font-weight: 650;
}
.foot {
  display: flex;
  gap: 12px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
  margin-top: 4px;
}
</style>
