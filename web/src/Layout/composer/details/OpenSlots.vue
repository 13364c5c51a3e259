<script setup lang="ts">
import { computed } from 'vue'
import type { Element } from '../../designs'
import type { Slot } from '../../filling'
import SlotSettings from '../../slots/SlotSettings.vue'
import { elementsOf, SLOTS } from '../../slots/slots'
import { useComposer } from '../composer'
import Fold from './Fold.vue'

/** What is left open of an element for whoever fills the template in; all else of it is locked. */
const props = defineProps<{ one: Element; names: string[] }>()
const composer = useComposer()
const slots = computed<Slot[]>(() => composer.whole.value.slots ?? [])
const mine = computed(() => slots.value.filter((slot) => elementsOf(slot).includes(props.one.id)))
const offers = computed(() =>
  (Object.keys(SLOTS) as Slot['kind'][]).flatMap((kind) => {
    const begun = SLOTS[kind].opens(props.one) ? SLOTS[kind].begin(props.one, slots.value, props.names) : null
    return begun ? [{ kind, name: SLOTS[kind].name, begun }] : []
  }),
)
const put = (next: Slot[], gesture?: string) => composer.become({ ...composer.whole.value, slots: next.length ? next : undefined }, gesture)
function open(kind: Slot['kind'], begun: object) {
  const base = 'argument' in begun && typeof begun.argument === 'string' ? begun.argument : props.one.id
  const taken = new Set(slots.value.map((slot) => slot.id))
  let [id, n] = [base, 1]
  while (taken.has(id)) id = `${base}-${++n}`
  const called = 'argument' in begun ? base.replaceAll('_', ' ') : (props.one.name ?? props.one.id)
  const name = called.charAt(0).toUpperCase() + called.slice(1)
  put([...slots.value, { id, name: n > 1 ? `${name} ${n}` : name, kind, ...begun } as Slot])
}
const change = (id: string, part: Partial<Slot>, gesture?: string) =>
  put(
    slots.value.map((slot) => (slot.id === id ? ({ ...slot, ...part } as Slot) : slot)),
    gesture,
  )
</script>

<template>
  <Fold class="open-slots" title="Left open for filling in" :figures="mine.map((slot) => slot.name).join(', ')" :open="mine.length > 0">
    <SlotSettings
      v-for="slot in mine"
      :key="slot.id"
      :one="slot"
      @change="(part, gesture) => change(slot.id, part, gesture && `${gesture} slot`)"
      @remove="put(slots.filter((other) => other.id !== slot.id))"
    />
    <p v-if="offers.length" class="small m-0">
      <span class="soft">{{ mine.length ? 'Open too:' : 'All of it is locked. Open:' }}</span>
      <button v-for="offer in offers" :key="offer.kind" type="button" class="btn btn-link btn-sm p-0 ms-2" @click="open(offer.kind, offer.begun)">
        {{ offer.name }}
      </button>
    </p>
  </Fold>
</template>
