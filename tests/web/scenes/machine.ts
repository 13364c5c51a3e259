import { type Effect, type Event, type Sensed, type State, begun, next } from '@/player/machine'
import { type Pointer, keyOf } from '@/player/pointer'

/** The machine of a player against a world that does what a scene says; each scene answers what happened. */

const NOW = Date.parse('2026-06-01T10:00:00Z')
const BUILT = Date.parse('2026-05-30T00:00:00Z')

const pointer = (sha: string, more: Partial<Pointer> = {}): Pointer => ({
  revoked: false,
  player: { name: 'One', part: null, outputs: [1] },
  display: { id: 'hall', name: 'Hall', timezone: 'UTC', raster: { width: 1920, height: 1080 } },
  release: { number: 1, url: `/releases/${sha}.json`, sha256: sha, bytes: 9 },
  report_every_s: 10,
  ...more,
})

/** Files that may be needed one day are named once, and once more where others are; what stands is left alone for it. */
export function namedBeforehand() {
  const world = new World()
  const file = (name: string) => ({ name, url: `/files/${name}`, sha256: name, bytes: 5 })
  for (const names of [[], ['siren'], ['siren'], ['siren', 'face'], []]) {
    world.told = pointer('a', { beforehand: names.map(file) })
    world.pass(5000)
  }
  return world.done.flatMap((one) => (one.do === 'keep beforehand' ? [one.files.map(({ name }) => name)] : one.do === 'gather' ? [one.do] : []))
}

class World {
  state: State
  at = 0
  told: Pointer | null = pointer('a')
  /** What becomes of putting together and showing a release. */
  takes = (key: string): string | null => (key ? 'shown' : null)
  until: number | null = null
  arrives = true
  draws = true
  chance = 0.5
  /** What the clocks of player and server say. */
  clock = (at: number) => NOW + at
  date = (at: number): number | null => Math.floor((NOW + at) / 1000) * 1000
  undrawn = 0
  readonly log: string[] = []
  readonly done: Effect[] = []

  constructor(reloads: number[] = [], at = 0) {
    this.at = at
    this.state = begun('build', BUILT, null, reloads, this.clock(at))
  }

  happens(event: Event): void {
    let effects: Effect[]
    ;[this.state, effects] = next(this.state, event)
    for (const effect of effects) this.does(effect)
  }

  private does(effect: Effect): void {
    this.done.push(effect)
    const { at } = this
    this.log.push(`${at / 1000} ${effect.do}`)
    if (effect.do === 'ask')
      this.happens(
        this.told
          ? { is: 'told', at, raw: this.clock(at), date: this.date(at), took: 20, pointer: this.told }
          : { is: 'unanswered', at, why: 'nobody answers' },
      )
    else if (effect.do === 'gather') {
      const why = this.takes(effect.key)
      if (why === 'shown') this.happens({ is: 'gathered', key: effect.key })
      else if (why !== null) this.happens({ is: 'failed', key: effect.key, at, why, chance: 0.5 })
    } else if (effect.do === 'show') {
      const sha256 = effect.key.split(' ')[0]!
      this.undrawn = 0
      this.happens({ is: 'shown', glass: { key: effect.key, sha256, since: new Date(NOW + at).toISOString(), output: 1, until: this.until } })
    } else if (effect.do === 'report') this.happens({ is: 'reported', at, arrived: this.arrives })
  }

  pass(ms: number): this {
    for (const end = this.at + ms; this.at < end;) {
      this.at += 500
      this.undrawn = this.draws || !this.state.glass ? 0 : this.undrawn + 500
      this.happens({
        is: 'beat',
        at: this.at,
        raw: this.clock(this.at),
        undrawn: this.undrawn,
        chance: this.chance,
        hour: new Date(NOW + this.at).getUTCHours(),
      })
    }
    return this
  }

  /** At which seconds something was done. */
  times(what: Effect['do'], from = 0): number[] {
    return this.log
      .filter((one) => one.endsWith(` ${what}`))
      .map(Number.parseFloat)
      .filter((s) => s > from)
  }

