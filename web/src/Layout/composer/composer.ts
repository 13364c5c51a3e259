import { type ComputedRef, type InjectionKey, type Ref, computed, inject, ref, shallowRef } from 'vue'
import { sentence } from '../../ui/api'
import type { Rect } from '../../ui/shelf'
import type { Element, LayoutDocument, TextElement, ZoneElement } from '../designs'
import { type Act, arranged } from '../division'
import { shifted } from './marks'
import { withoutRefs } from './variants'

export type Tool = 'choose' | 'zone' | 'text' | 'shape' | 'picture' | 'clock' | 'code' | 'ticker'

/** The hands of the composer: what is chosen, and every way to change the document. Nothing here knows a rule of the trade. */
export interface Composer {
  document: Ref<LayoutDocument>
  chosen: Ref<Set<string>>
  tool: Ref<Tool>
  /** Whether a hand is moving or sizing something. */
  moving: Ref<boolean>
  elements: ComputedRef<Element[]>
  only: ComputedRef<Element | null>
  choose(ids: Iterable<string>): void
  /** The same, with all that belong to a group of theirs. */
  chooseWhole(ids: Iterable<string>): void
  set(change: Partial<LayoutDocument>, gesture?: string): void
  edit<E extends Element>(id: string, change: Partial<E>, gesture?: string): void
  /** What is locked stays where it is. */
  place(rects: Map<string, Rect>, gesture?: string): void
  /** Words typed over: parts that are set otherwise go along. */
  retext(id: string, text: string): void
  /** Turns hiding or locking of all that is chosen on, or off where all of it has it already. */
  toggle(what: 'hidden' | 'locked'): void
  group(): void
  ungroup(): void
  /** The element gets an id of its own. */
  add(element: Element): void
  remove(): void
  duplicate(): void
  copy(): void
  paste(): void
  /** All that is chosen so many places higher or lower, or to the very top or bottom. */
  restack(by: number): void
  nudge(dx: number, dy: number): void
  /** What the core makes of the division; throws what it refuses. */
  arrange(act: Act, gesture?: string): Promise<void>
  /** The same, and what is refused is told beside the pane; whether it was done. */
  tell(act: Act, gesture?: string): Promise<boolean>
  /** What is told of the last arrangement, until the next change. */
  notice: Ref<{ wrong: boolean; said: string[] } | null>
  forDisplay(id: string): void
}

export const composerKey: InjectionKey<Composer> = Symbol('composer')

export function useComposer(): Composer {
  const composer = inject(composerKey)
  if (!composer) throw new Error('No composer here.')
  return composer
}

const CLIPBOARD = 'upper-pane:clipboard'

