<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import DisplayPicture from '../Estate/DisplayPicture.vue'
import ReleaseList from '../Handover/ReleaseList.vue'
import { type DisplayState, type PlayerState } from '../Estate/estate'
import { api, sentence } from '../ui/api'
import { ask } from '../ui/ask'
import { ago, size } from '../ui/format'
import CarriedHere from '../Overlay/CarriedHere.vue'
import RecordButton from '../ui/RecordButton.vue'
import BindForm from './BindForm.vue'

/** One display: its survey, its players, and the way to bind a new one. */
const props = defineProps<{ display: DisplayState; at: number }>()
const emit = defineEmits<{ close: [] }>()

const queries = useQueryClient()
const trouble = ref('')
const said = ref('')

/** Which outputs of the display a bound player feeds, by the survey. */
const outputsOf = (player: PlayerState): number[] => [
  ...new Set(props.display.feeds.filter((f) => player.part === null || f.player === null || f.player === player.part).map((f) => f.output ?? 1)),
]

const count = ref(4)
async function copy() {
  trouble.value = said.value = ''
  try {
    const { displays } = await api.post<{ displays: { name: string }[] }>(`displays/${props.display.id}/copies`, { count: Number(count.value) })
    said.value = `There are now ${displays.map((d) => d.name).join(', ')}.`
    await queries.invalidateQueries({ queryKey: ['estate'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
async function remove() {
  const text = 'Everything that was handed over to it goes with it. It lies in the bin for 30 days.'
  if (!(await ask(`Take “${props.display.name}” away?`, text, 'Take it away'))) return
  trouble.value = ''
  try {
    await api.delete(`displays/${props.display.id}`)
    await queries.invalidateQueries({ queryKey: ['estate'] })
    emit('close')
  } catch (e) {
    trouble.value = sentence(e)
  }
}

async function revoke(player: PlayerState) {
  if (!(await ask(`Take back the address of “${player.name}”?`, 'It stops playing, and has to be bound anew.', 'Take it back'))) return
  try {
    await api.delete(`players/${player.id}`)
    await queries.invalidateQueries({ queryKey: ['estate'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <aside class="sheet" :aria-label="display.name">
    <div class="group-head">
      <h2>{{ display.name }}</h2>
      <button type="button" class="btn btn-link btn-sm" @click="$emit('close')">close</button>
    </div>
    <div class="hung" :class="display.orientation">
      <span class="mm across figures">{{ display.active_mm.width.toFixed(1) }} mm · {{ display.raster.width }} px</span>
      <span class="mm down figures">{{ display.active_mm.height.toFixed(1) }} mm · {{ display.raster.height }} px</span>
      <div class="frame"><DisplayPicture :display="display" :at="at" /></div>
    </div>
    <dl>
      <dt>Place</dt>
      <dd>{{ display.way.join(' › ') }}</dd>
      <dt>Raster as it hangs</dt>
      <dd class="figures">{{ size(display.raster) }} px</dd>
      <template v-if="display.panels > 1">
        <dt>Panels</dt>
        <dd class="figures">{{ display.panels }}</dd>
      </template>
      <template v-else>
        <dt>Panel turned</dt>
        <dd class="figures">{{ display.rotation }}°</dd>
      </template>
      <dt>Density</dt>
      <dd class="figures">{{ display.px_per_mm.toFixed(4) }} px/mm</dd>
      <dt>Read from</dt>
      <dd class="figures">{{ (display.viewing.nearest_mm / 1000).toFixed(1) }} to {{ (display.viewing.farthest_mm / 1000).toFixed(1) }} m</dd>
      <dt>Time zone</dt>
      <dd>{{ display.timezone }}</dd>
      <dt>Shows</dt>
      <dd>
        {{ display.release ? `${display.release.name}, release ${display.release.number}` : 'nothing handed over yet' }}
      </dd>
      <dt>Above it</dt>
      <dd><CarriedHere :id="display.id" /></dd>
    </dl>
    <div class="d-flex gap-2 mb-3 flex-wrap">
      <RouterLink class="btn btn-primary btn-sm" :to="`/displays/${display.id}`">Survey</RouterLink>
      <RouterLink class="btn btn-outline-dark btn-sm" :to="`/displays/${display.id}/wiring`">Wiring sheet</RouterLink>
      <RouterLink class="btn btn-outline-dark btn-sm" :to="`/displays/${display.id}/seen`">What was seen</RouterLink>
      <RouterLink v-if="$may('design')" class="btn btn-outline-dark btn-sm" :to="`/layouts?new=${display.id}`">New layout for it</RouterLink>
      <RouterLink v-if="$may('hand-over', display.place)" class="btn btn-outline-dark btn-sm" :to="`/handover?display=${display.id}`"
        >Hand over to it</RouterLink
      >
    </div>
    <form class="more" @submit.prevent="copy">
      <template v-if="$may('survey', display.place)">
        <BFormInput v-model.number="count" type="number" min="1" max="200" size="sm" aria-label="How many more" />
        <BButton type="submit" variant="outline-dark" size="sm">more like this</BButton>
      </template>
      <span class="ms-auto"><RecordButton :id="display.id" kind="display" :name="display.name" :timezone="display.timezone" /></span>
      <button v-if="$may('survey', display.place)" type="button" class="btn btn-link btn-sm" @click="remove">Take away…</button>
    </form>
    <ReleaseList :display="display" />
    <h3>Players</h3>
    <ul v-if="display.players.length">
      <li v-for="player in display.players" :key="player.id">
        <span
          >{{ player.name }}<template v-if="outputsOf(player).length > 1">, {{ outputsOf(player).length }} outputs</template><br /><span
            class="small"
            :class="player.standing.state === 'silent' ? 'said-error' : 'soft'"
            >called {{ ago(player.called_at, at) }}</span
          ></span
        >
        <span v-if="$may('survey', display.place)">
          <a v-if="outputsOf(player).length < 2" :href="`/api/players/${player.id}/open`" target="_blank" rel="noopener">open</a>
          <template v-else
            >open
            <a
              v-for="o in outputsOf(player)"
              :key="o"
              class="output"
              :href="`/api/players/${player.id}/open?output=${o}`"
              target="_blank"
              rel="noopener"
              >{{ o }}</a
            ></template
          >
          <button type="button" class="btn btn-link btn-sm" @click="revoke(player)">take back</button>
        </span>
      </li>
    </ul>
    <p v-else class="soft small">None yet. Open <b>/player</b> on the device; it shows a code of six letters and figures.</p>
    <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
    <p v-if="said" class="small" role="status">{{ said }}</p>
    <BindForm :display="display" />
  </aside>
</template>

<style scoped>
.sheet {
  background: var(--sheet);
  border-left: 1px solid var(--ink);
  padding: 12px 16px;
  overflow: auto;
  min-height: 0;
}
.hung {
  display: grid;
  grid-template-columns: 22px auto;
  grid-template-rows: 22px auto;
  justify-content: center;
  background: var(--ground);
  padding: 6px 22px 12px;
  margin-bottom: 10px;
}
.frame {
  grid-area: 2 / 2;
  width: 236px;
  align-self: start;
  border: 2px solid var(--ink);
}
.portrait .frame {
  width: 106px;
}
.mm {
  background: var(--sheet);
  font-size: 0.75rem;
  text-align: center;
  line-height: 16px;
  align-self: start;
  justify-self: center;
  padding: 0 6px;
  white-space: nowrap;
}
.across {
  grid-area: 1 / 2;
}
.down {
  grid-area: 2 / 1;
  writing-mode: vertical-rl;
  transform: rotate(180deg);
  align-self: center;
  padding: 6px 0;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  margin: 0 0 12px;
}
dt,
dd {
  border-bottom: 1px solid var(--rule);
  padding: 3px 0;
  margin: 0;
  font-size: 0.875rem;
}
dt {
  font-weight: 400;
  color: var(--soft);
  padding-right: 14px;
}
dd {
  text-align: right;
}
h3 {
  font-weight: 650;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0 8px;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
  font-size: 0.875rem;
}
.more {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-bottom: 10px;
}
.more input {
  width: 64px;
}
.output {
  margin-left: 5px;
}
</style>
