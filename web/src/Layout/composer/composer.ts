import { type ComputedRef, type InjectionKey, type Ref, computed, inject, ref, shallowRef } from 'vue'
import { sentence } from '../../ui/api'
import type { Rect } from '../../ui/shelf'
import type { Element, LayoutDocument, ZoneElement } from '../designs'
import { type Act, arranged } from '../division'

export type Tool = 'choose' | 'zone' | 'text' | 'shape' | 'picture'

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
  set(change: Partial<LayoutDocument>, gesture?: string): void
  edit<E extends Element>(id: string, change: Partial<E>, gesture?: string): void
  place(rects: Map<string, Rect>, gesture?: string): void
  /** The element gets an id of its own. */
  add(element: Element): void
  remove(): void
  duplicate(): void
  copy(): void
  paste(): void
  restack(id: string, by: number): void
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
        elements.value.map((e) => (rects.has(e.id) ? { ...e, rect: rects.get(e.id)! } : e)),
        gesture,
      ),
    add(element) {
      const id = freeId(element.kind, new Set(elements.value.map((e) => e.id)))
      put([...elements.value, { ...element, id }])
      choose([id])
      tool.value = 'choose'
    },
    remove() {
      if (chosen.value.size === 0) return
      const left = elements.value.filter((e) => !chosen.value.has(e.id))
      put(left.map((e) => (e.kind === 'zone' && e.follows && chosen.value.has(e.follows) ? { ...e, follows: undefined } : e)))
      choose([])
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
    restack(id, by) {
      const next = [...elements.value]
      const from = next.findIndex((e) => e.id === id)
      const to = Math.max(0, Math.min(next.length - 1, from + by))
      const [element] = next.splice(from, 1)
      next.splice(to, 0, element!)
      if (from !== to) put(next)
    },
    nudge(dx, dy) {
      const moved = elements.value.filter((e) => chosen.value.has(e.id))
      if (moved.length === 0) return
      put(
        elements.value.map((e) => (chosen.value.has(e.id) ? { ...e, rect: { ...e.rect, x: e.rect.x + dx, y: e.rect.y + dy } } : e)),
        `nudge ${[...chosen.value].join()}`,
      )
    },
  }
}
