import { nextChange } from '../pane/sheet'
import type { Entered } from './answers'
import { bytes } from '../ui/format'
import type { News, Wanted } from './fetcher'
import { Glass } from './glass'
import type { Wish } from './keeper'
import { type Bundle, type Keeper, Larder, ToChoose } from './larder'
import { type Effect, type Event, type Report, type State, type Trouble, apart, begun, learns, next, wrong } from './machine'
import { choose, say } from './notes'
import { Page } from './page'
import { unpaired } from './pairing'
import { type Pointer, pointerOf } from './pointer'
import type { Senses } from './senses'
import { type Facts, Setup } from './setup'
import { Store } from './store'
import { Tally, told } from './tally'

declare const __BUILT__: number
const BEAT_MS = 500
const ASK_MS = 8000
const REPORT_MS = 10_000
const HOUR_MS = 3_600_000
/** What was counted is written down so often, ms. */
const KEEP_MS = 300_000
const TEST_MS = 60_000
const RELOADS = 'upper-pane:reloads'

/** Does what the machine says, and tells it what became of that. Nothing that fails here stops the heart or the drawing. */
export class Player {
  private state: State
  private readonly glass: Glass
  private larder: Larder | null = null
  private store: Store | null = null
  private bundle: Bundle | null = null
  /** What was shown last. */
  private stood: Bundle | null = null
  private drew = false
  private undrawn = 0
  private drawing = ''
  private frame = 0
  private tally = new Tally()
  private readonly setup = new Setup({ facts: () => this.facts(), test: () => this.test() })
  private talliedAt = 0
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly page: Page
  /** Loaded where anything answers. */
  private senses: Senses | null = null
  private readonly still = /^#at=(.+)$/.exec(location.hash)?.[1] ?? null
  private readonly asked = Number(new URLSearchParams(location.search).get('output')) || null

  constructor(
    private readonly host: HTMLElement,
    private readonly secret: string,
    build: string,
    private readonly keeperUrl: string,
  ) {
    this.glass = new Glass(
      host,
      () => this.now(),
      this.still !== null,
      () => this.drawIn(0),
    )
    // A page that stands still is asked for what was or will be.
    this.state = begun(build, this.still === null ? __BUILT__ : 0, this.asked, reloads(), this.raw())
    this.page = new Page(() => this.happened({ is: 'renewed' }))
  }

  async start(): Promise<void> {
    void this.page.keep()
    void this.page.keepAwake()
    if (this.still === null) this.setup.listen()
    addEventListener('resize', () => this.glass.fit())
    addEventListener('pointerdown', () => this.glass.pressed())
    try {
      const name = `upper-pane:${this.secret}`
      this.store = await Store.open(name)
      await moveIn(name, this.store)
      const tell = (of: string, says: string | null) => this.trouble(of, says)
      const fetching = keeper(this.keeperUrl, name, (why) => tell('keeper', why))
      this.larder = new Larder(this.store, String(this.asked ?? ''), fetching, tell)
      this.tally = new Tally((await this.store.fact(`tally:${this.asked ?? ''}`)) ?? null)
      addEventListener('pagehide', () => void this.keepTally(true))
      const good = Number(await this.store.fact('instant'))
      this.state = { ...this.state, lastGood: good > 0 ? good : null }
      const last = await this.store.fact('pointer')
      if (last) this.heard(pointerOf(last))
    } catch (e) {
      this.trouble('store', `This browser keeps nothing: ${inWords(e)}`)
    }
    setInterval(() => this.beat(), BEAT_MS)
    this.beat()
  }

  /** What the clock of this machine says. */
  private raw(): number {
    return this.still === null ? Date.now() : Date.parse(this.still)
  }

  /** The instant that is drawn. */
  private now(): number {
    return this.state.frozen ? this.state.lastGood! : this.raw() + this.state.offset
  }

  private happened(event: Event): void {
    let effects: Effect[] = []
    ;[this.state, effects] = next(this.state, event)
    for (const effect of effects) void this.does(effect)
  }

  private beat(): void {
    // A page that is hidden or asleep draws nothing, and nobody misses it.
    this.undrawn = this.drew || document.hidden || !this.state.glass ? 0 : this.undrawn + BEAT_MS
    if (this.drew) void this.remember()
    this.drew = false
    this.happened({
      is: 'beat',
      at: performance.now(),
      raw: this.raw(),
      undrawn: this.undrawn,
      chance: Math.random(),
      hour: new Date(this.now()).getHours(),
    })
    // Whatever became of what was asked for: there is a next frame.
    this.drawIn(0)
  }