  get reports() {
    return this.done.flatMap((one) => (one.do === 'report' ? [one.report] : []))
  }
}

/** What was said last is played before anybody answers, and also where nobody does. */
export function withoutAServer() {
  const world = new World()
  world.told = null
  world.happens({ is: 'told', at: 0, raw: world.clock(0), date: null, took: 0, pointer: pointer('kept') })
  const at = world.log.join(', ')
  world.pass(3_600_000)
  const asked = world.times('ask')
  return {
    begins: at,
    glass: world.state.glass?.sha256,
    asked: asked.length,
    longest: Math.max(...asked.slice(1).map((s, i) => s - asked[i]!)),
    notes: world.times('note'),
  }
}

export function aPlayerOfADay() {
  const world = new World()
  world.pass(20_000)
  world.told = pointer('b')
  world.pass(86_380_000)
  return {
    asked: world.times('ask').length,
    gathered: world.times('gather'),
    reported: [...new Set(world.reports.map((one) => one.release))],
    rhythm: [
      ...new Set(
        world
          .times('report', 40)
          .map((s, i, all) => (i ? s - all[i - 1]! : 0))
          .slice(1),
      ),
    ],
  }
}

/** The old one goes on, what is wrong is told, and it is tried again less and less; another one is tried at once. */
export function aReleaseThatCannotBeTaken() {
  const world = new World().pass(5000)
  world.told = pointer('broken')
  world.takes = (key) => (key.startsWith('broken') ? 'It cannot be drawn.' : 'shown')
  world.pass(600_000)
  const tried = world.times('gather', 5)
  const before = {
    glass: world.state.glass?.sha256,
    trouble: world.reports.at(-1)?.trouble,
    tries: tried.length,
    last: tried.at(-1)! - tried.at(-2)!,
  }
  world.told = pointer('c')
  world.pass(3000)
  return { before, glass: world.state.glass?.sha256, trouble: world.reports.at(-1)?.trouble }
}

/** Another release is handed over while one is still being fetched: what comes of the first is nobody's business any more. */
export function overtaken() {
  const world = new World()
  world.takes = (key) => (key.startsWith('a') ? null : 'shown')
  world.pass(5000)
  world.told = pointer('b')
  world.pass(3000)
  world.happens({ is: 'gathered', key: keyOf(pointer('a')) })
  world.happens({ is: 'failed', key: keyOf(pointer('a')), at: world.at, why: 'late', chance: 0 })
  return {
    shown: world.done.flatMap((one) => (one.do === 'show' ? [one.key.split(' ')[0]] : [])),
    glass: world.state.glass?.sha256,
    troubles: world.state.troubles,
  }
}

/** Nothing is drawn any more: loaded anew, and the third time it shows its last picture and says so, until something else is handed over. */
export function nothingIsDrawn() {
  let reloads: number[] = []
  const seen: string[] = []
  for (let n = 0; n < 4; n++) {
    const world = new World(reloads, n * 20_000)
    world.draws = false
    world.pass(15_000)
    const reload = world.done.find((one) => one.do === 'reload')
    if (reload?.do === 'reload') {
      reloads = reload.reloads
      seen.push(`loaded anew after ${world.times('reload')[0]! - n * 20} s`)
    } else {
      seen.push(world.times('last picture').length ? 'last picture' : 'nothing', world.reports.at(-1)?.trouble ?? '')
      world.told = pointer('b')
      world.draws = true
      world.pass(3000)
      seen.push(`then ${world.state.glass?.sha256}`)
    }
  }
  // Three in a long time are none too many.
  const rarely = begun('build', BUILT, null, [NOW - 9_000_000, NOW - 5_000_000, NOW - 5000], NOW).safe
  return { seen, rarely }
}

export function takenBack() {
  const world = new World().pass(5000)
  world.told = { revoked: true }
  world.pass(60_000)
  return world.log.slice(-2)
}