export function makeComposer(
  document: Ref<LayoutDocument>,
  change: (next: LayoutDocument, gesture?: string) => void,
  forDisplay: (id: string) => void,
): Composer {
  const chosen = shallowRef(new Set<string>())
  const tool = ref<Tool>('choose')
  const moving = ref(false)
  const elements = computed(() => document.value?.elements ?? [])
  const notice = ref<{ wrong: boolean; said: string[] } | null>(null)
  let pasted = 0

  async function arrange(act: Act, gesture?: string) {
    notice.value = null
    let from: LayoutDocument
    let answer
    do {
      // A hand may be faster than the answer: then it is asked again with what stands there now.
      from = document.value
      answer = await arranged(from, act)
    } while (document.value !== from)
    if (JSON.stringify(answer.document) !== JSON.stringify(from)) change(answer.document, gesture)
    if (answer.said.length) notice.value = { wrong: false, said: answer.said }
  }
  const tell = (act: Act, gesture?: string) =>
    arrange(act, gesture).then(
      () => true,
      (e: unknown) => {
        notice.value = { wrong: true, said: [sentence(e)] }
        return false
      },
    )

  const put = (next: Element[], gesture?: string) => change({ ...document.value, elements: next }, gesture)
  const choose = (ids: Iterable<string>) => (chosen.value = new Set(ids))
  const those = () => elements.value.filter((e) => chosen.value.has(e.id))
  const freeId = (kind: string, taken: Set<string>): string => {
    let n = 1
    while (taken.has(`${kind}${n}`)) n++
    taken.add(`${kind}${n}`)
    return `${kind}${n}`
  }

  function insert(originals: Element[], by: number) {
    if (originals.length === 0) return
    const taken = new Set(elements.value.map((e) => e.id))
    const copies = originals.map((e) => ({
      ...structuredClone(e),
      id: taken.has(e.id) ? freeId(e.kind, taken) : e.id,
      rect: { ...e.rect, x: e.rect.x + by, y: e.rect.y + by },
    }))
    // A leader that is not here has no followers here.
    const all = new Set([...elements.value, ...copies].map((e) => e.id))
    copies.forEach((e) => e.kind === 'zone' && e.follows && !all.has(e.follows) && delete (e as ZoneElement).follows)
    copies.forEach((e) => e.kind === 'shape' && e.progress && !all.has(e.progress.zone) && delete e.progress)
    // A group that is copied is a group of its own.
    const groups = new Set(elements.value.map((e) => e.group ?? ''))
    const renamed = new Map(
      [...new Set(copies.flatMap((e) => (e.group && groups.has(e.group) ? [e.group] : [])))].map((g) => [g, freeId('group', groups)]),
    )
    copies.forEach((e) => e.group && (e.group = renamed.get(e.group) ?? e.group))
    put([...elements.value, ...copies])
    choose(copies.map((e) => e.id))
  }

  return {
    document,
    chosen,
    tool,
    moving,
    elements,
    notice,
    arrange,
    tell,
    forDisplay,
    only: computed(() => (chosen.value.size === 1 ? (elements.value.find((e) => chosen.value.has(e.id)) ?? null) : null)),
    choose,
    set: (part, gesture) => change({ ...document.value, ...part }, gesture),
    edit: (id, part, gesture) =>
      put(
        elements.value.map((e) => (e.id === id ? ({ ...e, ...part } as Element) : e)),
        gesture,
      ),
    place: (rects, gesture) =>
      put(
        elements.value.map((e) => (rects.has(e.id) && !e.locked ? { ...e, rect: rects.get(e.id)! } : e)),
        gesture,
      ),
    chooseWhole(ids) {
      const wanted = new Set(ids)
      const groups = new Set(elements.value.filter((e) => wanted.has(e.id) && e.group).map((e) => e.group))
      choose(elements.value.filter((e) => wanted.has(e.id) || (e.group && groups.has(e.group))).map((e) => e.id))
    },
    retext: (id, text) =>
      put(
        elements.value.map((e) => {
          if (e.id !== id || !('text' in e)) return e
          const marks = shifted((e as TextElement).marks ?? [], e.text, text)
          return e.kind === 'text' && e.marks ? { ...e, text, marks: marks.length ? marks : undefined } : { ...e, text }
        }),
        `text ${id}`,
      ),
    toggle(what) {
      const all = those()
      const on = !all.every((e) => e[what])
      if (all.length) put(elements.value.map((e) => (chosen.value.has(e.id) ? { ...e, [what]: on || undefined } : e)))
    },
    group() {
      if (chosen.value.size < 2) return
      const taken = new Set(elements.value.map((e) => e.group ?? ''))
      const group = freeId('group', taken)
      put(elements.value.map((e) => (chosen.value.has(e.id) ? { ...e, group } : e)))
    },
    ungroup() {
      if (those().some((e) => e.group)) put(elements.value.map((e) => (chosen.value.has(e.id) ? { ...e, group: undefined } : e)))
    },
    add(element) {
      const id = freeId(element.kind, new Set(elements.value.map((e) => e.id)))
      put([...elements.value, { ...element, id }])
      choose([id])
      tool.value = 'choose'
    },
    remove() {
      const gone = new Set(
        those()
          .filter((e) => !e.locked)
          .map((e) => e.id),
      )
      if (gone.size < chosen.value.size) notice.value = { wrong: false, said: ['What is locked stays; unlock it first.'] }
      if (gone.size === 0) return
      const left = elements.value.filter((e) => !gone.has(e.id))
      put(left.map((e) => withoutRefs(e, (id) => gone.has(id))))
      choose(those().map((e) => e.id))
    },
    duplicate: () =>
      insert(
        elements.value.filter((e) => chosen.value.has(e.id)),
        20,
      ),
    copy() {
      const taken = elements.value.filter((e) => chosen.value.has(e.id))
      if (taken.length) localStorage.setItem(CLIPBOARD, JSON.stringify(taken))
      pasted = 0
    },
    paste() {
      const kept = JSON.parse(localStorage.getItem(CLIPBOARD) ?? '[]') as Element[]
      insert(kept, 20 * pasted++)
    },
    restack(by) {
      const moved = those()
      if (moved.length === 0) return
      const rest = elements.value.filter((e) => !chosen.value.has(e.id))
      // Above so many of the others as its topmost, or its lowest, is now, and one more or less.
      const edge = by > 0 ? elements.value.indexOf(moved.at(-1)!) : elements.value.indexOf(moved[0]!)
      const below = elements.value.slice(0, edge).filter((e) => !chosen.value.has(e.id)).length
      const at = Math.max(0, Math.min(rest.length, below + by))
      const next = [...rest.slice(0, at), ...moved, ...rest.slice(at)]
      if (next.some((e, i) => e !== elements.value[i])) put(next)
    },
    nudge(dx, dy) {
      if (those().every((e) => e.locked)) return
      put(
        elements.value.map((e) => (chosen.value.has(e.id) && !e.locked ? { ...e, rect: { ...e.rect, x: e.rect.x + dx, y: e.rect.y + dy } } : e)),
        `nudge ${[...chosen.value].join()}`,
      )
    },
  }
}
