<script setup lang="ts">
import { computed } from 'vue'
import { useChosen } from '../../Data/begin'
import FieldNames from '../../Data/FieldNames.vue'
import RowsFields from '../../Data/RowsFields.vue'
import { useComposer } from '../composer/composer'
import type { CodeElement, TextElement, TickerElement } from '../designs'
import StressBar from './StressBar.vue'

/** Words that tell data: whose rows, which of them, and the fields in the words. */
type Telling = TextElement | TickerElement | CodeElement
const props = defineProps<{ one: Telling; label: string }>()
const composer = useComposer()
const { fields: own } = useChosen(() => props.one.rows)
const fields = computed(() => (props.one.rows ? own.value : (composer.toldOver.value?.fields ?? [])))
/** Told over whatever row its layout is told over. */
const OF_ITEM = { 'row of its item': 'the row that its item plays' }

const put = (part: Partial<Telling>) => composer.edit<Telling>(props.one.id, part)
</script>

<template>
  <FieldNames v-if="one.message" class="wide" :text="one.text" :fields="fields" :label="label" :rows="3" @change="composer.retext(one.id, $event)" />
  <slot v-else />
  <RowsFields
    :key="one.id"
    class="wide telling"
    linked
    :rows="one.rows"
    label="Tells rows of"
    none="no data"
    :others="OF_ITEM"
    :other="one.message ? 'row of its item' : ''"
    @change="(rows) => put(rows ? { message: true, rows } : { message: undefined, rows: undefined })"
    @other="put({ message: true, rows: undefined })"
  />
  <p v-if="one.message && !one.rows" class="wide small soft m-0" role="status">
    {{
      composer.toldOver.value
        ? `Told here over one of ${composer.toldOver.value.rows} rows, as “${composer.toldOver.value.by}” plays them.`
        : 'No playlist or zone plays this layout row by row yet: what fields tell is seen once one does.'
    }}
  </p>
  <StressBar v-if="one.rows || (one.message && composer.toldOver.value)" class="wide" />
</template>

<style scoped>
.telling {
  padding-bottom: 6px;
}
</style>
