<script setup lang="ts" generic="D extends { name: string }">
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { offerActions } from '../ui/actions'
import FirstShown from '../Playback/FirstShown.vue'
import RecordButton from '../ui/RecordButton.vue'
import TypedLine from '../ui/TypedLine.vue'
import CompareVersions from './CompareVersions.vue'
import { NOUNS } from './designs'
import RevisionList from './RevisionList.vue'
import SaveNote from './SaveNote.vue'
import StaleNote from './StaleNote.vue'
import type { DesignWork } from './work'

/** The head of a design that is being worked on: its name, what is saved, undo, redo, handover; and what went wrong. */
const props = defineProps<{
  work: DesignWork<D>
  noun: 'layout' | 'filled' | 'playlist' | 'display' | 'schedule' | 'source' | 'overlay' | 'trigger' | 'panel'
  /** Where it is handed over; of a source nowhere, what shows its rows is. */
  handover?: string
  id: string
  /** Where it is rehearsed; of a display nowhere, it is what things are rehearsed on. */
  rehearsal?: string
}>()
/** Those whose revisions are kept to be put back. */
const revised = computed(() => (props.noun === 'display' ? null : props.noun === 'filled' ? props.noun : (`${props.noun}s` as const)))
const called = computed(() => (revised.value === null ? 'display' : NOUNS[revised.value]))
const revisions = ref(false)
const router = useRouter()
const comparing = ref(false)
const rename = (name: string) => props.work.document.value && props.work.change({ ...props.work.document.value, name })

offerActions(() => [
  ...(props.work.canUndo.value ? [{ kind: 'action', name: 'Undo', more: 'Ctrl + Z', act: props.work.undo }] : []),
  ...(props.work.canRedo.value ? [{ kind: 'action', name: 'Redo', more: 'Ctrl + Shift + Z', act: props.work.redo }] : []),
  ...(props.handover
    ? [
        {
          kind: 'action',
          name: props.noun === 'display' ? 'Hand over to this display' : `Hand over this ${called.value}`,
          act: () => void goSaved(props.handover!),
        },
      ]
    : []),
  ...(revised.value ? [{ kind: 'action', name: 'Revisions', more: `of this ${called.value}`, act: () => (revisions.value = true) }] : []),
  ...(props.rehearsal ? [{ kind: 'action', name: `Rehearse this ${called.value}`, act: () => void goSaved(props.rehearsal!) }] : []),
])
/** What is handed over or rehearsed is what is saved: the last change is saved first, and where that fails one stays with the reason. */
async function goSaved(to: string, event?: MouseEvent) {
  if (event?.ctrlKey || event?.metaKey || event?.shiftKey) return
  event?.preventDefault()
  await props.work.save()
  if (props.work.state.value === 'saved') await router.push(to)
}

useEventListener('keydown', (e: KeyboardEvent) => {
  if (!(e.ctrlKey || e.metaKey) || (e.target as HTMLElement).closest('input, textarea, select, [contenteditable], .modal')) return
  const act = { z: e.shiftKey ? props.work.redo : props.work.undo, y: props.work.redo, s: () => void props.work.save() }[e.key.toLowerCase()]
  if (!act) return
  e.preventDefault()
  act()
})
</script>

<template>
  <div class="head">
    <div class="words">
      <div class="named">
        <TypedLine v-if="work.document.value" class="title" :value="work.document.value.name" :label="`Name of the ${called}`" @change="rename" />
        <FirstShown
          v-if="revised && revised !== 'sources' && revised !== 'overlays' && revised !== 'triggers' && revised !== 'panels' && work.document.value"
          :id="id"
          :plural="revised"
          :revision="work.revision.value"
        />
        <button v-if="revised && work.document.value" type="button" class="btn btn-link btn-sm p-0" @click="revisions = true">revisions</button>
        <RecordButton v-if="work.document.value" :id="id" :kind="noun" :name="work.document.value.name" />
      </div>
      <p class="facts m-0 text-truncate">
        <slot></slot>
        ·
        <SaveNote :state="work.state.value" :revision="work.revision.value" :saved-at="work.savedAt.value" />
      </p>
    </div>
    <div class="actions">
      <BButton variant="outline-dark" :disabled="!work.canUndo.value" title="Ctrl + Z" @click="work.undo">Undo</BButton>
      <BButton variant="outline-dark" :disabled="!work.canRedo.value" title="Ctrl + Shift + Z" @click="work.redo">Redo</BButton>
      <slot name="actions"></slot>
      <RouterLink v-if="rehearsal" class="btn btn-outline-dark" :to="rehearsal" @click.capture="goSaved(rehearsal, $event)">Rehearse</RouterLink>
      <RouterLink v-if="handover" class="btn btn-primary" :to="handover" @click.capture="goSaved(handover, $event)">Hand over…</RouterLink>
    </div>
  </div>
  <StaleNote
    :trouble="work.trouble.value"
    :state="work.state.value"
    :restored="work.restored.value"
    :comparable="noun !== 'display'"
    @mine="work.settle(true)"
    @theirs="work.settle(false)"
    @compare="comparing = true"
  />
  <RevisionList v-if="revised" :id="id" v-model="revisions" :plural="revised" :current="work.revision.value" @restored="work.reopen" />
  <CompareVersions v-if="noun !== 'display'" v-model="comparing" :work="work" :by="work.theirs.value?.saved_by ?? 'the other'" />
</template>
