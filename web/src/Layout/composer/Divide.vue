<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Rect } from '../../ui/shelf'
import { EDGES } from '../division'
import { zonesAmong } from '../kinds/zone/zone'
import { useComposer } from './composer'

/** What is done with the division: one zone is split, several are joined, made equal, or change places. */
const composer = useComposer()
const zones = computed(() => zonesAmong(composer.elements.value).filter((e) => composer.chosen.value.has(e.id)))
const chosen = computed(() => [...composer.chosen.value])
const WAYS = ['across', 'down'] as const
const tracks = ref('1fr 1fr')
const first = computed<Rect | null>(() => zones.value[0]?.rect ?? null)
async function split(into: 'columns' | 'rows') {
  await composer.tell({ do: 'split', zone: zones.value[0]!.id, into, tracks: tracks.value.trim() })
}
const act = (what: 'join' | 'equalise' | 'swap') => {
  const ids = zones.value.map((z) => z.id)
  void composer.tell({ do: what, zones: ids }).then((done) => done && what === 'join' && composer.choose([ids[0]!]))
}
</script>

<template>
  <div v-if="zones.length === 1 && chosen.length === 1 && first" class="divide" role="group" aria-label="Split this zone">
    <label
      >split in
      <input v-model="tracks" class="figures" list="usual-tracks" aria-label="Tracks to split in" spellcheck="false" maxlength="2000" />
    </label>
    <datalist id="usual-tracks">
      <option v-for="t in ['1fr 1fr', '1fr 1fr 1fr', '2fr 1fr', '3fr 1fr', '200px 1fr', '1fr 200px', 'repeat(4, 1fr)']" :key="t" :value="t" />
    </datalist>
    <button type="button" class="btn btn-sm btn-outline-dark" title="Parts side by side" @click="split('columns')">columns</button>
    <button type="button" class="btn btn-sm btn-outline-dark" title="Parts one below the other" @click="split('rows')">rows</button>
  </div>
  <div v-if="chosen.length > 1" class="divide" role="group" aria-label="Align what is chosen">
    <span>align</span>
    <div class="choice">
      <button v-for="edge in EDGES" :key="edge" type="button" @click="composer.tell({ do: 'align', zones: chosen, edge })">{{ edge }}</button>
    </div>
  </div>
  <div v-if="chosen.length > 2" class="divide" role="group" aria-label="Distribute what is chosen">
    <span>same gaps</span>
    <div class="choice">
      <button v-for="way in WAYS" :key="way" type="button" @click="composer.tell({ do: 'distribute', zones: chosen, way })">{{ way }}</button>
    </div>
  </div>
  <div v-if="zones.length > 1" class="divide" role="group" aria-label="The zones chosen">
    <button type="button" class="btn btn-sm btn-outline-dark" @click="act('join')">Join them</button>
    <button type="button" class="btn btn-sm btn-outline-dark" @click="act('equalise')">Make them equal</button>
    <button v-if="zones.length === 2" type="button" class="btn btn-sm btn-outline-dark" @click="act('swap')">Swap them</button>
  </div>
</template>

<style scoped>
.divide {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 0.8125rem;
}
.divide > span {
  color: var(--soft);
}
.choice button {
  padding-inline: 6px;
}
label {
  display: flex;
  gap: 8px;
  flex: 1;
  align-items: baseline;
  color: var(--soft);
  white-space: nowrap;
}
input {
  flex: 1;
  min-width: 60px;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  padding: 0;
  color: var(--ink);
}
input:focus {
  outline: 2px solid var(--kelp);
}
</style>
