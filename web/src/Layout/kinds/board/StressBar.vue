<script setup lang="ts">
import ChoiceBar from '../../../ui/ChoiceBar.vue'
import { useComposer } from '../../composer/composer'

/** The rows of this layout as they may come some day, at one press. */
const composer = useComposer()
const WORDS = { '': 'as they are', longest: 'longest', missing: 'missing', one: 'one', none: 'none', many: '10,000' }
</script>

<template>
  <div class="stress">
    <span class="soft small">Try it with rows</span>
    <ChoiceBar
      label="Try it with rows"
      :words="WORDS"
      :model-value="composer.stress.value ?? ''"
      @update:model-value="composer.stress.value = $event || null"
    />
  </div>
</template>

<style scoped>
.stress {
  display: grid;
  gap: 3px;
  padding: 4px 14px 8px;
}
.stress :deep(button) {
  padding-inline: 7px;
}
</style>