  /** Once an hour, an instant at which all was well: where the clock is lost, it stands still there. */
  private async remember(): Promise<void> {
    const { frozen, built, offset, lastGood } = this.state
    const now = this.raw() + offset
    if (frozen || this.still !== null || now < built || (lastGood !== null && Math.abs(now - lastGood) < HOUR_MS)) return
    this.state = { ...this.state, lastGood: now }
    await this.store?.keep('instant', String(now)).catch(() => undefined)
  }

  /** Draws in so many ms; at the next heartbeat anyway. */
  private drawIn(ms: number): void {
    clearTimeout(this.timer)
    if (ms > 0) this.timer = setTimeout(() => this.drawIn(0), ms)
    else this.frame ||= requestAnimationFrame(() => this.draw())
  }

  private draw(): void {
    this.frame = 0
    let why = ''
    try {
      const due = this.senses?.pass() ?? Infinity
      const until = this.drawn(due)
      if (until !== null) {
        this.drew = true
        this.seen()
        if (until - this.now() < 2 * BEAT_MS) this.drawIn(Math.max(1, until - this.now()))
      }
    } catch (e) {
      why = `It cannot be drawn: ${inWords(e)}`
    }
    if (why !== this.drawing) this.trouble('drawing', why || null)
    this.drawing = why
    const sound = this.glass.heldBack ? 'This browser holds sound back until somebody presses the page; let it play sound by itself.' : null
    if ((this.state.troubles.sound?.says ?? null) !== sound) this.trouble('sound', sound)
  }

  private drawn(due: number): number | null {
    const until = this.glass.draw(!this.state.frozen)
    return until === null ? null : Math.min(until, due)
  }

  /** What answers here; its code comes with the first sheet, or the first question, that needs it. */
  private async answers(isNeeded: boolean): Promise<Senses | null> {
    if (isNeeded && this.still === null && !this.senses) {
      const { Senses } = await import('./senses')
      this.senses ??= new Senses(
        this.glass,
        () => (this.state.frozen ? null : this.now()),
        () => learns(this.state.pointer, this.now()),
        (why) => this.trouble('signals', why),
        (sensed) => this.happened({ is: 'sensed', at: performance.now(), sensed }),
        () => this.drawIn(0),
      )
    }
    return this.senses
  }

  /** What really stands there is counted, and what is wrong with it is told: until it is seen again, or something else is handed over. */
  private seen(): void {
    if (this.still !== null || this.state.frozen || document.hidden) return
    const standing = this.glass.standing()
    this.tally.look(this.now(), [...standing, ...(this.senses?.standing() ?? [])])
    for (const { part, isThere, trouble } of standing) {
      const of = `part ${part.id}`
      const told = this.state.troubles[of]?.says ?? null
      if (trouble !== null && trouble !== told) this.trouble(of, trouble, { element: part.element, item: part.item ?? null })
      else if (trouble === null && told !== null && isThere) this.trouble(of, null)
    }
  }

  private trouble(of: string, says: string | null, where: Omit<Trouble, 'says'> = {}): void {
    this.happened({ is: 'trouble', of, why: says === null ? null : { says, ...where } })
  }

  private async does(effect: Effect): Promise<void> {
    switch (effect.do) {
      case 'ask':
        return this.ask()
      case 'gather':
        return this.gather(effect.pointer, effect.key)
      case 'keep beforehand':
        return this.larder?.beforehand(effect.files)
      case 'show':
        return this.show(effect.key)
      case 'report':
        return this.report(effect.report)
      case 'note':
        return say(this.host, effect.title, effect.text)
      case 'choose':
        return choose(this.host, effect.outputs, effect.asked)
      case 'align':
        return this.glass.align(effect.pointer?.alignment ?? null, effect.pointer?.player?.part ?? null, this.asked)
      case 'last picture':
        return this.lastPicture()
      case 'reload':
        sessionStorage.setItem(RELOADS, JSON.stringify(effect.reloads))
        return location.reload()
      case 'look for a page':
        return this.page.look()
      case 'reload at a change':
        setTimeout(() => location.reload(), this.untilChange())
        return
      case 'end':
        return this.end()
    }
  }

