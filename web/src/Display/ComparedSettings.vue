<script setup lang="ts">
import { computed, ref } from 'vue'
import type { DisplaySettings, Held, PlaceSettings } from './settings'

/** What holds at one place and at another, wherever the two differ. */
const { one, all } = defineProps<{
  one: PlaceSettings | DisplaySettings
  all: (PlaceSettings | DisplaySettings)[]
  called: (name: string) => string
  said: (value: unknown, name: string) => string
  nameOf: (id: unknown) => string
}>()
defineEmits<{ choose: [setting: string] }>()

const withId = ref('')
const other = computed(() => all.find((some) => some.id === withId.value && some.id !== one.id) ?? null)
const others = computed(() => all.filter((some) => some.id !== one.id))
/** Tags are no matter of this page. */
const differing = computed(() => {
  const there = other.value?.resolved ?? {}
  return [...new Set([...Object.keys(one.resolved), ...Object.keys(there)])]
    .filter((name) => /^(timezone|style|languages|standby|overlays|vars\..+)$/.test(name))
    .map((name) => ({ name, sides: [one.resolved[name], there[name]] as (Held | undefined)[] }))
    .filter(({ sides: [here, beside] }) => JSON.stringify(here?.value) !== JSON.stringify(beside?.value))
})
</script>

<template>
  <section class="compared" aria-label="Compared">
    <label class="small"
      >Compare {{ one.name }} with
      <select v-model="withId" class="form-select form-select-sm">
        <option value="">no other place</option>
        <option v-for="some in others" :key="some.id" :value="some.id">{{ some.name }}</option>
      </select></label
    >
    <template v-if="other">
      <p v-if="!differing.length" class="small soft m-0">The same holds at both.</p>
      <table v-else class="table table-sm m-0">
        <thead>
          <tr>
            <th scope="col">Setting</th>
            <th scope="col">{{ one.name }}</th>
            <th scope="col">{{ other.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ name, sides } in differing" :key="name">
            <th scope="row">
              <button type="button" class="btn btn-link btn-sm p-0 text-start" @click="$emit('choose', name)">{{ called(name) }}</button>
            </th>
            <td v-for="(held, side) in sides" :key="side">
              {{ said(held?.value, name) }}
              <span class="small soft from">{{ held ? `from ${nameOf(held.from)}` : 'nobody states it' }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.compared {
  display: grid;
  gap: 8px;
  margin-top: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.from {
  display: block;
}
th,
td {
  vertical-align: baseline;
  overflow-wrap: anywhere;
}
</style>
