import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import { openTabs, thisTab } from '../ui/tab'

/** What the server has not yet. */
export interface Draft<D> {
  base: number
  document: D
  display: string | null
}

/** The way back from a document, and forth again. */
export interface Way<D> {
  past: D[]
  document: D
  future: D[]
}

/** Of which design, by whom, in which tab. */
type Key = [design: string, who: string, tab: string]

/** Documents stand there as text: what a page works on may be watched, and such things cannot be stored. */
interface Rooms extends DBSchema {
  drafts: { key: Key; value: Omit<Draft<unknown>, 'document'> & { document: string; at: number } }
  ways: { key: Key; value: { past: string[]; document: string; future: string[]; at: number }; indexes: { at: number } }
}

const WEEK_MS = 7 * 86_400_000
/** Characters of either side of a way that are kept. */
const MOST = 4_000_000
const OLD = 'upper-pane:draft:'
/** What a desk of before kept it did not say of whom. */
const ANYBODY = ''

const texts = new WeakMap<object, string>()
/** The text of a document, which is never changed, only replaced. */
function text(document: unknown): string {
  const known = texts.get(document as object)
  if (known !== undefined) return known
  const made = JSON.stringify(document)
  texts.set(document as object, made)
  return made
}

/** The last of these, as many as there is room for. */
function kept(steps: unknown[]): string[] {
  const found: string[] = []
  let room = MOST
  for (const step of [...steps].reverse()) {
    room -= text(step).length
    if (room < 0) break
    found.unshift(text(step))
  }
  return found
}

let opened: Promise<IDBPDatabase<Rooms>> | null = null

function rooms(): Promise<IDBPDatabase<Rooms>> {
  opened ??= openDB<Rooms>('upper-pane-drafts', 1, {
    upgrade(db, _old, _new, tx) {
      db.createObjectStore('drafts')
      db.createObjectStore('ways').createIndex('at', 'at')
      for (const [design, draft] of fromBefore()) {
        void tx.objectStore('drafts').put({ ...draft, document: text(draft.document), at: Date.now() }, [design, ANYBODY, ''])
      }
    },
    blocking(_current, _blocked, event) {
      opened = null
      ;(event.target as IDBDatabase).close()
    },
    terminated: () => (opened = null),
  }).then(async (db) => {
    const { store, done } = db.transaction('ways', 'readwrite')
    for (let old = await store.index('at').openCursor(IDBKeyRange.upperBound(Date.now() - WEEK_MS)); old; old = await old.continue())
      await old.delete()
    await done
    return db
  })
  opened.catch(() => (opened = null))
  return opened
}

/** A desk of before kept them in another place, one for each design. */
function fromBefore(): [string, Draft<unknown>][] {
  const names = Array.from({ length: localStorage.length }, (_, n) => localStorage.key(n)!).filter((name) => name.startsWith(OLD))
  return names.flatMap((name) => {
    const kept = localStorage.getItem(name)!
    localStorage.removeItem(name)
    try {
      return [[name.slice(OLD.length), JSON.parse(kept) as Draft<unknown>]]
    } catch {
      return []
    }
  })
}

/**
 * What is typed and not yet saved, and the way back, of one design in this tab: another tab that has the same design open has its own, and
 * what a tab left that is there no more is found by the next one of the same person.
 */
export function draftsOf<D>(design: string, who: () => string) {
  const here = async (): Promise<[IDBPDatabase<Rooms>, Key]> => {
    const [db, tab] = await Promise.all([rooms(), thisTab()])
    return [db, [design, who(), tab]]
  }
  return {
    async keep(draft: Draft<D>): Promise<void> {
      const [db, key] = await here()
      await db.put('drafts', { ...draft, document: text(draft.document), at: Date.now() }, key)
    },

    async forget(): Promise<void> {
      const [db, key] = await here()
      await db.delete('drafts', key)
    },

    async keepWay({ past, document, future }: Way<D>): Promise<void> {
      const [db, key] = await here()
      await db.put('ways', { past: kept(past), document: text(document), future: kept(future), at: Date.now() }, key)
    },

    /** Of this tab; else the newest draft of one that is gone, which is this tab's from then on. */
    async found(): Promise<{ draft: Draft<D> | null; way: Way<D> | null }> {
      const [[db, key], isOpen] = await Promise.all([here(), openTabs()])
      const tx = db.transaction(['drafts', 'ways'], 'readwrite')
      const [drafts, ways] = [tx.objectStore('drafts'), tx.objectStore('ways')]
      let from = key
      let draft = await drafts.get(key)
      if (!draft) {
        for (let row = await drafts.openCursor(IDBKeyRange.bound([design], [design, []])); row; row = await row.continue()) {
          const isLeft = [ANYBODY, who()].includes(row.key[1]) && !isOpen(row.key[2])
          if (isLeft && (!draft || row.value.at > draft.at)) [draft, from] = [row.value, row.key]
        }
        if (draft) await Promise.all([drafts.put(draft, key), drafts.delete(from)])
      }
      const way = await ways.get(from)
      await tx.done
      const read = (document: string) => JSON.parse(document) as D
      return {
        draft: draft ? { base: draft.base, display: draft.display, document: read(draft.document) } : null,
        way: way ? { past: way.past.map(read), document: read(way.document), future: way.future.map(read) } : null,
      }
    },
  }
}

const same = (a: unknown, b: unknown) => text(a) === text(b)

/** A design as it is opened: as it was left in this tab, or as it is saved where somebody else has changed it since. */
export function resumed<D>(
  saved: Draft<D>,
  { draft, way }: { draft: Draft<D> | null; way: Way<D> | null },
): Draft<D> & Omit<Way<D>, 'document'> & { restored: boolean } {
  const restored = draft !== null && !same(draft.document, saved.document)
  const now = restored ? draft : saved
  if (way && same(way.document, now.document)) return { ...now, past: way.past, future: way.future, restored }
  // A step back or forth was taken, and the page left before that was noted.
  const steps = way ? [...way.past, way.document, ...[...way.future].reverse()] : []
  const at = steps.map((one) => same(one, now.document)).lastIndexOf(true)
  if (at >= 0) return { ...now, past: steps.slice(0, at), future: steps.slice(at + 1).reverse(), restored }
  // It was left in the middle of something: what stood there before is a step back, as is what is saved.
  const past = restored && way ? [...way.past, way.document] : []
  return { ...now, past: restored && !past.some((one) => same(one, saved.document)) ? [...past, saved.document] : past, future: [], restored }
}