/** What is said and does not arrive is said again, less and less; what changed goes with it. */
export function reportsThatDoNotArrive() {
  const world = new World()
  world.arrives = false
  world.pass(120_000)
  const first = world.times('report')
  world.arrives = true
  world.pass(60_000)
  const from = world.at / 1000
  world.happens({ is: 'trouble', of: 'sound', why: { says: 'Held back.', element: 'main', item: 'i3' } })
  world.pass(1000)
  return {
    first: first.length,
    gaps: first.slice(1, 5).map((s, i) => s - first[i]!),
    change: world.times('report', from),
    said: world.reports.at(-1)?.trouble,
  }
}

/** What sensors say, and what is answered, goes along with the rest; it is told at once to whoever wants to learn it, or has asked for something. */
export function sensed() {
  const world = new World()
  world.pass(21_000)
  const heard = (times: number) => [{ said: { sensor: 'b1', button: '7' }, last: new Date(NOW).toISOString(), times, known: false }]
  const answers = (state: string) => [{ map: 'post', state, why: 'help', since: new Date(NOW).toISOString() }]
  const says = (sensed: Sensed, ms = 1000) => {
    const before = world.times('report').length
    world.happens({ is: 'sensed', at: world.at, sensed })
    world.pass(ms)
    return world.times('report').length - before
  }
  const told = {
    heard: says({ heard: heard(1) }),
    answered: says({ heard: heard(1), answers: answers('help') }),
    asked: says({ heard: heard(1), answers: answers('desk'), took: ['a'] }),
    'over again': says({ heard: heard(1), answers: answers('rest'), took: ['a'] }),
  }
  world.told = pointer('a', { learns_until: new Date(NOW + 60_000).toISOString() })
  world.pass(8000)
  const learnt = says({ heard: heard(2), answers: answers('rest'), took: ['a'] })
  world.pass(900_000)
  const later = says({ heard: heard(3), answers: answers('help'), took: ['a'] }, 500)
  world.pass(12_000)
  const last = world.reports.at(-1)
  return { ...told, learnt, later, last: [last?.heard?.[0]?.times, last?.answers?.[0]?.state, last?.took] }
}

/** Something that is planned above the rest begins, and the alignment picture goes, both without a server. */
export function byTheClock() {
  const world = new World()
  world.told = pointer('a', { alignment: { until: new Date(NOW + 60_000).toISOString(), canvas: { width: 1, height: 1 }, outputs: [] } })
  world.until = NOW + 30_000
  world.pass(1000)
  world.until = null
  world.told = null
  world.pass(120_000)
  return {
    gathered: world.times('gather'),
    aligned: world.done.flatMap((one, n) => (one.do === 'align' ? [`${world.log[n]} ${one.pointer ? 'on' : 'off'}`] : [])),
  }
}

/** A later build is looked for once it is said to be there, and the page goes at the next change once it is there, whole; so does an old page, at night. */
export function aLaterBuild() {
  const world = new World().pass(5000)
  world.told = pointer('a', { build: 'build' })
  world.pass(5000)
  world.told = pointer('a', { build: 'later' })
  world.pass(600_000)
  const looked = world.times('look for a page')
  world.happens({ is: 'renewed' })
  world.happens({ is: 'renewed' })
  world.pass(600_000)
  const old = new World()
  old.chance = 0.0005
  old.pass(3 * 86_400_000)
  return {
    looked,
    leaves: world.times('reload at a change'),
    after: world.times('look for a page').length,
    old: old.times('reload at a change').map((s) => new Date(NOW + 1000 * s).toISOString().slice(0, 13)),
  }
}

