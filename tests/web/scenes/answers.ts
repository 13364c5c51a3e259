import { readFileSync } from 'node:fs'
import { put, touched } from '@/player/answered'
import { Answering } from '@/player/answering'
import { type Entered, type Entry, type TriggersMap, begun, resumed, shifted, until, whyNot } from '@/player/answers'
import { type RunSheet, partsAt } from '@/pane/sheet'

interface Case {
  sheet: RunSheet & { triggers: TriggersMap[] }
  from: number
  to: number
  entries: Entry[]
  looks: number[]
}
const given = <T>() => JSON.parse(readFileSync(`${process.env.SCENE_GIVEN}`, 'utf8')) as T

/** What each map comes to, and what is drawn at some instants: entries of one instant are said at once, and time passes in uneven steps. */
export function played() {
  return given<Case[]>().map(({ sheet, from, to, entries, looks }) => {
    const runs = sheet.triggers.map((map) => begun(map, from))
    const entered: [string, Entered][] = sheet.triggers.map((map, n) => [map.id, runs[n]!.entered])
    const shown: string[][] = []
    const told = sheet.triggers.flatMap((map) => map.told.map(({ at_ms: at, signal, value }): Entry => ({ at, value, only: signal })))
    const all = [...entries, ...told]
    const instants = [...new Set([...all.map(({ at }) => at), ...looks, to - 1])].sort((a, b) => a - b)
    for (const at of instants) {
      sheet.triggers.forEach((map, n) => {
        const after = until(
          map,
          runs[n]!,
          at,
          all.filter((one) => one.at === at),
        )
        runs[n] = after.run
        entered.push(...after.entered.map((one): [string, Entered] => [map.id, one]))
      })
      if (!looks.includes(at)) continue
      put(sheet, new Map(sheet.triggers.map((map, n) => [map.id, runs[n]!.entered])))
      shown.push(partsAt(sheet, at).map((part) => `${part.element} ${'text' in part ? part.text : ''}`))
    }
    return { entered: entered.map(([map, { at, state, why }]) => [map, at - from, state, why]), shown }
  })
}

/** The clock is set by an hour while a state lingers; and the map is compiled anew. */
export function setAndRenewed() {
  const map = given<TriggersMap>()
  const at = 1_000_000
  const { run } = until(map, begun(map, at), at + 1000, [{ at: at + 1000, signal: 'go' }])
  const later = shifted(map, run, -3_600_000)
  const renewed = resumed({ ...map, told: [] }, run, map, at + 2000)
  const gone = resumed({ ...map, states: map.states.slice(0, 1) }, run, map, at + 2000)
  const ends = (one: typeof run, from: number) => until(map, one, from + 60_000).entered.map((e) => [e.at - from, e.state])
  return { set: ends(later, at - 3_600_000), renewed: ends(renewed, at), gone: gone.state }
}

export function refused() {
  const map = given<TriggersMap>()
  const all: Record<string, unknown>[] = [
    { sensor: 's1', mm: 1200 },
    { sensor: 's1', mm: null },
    { sensor: 's1', mm: -5 },
    { sensor: 's1', mm: 'near' },
    { sensor: 's1', band: 9 },
    { sensor: 's1', button: '1' },
    { sensor: 's9', mm: 3 },
    { sensor: 'b1', mm: 3 },
    { sensor: 'b1', button: '1' },
    { sensor: 's1' },
    { signal: 'go' },
    { signal: 'gone' },
    { touch: { x: 1 } },
    { key: 5 },
    { source: 'sea', value: 'high' },
    {},
    { key: 'a', signal: 'go' },
  ]
  return all.map((one) => whyNot([map], one))
}

/** Where points of the canvas lie on what plays, in sheets in which that lies elsewhere. */
export function touchedWhere() {
  return given<{ sheet: RunSheet; at: number; points: [number, number][] }[]>().map(({ sheet, at, points }) =>
    points.map(([x, y]) => {
      const point = touched(sheet, at, x, y)
      return point && [Math.round(point.x), Math.round(point.y)]
    }),
  )
}

/** What a player makes of readings: what is due between them, a clock that is set, and a sensor that does not stop. */
export function heard() {
  const sheet = given<RunSheet>()
  const told: (string | null)[] = []
  let [now, even] = [10_000_000, 0]
  const answering = new Answering(
    () => now,
    () => even,
    (why) => told.push(why),
  )
  const pass = (ms: number, set = 0) => {
    now += ms + set
    even += ms
    return answering.pass().due
  }
  const state = () => answering.entered.get('post')!.state
  const seen: unknown[] = []
  answering.take(sheet)
  seen.push(answering.hearsKey('F4'), answering.hearsKey('q'), answering.hearsTouch)
  answering.hear([{ signal: 'go' }])
  seen.push(state(), pass(2000) - now)
  pass(0, -3_600_000)
  seen.push(state(), pass(2999) - now, state(), pass(1), state())
  // Compiled anew meanwhile: it stands where it stood.
  answering.hear([{ signal: 'go' }])
  answering.take(structuredClone(sheet))
  seen.push(state())
  pass(5000)
  const flood = answering.hear(Array.from({ length: 5000 }, () => ({ sensor: 's1', mm: 100 })))
  seen.push(flood, told.at(-1))
  pass(1000)
  answering.hear([{ sensor: 's1', mm: null }])
  // Another wrong thing soon after is not told; one after a while is; and when all was right for long, nothing.
  const wrong = (mm: unknown) => answering.hear([{ sensor: 's1', mm }])
  seen.push(
    wrong('near'),
    told.length,
    pass(9000) && wrong('far'),
    told.at(-1),
    pass(59_999) && told.length,
    pass(1) && told.at(-1),
    wrong(-1),
    told.at(-1),
  )
  return seen.map((one) => (one === Infinity ? 'never' : one))
}
