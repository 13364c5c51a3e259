<script setup lang="ts">
import { useQueries } from '@tanstack/vue-query'
import { computed, watchEffect } from 'vue'
import { useSettings } from '../Display/settings'
import { useEstate } from '../Estate/estate'
import DesignHead from '../Layout/DesignHead.vue'
import { useHouseStyle } from '../Layout/style'
import { useDesignWork } from '../Layout/work'
import { usePlayables } from '../Time/playables'
import { api } from '../ui/api'
import { count } from '../ui/format'
import MeasureField from '../ui/MeasureField.vue'
import { useShelf } from '../ui/shelf'
import TypedLine from '../ui/TypedLine.vue'
import { type Panel, type PanelKey, added, keysOf, moved, withGroup, withGroups, withKey, without } from './panels'
import { type LookTriggers, type Triggers, nameOf } from './triggers'
import { vKept } from '../ui/kept'

/** One operator's panel: what each key does, where, for how long; as it will be pressed beside it. */
const props = defineProps<{ id: string }>()
const work = useDesignWork<Panel>('panels', props.id)
const panel = work.document
const { displays } = useEstate(false)
const { displays: stating } = useSettings()
const playables = usePlayables(() => '')
const shelf = useShelf()
const change = (next: Panel, gesture?: string) => work.change(next, gesture && `panel ${gesture}`)
const keys = computed(() => (panel.value ? keysOf(panel.value) : []))

// --- what can be chosen --------------------------------------------------------------------------

const named = computed(() => [...new Set(keys.value.map((one) => one.display))])
const mapsOf = (display: string) => (stating.value.find((one) => one.id === display)?.resolved.triggers?.value as string[] | undefined) ?? []
const maps = useQueries({
  queries: computed(() =>
    [...new Set(named.value.flatMap(mapsOf))].map((map) => ({
      queryKey: ['triggers', map, 'document'],
      queryFn: async () => (await api.get<{ document: Triggers }>(`triggers/${map}`)).document,
    })),
  ),
})
const NOTHING = { format: 'upper-pane/triggers@1', id: 'none', name: 'None', rest: 'rest', states: [{ id: 'rest' }], signals: [], transitions: [] }
const looks = useQueries({
  queries: computed(() =>
    named.value
      .filter((display) => displays.value.some((one) => one.id === display))
      .map((display) => ({
        queryKey: ['zones', display],
        queryFn: async () => ({ display, zones: (await api.post<LookTriggers>('reactions/look', { document: NOTHING, display })).zones }),
      })),
  ),
})
const zonesOf = (display: string) => looks.value.map(({ data }) => data).find((one) => one?.display === display)?.zones ?? []
/** Those for operators first. */
const signalsOf = (display: string) =>
  maps.value
    .flatMap(({ data }) => (data && mapsOf(display).includes(data.id) ? data.signals : []))
    .sort((a, b) => Number(b.kind === 'operator') - Number(a.kind === 'operator'))
const style = useHouseStyle(() => named.value[0] ?? null, null)
const colours = computed(() => style.value?.colours ?? [])

// --- what a key does -----------------------------------------------------------------------------

