<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { DAYS, DAY_NAMES, type Item, type Level, SIDES, type Validity, useDesigns } from '../Layout/designs'
import { api, sentence } from '../ui/api'
import ChoiceField from '../ui/ChoiceField.vue'
import { vKept } from '../ui/kept'
import RowsFields from '../Data/RowsFields.vue'
import WhenFields from '../Data/WhenFields.vue'
import { seconds } from '../ui/format'
import LocalField from '../ui/LocalField.vue'
import { mediaOf } from '../Layout/named'

type How = 'stated' | 'own' | 'leader' | 'endless'

/** How often, when, how loud and how an item comes: what most items never need. */
const props = defineProps<{ item: Item; name: string; first: boolean; mayLast: How[]; own?: string }>()
const emit = defineEmits<{ change: [change: Partial<Item>]; last: [how: How] }>()

const queries = useQueryClient()
const { all } = useDesigns('playlists')
const others = computed(() => all.value.filter((p) => p.id !== props.own))
const copied = ref('')
async function copyInto(id: string) {
  const list = others.value.find((p) => p.id === id)
  if (!list) return
  try {
    await api.post(`playlists/${id}/items`, { item: { ...props.item, id: undefined, tied: undefined } })
    copied.value = `Copied to the end of "${list.name}".`
    await queries.invalidateQueries({ queryKey: ['playlists'] })
  } catch (e) {
    copied.value = sentence(e)
  }
}
const kind = computed(() => props.item.transition?.kind ?? 'cut')
const moves = computed(() => kind.value === 'push' || kind.value === 'wipe')
const isFilm = computed(() => props.item.media !== undefined && mediaOf(props.item.media).length_ms !== undefined)
/** In words, for what it may last by the core. */
const WORDS = computed<Record<How, string>>(() => ({
  stated: 'so many seconds',
  own: props.item.layout ? 'until its loops meet' : 'its own length',
  leader: props.item.layout ? 'until its leader has gone round' : 'as long as its leader',
  endless: 'without end',
}))
const LASTS = computed(() => props.mayLast.map((how) => ({ value: how, text: WORDS.value[how] })))
const lasts = computed(() => (props.item.duration_ms !== undefined ? 'stated' : (props.item.lasts ?? (isFilm.value ? 'own' : 'stated'))))

/** Whole figures only; anything else leaves what was there. */
function figure(event: Event, least: number, most: number, take: (value: number) => void, old: number) {
  const field = event.target as HTMLInputElement
  const value = Math.round(Number(field.value.replace(',', '.')))
  if (field.value.trim() === '' || !Number.isFinite(value) || value < least || value > most) field.value = String(old)
  else take(value)
}

function valid(change: Partial<Validity>) {
  const next = Object.fromEntries(
    Object.entries({ ...props.item.valid, ...change }).filter(
      ([, value]) => value !== undefined && value !== '' && !(Array.isArray(value) && value.length === 0),
    ),
  )
  emit('change', { valid: Object.keys(next).length ? next : undefined })
}
function day(one: (typeof DAYS)[number], on: boolean) {
  const days = DAYS.filter((d) => (d === one ? on : (props.item.valid?.days ?? []).includes(d)))
  valid({ days: days.length === 7 ? [] : days })
}
const hoursText = computed(() => (props.item.valid?.hours ?? []).map(([from, to]) => `${from}-${to}`).join(', '))
const levelsText = computed(() => (props.item.levels ?? []).map((l) => `${l.hours.join('-')} ${l.volume}`).join(', '))
function levels(event: Event) {
  const field = event.target as HTMLInputElement
  const parts = field.value.split(',').map((part) => /^\s*(\d{1,2}:\d\d)\s*[-–]\s*(\d{1,2}:\d\d)\s+(\d{1,3})\s*%?\s*$/.exec(part))
  if (field.value.trim() !== '' && parts.some((p) => p === null || Number(p[3]) > 100)) {
    field.setCustomValidity('Hours and a volume from 0 to 100, such as 22:00-06:00 10; several with commas between them.')
    field.reportValidity()
    return
  }
  field.setCustomValidity('')
  const those =
    field.value.trim() === '' ? [] : parts.map((p): Level => ({ hours: [p![1]!.padStart(5, '0'), p![2]!.padStart(5, '0')], volume: Number(p![3]) }))
  emit('change', { levels: those.length ? those : undefined })
}
function hours(event: Event) {
  const field = event.target as HTMLInputElement
  const windows = field.value.split(',').map((part) => /^\s*(\d{1,2}:\d\d)\s*[-–]\s*(\d{1,2}:\d\d)\s*$/.exec(part))
  if (field.value.trim() !== '' && windows.some((w) => w === null)) {
    field.setCustomValidity('Times such as 17:00-19:00, several with commas between them.')
    field.reportValidity()
    return
  }
  field.setCustomValidity('')
  valid({ hours: field.value.trim() === '' ? [] : windows.map((w) => [w![1]!.padStart(5, '0'), w![2]!.padStart(5, '0')]) })
}
</script>

