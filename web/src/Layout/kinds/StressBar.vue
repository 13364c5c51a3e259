<script setup lang="ts">
import ChoiceBar from '../../ui/ChoiceBar.vue'
import { vKept } from '../../ui/kept'
import { useComposer } from '../composer/composer'

/** The rows of this layout as they may come some day, at one press; or from any of them on. */
const composer = useComposer()
const WORDS = { '': 'as they are', longest: 'longest', missing: 'missing', one: 'one', none: 'none', many: '10,000' }
function from(event: Event) {
  const row = Number((event.target as HTMLInputElement).value)
  composer.stress.value = Number.isInteger(row) && row >= 1 ? Math.min(row, 200_000) : null
}
</script>

<template>
  <div class="stress">
    <span class="over">
      <span class="soft small">Try it with rows</span>
      <label class="soft small"
        >from row
        <input
          v-kept="typeof composer.stress.value === 'number' ? String(composer.stress.value) : ''"
          class="form-control form-control-sm figures"
          inputmode="numeric"
          placeholder="1"
          aria-label="Try it from row"
          @change="from"
      /></label>
    </span>
    <ChoiceBar
      label="Try it with rows"
      :words="WORDS"
      :model-value="typeof composer.stress.value === 'number' ? 'row' : (composer.stress.value ?? '')"
      @update:model-value="composer.stress.value = $event || null"
    />
    <span v-if="composer.stress.value === 'many'" class="soft small">All of them, whatever “at most” says.</span>
  </div>
</template>

<style scoped>
.stress {
  display: grid;
  gap: 3px;
  padding: 4px 14px 8px;
}
.stress.wide {
  padding-inline: 0;
}
.over {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.over label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.over input {
  width: 56px;
}
.stress :deep(button) {
  padding-inline: 7px;
}
</style>
