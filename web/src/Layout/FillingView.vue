<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, provide, ref, useTemplateRef, watch, watchEffect } from 'vue'
import { useEstate } from '../Estate/estate'
import ShowFilled from '../Handover/ShowFilled.vue'
import PictureNow from '../pane/PictureNow.vue'
import { useAsked } from '../ui/asked'
import { may } from '../ui/rights'
import { useSecond } from '../ui/second'
import { type Finding, type Rect, useShelf } from '../ui/shelf'
import DesignHead from './DesignHead.vue'
import { type FilledDocument, type PlacedSlot, type Value, isMissing, useLook } from './filling'
import { languageName } from './languages'
import { SLOTS, fillOf, languagesOf } from './slots/slots'
import { styleKey, useHouseStyle } from './style'
import TakenOver from './TakenOver.vue'
import { useDesignWork } from './work'

/** A template that is being filled in: its slots beside the picture that the core draws of it, as it would stand on a display. */
const props = defineProps<{ id: string }>()
const work = useDesignWork<FilledDocument>('filled', props.id)
const { displays } = useEstate(false)
const shelf = useShelf()
const at = useSecond()
const asked = useAsked('on')
const language = ref('')
const seenOn = computed(() => asked.value || work.display.value || null)
const {
  answer: look,
  trouble,
  ask,
} = useLook(
  work.document,
  seenOn,
  computed(() => language.value || null),
)
provide(
  styleKey,
  useHouseStyle(seenOn, () => look.value?.run_sheet.canvas ?? null),
)
const display = computed(() => displays.value.find((d) => d.id === seenOn.value) ?? null)
/** Those that have to be filled in come first; else they stand as the template has them. */
const slots = computed<PlacedSlot[]>(() => {
  const all = look.value?.slots ?? []
  return [...all.filter((slot) => slot.required), ...all.filter((slot) => !slot.required)]
})
const missing = computed(() => slots.value.filter((slot) => isMissing(slot, valueOf(slot))))
const languages = computed(() => [...new Set(slots.value.flatMap(languagesOf))])
const valueOf = (slot: PlacedSlot): Value | undefined => work.document.value?.values[slot.id]
const put = (slot: PlacedSlot, value: Value | undefined, gesture?: string) => {
  const document = work.document.value
  if (!document) return
  const values = { ...document.values }
  if (value === undefined) delete values[slot.id]
  else values[slot.id] = value
  work.change({ ...document, values }, gesture && `fill ${gesture}`)
}
const findingsOf = (slot: PlacedSlot) => (look.value?.findings ?? []).filter((f) => f.measure?.slot === slot.id)
/** Words too many, by language. */
const tooMany = (slot: PlacedSlot): Record<string, number> =>
  Object.fromEntries(
    findingsOf(slot)
      .filter((f) => f.code === 'slot.long')
      .map((f) => [typeof f.measure?.language === 'string' ? f.measure.language : '', Number(f.measure?.words)]),
  )
/** What is told beside the field already, and what is missing while nobody has come to it, is not told below it too. */
const told = (slot: PlacedSlot) => findingsOf(slot).filter((f) => f.code !== 'slot.long' && f.code !== 'slot.missing')

// --- typing on the picture -------------------------------------------------------------------

const canvas = computed(() => look.value?.run_sheet.canvas ?? { width: 16, height: 9 })
const percent = (n: number, of: number) => `${(100 * n) / of}%`
const over = (rect: Rect) => ({
  left: percent(rect.x, canvas.value.width),
  top: percent(rect.y, canvas.value.height),
  width: percent(rect.width, canvas.value.width),
  height: percent(rect.height, canvas.value.height),
})
const openPlaces = computed(() => slots.value.flatMap((slot) => slot.places.map((rect, n) => ({ slot, rect, key: `${slot.id} ${n}` }))))
const typing = ref<{ slot: PlacedSlot; rect: Rect } | null>(null)
const inPlace = useTemplateRef<HTMLTextAreaElement>('inPlace')
const form = useTemplateRef('form')
/** Which language is typed on the picture: the one that is looked at, else the first. */
const typedLanguage = computed(() => {
  const slot = typing.value?.slot
  const tags = slot ? languagesOf(slot) : []
  return tags.includes(language.value) ? language.value : (tags[0] ?? '')
})
const typed = computed(() => {
  const value = typing.value ? valueOf(typing.value.slot) : undefined
  return typeof value === 'string' ? value : ((value as Record<string, string> | undefined)?.[typedLanguage.value] ?? '')
})
async function press(slot: PlacedSlot, rect: Rect) {
  if (SLOTS[slot.kind].isTypedOver) {
    typing.value = { slot, rect }
    await nextTick()
    inPlace.value?.focus()
    inPlace.value?.select()
    return
  }
  const field = form.value?.querySelector<HTMLElement>(`[data-slot="${CSS.escape(slot.id)}"]`)
  field?.scrollIntoView({ block: 'center' })
  ;(field?.matches('input, textarea') ? field : field?.querySelector<HTMLElement>('button'))?.focus()
}
function type(text: string) {
  const slot = typing.value?.slot
  if (!slot) return
  const tag = typedLanguage.value
  if (tag === '') return put(slot, text === '' ? undefined : text, `${slot.id} in place`)
  const value = valueOf(slot)
  const texts =
    typeof value === 'string' ? Object.fromEntries(languagesOf(slot).map((one) => [one, value])) : { ...(value as Record<string, string>) }
  if (text === '') delete texts[tag]
  else texts[tag] = text
  put(slot, Object.keys(texts).length ? texts : undefined, `${slot.id} ${tag} in place`)
}

