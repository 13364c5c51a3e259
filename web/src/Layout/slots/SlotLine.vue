<script setup lang="ts">
/** What is filled in: how it is called, whether it is still missing, and a figure beside it. Of one field it is the label. */
withDefaults(defineProps<{ name: string; missing: boolean; says?: string; over?: boolean; of?: 'label' | 'div' }>(), { says: '', of: 'label' })
</script>

<template>
  <component :is="of" class="slot" :class="{ wrong: over }">
    <span class="what"
      ><span class="called">{{ name }}<i v-if="missing" title="It has to be filled in"> required</i></span>
      <span class="figures" :class="over ? 'over' : 'left'" :role="over ? 'status' : undefined">{{ says }}</span></span
    >
    <slot></slot>
  </component>
</template>

<style scoped>
.slot {
  display: block;
}
.what {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: baseline;
  font-size: 0.875rem;
  margin-bottom: 3px;
}
.what i {
  font-style: normal;
  color: var(--warning);
  font-size: 0.8125rem;
  margin-left: 6px;
}
.left {
  color: var(--kelp);
  white-space: nowrap;
}
.over {
  color: var(--warning);
  font-weight: 700;
  white-space: nowrap;
}
.wrong :deep(textarea) {
  border-color: var(--warning);
}
</style>
