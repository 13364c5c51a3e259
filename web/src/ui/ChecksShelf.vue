<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useGrowing } from './growing'
import LevelMark from './LevelMark.vue'
import ListEnd from './ListEnd.vue'
import { type Finding, useShelf } from './shelf'

const shelf = useShelf()
const route = useRoute()
const router = useRouter()
const open = ref(false)
const ORDER = { stop: 0, warning: 1, hint: 2 }
const sorted = computed(() => [...shelf.findings].sort((a, b) => ORDER[a.level] - ORDER[b.level]))
/** What stops a handover; else what is about the things chosen; else the gravest. */
const first = computed(() => {
  const [gravest = null] = sorted.value
  const own = sorted.value.find((f) => f.elements.some((id) => shelf.about.has(id)))
  return own && (gravest?.level !== 'stop' || own.level === 'stop') ? own : gravest
})
const { shown, left, end } = useGrowing(sorted, 80)
const counts = computed(() => [
  { level: 'stop' as const, n: shelf.stops, word: shelf.stops === 1 ? 'stop' : 'stops' },
  { level: 'warning' as const, n: shelf.warnings, word: shelf.warnings === 1 ? 'warning' : 'warnings' },
  { level: 'hint' as const, n: shelf.hints, word: shelf.hints === 1 ? 'hint' : 'hints' },
])

function choose(finding: Finding) {
  if (finding.to) void router.push(finding.to)
  else shelf.chosen?.(finding)
}

onKeyStroke('Escape', () => (open.value = false))
watch(
  () => route.path,
  () => (open.value = false),
)
</script>

<template>
  <footer class="shelf" aria-label="Checks">
    <section v-if="open" class="list" aria-label="All findings">
      <p v-if="shelf.findings.length === 0" class="m-0 p-3 soft">Nothing is found.</p>
      <ul v-else>
        <li v-for="(finding, i) in shown" :key="i">
          <LevelMark :level="finding.level" />
          <button type="button" class="say" @click="choose(finding)">{{ finding.message }}</button>
          <code class="soft small">{{ finding.code }}</code>
          <button v-if="finding.fix && shelf.fixed" type="button" class="btn btn-link btn-sm fix" @click="shelf.fixed(finding)">
            {{ finding.fix.label }}
          </button>
        </li>
      </ul>
      <div ref="end"><ListEnd :left="left" /></div>
    </section>
    <div class="line">
      <button type="button" class="counts" :aria-expanded="open" @click="open = !open">
        <span v-for="c in counts" :key="c.level" :class="[c.level, { none: c.n === 0 }]"
          ><LevelMark :level="c.level" /><b class="figures">{{ c.n }}</b> <span class="word">{{ c.word }}</span></span
        >
      </button>
      <p class="first" aria-live="polite">
        <template v-if="first"
          ><button type="button" class="say" @click="choose(first)">{{ first.message }}</button>
          <button v-if="first.fix && shelf.fixed" type="button" class="btn btn-link btn-sm fix" @click="shelf.fixed(first)">
            {{ first.fix.label }}
          </button></template
        >
        <template v-else>{{ shelf.remark }}</template>
      </p>
      <button type="button" class="btn btn-link btn-sm soft all" :aria-expanded="open" @click="open = !open">
        {{ open ? 'close' : 'all findings' }}
      </button>
    </div>
  </footer>
</template>

<style scoped>
.shelf {
  position: relative;
  background: var(--sheet);
  border-top: 1px solid var(--ink);
  z-index: 20;
}
.line {
  display: flex;
  align-items: center;
  height: 100%;
}
.counts {
  display: flex;
  gap: 18px;
  border: 0;
  background: none;
  padding: 0 16px;
  height: 100%;
  border-right: 1px solid var(--rule);
}
.counts span {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  font-size: 0.875rem;
}
.counts .stop {
  color: var(--stop);
}
.counts .warning {
  color: var(--warning);
}
.counts .hint,
.counts .none {
  color: var(--soft);
}
.first {
  margin: 0;
  padding: 0 16px;
  flex: 1;
  min-width: 0;
  display: flex;
  gap: 10px;
  align-items: baseline;
  white-space: nowrap;
  overflow: hidden;
  font-size: 0.875rem;
}
/* A long sentence is cut; what cures it always stands there whole. */
.first .say {
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
}
.first .fix {
  flex: none;
}
.say {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  color: var(--ink);
}
.fix {
  font-weight: 650;
}
.list {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 100%;
  max-height: 300px;
  overflow: auto;
  background: var(--sheet);
  border-top: 1px solid var(--ink);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 5px 16px;
  border-bottom: 1px solid var(--rule);
  font-size: 0.875rem;
}
li code {
  margin-left: auto;
}
.all {
  margin-right: 8px;
}
@media (max-width: 800px) {
  .counts {
    gap: 10px;
    padding: 0 10px;
  }
  .counts .word {
    display: none;
  }
  .first {
    padding: 0 10px;
  }
}
</style>