const doesOf = ({ signal, plays }: PanelKey) => {
  const [kind, id] = Object.entries(plays ?? {})[0] ?? []
  return signal === undefined ? `${kind}:${String(id)}` : `signal:${signal}`
}
function setDoes(key: PanelKey, chosen: string) {
  const [kind, ...rest] = chosen.split(':')
  const id = rest.join(':')
  if (!kind || !id) return
  const does: Partial<PanelKey> =
    kind === 'signal'
      ? { signal: id, plays: undefined, zone: undefined, for_min: undefined }
      : { signal: undefined, fields: undefined, plays: { [kind]: id } as unknown as PanelKey['plays'] }
  change(withKey(panel.value!, key.id, does))
}
/** On another display it is another signal; what it plays may stand there as well. */
function setDisplay(key: PanelKey, display: string) {
  const first = playables.value.find(({ value }) => value)
  if (key.signal === undefined) change(withKey(panel.value!, key.id, { display, zone: undefined }))
  else if (first) {
    const [kind, id] = first.value.split(':') as [string, string]
    change(withKey(panel.value!, key.id, { display, signal: undefined, fields: undefined, plays: { [kind]: id } as unknown as PanelKey['plays'] }))
  }
}
/** Once it is known for which displays, and what could be put there. */
const canAdd = computed(() => displays.value.length > 0 && playables.value.some(({ value }) => value))
function add(group: number) {
  const before = panel.value!.groups[group]!.keys.at(-1)
  const display = before?.display ?? keys.value[0]?.display ?? displays.value[0]?.id
  const first = playables.value.find(({ value }) => value)
  if (!display || !first) return
  const [kind, id] = first.value.split(':') as [string, string]
  const next = added(panel.value!, group, display, { plays: { [kind]: id } as unknown as PanelKey['plays'] }, first.text)
  change(before?.zone ? withKey(next, next.groups[group]!.keys.at(-1)!.id, { zone: before.zone, colour: before.colour }) : next)
}
const setPress = (key: PanelKey, event: Event) => {
  const text = (event.target as HTMLInputElement).value.trim()
  change(withKey(panel.value!, key.id, { press: text === '' ? undefined : /^f\d+$/i.test(text) ? text.toUpperCase() : text }))
}
const hex = (key: PanelKey) =>
  key.colour?.startsWith('@') ? (colours.value.find(({ name }) => `@${name}` === key.colour)?.hex ?? 'transparent') : (key.colour ?? 'transparent')
const isGone = (key: PanelKey) => !displays.value.some((one) => one.id === key.display)

watchEffect(() => {
  shelf.findings = []
  shelf.remark = 'What a key puts on a display is booked there before all else, and handed over with nothing else that was saved since.'
})
</script>

