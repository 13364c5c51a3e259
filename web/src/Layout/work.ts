import { useQueryClient } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import { api, Problem, sentence } from '../ui/api'
import { useSession } from '../ui/session'
import type { Plural, Saved } from './designs'
import { draftsOf, resumed } from './drafts'

export type SaveState = 'opening' | 'saved' | 'changed' | 'saving' | 'kept' | 'refused' | 'stale'

export interface Compared<D> {
  differences: { key: string; name: string; by: 'mine' | 'theirs' | 'both'; mine: string; theirs: string }[]
  document: D
}

const AFTER_MS = 700
const AGAIN_MS = 3000

/**
 * A design that is being worked on: undo over the whole visit, saved by itself, never lost.
 *
 * Every change is kept in the browser until the server has it; a stale write is kept aside there and answered with both versions.
 */
export function useDesignWork<D extends { name: string }>(plural: Plural | 'displays', id: string) {
  const queries = useQueryClient()
  const session = useSession()
  const document = shallowRef<D | null>(null)
  const display = ref<string | null>(null)
  const revision = ref(0)
  const savedAt = ref('')
  const state = ref<SaveState>('opening')
  const trouble = ref('')
  const theirs = shallowRef<Saved<D> | null>(null)
  const past = shallowRef<D[]>([])
  const future = shallowRef<D[]>([])
  const restored = ref(false)
  const drafts = draftsOf<D>(`${plural === 'displays' ? 'display:' : ''}${id}`, () => session.account?.login ?? '')
  let timer: ReturnType<typeof setTimeout> | undefined
  let lastGesture: string | undefined
  let running: Promise<void> | null = null
  let closed = false

  function take(saved: Saved<D>) {
    revision.value = saved.revision
    savedAt.value = saved.saved_at
  }

  async function open() {
    state.value = 'opening'
    try {
      const [saved, found] = await Promise.all([api.get<Saved<D>>(`${plural}/${id}`), drafts.found().catch(() => ({ draft: null, way: null }))])
      take(saved)
      const left = resumed({ base: saved.revision, document: saved.document, display: saved.display }, found)
      document.value = left.document
      display.value = left.display
      past.value = left.past
      future.value = left.future
      restored.value = left.restored
      revision.value = left.base
      state.value = left.restored ? 'changed' : 'saved'
      if (left.restored) void save()
      else forgetDraft()
    } catch (e) {
      trouble.value = sentence(e)
      if (e instanceof Problem && e.mayPass) timer = setTimeout(() => void open(), AGAIN_MS)
      else state.value = 'refused'
    }
  }

  /** As the server has it by now; what stood here before is a step back. */
  async function reopen() {
    const [was, before] = [document.value, past.value]
    await open()
    if (was && document.value !== was) past.value = [...before, was]
  }

  /** @param gesture changes of one gesture (a drag, a row of key presses) are one step of undo */
  function change(next: D, gesture?: string) {
    if (!document.value || next === document.value) return
    if (gesture === undefined || gesture !== lastGesture) past.value = [...past.value, document.value]
    lastGesture = gesture
    future.value = []
    document.value = next
    changed()
  }

  function changed() {
    keepDraft()
    if (state.value !== 'stale') state.value = 'changed'
    clearTimeout(timer)
    if (state.value !== 'stale') timer = setTimeout(() => void save(), AFTER_MS)
  }

  function step(from: typeof past, to: typeof future) {
    const next = from.value.at(-1)
    if (!next || !document.value) return
    to.value = [...to.value, document.value]
    from.value = from.value.slice(0, -1)
    document.value = next
    lastGesture = undefined
    changed()
  }

  function setDisplay(next: string | null) {
    display.value = next
    changed()
  }

  async function save(): Promise<void> {
    clearTimeout(timer)
    if (running) return running.then(() => (state.value === 'changed' ? save() : undefined))
    const sent = document.value
    if (!sent || state.value === 'stale' || state.value === 'saved') return
    const sentDisplay = display.value
    state.value = 'saving'
    running = api
      .put<Saved<D>>(`${plural}/${id}`, { base: revision.value, document: sent, ...(plural === 'displays' ? {} : { display: sentDisplay }) })
      .then((saved) => {
        take(saved)
        trouble.value = ''
        void queries.invalidateQueries({ queryKey: [plural] })
        // Who saves a design asks nothing of the estate; a survey says what every list says of its display.
        if (plural === 'displays') void queries.invalidateQueries({ queryKey: ['estate'] })
        if (document.value === sent && display.value === sentDisplay) {
          forgetDraft()
          keepWay()
          state.value = 'saved'
        } else {
          changed()
        }
      })
      .catch((e: unknown) => {
        trouble.value = sentence(e)
        if (e instanceof Problem && e.status === 409 && e.code === 'revision.stale') {
          theirs.value = e.body.current as Saved<D>
          state.value = 'stale'
        } else if (e instanceof Problem && e.mayPass) {
          state.value = 'kept'
          if (e.status === 401) void session.back().then(save)
          else if (!closed) timer = setTimeout(() => void save(), AGAIN_MS)
        } else {
          state.value = 'refused'
        }
      })
      .finally(() => (running = null))
    return running
  }

  /** After a stale write: go on with the other version, or put this one on top of it. Either can be undone. */
  async function settle(mine: boolean) {
    const other = theirs.value
    if (!other || !document.value) return
    take(other)
    theirs.value = null
    trouble.value = ''
    state.value = 'changed'
    if (mine) {
      past.value = [...past.value, other.document]
      await save()
    } else {
      past.value = [...past.value, document.value]
      document.value = other.document
      display.value = other.display
      forgetDraft()
      state.value = 'saved'
    }
  }

  /** The same with a version in which some of either's is taken. */
  async function settleWith(document_: D) {
    const other = theirs.value
    if (!other || !document.value) return
    take(other)
    theirs.value = null
    trouble.value = ''
    past.value = [...past.value, other.document, document.value]
    document.value = document_
    state.value = 'changed'
    keepDraft()
    await save()
  }

  /** What oneself and the other changed, part by part, and the design with these parts taken. */
  const compare = (taken: Record<string, 'mine' | 'theirs'>) =>
    api.post<Compared<D>>(`${plural}/${id}/compare`, { base: revision.value, document: document.value, take: taken })

  function keepDraft() {
    drafts.keep({ base: revision.value, document: document.value!, display: display.value }).catch(notKept)
  }

  function keepWay() {
    if (document.value) drafts.keepWay({ past: past.value, document: document.value, future: future.value }).catch(notKept)
  }

  function forgetDraft() {
    drafts.forget().catch(notKept)
  }

  const notKept = () => (trouble.value = 'This browser keeps nothing: what is not saved yet is lost with this window.')

  function left() {
    keepWay()
    if (state.value === 'changed') void save()
  }
  useEventListener('pagehide', left)
  onBeforeUnmount(() => {
    closed = true
    left()
    clearTimeout(timer)
  })
  void open()

  return {
    document,
    display,
    revision,
    savedAt,
    state,
    trouble,
    theirs,
    restored,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
    change,
    setDisplay,
    undo: () => step(past, future),
    redo: () => step(future, past),
    save,
    settle,
    settleWith,
    compare,
    reopen,
  }
}

export type DesignWork<D extends { name: string }> = ReturnType<typeof useDesignWork<D>>
