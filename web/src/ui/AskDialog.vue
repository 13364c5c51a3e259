<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Question, question } from './ask'

/** The one question that is asked before something is done; it stands for `confirm()`, which stops the whole page and speaks in the browser's voice. */
const open = computed({ get: () => question.value !== null, set: (to) => !to && answer(false) })
/** What is told while the dialogue closes. */
const shown = ref<Question | null>(null)
watch(question, (now) => now && (shown.value = now))

function answer(isYes: boolean) {
  const asked = question.value
  question.value = null
  asked?.answered(isYes)
}
</script>

<template>
  <BModal
    v-model="open"
    :title="shown?.title"
    :ok-title="shown?.does"
    cancel-title="Leave it"
    cancel-variant="outline-dark"
    focus="cancel"
    centered
    no-close-on-backdrop
    no-header-close
    @ok="answer(true)"
  >
    <p class="m-0">{{ shown?.text }}</p>
  </BModal>
</template>
