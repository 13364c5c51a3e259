<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { onClickOutside } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { api, sentence } from '../ui/api'
import { moment } from '../ui/format'
import LevelMark from '../ui/LevelMark.vue'

/** First shown: where and when something saved is next seen, or why it never is. Asked at once, or when it is pressed. */
const props = defineProps<{
  plural: 'layouts' | 'filled' | 'playlists' | 'schedules' | 'media'
  id: string
  revision?: number
  /** Asked only when it is pressed, under these words. */ lazy?: string
  name?: string
}>()

interface Sighting {
  display: string
  name: string
  timezone: string
  at: string
  why: string
  older: boolean
}
interface Answer {
  seen: Sighting[]
  never: string | null
  says: string
}

const open = ref(false)
const MOST = 12
const query = useQuery({
  queryKey: computed(() => ['first-shown', props.plural, props.id, props.revision]),
  enabled: computed(() => !props.lazy || open.value),
  refetchInterval: 30_000,
  retry: false,
  queryFn: () => api.get<Answer>(`${props.plural}/${props.id}/first-shown`),
})
const answer = query.data
/** What is due within the two seconds that asking takes is seen now. */
const isNow = (s: Sighting) => Date.parse(s.at) <= Date.now() + 2000
const now = computed(() => answer.value?.seen.filter(isNow) ?? [])
const and = (names: string[]) => (names.length === 1 ? names[0] : `${names[0]} and ${names.length - 1} more`)
const words = computed(() => {
  if (props.lazy) return props.lazy
  if (query.error.value) return 'when seen?'
  if (!answer.value) return ''
  if (answer.value.never) return 'seen nowhere'
  if (now.value.length) return `seen now on ${and(now.value.map((s) => s.name))}`
  const first = answer.value.seen[0]!
  return `first seen ${moment(first.at, first.timezone)} on ${and(answer.value.seen.filter((s) => s.at === first.at).map((s) => s.name))}`
})

const root = useTemplateRef('root')
/** The panel opens to the side on which there is room. */
const WIDTH = 340
const leftwards = ref(true)
function toggle() {
  leftwards.value = root.value!.getBoundingClientRect().right > WIDTH + 20
  open.value = !open.value
}
onClickOutside(root, () => (open.value = false))
</script>

<template>
  <span ref="root" class="seen" @keydown.esc="open = false">
    <button
      v-if="words"
      type="button"
      class="btn btn-link btn-sm p-0"
      :class="{ never: !lazy && answer?.never }"
      :aria-expanded="open"
      :aria-label="name ? `When is ${name} seen?` : undefined"
      title="Where and when it is next seen"
      @click="toggle"
    >
      <LevelMark v-if="!lazy && answer?.never" level="hint" /> {{ words }}
    </button>
    <div v-if="open" class="panel" :class="{ leftwards }" role="dialog" aria-label="First shown">
      <p v-if="query.error.value" class="said-error m-0">{{ sentence(query.error.value) }}</p>
      <p v-else-if="!answer" class="soft m-0">Looking through the displays.</p>
      <template v-else-if="answer.never">
        <b>Seen nowhere</b>
        <p class="m-0">{{ answer.says }}</p>
      </template>
      <template v-else>
        <b>First shown</b>
        <ul>
          <li v-for="s in answer.seen.slice(0, MOST)" :key="s.display">
            <RouterLink :to="`/rehearsal?display=${s.display}${isNow(s) ? '' : `&at=${s.at}`}`" :aria-label="`Rehearse ${s.name} then`">{{
              s.name
            }}</RouterLink>
            <span class="figures">{{ isNow(s) ? 'now' : moment(s.at, s.timezone) }}</span>
            <span v-if="s.why !== 'it plays' || s.older" class="soft small why"
              >{{ s.why }}{{ s.older ? '; as it is saved, which is not handed over yet' : '' }}</span
            >
          </li>
        </ul>
        <p v-if="answer.seen.length > MOST" class="soft small m-0">and on {{ answer.seen.length - MOST }} more displays</p>
      </template>
    </div>
  </span>
</template>

<style scoped>
.seen {
  position: relative;
  flex: none;
}
.seen .btn {
  font-size: 0.8125rem;
  white-space: nowrap;
}
.seen .btn.never {
  color: var(--soft);
}
.panel {
  position: absolute;
  z-index: 20;
  left: 0;
  top: 100%;
  width: 340px;
  max-height: 380px;
  overflow: auto;
  padding: 9px 12px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  box-shadow: 0 4px 14px rgb(23 39 46 / 18%);
  font-size: 0.875rem;
  font-family: var(--bs-body-font-family);
  color: var(--ink);
  text-align: left;
  white-space: normal;
}
.panel.leftwards {
  left: auto;
  right: 0;
}
.panel ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
.panel li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
.panel li a {
  min-height: 26px;
}
.seen > .btn {
  min-height: 24px;
}
.why {
  grid-column: 1 / -1;
}
</style>