/** Clocks that are wrong: a little, a lot, and beyond belief. */
export function wrongClocks() {
  const seen: Record<string, unknown> = {}
  const with_ = (ms: number, server = true) => {
    const world = new World()
    world.clock = (at) => NOW + at + ms
    if (!server) world.told = null
    world.state = begun('build', BUILT, null, [], world.clock(0))
    return world
  }
  for (const [name, ms] of Object.entries({ '3 s fast': 3000, '3 min slow': -180_000, '2 h fast': 7_200_000, 'in 1970': -NOW })) {
    const world = with_(ms).pass(10_000)
    seen[name] = [Math.round((world.state.offset + ms) / 1000), world.reports.at(-1)?.trouble, world.state.glass?.sha256]
  }
  // It is set right: the correction goes.
  const mended = with_(-180_000).pass(10_000)
  mended.clock = (at) => NOW + at
  mended.pass(10_000)
  seen['set right'] = [mended.state.offset, mended.reports.at(-1)?.trouble]
  // Nobody answers, and the clock is beyond belief: it stands still as it was last, until somebody does.
  const nothing = with_(-NOW, false)
  nothing.happens({ is: 'told', at: 0, raw: 0, date: null, took: 0, pointer: pointer('kept') })
  nothing.pass(1000)
  seen['1970, and nothing remembered'] = nothing.log.filter((one) => !one.endsWith(' ask') && !one.endsWith(' report'))
  const alone = with_(-NOW, false)
  alone.state.lastGood = NOW - 500
  alone.happens({ is: 'told', at: 0, raw: 0, date: null, took: 0, pointer: pointer('kept') })
  alone.pass(60_000)
  const before = [
    alone.log.filter((one) => !one.endsWith(' ask') && !one.endsWith(' report')),
    alone.state.frozen,
    alone.state.troubles.unbelieved?.says,
  ]
  alone.told = pointer('kept')
  alone.pass(15_000)
  seen['1970 and nobody there'] = [...before, alone.state.frozen, alone.state.glass?.sha256, alone.reports.at(-1)?.trouble]
  // Set back to 1970 while it plays, and nobody there: it goes on as before.
  const set = with_(0).pass(10_000)
  set.told = null
  set.clock = (at) => at
  set.pass(3_600_000)
  seen['set back'] = [set.clock(set.at) + set.state.offset - NOW - set.at, set.state.troubles.clock?.says]
  // Asleep for an hour: the clock is right when it wakes.
  const asleep = with_(0).pass(10_000)
  asleep.clock = (at) => NOW + at + 3_600_000
  asleep.date = (at) => Math.floor((NOW + at + 3_600_000) / 1000) * 1000
  asleep.pass(10_000)
  seen['asleep'] = [asleep.state.offset, asleep.reports.at(-1)?.trouble]
  return seen
}

/** Whatever happens in whatever order: the pointer is asked for again soon, and what it names is put together unless that failed just now. */
export function anythingAtAll() {
  let seed = 13
  const chance = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647
  const wrong: string[] = []
  for (let round = 0; round < 200; round++) {
    const world = new World()
    world.takes = () => [null, 'shown', 'no'][Math.floor(chance() * 3)]!
    for (let n = 0; n < 60; n++) {
      const key = keyOf(pointer('abc'[Math.floor(chance() * 3)]!))
      const events: Event[] = [
        { is: 'told', at: world.at, raw: world.clock(world.at), date: null, took: 0, pointer: pointer('abc'[Math.floor(chance() * 3)]!) },
        { is: 'unanswered', at: world.at, why: 'x' },
        { is: 'gathered', key },
        { is: 'failed', key, at: world.at, why: 'x', chance: chance() },
        { is: 'trouble', of: 'x', why: chance() < 0.5 ? null : { says: 'y' } },
        { is: 'reported', at: world.at, arrived: chance() < 0.5 },
        { is: 'to choose', key, outputs: [] },
      ]
      world.happens(events[Math.floor(chance() * events.length)]!)
      if (chance() < 0.3) world.pass(500 * Math.ceil(chance() * 20))
    }
    world.told = pointer('d')
    world.takes = () => 'shown'
    const from = world.at / 1000
    world.pass(35_000)
    if (world.times('ask', from).length === 0) wrong.push(`round ${round}: nobody asks`)
    if (world.state.glass?.sha256 !== 'd') wrong.push(`round ${round}: ${world.state.glass?.sha256} stands`)
  }
  return { rounds: 200, wrong }
}
