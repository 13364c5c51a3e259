<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { refDebounced, useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, provide, ref, useTemplateRef, watch, watchEffect } from 'vue'
import { useSettings } from '../Display/settings'
import { useEstate } from '../Estate/estate'
import DesignHead from '../Layout/DesignHead.vue'
import { styleKey, useHouseStyle } from '../Layout/style'
import { useDesignWork } from '../Layout/work'
import { api, sentence } from '../ui/api'
import { count, moment } from '../ui/format'
import LevelMark from '../ui/LevelMark.vue'
import { may } from '../ui/rights'
import { useShelf } from '../ui/shelf'
import ForWhom from './ForWhom.vue'
import LookedAt from './LookedAt.vue'
import OverlayFields from './OverlayFields.vue'
import { type Change, type LookAbove, type Overlay, gridOf, movedTo, nameOfKind, saidOf, useAbove, zoneWords } from './overlays'
import WhenField from './WhenField.vue'

/** One overlay: what, where on the screen, when and for whom, beside how it looks on the displays that differ most, above what will really play there. */
const props = defineProps<{ id: string }>()
const work = useDesignWork<Overlay>('overlays', props.id)
const { places, displays: stating } = useSettings()
const { displays } = useEstate(false)
const queries = useQueryClient()
const shelf = useShelf()
const above = useAbove()
const state = computed(() => above.value.get(props.id) ?? null)
const document = work.document
function change(part: Partial<Overlay>, gesture?: string) {
  const before = document.value
  // What is pressed where it is so already is no step to take back.
  const isOther = (field: keyof Overlay) => JSON.stringify(part[field]) !== JSON.stringify(before?.[field])
  if (before && (Object.keys(part) as (keyof Overlay)[]).some(isOther))
    work.change({ ...before, ...part } as Overlay, gesture && `overlay ${gesture}`)
}

// --- on which displays ---------------------------------------------------------------------------

const says = (one: { settings: { overlays?: Change } }) => saidOf(one.settings.overlays, props.id) === 'add'
const isNowhere = computed(() => !places.value.some(says) && !stating.value.some(says))

// --- how it looks --------------------------------------------------------------------------------

const rested = refDebounced(
  computed(() => JSON.stringify([document.value, state.value?.displays ?? 0])),
  350,
)
const look = ref<LookAbove | null>(null)
const wrong = ref('')
const cures = ref<{ says: string; fields: Partial<Overlay>; covers: number }[]>([])
let asking: AbortController | null = null
watch(
  rested,
  async () => {
    if (!document.value || places.value.length === 0) return
    asking?.abort()
    const { signal } = (asking = new AbortController())
    const body = { document: document.value }
    try {
      const answer = await api.post<LookAbove>('above/look', body, signal)
      if (signal.aborted) return
      ;[look.value, wrong.value, cures.value] = [answer, '', []]
      if (answer.looks.some((one) => one.findings.some((f) => f.code === 'overlay.covers' || f.code === 'overlay.crowded'))) {
        const found = await api.post<{ cures: typeof cures.value }>('above/cures', body, signal)
        if (!signal.aborted) cures.value = found.cures
      }
    } catch (e) {
      if (!signal.aborted) wrong.value = sentence(e)
    }
  },
  { immediate: true },
)
onBeforeUnmount(() => asking?.abort())
const measuredOn = ref('')
const measured = computed(
  () => look.value?.looks.find((one) => one.display.id === measuredOn.value)?.display ?? look.value?.looks[0]?.display ?? null,
)
provide(
  styleKey,
  useHouseStyle(
    computed(() => measured.value?.id ?? null),
    () => measured.value?.raster ?? null,
  ),
)
const room = useTemplateRef('room')
const { width } = useElementSize(room)
/** In the words of whoever reads it: names, and times of the display. */
const told = (message: string, timezone: string) =>
  message.replaceAll(`"${props.id}"`, `“${document.value?.name ?? ''}”`).replace(/\d{4}-\d\d-\d\dT[\d:.]+Z/g, (at) => moment(at, timezone))
/** What is found, once however often, with where. */
const findings = computed(() => {
  const found = new Map<string, { finding: LookAbove['looks'][number]['findings'][number]; on: string[] }>()
  for (const one of look.value?.looks ?? [])
    for (const finding of one.findings) {
      const message = told(finding.message, one.display.timezone)
      const key = `${finding.code} ${message}`
      found.set(key, { finding: { ...finding, message }, on: [...(found.get(key)?.on ?? []), one.display.name] })
    }
  return [...found.values()]
})
watchEffect(() => {
  shelf.findings = findings.value.map(({ finding, on }) => ({ ...finding, fix: undefined, message: `${on.join(', ')}: ${finding.message}` }))
  shelf.remark = document.value
    ? `${nameOfKind(document.value.kind)}, ${state.value ? `on ${count(state.value.displays, 'display')}` : 'nowhere yet'}`
    : ''
})
onBeforeUnmount(() => shelf.clear())

