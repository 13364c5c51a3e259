<script setup lang="ts">
import { computed } from 'vue'
import type { Look } from './style'

/** Each colour on each other one: whether it can be read there (WCAG 2.2, 1.4.3). */
const props = defineProps<{ look: Look }>()
const colours = computed(() => props.look.colours.filter((one) => one.hex.length === 7 || one.hex.endsWith('ff')))
const verdict = (one: { normal: boolean; large: boolean }) =>
  one.normal ? { mark: '✓', words: 'reads' } : one.large ? { mark: 'L', words: 'large type only' } : { mark: '✕', words: 'does not read' }
const rows = computed(() => {
  const found = new Map(props.look.contrasts.map((one) => [`${one.text} ${one.ground}`, { ...one, ...verdict(one) }]))
  return colours.value.map((text) => ({ text, cells: colours.value.map((ground) => ({ ground, found: found.get(`${text.name} ${ground.name}`) })) }))
})
</script>

<template>
  <section v-if="colours.length > 1" aria-label="Contrasts">
    <h2>What can be read on what <span class="small soft">4.5 to 1 for any type, 3 to 1 for large type</span></h2>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col" class="small soft">letters ↓ on →</th>
            <th v-for="ground in colours" :key="ground.name" scope="col" class="small">{{ ground.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ text, cells } in rows" :key="text.name">
            <th scope="row" class="small">{{ text.name }}</th>
            <td v-for="{ ground, found } in cells" :key="ground.name">
              <div v-if="found" class="cell" :style="{ background: ground.hex }" :title="`${text.name} on ${ground.name}: ${found.words}`">
                <span class="sample" aria-hidden="true" :style="{ color: text.hex }"></span>
                <span class="by" :class="{ no: !found.large }"
                  ><span class="visually-hidden">{{ found.words }}, </span>{{ found.ratio.toFixed(1) }}&nbsp;<span aria-hidden="true">{{
                    found.mark
                  }}</span></span
                >
              </div>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.9375rem;
  font-weight: 650;
  margin-top: 18px;
}
.scroll {
  overflow-x: auto;
}
th {
  font-weight: 400;
  padding: 2px 8px 2px 0;
  white-space: nowrap;
}
td {
  padding: 1px;
}
.cell {
  width: 92px;
  height: 34px;
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 4px 0 8px;
  border: 1px solid var(--rule);
}
/* Whether it can be read is what it shows. */
.sample::before {
  content: 'Aa';
}
.sample {
  font-size: 1.125rem;
  font-weight: 600;
}
.by {
  position: relative;
  white-space: nowrap;
  background: var(--sheet);
  color: var(--ink);
  font-size: 0.75rem;
  padding: 0 3px;
}
.by.no {
  color: var(--stop);
  font-weight: 650;
}
</style>