  private async ask(): Promise<void> {
    try {
      const asked = performance.now()
      const answer = await fetch(`/pointers/${this.secret}.json`, { cache: 'no-cache', signal: AbortSignal.timeout(ASK_MS) })
      if (!answer.ok) throw new Error(`the server answered ${answer.status}`)
      const text = await answer.text()
      const pointer = pointerOf(text)
      const date = this.still === null ? Date.parse(answer.headers.get('Date') ?? '') : NaN
      this.heard(pointer, Number.isNaN(date) ? null : date, performance.now() - asked)
      void this.answers(learns(pointer, this.now())).then((senses) => senses?.asked(pointer.said ?? []))
      if (!pointer.revoked) await this.store?.keep('pointer', text)
    } catch (e) {
      this.happened({ is: 'unanswered', at: performance.now(), why: inWords(e) })
    }
  }

  private heard(pointer: Pointer, date: number | null = null, took = 0): void {
    this.happened({ is: 'told', at: performance.now(), raw: this.raw(), date, took, pointer })
  }

  private async gather(pointer: Pointer, key: string): Promise<void> {
    try {
      if (!this.larder) throw new Error('This browser keeps nothing, so that nothing can be played.')
      this.bundle = await this.larder.gather(pointer, this.asked, () => this.now())
      this.happened({ is: 'gathered', key })
    } catch (e) {
      this.happened(e instanceof ToChoose ? { is: 'to choose', key, outputs: e.outputs } : this.failed(key, e))
    }
  }

  private async show(key: string): Promise<void> {
    const bundle = this.bundle
    if (bundle?.key !== key) return
    try {
      const senses = await this.answers((bundle.sheet.triggers ?? []).length > 0)
      senses?.take(bundle.sheet)
      await this.glass.show(bundle)
      this.stood = bundle
      senses?.stand(bundle.sheet)
      this.drew = true
      const { sha256, until, output } = bundle
      const since = new Date(this.now()).toISOString().replace(/\.\d+Z$/, 'Z')
      this.happened({ is: 'shown', glass: { key, sha256, since, output: output.output ?? this.asked, until } })
      void this.remember()
      await this.larder!.stands(bundle)
      const picture = this.glass.largestPicture()
      const file = bundle.file.media.find((one) => one.id === picture)
      if (file) await this.store!.keep('picture', file.url)
    } catch (e) {
      if (this.stood) this.senses?.take(this.stood.sheet)
      this.happened(this.failed(key, e))
    }
  }

  private failed(key: string, e: unknown): Event {
    return { is: 'failed', key, at: performance.now(), why: inWords(e), chance: Math.random() }
  }

  private async report(report: Report): Promise<void> {
    let arrived = false
    const batch = this.tally.next()
    try {
      const body = { ...report, ...(await this.machine()), ...(batch && { batch: told(batch) }) }
      const init = {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(REPORT_MS),
      }
      arrived = (await fetch(`/api/play/${this.secret}/report`, init)).ok
      if (arrived && batch) this.tally.arrived(batch.id)
    } catch {
      // Said again.
    }
    await this.keepTally(arrived && batch !== null)
    this.happened({ is: 'reported', at: performance.now(), arrived, more: arrived && this.tally.hasMore })
  }

  /** What the set-up page tells. */
  private async facts(): Promise<Facts> {
    const { usage, quota } = (await navigator.storage?.estimate?.().catch(() => null)) ?? {}
    const { all, missing } = this.larder?.progress() ?? { all: 0, missing: [] }
    const { pointer, glass, ahead } = this.state
    const release = pointer?.release?.number
    return {
      player: pointer?.player?.name ?? 'Player',
      display: pointer?.display?.name ?? 'no display yet',
      plays: glass ? `release ${release ?? ''} since ${new Date(glass.since).toLocaleTimeString('en-GB')}` : 'nothing yet',
      output: this.bundle?.output.output ?? this.asked,
      outputs: this.bundle?.outputs ?? [],
      lines: [
        ['Drawn', this.glass.measure()],
        [
          'Kept',
          `${all - missing.length} of ${all} files${usage === undefined || quota === undefined ? '' : `, ${bytes(usage)} of ${bytes(quota)}`}`,
        ],
        ...missing.slice(0, 5).map((name): [string, string] => ['Missing', name]),
        ['Time', `${new Date(this.now()).toLocaleString('en-GB')}${ahead === null ? ', the server has not said its own' : skew(ahead)}`],
        ['Screen', this.page.isAwake ? 'is kept from going dark' : 'may go dark by itself: set that off on this machine'],
        ['Page', this.state.build],
      ],
      troubles: Object.values(this.state.troubles).map(({ says }) => says),
    }
  }

  /** Who each output is, for a minute. */
  private test(): void {
    if (!this.bundle) return
    const { output, outputs } = this.bundle
    const canvas = this.bundle.file.display.raster
    this.glass.align({ until: '', canvas, outputs }, null, output.output, output)
    setTimeout(() => this.glass.align(null, null, null), TEST_MS)
  }

