<script setup lang="ts" generic="D extends { name: string }">
import { ref, shallowRef, watch } from 'vue'
import { sentence } from '../ui/api'
import type { Compared, DesignWork } from './work'

/** Two versions made from the same revision: what each changed, and for each part whose is taken. */
const props = defineProps<{ work: DesignWork<D>; by: string }>()
const open = defineModel<boolean>({ required: true })
const compared = shallowRef<Compared<D> | null>(null)
const take = ref<Record<string, 'mine' | 'theirs'>>({})
const trouble = ref('')

async function ask() {
  trouble.value = ''
  try {
    compared.value = await props.work.compare(take.value)
  } catch (e) {
    trouble.value = sentence(e)
  }
}
watch(open, (now) => {
  if (!now) return
  compared.value = null
  take.value = {}
  void ask()
})
const usual = (by: string) => (by === 'theirs' ? 'theirs' : 'mine')
function choose(key: string, whose: 'mine' | 'theirs') {
  take.value = { ...take.value, [key]: whose }
  void ask()
}
async function go() {
  if (!compared.value) return
  open.value = false
  await props.work.settleWith(compared.value.document)
}
</script>

<template>
  <BModal v-model="open" no-close-on-backdrop lazy title="Two versions" size="lg" scrollable no-footer>
    <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
    <template v-if="compared">
      <p v-if="compared.differences.length === 0">Both say the same.</p>
      <table v-else class="versions">
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">you</th>
            <th scope="col">{{ by }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="d in compared.differences" :key="d.key">
            <th scope="row">{{ d.name }} <span v-if="d.by === 'both'" class="both">changed by both</span></th>
            <td v-for="whose in ['mine', 'theirs'] as const" :key="whose">
              <label
                ><input
                  type="radio"
                  :name="`take-${d.key}`"
                  :checked="(take[d.key] ?? usual(d.by)) === whose"
                  :aria-label="`${d.name}: ${whose === 'mine' ? 'yours' : `that of ${by}`}`"
                  @change="choose(d.key, whose)"
                />
                {{ d[whose] }}</label
              >
            </td>
          </tr>
        </tbody>
      </table>
      <BButton variant="primary" class="mt-3" @click="go">Go on with these</BButton>
      <p class="soft small mt-2 mb-0">It becomes the newest revision. Undo goes back to yours, then to that of {{ by }}.</p>
    </template>
    <p v-else-if="!trouble">Looking at both.</p>
  </BModal>
</template>

<style scoped>
.versions {
  width: 100%;
}
th,
td {
  padding: 5px 14px 5px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
thead th {
  font-weight: 400;
  color: var(--soft);
}
.both {
  color: var(--warning);
  font-weight: 400;
  font-size: 0.8125rem;
}
label {
  display: flex;
  gap: 8px;
}
</style>
