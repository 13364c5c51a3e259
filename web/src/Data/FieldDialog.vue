<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Field, type Unit, pathOf, useSources } from './sources'

/** What a field is called, where it stands in a row, and what its values are taken for. */
const props = defineProps<{ name: string; field: Field; taken: string[] }>()
const emit = defineEmits<{ close: []; change: [name: string, field: Field] }>()
type Whole = Extract<Field, { of: string }>

const { query } = useSources(false)
const units = computed(() => query.data.value?.units ?? [])
const whole: Whole = typeof props.field === 'object' && 'of' in props.field ? props.field : { of: pathOf(props.field) }
const isCount = typeof props.field === 'object' && 'count' in props.field
const name = ref(props.name)
const of = ref(pathOf(props.field))
const type = ref<NonNullable<Whole['type']>>(whole.type ?? 'auto')
const zone = ref(whole.zone ?? '')
const from = ref<Unit | ''>(whole.unit?.[0] ?? '')
const to = ref<Unit | ''>(whole.unit?.[1] ?? '')
const decimals = ref(whole.decimals === undefined ? '' : String(whole.decimals))
const comma = ref(whole.comma ?? false)
const fallback = ref(typeof props.field === 'object' ? (props.field.fallback ?? '') : '')
const like = computed(() => units.value.find((kind) => from.value !== '' && kind.includes(from.value)) ?? [])
const wrong = computed(() => {
  if (!/^[A-Za-z][A-Za-z0-9_]*$/.test(name.value)) return 'A name has letters, figures and underscores, a letter first.'
  return name.value !== props.name && props.taken.includes(name.value) ? `There is a field ${name.value} already.` : ''
})

function done() {
  if (wrong.value) return
  const told = fallback.value === '' ? {} : { fallback: fallback.value }
  if (isCount) return emit('change', name.value, { count: of.value, ...told })
  const isNumber = type.value === 'number' || type.value === 'auto'
  const made: Whole = {
    of: of.value,
    ...(type.value === 'auto' ? {} : { type: type.value }),
    ...(type.value === 'local' && zone.value ? { zone: zone.value } : {}),
    ...(isNumber && from.value && to.value ? { unit: [from.value, to.value] as [Unit, Unit] } : {}),
    ...(isNumber && /^\d+$/.test(decimals.value) ? { decimals: Number(decimals.value) } : {}),
    ...(type.value === 'number' && comma.value ? { comma: true } : {}),
    ...told,
  }
  emit('change', name.value, Object.keys(made).length === 1 ? made.of : made)
}
</script>

<template>
  <BModal :model-value="true" focus="input" title="Field" no-footer @hidden="emit('close')">
    <form class="form" @submit.prevent="done">
      <label>Name<BFormInput v-model="name" :state="wrong ? false : null" required maxlength="80" /></label>
      <p v-if="wrong" class="said-error small m-0" role="alert">{{ wrong }}</p>
      <label
        >{{ isCount ? 'How many there are of' : 'Where in the row' }}<BFormInput v-model="of" class="figures" required spellcheck="false"
      /></label>
      <template v-if="!isCount">
        <label
          >Taken for
          <select v-model="type" class="form-select">
            <option value="auto">what it is</option>
            <option value="text">text</option>
            <option value="number">number</option>
            <option value="boolean">true or false</option>
            <option value="instant">time with its offset</option>
            <option value="local">time on the clock of a zone</option>
            <option value="date">date</option>
          </select></label
        >
        <label v-if="type === 'local'">Zone<BFormInput v-model="zone" placeholder="that of the source" /></label>
        <div v-if="type === 'number' || type === 'auto'" class="three">
          <label
            >Unit
            <select v-model="from" class="form-select">
              <option value="">none</option>
              <optgroup v-for="kind in units" :key="kind[0]" :label="kind.join(', ')">
                <option v-for="unit in kind" :key="unit">{{ unit }}</option>
              </optgroup>
            </select></label
          >
          <label
            >told in
            <select v-model="to" class="form-select" :disabled="from === ''">
              <option value="">as it is</option>
              <option v-for="unit in like" :key="unit">{{ unit }}</option>
            </select></label
          >
          <label>Decimals<BFormInput v-model="decimals" inputmode="numeric" placeholder="as they are" /></label>
        </div>
        <label v-if="type === 'number'" class="check"><input v-model="comma" type="checkbox" /> written with a comma in place of the point</label>
      </template>
      <label>Where it is missing, texts say<BFormInput v-model="fallback" maxlength="200" placeholder="–" /></label>
      <div class="text-end"><BButton type="submit" variant="primary" :disabled="wrong !== ''">Take it so</BButton></div>
    </form>
  </BModal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 11px;
}
label {
  display: grid;
  gap: 3px;
}
.check {
  display: flex;
  gap: 8px;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
}
</style>
