import { type ComputedRef, type InjectionKey, type Ref, computed, inject, ref, shallowRef } from 'vue'
import { sentence } from '../../ui/api'
import { inTurn } from '../../ui/inTurn'
import type { Rect } from '../../ui/shelf'
import type { Analysis, Element, LayoutDocument, TextElement } from '../designs'
import { type Act, arranged } from '../division'
import { shifted } from './marks'
import { seenIn, withElements, withFields } from './variants'

/** `choose`, or the kind of element that is drawn. */
export type Tool = string

/** The hands of the composer: what is chosen, and every way to change the document. Nothing here knows a rule of the trade. */
export interface Composer {
  /** The layout, or what the variant that is worked on shows of it. */
  document: ComputedRef<LayoutDocument>
  /** With all its variants. */
  whole: Ref<LayoutDocument>
  variant: Ref<string | null>
  chosen: Ref<Set<string>>
  tool: Ref<Tool>
  /** Rows of data as they may come some day, where they are looked at so; null for as they are. */
  stress: Ref<string | number | null>
  /** Whose rows it is told over, where another design plays it row by row. */
  toldOver: Ref<Analysis['told_over']>
  /** Whether a hand is moving or sizing something. */
  moving: Ref<boolean>
  elements: ComputedRef<Element[]>
  only: ComputedRef<Element | null>
  choose: (ids: Iterable<string>) => void
  /** The same, with all that belong to a group of theirs. */
  chooseWhole: (ids: Iterable<string>) => void
  set: (change: Partial<LayoutDocument>, gesture?: string) => void
  /** Another document altogether, its variants included. */
  become: (next: LayoutDocument, gesture?: string) => void
  edit: <E extends Element>(id: string, change: Partial<E>, gesture?: string) => void
  /** What is locked stays where it is. */
  place: (rects: Map<string, Rect>, gesture?: string) => void
  /** Words typed over: parts that are set otherwise go along. */
  retext: (id: string, text: string) => void
  /** Turns hiding or locking of all that is chosen on, or off where all of it has it already. */
  toggle: (what: 'hidden' | 'locked') => void
  group: () => void
  ungroup: () => void
  /** A new element, as the core begins it, and chosen. */
  add: (kind: string, rect: Rect, fields?: object) => Promise<boolean>
  remove: () => void
  duplicate: () => void
  copy: () => void
  paste: () => void
  /** All that is chosen so many places higher or lower, or to the very top or bottom. */
  restack: (by: number) => void
  nudge: (dx: number, dy: number) => void
  /** What the core makes of an act, one after the other; throws what it refuses. A function is asked once the acts before are done. */
  arrange: (act: Act | (() => Act | null), gesture?: string) => Promise<void>
  /** The same, and what is refused is told beside the pane; whether it was done. */
  tell: (act: Act | (() => Act | null), gesture?: string) => Promise<boolean>
  /** What is told of the last arrangement, until the next change. */
  notice: Ref<{ wrong: boolean; said: string[] } | null>
  forDisplay: (id: string) => void
}

export const composerKey: InjectionKey<Composer> = Symbol('composer')

export function useComposer(): Composer {
  const composer = inject(composerKey)
  if (!composer) throw new Error('No composer here.')
  return composer
}

const CLIPBOARD = 'upper-pane:clipboard'
/** Places in the stack: the very top or bottom of any layout. */
const MOST = 10_000

