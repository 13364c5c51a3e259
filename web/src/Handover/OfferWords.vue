<script setup lang="ts">
import { bytes, moment } from '../ui/format'
import LevelMark from '../ui/LevelMark.vue'
import { type Offer, verdictWords } from './offers'

/** How it fits, what is found, and what would change, in words. */
defineProps<{ offer: Offer; timezone?: string }>()
/** So many changes are told. */
const MOST = 12
</script>

<template>
  <div>
    <p v-if="offer.match" class="m-0 small">
      <b :class="offer.match.verdict === 'crossed' ? 'said-error' : ''">{{ verdictWords(offer.match) }}</b> ·
      {{ offer.new_bytes ? `${bytes(offer.new_bytes)} to fetch` : 'nothing to fetch' }}
      <template v-if="offer.planned"> · planned until {{ moment(offer.planned.until, timezone) }}, and then anew by itself</template>
    </p>
    <slot />
    <ul class="found">
      <li v-for="(f, i) in offer.findings" :key="i"><LevelMark :level="f.level" /> {{ f.message }}</li>
    </ul>
    <p v-if="offer.stops" class="soft small m-0">It keeps what it has.</p>
    <ul v-else-if="!offer.unchanged" class="changes">
      <li v-for="(c, i) in offer.changes.slice(0, MOST)" :key="i">{{ c }}</li>
      <li v-if="offer.changes.length > MOST">and {{ offer.changes.length - MOST }} more</li>
      <li v-if="offer.changes.length === 0" class="soft">Nothing that a viewer would see.</li>
    </ul>
    <p v-else class="soft small m-0">It plays exactly this already.</p>
  </div>
</template>

<style scoped>
.changes,
.found {
  padding-left: 18px;
  margin: 4px 0 0;
  font-size: 0.875rem;
}
.found {
  list-style: none;
  padding: 0;
}
.found li {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
