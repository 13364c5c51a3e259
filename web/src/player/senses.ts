import type { RunSheet } from '../pane/sheet'
import { Agent } from './agent'
import { answeredNow, mediaNext, touched } from './answered'
import { Answering, type Raw } from './answering'
import type { Entered } from './answers'
import type { Glass } from './glass'
import { Hearsay } from './hearsay'
import type { Sensed } from './machine'
import type { Pointer } from './pointer'
import type { Turn } from './tally'

type Asked = NonNullable<Pointer['said']>
/** What sensors say is told so often at the most, ms. */
const TELL_MS = 1000
const MOST_TAKEN = 20

/** What a player needs to answer whoever stands before it: its ears, and the maps that run on it. Loaded where anything does (effects.ts). */
export class Senses {
  private stood: RunSheet | null = null
  private readonly answering: Answering
  private readonly agent = new Agent((said) => this.heard(said))
  private readonly hearsay = new Hearsay()
  /** What was entered last of each map, as it was told to whoever listens on this machine. */
  private told: ReadonlyMap<string, number> = new Map()
  /** Ids of what an operator asked for, the last first; null before the desk was heard: what was asked for then is over. */
  private known: string[] | null = null
  private took: string[] = []
  private telling: ReturnType<typeof setTimeout> | undefined

  constructor(
    private readonly glass: Glass,
    /** The instant that is drawn, Unix ms; null where time stands still. */
    private readonly now: () => number | null,
    /** Whether somebody wants to learn what sensors say. */
    private readonly learns: () => boolean,
    trouble: (why: string | null) => void,
    private readonly sensed: (sensed: Sensed) => void,
    /** Told when there may be something else to draw. */
    private readonly wake: () => void,
  ) {
    this.answering = new Answering(
      () => this.now() ?? 0,
      () => performance.now(),
      (why) => {
        trouble(why)
        if (why !== null) this.agent.tell({ left_out: why })
      },
    )
    document.addEventListener('keydown', (e) => this.pressed(e), { capture: true })
    document.addEventListener('pointerdown', (e) => this.touched(e))
    this.agent.listen(() => this.answering.runsAny || this.learns())
  }

  /** Another sheet is about to be shown. */
  take(sheet: RunSheet): void {
    this.answering.take(sheet)
    this.tell()
  }

  /** It is shown. */
  stand(sheet: RunSheet): void {
    this.stood = sheet
    this.expectNext()
  }

  /** What is due by itself. @returns when something is next, Unix ms */
  pass(): number {
    if (this.now() === null) return Infinity
    const { due, isOther } = this.answering.pass()
    if (isOther) this.changed()
    return due
  }

  /** What an operator asked for at the desk: each once. */
  asked(all: Asked): void {
    const fresh = this.known === null ? [] : all.filter(({ id }) => !this.known!.includes(id))
    this.known = all.map(({ id }) => id)
    for (const { id, signal, row, until } of fresh) {
      if (!this.answering.knows({ signal }) || Date.parse(until) < (this.now() ?? Infinity)) continue
      this.took = [id, ...this.took].slice(0, MOST_TAKEN)
      this.heard([{ signal, ...(row && { row }) }])
      this.tell()
    }
  }

  /** What stands because a map answered, for whoever counts what was seen: each state that is not rest, by what it came of. */
  standing(): Turn[] {
    return answeredNow(this.answering.running, this.answering.entered)
  }

  get entered(): [string, Entered][] {
    return [...this.answering.entered]
  }

  private pressed(e: KeyboardEvent): void {
    if (e.repeat || e.ctrlKey || e.metaKey || e.altKey) return
    const isHeard = this.answering.hearsKey(e.key)
    if (isHeard) {
      e.preventDefault()
      e.stopImmediatePropagation()
    }
    if (isHeard || this.learns()) this.byHand({ key: e.key })
  }

  private touched({ clientX, clientY }: PointerEvent): void {
    const now = this.now()
    const point = this.answering.hearsTouch && this.stood && now !== null ? this.glass.pointAt(clientX, clientY) : null
    const touch = point && touched(this.stood!, now!, point.x, point.y)
    if (touch) this.byHand({ touch })
  }

  /** What comes to the page itself is told to whoever listens on this machine, as all else is. */
  private byHand(said: Raw): void {
    this.agent.tell({ heard: [{ ...said, at: this.now() }] })
    this.heard([said])
  }

  private heard(said: Raw[]): void {
    const now = this.now()
    if (now === null) return
    for (const one of said) this.hearsay.hear(one, now, this.answering.knows(one))
    this.telling ??= setTimeout(() => this.tell(), TELL_MS)
    // Also where nothing is shown yet: from here on it is known when a dwell ends.
    this.wake()
    if (this.answering.hear(said.filter((one) => !this.learns() || this.answering.knows(one)))) this.changed()
  }

  private changed(): void {
    this.tellEntered()
    this.expectNext()
    this.tell()
  }

  /** What stands, and what was heard, goes to the desk with what is said there anyway. */
  private tell(): void {
    clearTimeout(this.telling)
    this.telling = undefined
    const answers = this.entered.map(([map, { at, state, why }]) => ({ map, state, why, since: new Date(Math.round(at)).toISOString() }))
    const heard = this.hearsay.told()
    this.sensed({ ...(answers.length && { answers }), ...(this.took.length && { took: this.took }), ...(heard.length && { heard }) })
  }

  /** What was entered since is told to whoever listens on this machine, once it is drawn. */
  private tellEntered(): void {
    const entered = this.entered.filter(([map, { at }]) => this.told.get(map) !== at)
    if (entered.length === 0) return
    this.told = new Map(this.entered.map(([map, { at }]) => [map, at]))
    requestAnimationFrame(() =>
      this.agent.tell({ entered: entered.map(([map, { at, state, why }]) => ({ map, at, state, why })), drawn_at: this.now() ?? 0 }),
    )
  }

  /** Pictures and films to which a way leads from what stands are got ready. */
  private expectNext(): void {
    if (this.stood?.triggers) this.glass.expect(mediaNext(this.stood, this.stood.triggers, this.answering.entered))
  }
}
