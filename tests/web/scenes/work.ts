import 'fake-indexeddb/auto'
import { openDB } from 'idb'
import { type Answer, locks, mounted, pass as passed, server, storage } from '../scene'
import { useDesignWork } from '../../../web/src/Layout/work'
import { useSession } from '../../../web/src/ui/session'

/** A design that is being worked on (web/src/Layout/work.ts, drafts.ts), with a server that answers as told. */

interface Doc {
  name: string
}
const saved = (revision: number, document: Doc) => ({ id: 'x', revision, saved_at: '2026-06-01T10:00:00Z', display: shownOn, document })
let revision = 1
let kept: Doc = { name: 'One' }
let shownOn: string | null = null
let refusing: Answer | null = null
server.answer = ({ method, body }) => {
  if (refusing) return refusing
  if (method === 'PUT') {
    if (body.base !== revision) {
      return { status: 409, body: { error: { code: 'revision.stale', message: 'Saved meanwhile.' }, current: saved(revision, kept) } }
    }
    kept = body.document
    shownOn = body.display
    revision++
  }
  return { body: saved(revision, kept) }
}
/** With all that the store of the browser does meanwhile, which no clock moves. */
async function pass(ms: number) {
  for (let n = 0; n < 50; n++) await new Promise((done) => setImmediate(done))
  await passed(ms)
}

function open() {
  let session: ReturnType<typeof useSession>
  const { it, unmount } = mounted(() => ((session = useSession()), useDesignWork<Doc>('layouts', 'x')))
  return {
    work: it,
    session: session!,
    unmount,
    name: () => it.document.value?.name ?? '',
    typed: (name: string, gesture?: string) => it.change({ name }, gesture),
  }
}

/** What lies in the browser for the design, by tab; the drafts' names, or null. */
async function rows(store: 'drafts' | 'ways') {
  await pass(10)
  const db = await openDB('upper-pane-drafts', 1)
  const [keys, values] = await Promise.all([db.getAllKeys(store), db.getAll(store)])
  db.close()
  return keys.map((key, n) => ({ tab: (key as string[])[2], ...(values[n] as { document: string; at: number }) }))
}
const draft = async () => (await rows('drafts')).map(({ document }) => (JSON.parse(document) as Doc).name)[0] ?? null

export async function isSavedByItselfAMomentAfterTheLastChange() {
  const { work, typed } = open()
  const seen: unknown[] = [work.state.value]
  await pass(10)
  seen.push(work.state.value)
  typed('Two')
  seen.push(work.state.value, await draft())
  await pass(600)
  typed('Three')
  await pass(600)
  seen.push(work.state.value, await draft())
  await pass(200)
  seen.push(work.state.value, server.log('PUT'), server.calls.at(-1)!.body.base, kept.name, await draft(), work.revision.value)
  return seen
}

export async function partsOfTwoVersionsAreTakenTogetherAndUndoneAgain() {
  const { work, typed, name } = open()
  await pass(10)
  revision = 2
  kept = { name: 'Theirs' }
  typed('Mine')
  await pass(800)
  const seen: unknown[] = [work.state.value]
  refusing = { body: { differences: [], document: { name: 'Both' } } }
  const compared = await work.compare({ name: 'mine' })
  refusing = null
  seen.push(server.log('POST'), server.calls.at(-1)!.body.base)
  void work.settleWith(compared.document)
  await pass(50)
  seen.push(work.state.value, kept.name)
  work.undo()
  seen.push(name())
  work.undo()
  seen.push(name(), revision)
  return seen
}

export async function oneGestureIsOneStepOfUndo() {
  const { work, typed, name } = open()
  await pass(10)
  const before = work.canUndo.value
  const names: string[] = []
  typed('Dragged 1', 'move 1')
  typed('Dragged 2', 'move 1')
  names.push(name())
  work.undo()
  names.push(name())
  work.redo()
  names.push(name())
  typed('Typed')
  names.push(name())
  work.undo()
  names.push(name())
  typed('Other')
  names.push(name())
  await pass(1000)
  return [before, names, work.canRedo.value, work.canUndo.value, kept.name]
}

export async function undoOfTheWholeVisitAndNothingBeyond() {
  const { work, typed, name } = open()
  await pass(10)
  for (const next of ['A', 'B', 'C']) typed(next)
  await pass(1000)
  for (let i = 0; i < 9; i++) work.undo()
  const back = [name(), work.canUndo.value, work.canRedo.value]
  await pass(1000)
  const stored = kept.name
  for (let i = 0; i < 9; i++) work.redo()
  return [...back, name(), stored]
}

export async function aChangeMadeWhileTheServerAnswersIsSavedAfterIt() {
  const { work, typed } = open()
  await pass(10)
  server.ms = 300
  typed('Two')
  await pass(800)
  typed('Three')
  await pass(2000)
  return [
    server.calls.filter((c) => c.method === 'PUT').map((c) => [c.body.base, c.body.document.name]),
    work.state.value,
    work.revision.value,
    await draft(),
  ]
}

