<script setup lang="ts">
import { ref } from 'vue'
import { useComposer } from '../composer'

/** What is chosen, over and over in columns and rows. */
const open = defineModel<boolean>({ required: true })
const composer = useComposer()
const asked = ref({ columns: 3, rows: 1, gap_x: 20, gap_y: 20 })
const FIELDS = { columns: 'Columns', rows: 'Rows', gap_x: 'Gap between columns, px', gap_y: 'Gap between rows, px' } as const

async function repeat() {
  const { columns, rows, gap_x, gap_y } = asked.value
  if (await composer.tell({ do: 'repeat', zones: [...composer.chosen.value], columns, rows, gap_x, gap_y })) open.value = false
}
</script>

<template>
  <BModal v-model="open" no-close-on-backdrop lazy title="Repeat what is chosen" no-footer>
    <form class="repeat" @submit.prevent="repeat">
      <label v-for="(words, field) in FIELDS" :key="field"
        >{{ words
        }}<input
          v-model.number="asked[field]"
          type="number"
          class="form-control form-control-sm"
          step="1"
          :min="field === 'columns' || field === 'rows' ? 1 : undefined"
          max="1000"
          required
      /></label>
      <p v-if="composer.notice.value?.wrong" class="wide said-error m-0" role="alert">{{ composer.notice.value.said.join(' ') }}</p>
      <BButton type="submit" variant="primary" class="wide">Repeat {{ asked.columns }} × {{ asked.rows }}</BButton>
    </form>
  </BModal>
</template>

<style scoped>
.repeat {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 16px;
}
.wide {
  grid-column: 1 / 3;
}
</style>
