<script setup lang="ts">
import { computed, ref } from 'vue'
import WhenFields from '../../Data/WhenFields.vue'
import TypedLine from '../../ui/TypedLine.vue'
import type { Analysis } from '../designs'
import { kindOf } from '../kinds/kinds'
import { useComposer } from './composer'
import CanvasDetails from './details/CanvasDetails.vue'
import FieldGrid from './details/FieldGrid.vue'
import Fold from './details/Fold.vue'
import OpenSlots from './details/OpenSlots.vue'
import Repeat from './details/Repeat.vue'
import SlotOrder from './details/SlotOrder.vue'

/** What is typed about the one element that is chosen, about several, or about the canvas when none is. */
const props = defineProps<{ analysis: Analysis | null; display: string | null; timezone: string }>()
const emit = defineEmits<{ display: [id: string | null]; again: [] }>()
const composer = useComposer()
const one = composer.only
const kind = computed(() => (one.value ? kindOf(one.value) : null))
const repeating = ref(false)

const rename = (name: string) => one.value && composer.edit(one.value.id, { name: name === one.value.id ? undefined : name })
const chosen = computed(() => composer.elements.value.filter((e) => composer.chosen.value.has(e.id)))
const all = (what: 'hidden' | 'locked') => chosen.value.every((e) => e[what])
const grouped = computed(() => chosen.value.some((e) => e.group))
const figures = computed(() => (one.value && kind.value?.figures?.(one.value, props.analysis)) || '')
</script>

<template>
  <section v-if="chosen.length" class="details" :aria-label="one ? `Details of ${one.id}` : 'What is chosen'">
    <h2>
      <TypedLine v-if="one" :value="one.name ?? one.id" label="Name of the element" @change="rename" />
      <span v-else class="several">{{ chosen.length }} elements chosen</span>
      <span v-if="figures" class="figures">{{ figures }}</span>
    </h2>
    <div class="acts" role="group" aria-label="What is chosen">
      <button type="button" title="One higher in the stack ( ] ), Shift: to the top" @click="composer.restack($event.shiftKey ? Infinity : 1)">
        raise
      </button>
      <button type="button" title="One lower in the stack ( [ ), Shift: to the bottom" @click="composer.restack($event.shiftKey ? -Infinity : -1)">
        lower
      </button>
      <button type="button" title="Neither drawn nor checked (H)" :aria-pressed="all('hidden')" @click="composer.toggle('hidden')">
        {{ all('hidden') ? 'show' : 'hide' }}
      </button>
      <button type="button" title="Hands leave it alone (L)" :aria-pressed="all('locked')" @click="composer.toggle('locked')">
        {{ all('locked') ? 'unlock' : 'lock' }}
      </button>
      <button v-if="chosen.length > 1" type="button" title="Chosen together from now on (Ctrl + G)" @click="composer.group">group</button>
      <button v-if="grouped" type="button" title="Each for itself again (Ctrl + Shift + G)" @click="composer.ungroup">ungroup</button>
      <button type="button" title="In columns and rows" @click="repeating = true">repeat…</button>
    </div>
    <p v-if="one && analysis?.says[one.id]" class="says figures">{{ analysis.says[one.id] }}</p>
    <OpenSlots v-if="one" :key="`slots ${one.id}`" :one="one" :names="analysis?.arguments[one.id] ?? []" />
    <component :is="kind.Details" v-if="one && kind?.isWide" :key="one.id" :one="one" :analysis="analysis" @again="emit('again')" />
    <FieldGrid v-else-if="one && kind"><component :is="kind.Details" :key="one.id" :one="one" :timezone="timezone" /></FieldGrid>
    <Fold v-if="one" :key="`when ${one.id}`" class="only" title="Only while…" :open="one.when !== undefined">
      <WhenFields :when="one.when" what="Drawn" @change="(when) => composer.edit(one!.id, { when })" />
    </Fold>
    <Repeat v-model="repeating" />
  </section>
  <section v-else class="details" aria-label="Canvas">
    <h2>Canvas</h2>
    <FieldGrid><CanvasDetails :analysis="analysis" :display="display" @display="emit('display', $event)" /></FieldGrid>
    <SlotOrder />
  </section>
</template>

<style scoped>
.details {
  border-top: 1px solid var(--ink);
}
h2 {
  font-size: 0.875rem;
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 9px 14px 4px;
  margin: 0;
}
h2 .typed-line,
.several {
  font-weight: 700;
  flex: 1;
}
h2 .figures {
  color: var(--soft);
  font-weight: 400;
  white-space: nowrap;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  padding: 0 14px 6px;
}
.acts button {
  border: 0;
  background: none;
  padding: 2px 0;
  font-size: 0.8125rem;
  color: var(--kelp);
  text-decoration: underline;
}
.says {
  margin: 0;
  padding: 4px 14px;
  color: var(--soft);
  font-size: 0.8125rem;
  border-top: 1px solid var(--rule);
}
</style>
