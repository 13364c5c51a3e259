<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useEstate } from '../Estate/estate'
import { useDesigns } from '../Layout/designs'
import DesignHead from '../Layout/DesignHead.vue'
import { useDesignWork } from '../Layout/work'
import { offerActions } from '../ui/actions'
import { api, sentence } from '../ui/api'
import { useAsked } from '../ui/asked'
import ChoiceBar from '../ui/ChoiceBar.vue'
import { moment } from '../ui/format'
import { mayAct } from '../ui/keys'
import { inTurn } from '../ui/inTurn'
import { useSecond } from '../ui/second'
import { may } from '../ui/rights'
import { type Finding, type Rect, useShelf } from '../ui/shelf'
import { type SurveyAct, moved, surveyed } from './edit'
import LeadsOn from './LeadsOn.vue'
import PanelTable from './PanelTable.vue'
import PlayerLedger from './PlayerLedger.vue'
import ReadingPlan from './ReadingPlan.vue'
import ReadingStrip from './ReadingStrip.vue'
import { type DisplayDocument, type WholeDisplay, plain, useDisplay, useSaid } from './survey'
import SurveyLedger from './SurveyLedger.vue'
import WallDrawing from './WallDrawing.vue'

/** One display: its survey typed at the left, the wall to scale at the right, and from where it can be read. */
const props = defineProps<{ id: string }>()
const work = useDesignWork<DisplayDocument>('displays', props.id)
const queries = useQueryClient()
const router = useRouter()
const route = useRoute()
const { displays } = useEstate()
const display = computed(() => displays.value.find((d) => d.id === props.id) ?? null)
const { data: saved } = useDisplay(props.id)
const layouts = useDesigns('layouts')
const at = useSecond()
const shelf = useShelf()

const cap = ref<number | null>(null)
const layout = ref('')
watch(
  [display, () => layouts.all.value],
  () => {
    if (layout.value || !display.value) return
    const shown = display.value.release?.source
    layout.value = shown?.kind === 'layout' ? shown.id : (layouts.all.value.find((l) => l.display === props.id)?.id ?? '')
  },
  { immediate: true },
)
const { said, trouble } = useSaid(work.document, () => display.value?.place ?? null, cap, layout)
const view = useAsked('view')
const chosen = shallowRef<ReadonlySet<string>>(new Set())
/** How many panels of each player were pressed in turn; null while nobody numbers. */
const numbering = shallowRef<Map<string | null, number> | null>(null)
const pointed = shallowRef<Rect | null>(null)

/** Whoever does not survey looks at it. */
const mine = computed(() => may('survey', display.value?.place))
const change = (next: DisplayDocument, gesture?: string) => {
  if (!mine.value) return
  work.change(next, gesture)
  const ids = new Set(next.panels.map((p) => p.id))
  if ([...chosen.value].some((id) => !ids.has(id))) chosen.value = new Set([...chosen.value].filter((id) => ids.has(id)))
}
const ask = inTurn(
  () => [work.document.value!] as const,
  ([document], act: SurveyAct) => surveyed(document, act),
  ({ document }, [from], gesture) => JSON.stringify(document) !== JSON.stringify(from) && change(document, gesture),
)
const actTrouble = ref('')
const act = (what: SurveyAct, gesture?: string) => {
  actTrouble.value = ''
  ask(what, gesture).catch((e: unknown) => (actTrouble.value = sentence(e)))
}
watch(work.document, () => (pointed.value = null))

function choose(id: string | null, more: boolean) {
  if (numbering.value !== null && id && said.value && work.document.value) {
    const player = said.value.wall.panels.find((p) => p.id === id)?.player ?? null
    const next = new Map(numbering.value).set(player, (numbering.value.get(player) ?? 0) + 1)
    act({ do: 'feed', panel: id, player, output: next.get(player)! }, 'number')
    const pressed = [...next.values()].reduce((sum, n) => sum + n, 0)
    numbering.value = pressed >= said.value.wall.panels.length ? null : next
    return
  }
  if (id === null) chosen.value = new Set()
  else if (more) {
    const next = new Set(chosen.value)
    if (!next.delete(id)) next.add(id)
    chosen.value = next
  } else chosen.value = new Set(chosen.value.size === 1 && chosen.value.has(id) ? [] : [id])
}
const free = computed(() => work.document.value?.panels[0]?.origin_mm !== undefined)

// --- findings ----------------------------------------------------------------------------

watchEffect(() => {
  shelf.findings = said.value?.findings ?? []
  shelf.remark = trouble.value || (said.value ? 'Nothing in the survey contradicts itself.' : '')
})
shelf.chosen = (finding: Finding) => {
  pointed.value = finding.rect ?? null
  chosen.value = new Set(finding.elements)
}
shelf.fixed = ({ fix }: Finding) => fix && act({ do: 'cure', fix })
onBeforeUnmount(() => shelf.clear())

// --- alignment ---------------------------------------------------------------------------

const aligned = computed(() =>
  saved.value?.alignment_until && Date.parse(saved.value.alignment_until) > at.value ? saved.value.alignment_until : null,
)
const alignTrouble = ref('')
async function align() {
  alignTrouble.value = ''
  try {
    const whole = await api.post<WholeDisplay>(`displays/${props.id}/alignment`, { minutes: aligned.value ? 0 : 15 })
    queries.setQueryData(['display', props.id], whole)
  } catch (e) {
    alignTrouble.value = sentence(e)
  }
}