<template>
  <main class="station">
    <DesignHead :id="id" :work="work" noun="panel">
      <template v-if="panel">{{ count(keys.length, 'key') }} for {{ count(named.length, 'display') }} · pressed at /panel/{{ id }}</template>
      <template #actions>
        <a class="btn btn-outline-dark" :href="`/panel/${id}`" target="_blank">Open the panel</a>
      </template>
    </DesignHead>
    <section v-if="panel" class="body p-3" aria-label="Keys">
      <datalist v-for="display in named" :id="`zones-${display}`" :key="display">
        <option v-for="zone in zonesOf(display)" :key="zone" :value="zone" />
      </datalist>
      <div v-for="(group, g) in panel.groups" :key="g" class="group">
        <div class="group-head">
          <input
            v-kept="group.name"
            class="form-control form-control-sm"
            placeholder="Name of this group"
            :aria-label="`Name of group ${g + 1}`"
            maxlength="80"
            @change="change(withGroup(panel!, g, { name: ($event.target as HTMLInputElement).value }))"
          />
          <button v-if="canAdd" type="button" class="btn btn-link btn-sm p-0" @click="add(g)">add a key</button>
          <button
            v-if="panel.groups.length > 1 && group.keys.length === 0"
            type="button"
            class="btn btn-link btn-sm p-0"
            @click="
              change(
                withGroups(
                  panel!,
                  panel!.groups.filter((_, n) => n !== g),
                ),
              )
            "
          >
            remove the group
          </button>
        </div>
        <table v-if="group.keys.length" class="table m-0">
          <thead>
            <tr>
              <th scope="col">Key</th>
              <th scope="col">Display</th>
              <th scope="col">What it does</th>
              <th scope="col">Zone</th>
              <th scope="col">For</th>
              <th scope="col">Pressed by</th>
              <th scope="col">Colour</th>
              <th scope="col"></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="key in group.keys" :key="key.id">
              <th scope="row">
                <TypedLine :value="key.name" :label="`Name of ${key.name}`" @change="change(withKey(panel!, key.id, { name: $event }))" />
              </th>
              <td>
                <select
                  class="form-select form-select-sm"
                  :class="{ gone: isGone(key) }"
                  :aria-label="`Display of ${key.name}`"
                  :value="key.display"
                  @change="setDisplay(key, ($event.target as HTMLSelectElement).value)"
                >
                  <option v-if="isGone(key)" :value="key.display">{{ key.display }}: there is none any more</option>
                  <option v-for="one in displays" :key="one.id" :value="one.id">{{ one.name }}</option>
                </select>
              </td>
              <td>
                <select
                  class="form-select form-select-sm"
                  :aria-label="`What ${key.name} does`"
                  :value="doesOf(key)"
                  @change="setDoes(key, ($event.target as HTMLSelectElement).value)"
                >
                  <optgroup label="asks for a signal">
                    <option v-if="key.signal !== undefined && !signalsOf(key.display).some((one) => one.id === key.signal)" :value="doesOf(key)">
                      {{ key.signal }}: no triggers there know it
                    </option>
                    <option v-for="one in signalsOf(key.display)" :key="one.id" :value="`signal:${one.id}`">{{ nameOf(one) }}</option>
                  </optgroup>
                  <optgroup label="puts there">
                    <option v-for="one in playables.filter(({ value }) => value)" :key="one.value" :value="one.value">{{ one.text }}</option>
                  </optgroup>
                </select>
              </td>
              <td>
                <input
                  v-if="key.plays"
                  v-kept="key.zone ?? ''"
                  class="form-control form-control-sm zone"
                  :list="`zones-${key.display}`"
                  placeholder="all of it"
                  :aria-label="`Zone of ${key.name}`"
                  @change="change(withKey(panel!, key.id, { zone: ($event.target as HTMLInputElement).value.trim() || undefined }))"
                />
                <span v-else class="soft">·</span>
              </td>
              <td>
                <template v-if="key.plays"
                  ><MeasureField
                    :value="key.for_min ?? 0"
                    :label="`${key.name} stands for`"
                    unit="min"
                    :most="525600"
                    :decimals="0"
                    :step="5"
                    @change="change(withKey(panel!, key.id, { for_min: $event || undefined }), `for ${key.id}`)"
                  /><span v-if="!key.for_min" class="small soft d-block">until ended</span></template
                >
                <span v-else class="soft">·</span>
              </td>
              <td>
                <input
                  v-kept="key.press ?? ''"
                  class="form-control form-control-sm pressed figures"
                  maxlength="3"
                  :aria-label="`Keyboard key of ${key.name}`"
                  @change="setPress(key, $event)"
                />
              </td>
              <td class="colour">
                <span class="swatch" :style="{ background: hex(key) }" aria-hidden="true"></span>
                <select
                  class="form-select form-select-sm"
                  :aria-label="`Colour of ${key.name}`"
                  :value="key.colour ?? ''"
                  @change="change(withKey(panel!, key.id, { colour: ($event.target as HTMLSelectElement).value || undefined }))"
                >
                  <option value="">as paper</option>
                  <option v-if="key.colour && !colours.some(({ name }) => `@${name}` === key.colour)" :value="key.colour">{{ key.colour }}</option>
                  <option v-for="one in colours" :key="one.name" :value="`@${one.name}`">{{ one.name }}</option>
                </select>
              </td>
              <td class="text-end acts">
                <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`${key.name} up`" @click="change(moved(panel!, key.id, -1))">
                  up
                </button>
                <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`${key.name} down`" @click="change(moved(panel!, key.id, 1))">
                  down
                </button>
                <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Remove ${key.name}`" @click="change(without(panel!, key.id))">
                  remove
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft small m-0">No key in this group yet.</p>
      </div>
      <button type="button" class="btn btn-outline-dark btn-sm mt-3" @click="change(withGroups(panel!, [...panel!.groups, { name: '', keys: [] }]))">
        Add a group
      </button>
    </section>
    <p v-else class="empty">Opening the panel.</p>
  </main>
</template>

<style scoped>
.group + .group {
  margin-top: 18px;
}
.group-head {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-bottom: 4px;
}
.group-head input {
  width: 300px;
  font-weight: 650;
}
table {
  table-layout: fixed;
}
th:nth-child(2) {
  width: 15%;
}
th:nth-child(3) {
  width: 22%;
}
th:nth-child(4) {
  width: 11%;
}
th:nth-child(5) {
  width: 10%;
}
th:nth-child(6) {
  width: 8%;
}
th:nth-child(7) {
  width: 13%;
}
th:nth-child(8) {
  width: 13%;
}
th[scope='row'] {
  padding-left: 0;
  min-width: 150px;
}
td {
  vertical-align: middle;
}
.pressed {
  width: 56px;
}
.colour {
  white-space: nowrap;
}
.colour select {
  display: inline-block;
  width: calc(100% - 26px);
}
.swatch {
  display: inline-block;
  width: 16px;
  height: 16px;
  border: 1px solid var(--soft);
  vertical-align: -3px;
  margin-right: 6px;
}
.gone {
  color: var(--stop);
}
</style>
