<script setup lang="ts">
import { computed, ref } from 'vue'
import { useMedia } from '../../Media/media'
import PlaylistPanel, { type Listed } from '../../Time/PlaylistPanel.vue'
import { seconds } from '../../ui/format'
import TypedLine from '../../ui/TypedLine.vue'
import { type Addresses, type Analysis, type ZoneElement, leaderOf } from '../designs'
import { useComposer } from './composer'
import CanvasDetails from './details/CanvasDetails.vue'
import ClockDetails from './details/ClockDetails.vue'
import CodeDetails from './details/CodeDetails.vue'
import GroundField from './details/GroundField.vue'
import PictureDetails from './details/PictureDetails.vue'
import Repeat from './details/Repeat.vue'
import ShapeDetails from './details/ShapeDetails.vue'
import TextDetails from './details/TextDetails.vue'
import TickerDetails from './details/TickerDetails.vue'
import ZoneTimes from './details/ZoneTimes.vue'
import { useHand } from './hand'

/** What is typed about the one element that is chosen, about several, or about the canvas when none is. */
const props = defineProps<{ analysis: Analysis | null; display: string | null; timezone: string }>()
const emit = defineEmits<{ display: [id: string | null]; again: [] }>()
const composer = useComposer()
const hand = useHand()
const due = hand.due
const { ready } = useMedia()
const one = composer.only
const repeating = ref(false)

const addresses = computed<Addresses>(() =>
  Object.fromEntries(ready.value.map((m) => [m.id, { url: m.url ?? '', thumbnail: m.thumbnail, type: m.type ?? '' }])),
)
const zoneList = (e: ZoneElement): Listed | null => ('items' in e.playlist ? e.playlist : null)
const plays = (e: ZoneElement) => zoneList(e)?.items.filter((i) => i.enabled !== false).length
const firstMedia = (e: ZoneElement) => zoneList(e)?.items.find((i) => i.media?.id)?.media?.id
const loopOf = (id: string) => {
  const loop = props.analysis?.loops[id]
  return loop === null ? 'without end' : loop ? seconds(loop) : ''
}
const rename = (name: string) => one.value && composer.edit(one.value.id, { name: name === one.value.id ? undefined : name })
const chosen = computed(() => composer.elements.value.filter((e) => composer.chosen.value.has(e.id)))
const all = (what: 'hidden' | 'locked') => chosen.value.every((e) => e[what])
const grouped = computed(() => chosen.value.some((e) => e.group))
</script>