/** The sheet is drawn from what is saved: the last change is saved first, and where that fails one stays with the reason. */
async function toWiring(event?: MouseEvent) {
  if (event?.ctrlKey || event?.metaKey || event?.shiftKey) return
  event?.preventDefault()
  await work.save()
  if (work.state.value === 'saved') await router.push(`/displays/${props.id}/wiring`)
}

// --- keys --------------------------------------------------------------------------------

useEventListener('keydown', (e: KeyboardEvent) => {
  if (!work.document.value || !mayAct(e) || e.ctrlKey || e.metaKey) return
  const by = e.shiftKey ? 10 : 1
  const arrows: Record<string, [number, number]> = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }
  if (e.key === 'Escape') {
    numbering.value = null
    chosen.value = new Set()
  } else if (arrows[e.key] && free.value && chosen.value.size) {
    e.preventDefault()
    change(moved(work.document.value, chosen.value, ...arrows[e.key]!), 'nudge')
  }
})
offerActions(() => [
  {
    kind: 'action',
    name: 'Wiring sheet',
    more: 'of this display',
    act: () => void work.save().then(() => location.assign(`/displays/${props.id}/wiring`)),
  },
  { kind: 'action', name: aligned.value ? 'End the alignment picture' : 'Show the alignment picture', act: () => void align() },
  ...(chosen.value.size === 2 && said.value
    ? [
        {
          kind: 'action',
          name: 'These two are swapped',
          more: [...chosen.value].join(', '),
          act: () => act({ do: 'swap', panels: [...chosen.value] }),
        },
      ]
    : []),
])
const words = computed(() => {
  const d = display.value
  const w = said.value?.wall
  const n = w?.panels.length ?? 0
  const kind =
    n < 2 ? 'one panel' : w!.free ? `${n} panels, cut from mm` : `${n} panels, seams ${work.document.value?.bezels === 'butt' ? 'butted' : 'hidden'}`
  const canvas = w ? [`canvas ${w.canvas.width} × ${w.canvas.height} px`, `${plain(w.density, 4)} px/mm`] : []
  return [d?.way.slice(1).join(' › '), kind, ...canvas].filter(Boolean).join(' · ')
})
</script>

<template>
  <main class="station">
    <DesignHead :id="id" :work="work" noun="display" :handover="`/handover?display=${id}`">
      {{ words }}
      <template #actions>
        <RouterLink class="btn btn-outline-dark" :to="`/displays/${id}/wiring`" @click.capture="toWiring">Wiring sheet</RouterLink>
      </template>
    </DesignHead>
    <div v-if="work.document.value" class="columns">
      <div class="leaf">
        <p v-if="trouble || actTrouble" class="said-error small px-3 pt-2 m-0" role="alert">{{ trouble || actTrouble }}</p>
        <LeadsOn v-if="display" :display="display" :is-new="'new' in route.query" />
        <p v-if="!mine" class="soft small px-3 pt-2 m-0">Installers survey displays; here you look at what they found.</p>
        <fieldset class="contents" :disabled="!mine">
          <SurveyLedger :document="work.document.value" :chosen="chosen" @change="change" @act="act" />
          <PanelTable
            v-if="said"
            :document="work.document.value"
            :said="said"
            :chosen="chosen"
            :display="id"
            :numbering="numbering !== null"
            @act="act"
            @choose="choose"
            @number="numbering = numbering === null ? new Map() : null"
          />
          <PlayerLedger :id="id" :document="work.document.value" :processor="said?.processor ?? null" @change="change" @act="act" />
        </fieldset>
      </div>
      <div v-if="said" class="right">
        <div class="bar">
          <ChoiceBar v-model="view" label="View" :words="{ '': 'front', behind: 'from behind', above: 'from above', side: 'from the side' }" />
          <span v-if="display" class="soft small shows">{{
            display.release ? `shows ${display.release.name}` : 'nothing is handed over to it yet'
          }}</span>
          <span v-if="alignTrouble" class="said-error small" role="alert">{{ alignTrouble }}</span>
          <BButton
            size="sm"
            variant="outline-dark"
            class="ms-auto"
            :aria-pressed="!!aligned"
            title="Each output shows which panel it is, for 15 minutes, instead of what is handed over"
            @click="align"
          >
            {{ aligned ? `Alignment until ${moment(aligned)}: end it` : 'Show alignment picture' }}
          </BButton>
        </div>
        <ReadingPlan
          v-if="view === 'above' || view === 'side'"
          :reading="said.reading"
          :side="view === 'side'"
          :sensors="work.document.value?.sensors ?? []"
        />
        <WallDrawing
          v-else
          :wall="said.wall"
          :display="display"
          :at="at"
          :behind="view === 'behind'"
          :chosen="chosen"
          :movable="free"
          :numbering="numbering !== null"
          :pointed="pointed"
          @choose="choose"
          @move="(dx, dy, g) => change(moved(work.document.value!, chosen, dx, dy), g)"
        />
        <ReadingStrip
          v-model:layout="layout"
          v-model:cap="cap"
          :reading="said.reading"
          :what="said.smallest && cap === null ? `“${said.smallest.text}”` : 'It'"
          :layouts="layouts.all.value"
        />
      </div>
    </div>
    <p v-else-if="work.state.value === 'refused'" class="empty">
      This display cannot be opened. <RouterLink to="/displays">See all displays</RouterLink>
    </p>
    <p v-else class="empty">Opening.</p>
  </main>
</template>

<style scoped>
.contents {
  display: contents;
}
.right {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 0;
}
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 10px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.shows {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