/** Where it may be dragged to on a picture, and what that makes of it. */
const grid = computed(() => (document.value ? gridOf(document.value) : undefined))
const put = (place: string) => change(movedTo(document.value!, place))

// --- putting it up -------------------------------------------------------------------------------

const trouble = ref('')
const done = ref('')
const older = computed(() => displays.value.filter((d) => d.saved_not_handed_over && d.release))
async function putUp() {
  trouble.value = done.value = ''
  await work.save()
  if (work.state.value !== 'saved') return
  try {
    const { handing } = await api.post<{ handing: { of: number } }>('above', { overlay: props.id, name: document.value!.name })
    done.value = `Being put up on ${count(handing.of, 'display')}; what plays there stays as it was handed over.`
    for (const key of ['estate', 'above', 'overlays']) await queries.invalidateQueries({ queryKey: [key] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <main class="station">
    <DesignHead :id="id" :work="work" noun="overlay">
      <template v-if="document"
        >{{ nameOfKind(document.kind) }}<template v-if="state"> · holds on {{ count(state.displays, 'display') }}</template
        ><template v-if="state?.now"> · shown on {{ state.now }} now{{ state.until ? `, until ${moment(state.until)}` : '' }}</template
        ><template v-else-if="state?.next"> · next {{ moment(state.next) }}</template
        ><template v-else-if="state?.is_over"> · over</template></template
      >
    </DesignHead>
    <div v-if="document" class="overlay">
      <aside aria-label="What, where, when, for whom">
        <OverlayFields :overlay="document" :on="measured" @change="change" />
        <WhenField
          :value="document.when"
          :may-follow="document.kind === 'window' || document.kind === 'takeover'"
          :zones="look ? zoneWords(look.zones) : ''"
          :zone="look?.zones[0]?.timezone"
          @change="change({ when: $event })"
        />
        <ForWhom :id="id" />
      </aside>
      <section ref="room" aria-label="How it looks">
        <div class="looked-head">
          <h2>
            {{ isNowhere ? 'It lies nowhere yet; here it would look so' : 'On the displays that differ most, above what will play' }}
          </h2>
          <BButton v-if="may('hand-over') && !isNowhere" variant="primary" @click="putUp">Put up</BButton>
        </div>
        <p v-if="done" class="note" role="status">{{ done }}</p>
        <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
        <p v-if="wrong" class="said-error" role="alert">{{ wrong }}</p>
        <LookedAt v-if="look?.looks.length" :look="look" :width-px="width - 8" :places="grid" @display="measuredOn = $event" @place="put" />
        <p v-else-if="look" class="soft">To none of these displays anything was handed over yet; there is nothing above which it could be seen.</p>
        <p v-else-if="!wrong" class="soft">Looking at it.</p>
        <ul v-if="findings.length" class="found" aria-label="What is found">
          <li v-for="{ finding, on } in findings" :key="finding.code + finding.message">
            <LevelMark :level="finding.level" />
            <span
              ><b v-if="look!.looks.length > 1">{{ on.join(', ') }}: </b>{{ finding.message }}</span
            >
          </li>
        </ul>
        <div v-if="cures.length" class="cures">
          <span class="soft">Where it covers less:</span>
          <button v-for="cure in cures" :key="cure.says" type="button" class="btn btn-sm btn-outline-dark" @click="change(cure.fields)">
            {{ cure.says }}{{ cure.covers === 0 ? '' : `, still ${cure.covers}` }}
          </button>
        </div>
        <p v-if="look && findings.length === 0 && look.looks.length" class="soft">Nothing is covered in the next day, and its words can be read.</p>
        <p v-if="older.length" class="small soft">
          {{ count(older.length, 'display') }} {{ older.length === 1 ? 'shows' : 'show' }} an older version of something; putting up changes the
          overlays alone.
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.overlay {
  display: grid;
  grid-template-columns: 380px 1fr;
  flex: 1;
  min-height: 0;
}
aside {
  display: grid;
  align-content: start;
  gap: 18px;
  padding: 14px 16px 40px;
  background: var(--sheet);
  border-right: 1px solid var(--ink);
  overflow-y: auto;
}
section[aria-label='How it looks'] {
  padding: 14px 18px 40px;
  overflow-y: auto;
}
.looked-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  margin-bottom: 12px;
}
h2 {
  font-size: 0.9375rem;
  margin: 0;
}
.found {
  list-style: none;
  padding: 0;
  margin: 18px 0 0;
}
.found li {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: 8px;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
.cures {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-top: 10px;
}
@media (max-width: 900px) {
  .overlay {
    grid-template-columns: 1fr;
    overflow-y: auto;
  }
  aside,
  section[aria-label='How it looks'] {
    overflow: visible;
  }
}
</style>