/** Whether all of it is saved by now. */
async function saved() {
  await work.save()
  return work.state.value === 'saved'
}

/** What the display does with a template that was made for another one. */
const fits = computed(() => {
  const match = display.value && look.value?.match
  if (match?.verdict === 'crossed') return `${look.value!.template.name} is made for a display of the other orientation.`
  return match?.verdict === 'padded' ? `It fills ${(match.used * 100).toFixed(0)} % of it, the rest stays black.` : ''
})

// --- what is found --------------------------------------------------------------------------

watchEffect(() => {
  shelf.findings = look.value?.findings ?? []
  shelf.remark = trouble.value || fits.value || (look.value ? 'Nothing stands in the way.' : '')
})
shelf.chosen = (finding: Finding) => {
  const slot = slots.value.find((one) => one.id === finding.measure?.slot)
  const field = slot && form.value?.querySelector<HTMLElement>(`[data-slot="${CSS.escape(slot.id)}"]`)
  field?.scrollIntoView({ block: 'center' })
  ;(field?.matches('input, textarea') ? field : field?.querySelector<HTMLElement>('button'))?.focus()
}
onBeforeUnmount(() => shelf.clear())
watch(languages, (now) => now.includes(language.value) || (language.value = ''))

const words = computed(() => {
  const of = look.value ? `filled into ${look.value.template.name}` : ''
  return missing.value.length ? `${of} · ${missing.value.map((slot) => slot.name).join(', ')} to be filled in` : of
})
const shape = computed(() => ({
  aspectRatio: `${canvas.value.width} / ${canvas.value.height}`,
  // As wide as the room, unless it would be higher than that.
  width: `min(100%, calc((var(--room) - 20px) * ${canvas.value.width / canvas.value.height}))`,
}))
</script>

