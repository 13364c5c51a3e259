<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useEstate } from '../Estate/estate'
import { useDesigns, wayTo } from '../Layout/designs'
import { excerpt, useWords, whereSaid } from '../Layout/words'
import { facts, useMedia } from '../Media/media'
import { useActions } from './actions'
import { type Findable, find } from './find'
import { size } from './format'
import { may } from './rights'

/** Ctrl + K: finds any object and any action, by the beginnings of its words. */
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const actions = useActions()
const { displays } = useEstate(false)
const { all: layouts } = useDesigns('layouts')
const { all: playlists } = useDesigns('playlists')
const { all: schedules } = useDesigns('schedules')
const { all: sources } = useDesigns('sources')
const { all: overlays } = useDesigns('overlays')
const { all: triggers } = useDesigns('triggers')
const { all: panels } = useDesigns('panels')
const { all: filled } = useDesigns('filled')
const { ready } = useMedia()
const typed = ref('')
const at = ref(0)
const field = useTemplateRef('field')

const STATIONS_NAMED = [
  'displays',
  'media',
  'data',
  'layouts',
  'filled',
  'playlists',
  'schedules',
  'overlays',
  'triggers',
  'triggers/panels',
  'handover',
  'playback',
  'rehearsal',
  'work',
  'bench',
  'bench/before',
  'bin',
  'account',
  'accounts',
].map((name) => `/${name}`)
const STATIONS: Findable[] = [
  { kind: 'station', name: 'Today', to: '/' },
  ...router
    .getRoutes()
    .filter(({ path, meta }) => STATIONS_NAMED.includes(path) && (!meta.needs || may(meta.needs)))
    .map(({ path, meta }) => ({ kind: 'station', name: meta.title, to: path })),
  ...(may('design') ? [{ kind: 'action', name: 'New layout', to: '/layouts?new=none' }] : []),
]
const all = computed<Findable[]>(() => [
  ...actions.here,
  ...STATIONS,
  ...filled.value.map((d) => ({ kind: 'filled layout', name: d.name, more: d.template?.name ?? '', to: `/filled/${d.id}` })),
  ...layouts.value.map((d) => ({ kind: 'layout', name: d.name, more: d.canvas ? size(d.canvas) : '', to: `/layouts/${d.id}` })),
  ...playlists.value.map((d) => ({ kind: 'playlist', name: d.name, to: `/playlists/${d.id}` })),
  ...schedules.value.map((d) => ({ kind: 'schedule', name: d.name, to: `/schedules/${d.id}` })),
  ...overlays.value.map((d) => ({ kind: 'overlay', name: d.name, to: `/overlays/${d.id}` })),
  ...triggers.value.map((d) => ({ kind: 'triggers', name: d.name, to: `/triggers/${d.id}` })),
  ...panels.value.map((d) => ({ kind: 'panel', name: d.name, to: `/triggers/panels/${d.id}` })),
  ...sources.value.map((d) => ({ kind: 'source', name: d.name, to: `/data/${d.id}` })),
  ...displays.value.map((d) => ({
    kind: 'display',
    name: d.name,
    more: `${size(d.raster)} px, ${d.way.slice(1).join(', ')}`,
    to: `/displays?display=${d.id}`,
  })),
  ...ready.value.map((m) => ({ kind: m.kind, name: m.name, more: facts(m), to: `/media?search=${encodeURIComponent(m.name)}` })),
])
const { saying: words, looking } = useWords(typed)
const MOST = 12
const found = computed<Findable[]>(() => {
  const saying = words.value.map((one) => ({
    kind: one.kind,
    name: `“${excerpt(one.says, typed.value, 44)}”`,
    more: `${one.name}, ${whereSaid(one)}`,
    to: wayTo(one),
  }))
  const named = find(all.value, typed.value, MOST)
  return [...named.slice(0, Math.max(MOST - saying.length, MOST / 2)), ...saying.slice(0, MOST / 2)]
})
watch(typed, () => (at.value = 0))
onMounted(() => field.value!.focus())

function take(one: Findable | undefined) {
  if (!one) return
  emit('close')
  if (one.act) one.act()
  else if (one.to) void router.push(one.to)
}
const step = (by: number) => (at.value = Math.max(0, Math.min(found.value.length - 1, at.value + by)))
</script>

<template>
  <div class="veil" @pointerdown.self="emit('close')">
    <div class="finder" role="dialog" aria-modal="true" aria-label="Find">
      <input
        ref="field"
        v-model="typed"
        class="form-control"
        placeholder="Find a display, design, picture, film, action, or words on a screen"
        aria-label="Find"
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
        :aria-activedescendant="found.length ? `found-${at}` : undefined"
        @keydown.down.prevent="step(1)"
        @keydown.up.prevent="step(-1)"
        @keydown.enter.prevent="take(found[at])"
        @keydown.esc.stop="emit('close')"
        @keydown.tab.prevent
      />
      <p v-if="found.length === 0" class="soft small m-0 px-3 py-2">
        {{ looking ? 'Looking at what the screens say.' : 'Nothing has these words in its name, and no screen says them.' }}
      </p>
      <ul id="found" role="listbox" aria-label="Found">
        <li
          v-for="(one, i) in found"
          :id="`found-${i}`"
          :key="`${one.kind} ${one.name} ${i}`"
          role="option"
          :aria-selected="i === at"
          @pointermove="at = i"
          @click="take(one)"
        >
          <span class="name">{{ one.name }}</span>
          <span class="soft small more">{{ one.more }}</span>
          <span class="soft small">{{ one.kind }}</span>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  z-index: 1100;
  background: rgb(23 39 46 / 0.28);
}
.finder {
  width: min(640px, 92vw);
  margin: 84px auto 0;
  background: var(--sheet);
  border: 1px solid var(--ink);
}
.finder input {
  border: 0;
  border-bottom: 1px solid var(--ink);
  padding: 11px 16px;
  font-size: 1.125rem;
  background: none;
}
.finder input:focus {
  box-shadow: none;
  outline: 2px solid var(--kelp);
  outline-offset: -2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 74px;
  gap: 16px;
  align-items: baseline;
  padding: 5px 16px;
  cursor: pointer;
}
li + li {
  border-top: 1px solid var(--rule);
}
li[aria-selected='true'] {
  background: var(--kelp-wash);
  box-shadow: inset 4px 0 var(--kelp);
}
.name,
.more {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