<template>
  <div class="times">
    <ChoiceField label="Lasts" :value="lasts" :options="LASTS" @change="emit('last', $event as How)" />
    <label v-if="kind !== 'cut'"
      >{{ kind }} in ms<input
        v-kept="item.transition?.ms ?? 500"
        class="form-control form-control-sm figures"
        inputmode="numeric"
        @change="figure($event, 0, 60_000, (ms) => emit('change', { transition: { ...item.transition!, ms } }), item.transition?.ms ?? 500)"
    /></label>
    <ChoiceField
      v-if="moves"
      label="Comes from"
      :value="item.transition?.from ?? (kind === 'push' ? 'right' : 'left')"
      :options="SIDES"
      @change="emit('change', { transition: { ...item.transition!, from: $event as (typeof SIDES)[number] } })"
    />
    <label title="Spread evenly over the round"
      >Times a round<input
        v-kept="item.weight ?? 1"
        class="form-control form-control-sm figures"
        inputmode="numeric"
        :aria-label="`How many times ${name} comes in a round`"
        @change="figure($event, 1, 1000, (n) => emit('change', { weight: n === 1 ? undefined : n }), item.weight ?? 1)"
    /></label>
    <label v-if="isFilm" title="Of all that is due at an instant, one is heard"
      >Volume in %<input
        v-kept="item.volume ?? 0"
        class="form-control form-control-sm figures"
        inputmode="numeric"
        :aria-label="`Volume of ${name} in percent`"
        @change="figure($event, 0, 100, (n) => emit('change', { volume: n === 0 ? undefined : n }), item.volume ?? 0)"
    /></label>
    <label v-if="isFilm" title="On the clock on the wall of the display; the first that fits holds"
      >and in % at hours<input
        v-kept="levelsText"
        class="form-control form-control-sm figures levels"
        placeholder="22:00-06:00 10"
        :aria-label="`Volume of ${name} at hours`"
        @change="levels"
    /></label>
    <label v-if="!first" class="tick"
      ><input
        type="checkbox"
        class="form-check-input"
        :checked="item.tied === true"
        @change="emit('change', { tied: ($event.target as HTMLInputElement).checked || undefined })"
      />
      always right behind the one above</label
    >
    <ChoiceField
      v-if="others.length"
      label="Copy into"
      value=""
      :options="[{ value: '', text: 'another playlist…' }, ...others.map((p) => ({ value: p.id, text: p.name }))]"
      @change="copyInto"
    />
    <p v-if="copied" class="small m-0" role="status">{{ copied }}</p>
    <fieldset>
      <legend>Plays only</legend>
      <LocalField label="from" :value="item.valid?.from" :name="`${name} plays from`" @change="valid({ from: $event })" />
      <LocalField label="until" :value="item.valid?.until" :name="`${name} plays until`" @change="valid({ until: $event })" />
      <div class="days" role="group" :aria-label="`Days of ${name}`">
        <label v-for="one in DAYS" :key="one" class="tick"
          ><input
            type="checkbox"
            class="form-check-input"
            :checked="!item.valid?.days?.length || item.valid.days.includes(one)"
            @change="
              item.valid?.days?.length ? day(one, ($event.target as HTMLInputElement).checked) : valid({ days: DAYS.filter((d) => d !== one) })
            "
          />
          {{ DAY_NAMES[one] }}</label
        >
      </div>
      <label class="wide"
        >between<input
          v-kept="hoursText"
          class="form-control form-control-sm figures"
          placeholder="all day; 17:00-19:00, 21:00-02:00"
          :aria-label="`Hours of ${name}`"
          @change="hours"
      /></label>
      <WhenFields class="wide" :when="item.when" what="And" @change="(when) => emit('change', { when })" />
    </fieldset>
    <fieldset v-if="item.layout">
      <legend>Row by row</legend>
      <RowsFields
        class="wide"
        linked
        :rows="item.each"
        label="Once for each row of"
        none="no data: once"
        @change="(each) => emit('change', { each })"
      />
      <p v-if="item.each" class="small soft m-0 wide">
        Messages of the layout that tell “the row that its item plays” are told over one row after the other,
        {{ item.duration_ms ? `${seconds(item.duration_ms)} each` : 'each as long as it takes' }}.
      </p>
    </fieldset>
  </div>
</template>

<style scoped>
.times {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  padding: 6px 0 4px;
  align-items: end;
}
label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.times > label input.figures {
  width: 72px;
}
.times > label input.levels {
  width: 190px;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  min-height: 26px;
}
.tick input {
  margin: 0;
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  border-top: 1px solid var(--rule);
  padding-top: 4px;
  width: 100%;
}
legend {
  font-size: 0.8125rem;
  float: none;
  width: 100%;
  margin: 0;
  font-weight: 650;
}
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 9px;
}
.wide {
  width: 100%;
}
</style>
