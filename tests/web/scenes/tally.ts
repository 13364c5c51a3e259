import type { Part } from '../../../web/src/pane/sheet'
import type { Standing } from '../../../web/src/pane/stage'
import { answeredNow } from '../../../web/src/player/answered'
import type { Entered, TriggersMap } from '../../../web/src/player/answers'
import { QUARTER_MS, Tally } from '../../../web/src/player/tally'

/** What is said to have been shown comes from what was drawn (web/src/player/tally.ts). */

const box = { x: 0, y: 0, width: 9, height: 9 }
const item = (name: string, begun: number, isThere = true): Standing => ({
  part: {
    id: `main:${name}`,
    element: 'main',
    kind: 'zone',
    item: name,
    rect: box,
    drawn: box,
    media: { name: `${name}.png`, width: 9, height: 9 },
  } satisfies Part,
  begun,
  isThere,
  trouble: null,
})
const words: Standing = {
  part: { id: 'head', element: 'head', kind: 'background', fill: '#000000', rect: box, drawn: box },
  begun: null,
  isThere: true,
  trouble: null,
}
let ids = 0
const begun = (kept: string | null = null, most?: number) => new Tally(kept, () => `batch ${++ids}`, most)
const told = (tally: Tally) =>
  tally.next()?.seen.map(({ item, quarter, first, last, times, ms, missed, missed_ms }) => [item, quarter, first, last, times, ms, missed, missed_ms])

/** Drawn twice in a second, as long as it stands. */
function pass(tally: Tally, from: number, to: number, standing: (at: number) => Standing[]) {
  for (let at = from; at < to; at += 500) tally.look(at, standing(at))
}

export function counts() {
  const tally = begun()
  pass(tally, 10_000, 40_000, (at) => [item('i1', 10_000 + Math.floor((at - 10_000) / 10_000) * 10_000), words])
  return told(tally)
}

/** A picture that comes 2 s late, one that never comes, and the next turn of it, when it does. */
export function misses() {
  const tally = begun()
  pass(tally, 0, 10_000, (at) => [item('i1', 0, at >= 2000)])
  pass(tally, 10_000, 20_000, () => [item('i2', 10_000, false)])
  pass(tally, 20_000, 30_000, () => [item('i2', 20_000)])
  return told(tally)
}

export function quarters() {
  const tally = begun()
  pass(tally, QUARTER_MS - 2000, QUARTER_MS + 3000, () => [item('i1', QUARTER_MS - 2000)])
  return told(tally)
}

/** While a thing fades into itself it has its turn twice. */
export function twice() {
  const tally = begun()
  pass(tally, 0, 10_000, () => [item('i1', 0)])
  pass(tally, 10_000, 11_000, () => [item('i1', 0), item('i1', 10_000)])
  pass(tally, 11_000, 20_000, () => [item('i1', 10_000)])
  return told(tally)
}

/** An hour in which the page slept is nobody's. */
export function sleeps() {
  const tally = begun()
  pass(tally, 0, 5000, () => [item('i1', 0)])
  pass(tally, 3_600_000, 3_605_000, () => [item('i1', 0)])
  return told(tally)
}

/** The same until it has arrived, also over a start; what is counted meanwhile goes with the next. */
export function arrives() {
  const tally = begun()
  pass(tally, 0, 5000, () => [item('i1', 0)])
  const first = tally.next()!
  pass(tally, 5000, 8000, () => [item('i1', 0)])
  const again = begun(tally.kept())
  const same = JSON.stringify(again.next()) === JSON.stringify(first)
  again.arrived('another')
  const still = again.next()!.id === first.id
  again.arrived(first.id)
  const then = told(again)
  again.arrived(again.next()!.id)
  return { same, still, then, none: again.next() }
}

export function bounded() {
  const tally = begun(null, 10)
  for (let n = 0; n < 30; n++) pass(tally, n * QUARTER_MS, n * QUARTER_MS + 1000, () => [item('i1', 0)])
  const batch = tally.next()!
  return [batch.seen.length, batch.lost, begun('{torn').next()]
}

/** What a map answered is counted as what is seen is: each state that is not rest, as often as it was entered, by what it came of. */
export function answers() {
  const tally = begun()
  const map = { id: 'post', rest: 'idle' } as TriggersMap
  const entered: [number, string, string][] = [
    [0, 'idle', 'start'],
    [10_000, 'help', 'press'],
    [14_000, 'help', 'press'],
    [20_000, 'idle', 'lapse'],
    [30_000, 'help', 'far'],
  ]
  pass(tally, 1000, 40_000, (now) => {
    const [at, state, why] = entered.filter(([one]) => one <= now).at(-1)!
    return answeredNow([map], new Map([['post', { at, state, why, row: null } satisfies Entered]])) as Standing[]
  })
  return tally.next()?.seen.map(({ element, item, times, ms }) => [element, item, times, ms])
}
