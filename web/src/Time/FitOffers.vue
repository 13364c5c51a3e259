<script setup lang="ts">
import { ref } from 'vue'
import { makeVariantOf } from '../Layout/composer/variants'
import type { Fit, Item } from '../Layout/designs'
import { sentence } from '../ui/api'
import { size } from '../ui/format'
import type { Finding } from '../ui/shelf'

/** Content of another shape than its zone: by how much, and what can be done about it. A layout can have a variant of its own for the zone. */
const props = defineProps<{ item: Item; finding: Finding; zone: { width: number; height: number } }>()
const emit = defineEmits<{ fit: [fit: Fit]; again: [said: string] }>()
const OFFERS: { fit: Fit; words: string }[] = [
  { fit: 'contain', words: 'show all of it' },
  { fit: 'cover', words: 'fill the zone' },
]
const told = ref('')
const busy = ref(false)

const share = (name: string) => Math.round(100 * Number(props.finding.measure?.[name] ?? 0))
const lost = () => [
  ...(share('lost') ? [`loses ${share('lost')} %`] : []),
  ...(share('bars') ? [`leaves ${share('bars')} % of the zone empty`] : []),
  ...(share('distortion') ? [`is stretched by ${share('distortion')} %`] : []),
]
async function vary() {
  if (!props.item.layout || !('ref' in props.item.layout)) return
  busy.value = true
  try {
    emit('again', await makeVariantOf(props.item.layout.ref, props.zone))
  } catch (e) {
    told.value = sentence(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="offers" role="group" :aria-label="`${item.id} has another shape than its zone`">
    <span>{{ lost().join(', ') }}:</span>
    <template v-for="o in OFFERS" :key="o.fit">
      <button v-if="(item.fit ?? 'contain') !== o.fit" type="button" class="btn btn-link btn-sm p-0" @click="emit('fit', o.fit)">
        {{ o.words }}
      </button>
    </template>
    <button
      v-if="item.layout"
      type="button"
      class="btn btn-link btn-sm p-0"
      :disabled="busy"
      title="The layout gets a variant for this zone: the same content, solved for its size"
      @click="vary"
    >
      solve it for {{ size(zone) }}
    </button>
    <span v-if="told" role="status">{{ told }}</span>
  </div>
</template>

<style scoped>
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  font-size: 0.8125rem;
  color: var(--warning);
}
</style>