  /** How the machine is: its clock, its memory and its disk. */
  private async machine(): Promise<object> {
    const { usage, quota } = (await navigator.storage?.estimate?.().catch(() => null)) ?? {}
    // Chromium alone tells it.
    const heap = (performance as unknown as { memory?: { usedJSHeapSize: number } }).memory?.usedJSHeapSize
    return {
      ...(this.state.ahead !== null && { clock_ms: Math.round(this.state.ahead) }),
      ...(heap !== undefined && { heap_bytes: heap }),
      films: document.querySelectorAll('video').length,
      ...(usage !== undefined && { kept_bytes: usage }),
      ...(quota !== undefined && { room_bytes: quota }),
      ...(this.page.persists !== null && { persists: this.page.persists }),
    }
  }

  /** What was counted outlives a start; a disk is not written to for every turn. */
  private async keepTally(isUrgent: boolean): Promise<void> {
    const now = performance.now()
    if (!isUrgent && now - this.talliedAt < KEEP_MS) return
    this.talliedAt = now
    await this.store?.keep(`tally:${this.asked ?? ''}`, this.tally.kept()).catch(() => undefined)
  }

  private async lastPicture(): Promise<void> {
    const url = await this.store?.fact('picture')
    const blob = url && (await this.store?.blob(url))
    if (blob) this.glass.picture(URL.createObjectURL(blob))
    else say(this.host, 'Player', 'No picture is kept here yet. It is tried again by itself.')
  }

  /** ms until something else is shown; where that is not within the hour, any time soon. */
  private untilChange(): number {
    const change = this.bundle && nextChange(this.bundle.sheet, this.now())
    const ms = change === null ? Infinity : change - this.now()
    return ms < 3_600_000 ? ms : 20_000 * Math.random()
  }

  private async end(): Promise<void> {
    this.glass.clear()
    unpaired()
    say(this.host, 'This player was taken back', 'Its address works no more. Open /player to bind it anew.')
    await Store.remove(`upper-pane:${this.secret}`)
  }

  // What is looked at from outside.
  get entered(): [string, Entered][] {
    return this.senses?.entered ?? []
  }

  get playsSha256(): string | null {
    return this.state.glass?.sha256 ?? null
  }

  get told(): string | null {
    return wrong(this.state)
  }

  settled(): Promise<void> {
    return this.glass.settled()
  }
}

function reloads(): number[] {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(RELOADS) ?? '[]')
    return Array.isArray(kept) ? kept.filter((one) => typeof one === 'number') : []
  } catch {
    return []
  }
}

function keeper(url: string, store: string, stopped: (why: string) => void): Keeper {
  const worker = new Worker(url, { type: 'module' })
  worker.addEventListener('error', ({ message }) => stopped(`What fetches files has stopped: ${message || 'it cannot be loaded'}`))
  const wish = (one: Wish) => worker.postMessage(one)
  wish({ is: 'store', name: store })
  return {
    want: (wanted: Wanted[]) => wish({ is: 'want', wanted: wanted.map(({ url, sha256, bytes }) => ({ url, sha256, bytes })) }),
    first: (one: string) => wish({ is: 'first', url: one }),
    onNews: (listener: (news: News) => void) => worker.addEventListener('message', ({ data }: MessageEvent<News>) => listener(data)),
  }
}

/** Builds before kept whole files under their addresses; their hashes are in these. */
async function moveIn(name: string, store: Store): Promise<void> {
  if (typeof caches === 'undefined' || !(await caches.has(name))) return
  const cache = await caches.open(name)
  for (const request of await cache.keys()) {
    const path = new URL(request.url).pathname
    const answer = await cache.match(request)
    const sha256 = /\/([0-9a-f]{64})\.[a-z0-9]+$/.exec(path)?.[1]
    if (answer && path.startsWith('/pointers/')) await store.keep('pointer', await answer.text())
    else if (answer && sha256 && !(await store.about(path))) {
      await store.append({ url: path, sha256, type: answer.headers.get('Content-Type') ?? '' }, await answer.blob())
      await store.finish(path)
    }
  }
  await caches.delete(name)
}

/** As far as whole seconds of the server tell it. */
const skew = (ahead: number) => (Math.abs(ahead) < 1500 ? ', right to the second' : `, ${apart(ahead)}`)

const inWords = (e: unknown) => (e instanceof Error ? e.message : String(e))