export async function aServerThatIsAwayIsAskedAgainUntilItIsBack() {
  const { work, typed } = open()
  await pass(10)
  refusing = 'away'
  typed('Two')
  await pass(7000)
  const meanwhile = [work.state.value, work.trouble.value, await draft(), server.log('PUT').length]
  refusing = null
  await pass(3100)
  return [...meanwhile, work.state.value, work.trouble.value, kept.name, await draft()]
}

export async function whatTheServerRefusesIsToldAndTheNextChangeIsSaved() {
  const { work, typed } = open()
  await pass(10)
  refusing = { status: 422, body: { error: { code: 'value.range', message: '/name is empty.', path: '/name' } } }
  typed('Two')
  await pass(20000)
  const meanwhile = [work.state.value, work.trouble.value, server.log('PUT').length]
  refusing = null
  typed('Three')
  await pass(1000)
  return [...meanwhile, kept.name, work.state.value, work.trouble.value]
}

export async function aLostSessionKeepsWhatIsTypedUntilSomebodySignsIn() {
  const { work, typed, session } = open()
  await pass(10)
  session.account = { login: 'ines', name: 'Ines', rights: {} }
  refusing = { status: 401, body: { error: { code: 'session.none', message: 'Nobody is signed in.' } } }
  typed('Two')
  await pass(1000)
  typed('Three')
  await pass(1000)
  const meanwhile = [work.state.value, session.isLost, await draft()]
  refusing = null
  const before = server.answer
  server.answer = (call) =>
    call.path === 'session' || call.path === 'sign-in' ? { body: { account: { login: 'ines' }, csrf: 'new' } } : before(call)
  await session.signIn('ines', 'harbour')
  await pass(1000)
  return [...meanwhile, session.isLost, work.state.value, kept.name, work.revision.value, await draft()]
}

export async function somebodyElseSavedMeanwhileAndMineIsPutOnTop() {
  const { work, typed, name } = open()
  await pass(10)
  kept = { name: 'Theirs' }
  revision = 2
  typed('Mine')
  await pass(1000)
  const stale: unknown[] = [work.state.value, work.theirs.value?.document.name]
  typed('Mine too')
  await pass(9000)
  stale.push(server.log('PUT').length)
  await work.settle(true)
  const settled = [work.state.value, kept.name, work.revision.value]
  work.undo()
  return [...stale, ...settled, name()]
}

export async function somebodyElseSavedMeanwhileAndTheirsIsTaken() {
  const { work, typed, name } = open()
  await pass(10)
  kept = { name: 'Theirs' }
  revision = 2
  typed('Mine')
  await pass(1000)
  await work.settle(false)
  await pass(1000)
  const taken = [name(), work.state.value, work.revision.value, server.log('PUT').length, await draft()]
  work.undo()
  taken.push(name())
  await pass(1000)
  return [...taken, kept.name, work.revision.value]
}

/** Puts what other tabs left, or still work on, into the browser. */
async function left(...drafts: { tab: string; base?: number; name: string; login?: string }[]) {
  const first = open()
  await pass(10)
  first.unmount()
  const db = await openDB('upper-pane-drafts', 1)
  for (const [at, { tab, base = 1, name, login = '' }] of drafts.entries()) {
    await db.put('drafts', { base, document: JSON.stringify({ name }), display: null, at }, ['x', login, tab])
  }
  db.close()
}

export async function whatHadNotReachedTheServerIsFoundAgain() {
  await left({ tab: 'gone', name: 'Typed long before' }, { tab: 'gone too', name: 'Typed before the crash' })
  const first = open()
  await pass(1000)
  const found = [first.work.restored.value, first.name(), kept.name]
  first.work.undo()
  found.push(first.name())
  await pass(1000)
  first.unmount()
  return [...found, kept.name, (await rows('drafts')).map((row) => row.tab)]
}

export async function whatHadReachedTheServerIsForgotten() {
  await left({ tab: 'gone', name: 'One' })
  const { work } = open()
  await pass(1000)
  return [work.restored.value, work.state.value, await draft()]
}

export async function eachTabHasItsOwn() {
  await left({ tab: 'there', name: 'Typed in the other tab' })
  locks.add('upper-pane:tab:there')
  const { work, typed, name } = open()
  await pass(10)
  const seen: unknown[] = [work.restored.value, name()]
  refusing = 'away'
  typed('Mine')
  await pass(1000)
  seen.push((await rows('drafts')).map((row) => (JSON.parse(row.document) as Doc).name).sort())
  refusing = null
  await pass(4000)
  return [...seen, kept.name, (await rows('drafts')).map((row) => row.tab)]
}

export async function somebodyElsesIsNotMine() {
  await left({ tab: 'gone', name: 'Typed by Mark', login: 'mark' })
  const { work, name } = open()
  await pass(1000)
  return [work.restored.value, name(), await draft()]
}