<template>
  <main class="station filling">
    <DesignHead
      :id="id"
      :work="work"
      noun="filled"
      :handover="may('hand-over') ? `/handover?filled=${id}${seenOn ? `&display=${seenOn}` : ''}` : undefined"
      :rehearsal="may('hand-over') ? `/rehearsal?source=filled:${id}${seenOn ? `&display=${seenOn}` : ''}` : undefined"
      >{{ words }}</DesignHead
    >
    <TakenOver
      v-if="work.document.value && look"
      :id="id"
      :revision="work.revision.value"
      :template="look.template"
      :goes-by="work.document.value.template_revision"
      @taken="work.reopen"
    />
    <div v-if="work.document.value && look" class="two">
      <form ref="form" class="fields" aria-label="What is filled in" @submit.prevent>
        <p v-if="slots.length === 0" class="empty">This template leaves nothing open any more.</p>
        <div v-for="slot in slots" :key="slot.id" class="one">
          <component
            :is="fillOf(slot)"
            :one="slot"
            :value="valueOf(slot)"
            :room="look.room[slot.id]"
            :too-many="tooMany(slot)"
            @change="(value: Value | undefined, gesture?: string) => put(slot, value, gesture)"
          />
          <p v-if="slot.hint" class="hint">{{ slot.hint }}</p>
          <p v-for="f in told(slot)" :key="f.message" class="found" :class="f.level">{{ f.message }}</p>
        </div>
        <ShowFilled :id="id" :revision="work.revision.value" :save="saved" :first="seenOn" />
      </form>
      <div class="seen">
        <div class="bar">
          <label class="on"
            >As on
            <select v-model="asked" class="form-select form-select-sm" aria-label="As on which display">
              <option value="">{{ work.display.value ? 'its display' : 'no display in particular' }}</option>
              <option v-for="d in displays" :key="d.id" :value="d.id">{{ d.name }}</option>
            </select></label
          >
          <label v-if="languages.length > 1"
            >In
            <select v-model="language" class="form-select form-select-sm" aria-label="In which language">
              <option value="">all in turn</option>
              <option v-for="one in languages" :key="one" :value="one">{{ languageName(one) }}</option>
            </select></label
          >
        </div>
        <div class="pane">
          <div class="glass" :style="shape">
            <PictureNow :sheet="look.run_sheet" :media="look.media" :at="at" />
            <button
              v-for="one in openPlaces"
              :key="one.key"
              type="button"
              class="place"
              tabindex="-1"
              :style="over(one.rect)"
              :title="one.slot.name"
              :aria-label="`${one.slot.name}, on the picture`"
              @click="press(one.slot, one.rect)"
            ></button>
            <textarea
              v-if="typing"
              ref="inPlace"
              class="in-place"
              :style="over(typing.rect)"
              :value="typed"
              maxlength="20000"
              dir="auto"
              :lang="typedLanguage || undefined"
              :aria-label="`${typing.slot.name}, typed on the picture`"
              @input="type(($event.target as HTMLTextAreaElement).value)"
              @keydown.esc.stop="typing = null"
              @blur="typing = null"
            ></textarea>
          </div>
        </div>
        <p class="figures as m-0">
          {{ display ? `as ${display.name} draws it, ${display.raster.width} × ${display.raster.height} px` : `${canvas.width} × ${canvas.height} px`
          }}{{ languages.length > 1 && !language ? `, ${languages.map(languageName).join(', then ')}` : '' }}
          <b v-if="fits" class="said-error">{{ fits }}</b>
        </p>
      </div>
    </div>
    <p v-else-if="work.state.value === 'refused'" class="empty">
      This cannot be opened. <RouterLink to="/filled">See all that is filled in</RouterLink>
    </p>
    <p v-else-if="trouble" class="empty said-error">{{ trouble }} <button type="button" class="btn btn-link p-0" @click="ask">Try again</button></p>
    <p v-else class="empty">Opening.</p>
    <p v-if="trouble && look" class="said-error px-3 m-0" role="alert">{{ trouble }}</p>
  </main>
</template>

<style scoped>
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(320px, 420px) minmax(0, 1fr);
}
.fields {
  overflow: auto;
  padding: 10px 16px 30px;
  border-right: 1px solid var(--rule);
}
.one {
  padding: 6px 0 8px;
}
.hint,
.found {
  font-size: 0.8125rem;
  margin: 3px 0 0;
  color: var(--soft);
}
.found.warning {
  color: var(--warning);
}
.found.stop {
  color: var(--stop);
}
.seen {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-width: 0;
  background: var(--ground);
  --room: calc(100vh - 290px);
}
.bar {
  display: flex;
  gap: 18px;
  padding: 6px 12px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.bar label {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--soft);
  white-space: nowrap;
}
.pane {
  display: grid;
  place-items: center;
  padding: 10px;
  min-height: 0;
  overflow: hidden;
}
.glass {
  position: relative;
}
.place {
  position: absolute;
  border: 1px dashed transparent;
  background: none;
  padding: 0;
}
.glass:hover .place,
.place:focus-visible {
  border-color: #fff;
  outline: 1px dashed #17272e;
}
.in-place {
  position: absolute;
  min-width: 200px;
  min-height: 46px;
  background: var(--sheet);
  color: var(--ink);
  border: 2px solid var(--kelp);
  padding: 4px 8px;
  resize: none;
}
.as {
  background: var(--sheet);
  padding: 4px 12px;
  color: var(--soft);
}
@media (max-width: 800px) {
  .two {
    display: flex;
    flex-direction: column;
    overflow: auto;
    /* What the focus comes to stands below the picture. */
    scroll-padding-top: calc(27vh + 110px);
  }
  .fields {
    overflow: visible;
    border-right: 0;
  }
  .seen {
    order: -1;
    position: sticky;
    top: 0;
    z-index: 1;
    --room: 27vh;
  }
}
</style>
