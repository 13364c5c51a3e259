import 'fake-indexeddb/auto'
import { readFileSync } from 'node:fs'
import { ask, newId, session, signIn } from '@/hurry/server'
import type { RunSheet } from '@/pane/sheet'
import { Stage } from '@/pane/stage'
import { Fetcher, type News, type Wanted } from '@/player/fetcher'
import { type Bundle, Larder } from '@/player/larder'
import { type Effect, type Event, begun, next } from '@/player/machine'
import { pointerOf } from '@/player/pointer'
import { Store } from '@/player/store'
import { type Element_, page } from './page'

/** Players of a desk that runs, all in one Node: the machine, the larder and the stage of the page, with a store of its own for each. */

interface Given {
  base: string
  secrets: string[]
  takeover: Record<string, unknown>
  /** Words of the takeover. */
  words: string
  lasts_ms: number
}
const BEAT_MS = 500
const LOOK_MS = 40
const GIVEN_UP_MS = 60_000

const rest = (ms: number) => new Promise((done) => setTimeout(done, ms))
const outside = {
  fetch: (url: string, init: RequestInit) => fetch(url, init),
  later(ms: number, work: () => void) {
    const timer = setTimeout(work, ms)
    return () => clearTimeout(timer)
  },
  random: () => Math.random(),
  room: () => Promise.resolve(Infinity),
  alone: (_: string, work: () => Promise<void>) => work(),
}

class Drawing {
  private readonly host: Element_ = page.open()
  private readonly stage = new Stage(this.host as unknown as HTMLElement, (id) => ({ url: `/files/${id}`, type: 'image/png' }))
  show(sheet: RunSheet) {
    this.stage.show(sheet)
  }
  /** What is drawn where, and what it says. */
  at(ms: number): [string | undefined, unknown, string][] {
    this.stage.draw(ms, false)
    const says = (part: Element_) => part.all().map((one) => one.textContent)
    return page.parts(this.host.children[0]!).map((part) => [part.dataset.element, part.seen, says(part).join('')])
  }
}

class Player {
  readonly drawing = new Drawing()
  sheet: RunSheet | null = null
  inContact = true
  private bundle: Bundle | null = null
  private wrong: unknown = null
  private state = begun('node', 0, null, [], Date.now())
  private constructor(
    private readonly secret: string,
    private readonly larder: Larder,
  ) {}

  static async on(secret: string) {
    const store = await Store.open(secret)
    const hearing: ((news: News) => void)[] = []
    const fetcher = new Fetcher(store, outside, (news) => hearing.forEach((hear) => hear(news)))
    const keeper = {
      want: (wanted: Wanted[]) => fetcher.want(wanted),
      first: (url: string) => fetcher.first(url),
      onNews: (hear: (news: News) => void) => void hearing.push(hear),
    }
    return new Player(secret, new Larder(store, '', keeper, () => undefined))
  }
  async beats(after: number) {
    await rest(after)
    for (;;) {
      this.happened({ is: 'beat', at: performance.now(), raw: Date.now(), undrawn: 0, chance: Math.random(), hour: 12 })
      await rest(BEAT_MS)
    }
  }
  begun(): RunSheet {
    if (this.sheet === null)
      throw new Error(`Nothing plays on ${this.secret}: ${JSON.stringify([this.state.gatherTries, this.state.gathering, this.wrong])}`)
    return this.sheet
  }
  private happened(event: Event) {
    if ('why' in event) this.wrong = event.why
    let effects: Effect[]
    ;[this.state, effects] = next(this.state, event)
    for (const effect of effects) void this.does(effect)
  }
  private async does(effect: Effect) {
    if (effect.do === 'ask') return this.ask()
    if (effect.do === 'report') return this.happened({ is: 'reported', at: performance.now(), arrived: this.inContact })
    if (effect.do === 'gather') {
      try {
        this.bundle = await this.larder.gather(effect.pointer, null, () => Date.now())
        this.happened({ is: 'gathered', key: effect.key })
      } catch (e) {
        this.happened({ is: 'failed', key: effect.key, at: performance.now(), why: String(e), chance: Math.random() })
      }
    }
    if (effect.do === 'show' && this.bundle?.key === effect.key) {
      const { key, sha256, until, output, sheet } = this.bundle
      this.drawing.show((this.sheet = sheet))
      this.happened({ is: 'shown', glass: { key, sha256, since: '', output: output.output, until } })
    }
  }
  private async ask() {
    const asked = performance.now()
    try {
      if (!this.inContact) throw new TypeError('fetch failed')
      const answer = await fetch(`/pointers/${this.secret}.json`)
      const pointer = pointerOf(await answer.text())
      this.happened({ is: 'told', at: performance.now(), raw: Date.now(), date: null, took: performance.now() - asked, pointer })
    } catch (e) {
      this.happened({ is: 'unanswered', at: performance.now(), why: String(e) })
    }
  }
}

/** Somebody takes them over; once all have it every second one is without contact. Answers when each showed it, ms from the press, and when it was gone, ms from its end. */
export async function takenOver() {
  const { base, secrets, takeover, words, lasts_ms } = JSON.parse(readFileSync(process.env.SCENE_GIVEN!, 'utf8')) as Given
  const [reach, jar] = [globalThis.fetch, new Map<string, string>()]
  globalThis.fetch = async (url, init = {}) => {
    const headers = new Headers(init.headers)
    if (jar.size) headers.set('Cookie', [...jar].map((pair) => pair.join('=')).join('; '))
    const answer = await reach(new URL(url instanceof Request ? url.url : url, base), { ...init, headers })
    for (const [, name, value] of answer.headers.getSetCookie().map((one) => /^([^=]+)=([^;]*)/.exec(one)!)) jar.set(name!, value!)
    return answer
  }
  await session()
  await signIn('ines', 'harbour')

  const players = await Promise.all(secrets.map((secret) => Player.on(secret)))
  players.forEach((one, n) => void one.beats((n * BEAT_MS) / players.length))
  const isTaken = (one: Player) => one.drawing.at(Date.now()).some(([, , says]) => says.includes(words))
  /** When it was first so on each, by the clock; null where it never was. */
  async function each(isSo: (one: Player) => boolean): Promise<(number | null)[]> {
    const when: (number | null)[] = players.map(() => null)
    for (const begins = Date.now(); when.includes(null) && Date.now() - begins < GIVEN_UP_MS; await rest(LOOK_MS))
      players.forEach((one, n) => (when[n] ??= one.sheet !== null && isSo(one) ? Date.now() : null))
    return when
  }
  await each((one) => !isTaken(one))
  const before = players.map((one) => one.begun())
  const pressed = Date.now()
  const ends = pressed + lasts_ms
  await ask('POST', 'takeovers', { ...takeover, id: newId(), until: new Date(ends).toISOString() })
  const counted = Date.now()
  const seen = await each(isTaken)
  players.forEach((one, n) => (one.inContact = n % 2 === 0))
  const gone = await each((one) => !isTaken(one))
  const at = Date.now()
  return {
    counted: counted - pressed,
    seen: seen.map((ms) => ms && ms - pressed),
    gone: gone.map((ms) => ms && ms - ends),
    goes_on: players.map((one, n) => {
      const as = new Drawing()
      as.show(before[n]!)
      return JSON.stringify(as.at(at)) === JSON.stringify(one.drawing.at(at))
    }),
  }
}
