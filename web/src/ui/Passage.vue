<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useSources } from '../Data/sources'
import { useCounts } from '../Estate/estate'
import { may } from './rights'
import { useSession } from './session'

defineEmits<{ find: [] }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const counts = useCounts()
const { all: sources } = useSources(false)
const troubled = computed(() => sources.value.filter((s) => s.status !== 'fresh').length)

/** Whoever only fills in has a way of his own. */
const stations = computed(() => (may('hand-over') || may('survey') || !may('fill-in') ? all.value : filling).filter(({ needs }) => may(needs)))
const filling = [
  { to: '/', name: 'My places', needs: 'look' as const, open: 0, says: '' },
  { to: '/filled', name: 'Filled in', needs: 'fill-in' as const, open: 0, says: '' },
]
const all = computed(() => [
  { to: '/displays', name: 'Displays', needs: 'look' as const, open: counts.value.standing.unbound ?? 0, says: 'displays to look at' },
  { to: '/media', name: 'Media', needs: 'fill-in' as const, open: 0, says: '' },
  { to: '/data', name: 'Data', needs: 'design' as const, open: troubled.value, says: 'sources are not fresh' },
  { to: '/layouts', name: 'Layouts', needs: 'design' as const, open: 0, says: '' },
  { to: '/playlists', name: 'Playlists and time', needs: 'design' as const, open: 0, says: '' },
  { to: '/overlays', name: 'Overlays', needs: 'hand-over' as const, open: 0, says: '' },
  { to: '/triggers', name: 'Triggers', needs: 'design' as const, open: 0, says: '' },
  { to: '/handover', name: 'Handover', needs: 'hand-over' as const, open: counts.value.older, says: 'displays show an older version' },
  {
    to: '/playback',
    name: 'Playback',
    needs: 'hand-over' as const,
    open: counts.value.standing.silent ?? 0,
    says: `of ${counts.value.of} displays are silent`,
  },
])
const here = (to: string) => (route.meta.station ?? route.path) === to

const own = useTemplateRef('own')
function shut({ relatedTarget: next }: FocusEvent) {
  if (!(next instanceof Node && own.value!.contains(next))) own.value!.open = false
}
async function leave() {
  await session.signOut()
  await router.push('/')
}
</script>

<template>
  <header class="passage">
    <RouterLink to="/" class="house" :aria-current="route.path === '/' ? 'page' : undefined"
      ><img src="/mark.svg" alt="" width="18" height="22" />Upper Pane</RouterLink
    >
    <nav aria-label="Stations of the work">
      <ol>
        <li v-for="(station, i) in stations" :key="station.to">
          <svg v-if="i > 0" width="8" height="14" viewBox="0 0 8 14" aria-hidden="true">
            <path d="M1 1l6 6-6 6" fill="none" stroke="currentColor" />
          </svg>
          <RouterLink :to="station.to" :class="{ here: here(station.to) }" :aria-current="here(station.to) ? 'page' : undefined">
            {{ station.name }}
            <span v-if="station.open" class="open figures" :title="`${station.open} ${station.says}`">{{
              station.open < 1000 ? station.open : `${Math.floor(station.open / 1000)}k`
            }}</span>
          </RouterLink>
        </li>
      </ol>
    </nav>
    <button type="button" class="find" title="Find any object or action" @click="$emit('find')">Find <kbd class="figures">Ctrl K</kbd></button>
    <div class="who">
      <RouterLink v-if="$may('design')" to="/bench" class="bin" :aria-current="route.path.startsWith('/bench') ? 'page' : undefined"
        >Bench</RouterLink
      >
      <details ref="own" class="own" @focusout="shut" @keydown.esc="own!.open = false">
        <summary>{{ session.account?.name }}</summary>
        <div class="list" @click="own!.open = false">
          <RouterLink to="/account">Your account</RouterLink>
          <RouterLink v-if="$may('administer')" to="/accounts">Accounts</RouterLink>
          <RouterLink v-if="$may('design')" to="/bin">Bin</RouterLink>
          <button type="button" @click="leave">Sign out</button>
        </div>
      </details>
    </div>
  </header>
</template>

<style scoped>
.own {
  position: relative;
}
.own summary {
  cursor: pointer;
  list-style: none;
  padding: 4px 2px;
  text-decoration: underline;
  text-decoration-color: var(--rule);
  text-underline-offset: 3px;
}
.own .list {
  position: absolute;
  right: 0;
  top: 100%;
  z-index: 30;
  display: grid;
  min-width: 150px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  box-shadow: 0 2px 6px rgb(23 39 46 / 18%);
}
.own .list > * {
  padding: 7px 12px;
  text-align: left;
  color: var(--ink);
  background: none;
  border: 0;
  text-decoration: none;
}
.own .list > *:hover,
.own .list > *:focus-visible {
  background: var(--kelp-wash);
}
.passage {
  display: flex;
  height: 46px;
  align-items: stretch;
  background: var(--sheet);
  border-bottom: 1px solid var(--ink);
  white-space: nowrap;
}
.house {
  display: flex;
  align-items: center;
  gap: 9px;
  padding: 0 16px;
  font-weight: 700;
  color: var(--ink);
  text-decoration: none;
  border-right: 1px solid var(--rule);
}
ol {
  display: flex;
  list-style: none;
  margin: 0;
  padding: 0;
  height: 100%;
}
li {
  display: flex;
  align-items: center;
  color: #8a9296;
}
li a {
  display: flex;
  align-items: center;
  gap: 6px;
  height: 100%;
  padding: 3px 11px 0;
  color: var(--soft);
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
li a:hover {
  color: var(--ink);
}
li a.here {
  color: var(--ink);
  font-weight: 700;
  background: var(--paper);
  border-bottom-color: var(--kelp);
}
.open {
  border: 1px solid var(--warning);
  color: var(--warning);
  background: #fbf3e2;
  padding: 0 5px;
  line-height: 17px;
}
.find {
  margin-left: auto;
  border: 0;
  background: none;
  color: var(--soft);
  padding: 0 14px;
}
.find kbd {
  background: none;
  color: var(--soft);
  border: 1px solid var(--rule);
  padding: 0 5px;
  margin-left: 4px;
}
.who {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 0 10px 0 16px;
  border-left: 1px solid var(--rule);
  color: var(--soft);
}
.bin {
  margin-right: 10px;
  font-size: 0.875rem;
}
@media (max-width: 1360px) {
  .find kbd {
    display: none;
  }
}
/* On a telephone the ways stand in one line that is pushed along, and keys are no help. */
@media (max-width: 800px) {
  .passage {
    overflow-x: auto;
  }
  .house {
    padding: 0 10px;
    font-size: 0;
    gap: 0;
  }
  .find,
  .who {
    padding: 0 8px;
  }
}
</style>