export async function theWayBackIsThereAfterComingBack() {
  const first = open()
  await pass(10)
  for (const next of ['A', 'B', 'C']) first.typed(next)
  first.work.undo()
  first.unmount()
  await pass(1000)
  const second = open()
  await pass(10)
  const seen: unknown[] = [second.name(), second.work.restored.value, second.work.revision.value]
  second.work.redo()
  seen.push(second.name())
  for (let i = 0; i < 9; i++) second.work.undo()
  seen.push(second.name())
  await pass(1000)
  second.unmount()
  await pass(10)
  kept = { name: 'Theirs' }
  revision = 9
  const third = open()
  await pass(10)
  return [...seen, third.name(), third.work.canUndo.value, third.work.canRedo.value]
}

/** An earlier revision was put back: what stood there is a step back from it. */
/** Killed before it was noted that a step back had been saved. */
export async function aStepBackIsKnownThatNobodyNoted() {
  const { work, typed, unmount } = open()
  await pass(10)
  for (const name of ['A', 'B', 'C']) typed(name)
  await pass(1000)
  unmount()
  await pass(10)
  ;[kept, revision] = [{ name: 'A' }, revision + 1]
  const after = open()
  await pass(10)
  const found: unknown[] = [after.name(), after.work.canUndo.value]
  after.work.redo()
  after.work.redo()
  return [...found, after.name(), after.work.canRedo.value, work.state.value]
}

export async function whatIsPutBackCanBeUndone() {
  const { work, typed, name } = open()
  await pass(10)
  typed('A')
  await pass(1000)
  kept = { name: 'Earlier' }
  revision = 3
  void work.reopen()
  await pass(100)
  const names = [name()]
  while (work.canUndo.value) {
    work.undo()
    names.push(name())
  }
  return [...names, work.revision.value]
}

/** The tab was killed after a change of which only the draft was kept. */
export async function theWayBackFromWhatAKilledTabLeft() {
  const first = open()
  await pass(10)
  first.typed('A')
  await pass(1000)
  refusing = 'away'
  first.typed('B')
  await pass(1000)
  // Nothing of it is unmounted; another page of this tab is opened.
  refusing = null
  const second = open()
  await pass(10)
  const names = [second.name()]
  while (second.work.canUndo.value) {
    second.work.undo()
    names.push(second.name())
  }
  return [second.work.restored.value, ...names]
}

/** As it was kept by a desk of before; and such a one that cannot be read. */
export async function whatADeskOfBeforeKeptIsTakenOver() {
  storage.kept.set('upper-pane:draft:x', JSON.stringify({ base: 1, document: { name: 'Old draft' }, display: null }))
  storage.kept.set('upper-pane:draft:y', '{"base": 1, "docu')
  const { work, name } = open()
  await pass(1000)
  return [work.restored.value, name(), kept.name, [...storage.kept.keys()].filter((key) => key.startsWith('upper-pane:draft'))]
}

export async function aDraftOfAnOlderRevisionIsNotPutOverANewerOne() {
  await left({ tab: 'gone', base: 3, name: 'Old draft' })
  revision = 5
  kept = { name: 'Newer' }
  const { work, name } = open()
  await pass(1000)
  return [work.state.value, name(), kept.name]
}

export async function aBrowserThatKeepsNothingDoesNotStandInTheWay() {
  Object.defineProperty(globalThis, 'indexedDB', {
    value: {
      open: () => {
        throw new DOMException('No.', 'SecurityError')
      },
    },
  })
  const { work, typed } = open()
  await pass(10)
  typed('Two')
  await pass(100)
  const told = work.trouble.value
  await pass(1000)
  return [told, work.state.value, kept.name]
}

export async function leavingSavesAtOnce() {
  const { typed, unmount } = open()
  await pass(10)
  typed('Two')
  unmount()
  await pass(10)
  const put = [server.log('PUT'), kept.name]
  const count = server.calls.length
  await pass(5000)
  return [...put, server.calls.length - count]
}

export async function savingByHandWaitsForNothingAndSavesNothingTwice() {
  const { work, typed } = open()
  await pass(10)
  await work.save()
  const counts = [server.log('PUT').length]
  typed('Two')
  work.setDisplay('d1')
  await work.save()
  counts.push(server.log('PUT').length)
  await work.save()
  await pass(2000)
  return [...counts, server.log('PUT').length, server.calls.at(-1)!.body.display]
}

export async function theDisplayChosenWhileTheServerAnswersStays() {
  const { work } = open()
  await pass(10)
  server.ms = 300
  work.setDisplay('d1')
  await pass(800)
  work.setDisplay('d2')
  await pass(2000)
  return [work.display.value, shownOn, work.state.value, server.log('PUT').length]
}

export async function aDesignThatIsNotThereSaysSoAndOneThatIsAwayIsAskedForAgain() {
  refusing = { status: 404, body: { error: { code: 'not.found', message: 'This layout is not there, or no longer.' } } }
  const gone = open()
  await pass(9000)
  const seen: unknown[] = [gone.work.state.value, gone.work.trouble.value, server.calls.length]
  refusing = { status: 503, body: 'nginx says no' }
  const away = open()
  await pass(1000)
  seen.push(away.work.state.value)
  refusing = null
  await pass(3100)
  return [...seen, away.work.state.value]
}