export function makeComposer(
  whole: Ref<LayoutDocument>,
  variant: Ref<string | null>,
  change: (next: LayoutDocument, gesture?: string) => void,
  forDisplay: (id: string) => void,
): Composer {
  const chosen = shallowRef(new Set<string>())
  const tool = ref<Tool>('choose')
  const moving = ref(false)
  const stress = ref<string | number | null>(null)
  const toldOver = shallowRef<Analysis['told_over']>(null)
  // Before the document has come there is none.
  const document = computed(() => whole.value && seenIn(whole.value, variant.value))
  const elements = computed(() => document.value?.elements ?? [])
  const notice = ref<{ wrong: boolean; said: string[] } | null>(null)
  let pasted = 0
  const ask = inTurn(
    () => [whole.value, variant.value] as const,
    ([document, seen], act: Act) => arranged(document, seen, act),
    (answer, [from, seen], gesture) => {
      if (JSON.stringify(answer.document) !== JSON.stringify(from)) change(answer.document, gesture)
      if (answer.variant !== seen) variant.value = answer.variant
      if (answer.chosen) choose(answer.chosen)
      if (answer.said.length) notice.value = { wrong: false, said: answer.said }
    },
  )
  function arrange(act: Act | (() => Act | null), gesture?: string): Promise<void> {
    notice.value = null
    return ask(act, gesture)
  }
  const tell = (act: Act | (() => Act | null), gesture?: string) =>
    arrange(act, gesture).then(
      () => true,
      (e: unknown) => {
        notice.value = { wrong: true, said: [sentence(e)] }
        return false
      },
    )

  const put = (changes: Map<string, Partial<Element>>, gesture?: string) => change(withElements(whole.value, variant.value, changes), gesture)
  const choose = (ids: Iterable<string>) => (chosen.value = new Set(ids))
  const those = () => elements.value.filter((e) => chosen.value.has(e.id))
  const each = (of: Element[], to: (e: Element) => Partial<Element>, gesture?: string) => {
    if (of.length) put(new Map(of.map((e) => [e.id, to(e)])), gesture)
  }
  const insert = (originals: () => Element[], by: number) =>
    tell(() => {
      const inserted = originals()
      return inserted.length ? { do: 'insert', elements: inserted, dx: by, dy: by } : null
    })

  return {
    document,
    whole,
    variant,
    chosen,
    tool,
    moving,
    stress,
    toldOver,
    elements,
    notice,
    arrange,
    tell,
    forDisplay,
    only: computed(() => (chosen.value.size === 1 ? (elements.value.find((e) => chosen.value.has(e.id)) ?? null) : null)),
    choose,
    set: (part, gesture) => change(withFields(whole.value, variant.value, part), gesture),
    become: (next, gesture) => change(next, gesture),
    edit: (id, part, gesture) => put(new Map([[id, part]]), gesture),
    place: (rects, gesture) =>
      each(
        elements.value.filter((e) => rects.has(e.id) && !e.locked),
        (e) => ({ rect: rects.get(e.id)! }),
        gesture,
      ),
    chooseWhole(ids) {
      const wanted = new Set(ids)
      const groups = new Set(elements.value.filter((e) => wanted.has(e.id) && e.group).map((e) => e.group))
      choose(elements.value.filter((e) => wanted.has(e.id) || (e.group && groups.has(e.group))).map((e) => e.id))
    },
    retext(id, text) {
      const e = elements.value.find((one) => one.id === id)
      if (!e || !('text' in e)) return
      const marks = shifted((e as TextElement).marks ?? [], e.text, text)
      const change: Partial<TextElement> = (e as TextElement).marks ? { text, marks: marks.length ? marks : undefined } : { text }
      // In several languages it is the first of them.
      const [first] = Object.keys((e as TextElement).texts ?? {})
      if (first !== undefined) change.texts = { ...(e as TextElement).texts, [first]: text }
      put(new Map([[id, change]]), `text ${id}`)
    },
    toggle(what) {
      const on = !those().every((e) => e[what])
      each(those(), () => ({ [what]: on || undefined }))
    },
    group() {
      if (chosen.value.size < 2) return
      const taken = new Set(whole.value.elements.map((e) => e.group))
      let n = 1
      while (taken.has(`group${n}`)) n++
      each(those(), () => ({ group: `group${n}` }))
    },
    ungroup() {
      if (those().some((e) => e.group)) each(those(), () => ({ group: undefined }))
    },
    add(kind, rect, fields) {
      tool.value = 'choose'
      return tell({ do: 'begin', kind, rect, ...(fields ? { fields } : {}) })
    },
    remove: () => void tell(() => (chosen.value.size ? { do: 'remove', elements: [...chosen.value] } : null)),
    duplicate: () => void insert(those, 20),
    copy() {
      const taken = those()
      if (taken.length) localStorage.setItem(CLIPBOARD, JSON.stringify(taken))
      pasted = 0
    },
    paste: () => void insert(() => JSON.parse(localStorage.getItem(CLIPBOARD) ?? '[]') as Element[], 20 * pasted++),
    restack: (by) =>
      void tell(() => (chosen.value.size ? { do: 'restack', elements: [...chosen.value], by: Math.max(-MOST, Math.min(MOST, by)) } : null)),
    nudge: (dx, dy) =>
      each(
        those().filter((e) => !e.locked),
        (e) => ({ rect: { ...e.rect, x: e.rect.x + dx, y: e.rect.y + dy } }),
        `nudge ${[...chosen.value].join()}`,
      ),
  }
}