<template>
  <section v-if="chosen.length" class="details" :aria-label="one ? `Details of ${one.id}` : 'What is chosen'">
    <h2>
      <TypedLine v-if="one" :value="one.name ?? one.id" label="Name of the element" @change="rename" />
      <span v-else class="several">{{ chosen.length }} elements chosen</span>
      <span v-if="one?.kind === 'zone'" class="figures">{{
        [zoneList(one) ? `${plays(one)} ${plays(one) === 1 ? 'item' : 'items'}` : '', loopOf(one.id)].filter(Boolean).join(' · ')
      }}</span>
    </h2>
    <div class="acts" role="group" aria-label="What is chosen">
      <button type="button" title="One higher in the stack ( ] ), Shift: to the top" @click="composer.restack($event.shiftKey ? Infinity : 1)">
        raise
      </button>
      <button type="button" title="One lower in the stack ( [ ), Shift: to the bottom" @click="composer.restack($event.shiftKey ? -Infinity : -1)">
        lower
      </button>
      <button type="button" title="Neither drawn nor checked (H)" :aria-pressed="all('hidden')" @click="composer.toggle('hidden')">
        {{ all('hidden') ? 'show' : 'hide' }}
      </button>
      <button type="button" title="Hands leave it alone (L)" :aria-pressed="all('locked')" @click="composer.toggle('locked')">
        {{ all('locked') ? 'unlock' : 'lock' }}
      </button>
      <button v-if="chosen.length > 1" type="button" title="Chosen together from now on (Ctrl + G)" @click="composer.group">group</button>
      <button v-if="grouped" type="button" title="Each for itself again (Ctrl + Shift + G)" @click="composer.ungroup">ungroup</button>
      <button type="button" title="In columns and rows" @click="repeating = true">repeat…</button>
    </div>
    <p v-if="one && analysis?.says[one.id]" class="says figures">{{ analysis.says[one.id] }}</p>
    <template v-if="one?.kind === 'zone'">
      <ZoneTimes
        :one="one"
        :layout="composer.document.value.id"
        :elements="composer.elements.value"
        @change="composer.edit<ZoneElement>(one!.id, $event)"
      />
      <PlaylistPanel
        v-if="zoneList(one)"
        :list="zoneList(one)!"
        :playing="analysis?.playing[one.id]"
        :follows="leaderOf(one, composer.elements.value) !== undefined"
        :media="addresses"
        :due="due[one.id]"
        :zone="{ layout: composer.document.value.id, width: one.rect.width, height: one.rect.height }"
        :findings="analysis?.findings.filter((f) => f.elements[0] === one!.id)"
        @change="(playlist, gesture) => composer.edit<ZoneElement>(one!.id, { playlist }, gesture)"
        @goto="hand.toItem(one.id, $event)"
        @again="((composer.notice.value = { wrong: false, said: [$event] }), emit('again'))"
      />
      <p v-else class="px-3 pt-2">
        <RouterLink :to="`/playlists/${(one.playlist as { ref: string }).ref}`">Open the saved playlist</RouterLink>: what is changed in it changes
        wherever it plays.
      </p>
      <div class="form">
        <GroundField :ground="one.ground" :media="firstMedia(one)" @change="(ground, g) => composer.edit<ZoneElement>(one!.id, { ground }, g)" />
      </div>
    </template>
    <div v-else-if="one" class="form">
      <TextDetails v-if="one.kind === 'text'" :one="one" />
      <ShapeDetails v-else-if="one.kind === 'shape'" :one="one" />
      <ClockDetails v-else-if="one.kind === 'clock'" :one="one" :timezone="timezone" />
      <CodeDetails v-else-if="one.kind === 'code'" :one="one" />
      <TickerDetails v-else-if="one.kind === 'ticker'" :one="one" />
      <PictureDetails v-else :one="one" />
    </div>
    <Repeat v-model="repeating" />
  </section>
  <section v-else class="details" aria-label="Canvas">
    <h2>Canvas</h2>
    <div class="form"><CanvasDetails :analysis="analysis" :display="display" @display="emit('display', $event)" /></div>
  </section>
</template>

<style scoped>
.details {
  border-top: 1px solid var(--ink);
}
h2 {
  font-size: 0.875rem;
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 9px 14px 4px;
  margin: 0;
}
h2 .typed-line,
.several {
  font-weight: 700;
  flex: 1;
}
h2 .figures {
  color: var(--soft);
  font-weight: 400;
  white-space: nowrap;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  padding: 0 14px 6px;
}
.acts button {
  border: 0;
  background: none;
  padding: 2px 0;
  font-size: 0.8125rem;
  color: var(--kelp);
  text-decoration: underline;
}
.says {
  margin: 0;
  padding: 4px 14px;
  color: var(--soft);
  font-size: 0.8125rem;
  border-top: 1px solid var(--rule);
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  padding: 10px 14px 14px;
  align-items: end;
  border-top: 1px solid var(--rule);
}
.form :deep(textarea),
.form :deep(.wide) {
  grid-column: 1 / 3;
}
.form :deep(label) {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0;
}
.form :deep(label .figure) {
  font-family: var(--figures);
  font-size: 0.8125rem;
  color: var(--ink);
  margin: 3px 0;
}
.form :deep(fieldset) {
  border: 0;
  margin: 0;
  min-width: 0;
}
.form :deep(.guides .figure) {
  font-family: var(--figures);
  font-size: 0.8125rem;
}
</style>
