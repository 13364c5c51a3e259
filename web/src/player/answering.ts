import { type RunSheet, lastBegun } from '../pane/sheet'
import { put } from './answered'
import { type Entered, type Entry, type Run, type TriggersMap, begun, dueAt, named, resumed, shifted, until, whyNot } from './answers'

/** The clock was set where it moved by more, ms. */
const SET_MS = 1000
/** So many are taken within so long; a sensor that says more is broken, and the rest is left out. */
export const MOST = 200
export const WITHIN_MS = 100
/** What is wrong with what is said is told so often at the most, and no more when all was right for so long, ms. */
const TELL_MS = 10_000
const QUIET_MS = 60_000

/** The place of the first figure that is told after an instant. */
function toldFrom({ told }: TriggersMap, at: number): number {
  const last = lastBegun(told, (one) => one.at_ms, at)
  return last < 0 || told[last]!.at_ms > at ? Math.max(0, last) : last + 1
}

export type Raw = Partial<Record<keyof Entry, unknown>>

/** The maps of what is shown, as they run here: takes what is said, and puts what follows into the sheet. */
export class Answering {
  private sheet: RunSheet | null = null
  private maps: TriggersMap[] = []
  private readonly runs = new Map<string, Run>()
  private lastNow = 0
  private lastEven = 0
  private window = 0
  private taken = 0
  private dropped = 0
  /** When something was wrong last, and when that was told, ms that go on evenly; null where nothing is. */
  private wrongAt: number | null = null
  private toldAt = 0

  constructor(
    /** The instant that is drawn, Unix ms; and ms that go on evenly. */
    private readonly now: () => number,
    private readonly even: () => number,
    private readonly tell: (why: string | null) => void,
  ) {}

  /** Whether any map hears keys of that name. */
  hearsKey(key: string): boolean {
    return this.maps.some((map) => map.signals.some((one) => one.kind === 'key' && named(map, 'keys', null, key) === one.key))
  }

  /** Whether any map could hear that, whatever it comes to. */
  knows(said: Raw): boolean {
    if (whyNot(this.maps, said) !== null) return false
    const { sensor, button, key, source, touch } = said
    return this.maps.some((map) =>
      map.signals.some((one) => {
        if (said.signal !== undefined) return one.id === said.signal
        if (touch !== undefined) return one.kind === 'touch'
        if (key !== undefined) return one.kind === 'key' && one.key === named(map, 'keys', null, key as string)
        if (source !== undefined) return one.kind === 'value' && one.source === source
        if (button === undefined) return (one.kind === 'presence' || one.kind === 'absence') && one.sensor === sensor
        return one.kind === 'press' && one.sensor === sensor && named(map, 'sensor', sensor, button as string) === one.button
      }),
    )
  }

  get hearsTouch(): boolean {
    return this.maps.some((map) => map.signals.some(({ kind }) => kind === 'touch'))
  }

  get runsAny(): boolean {
    return this.maps.length > 0
  }

  get running(): TriggersMap[] {
    return this.maps
  }

  /** Another sheet is about to be shown: maps that go on stand where they stood. */
  take(sheet: RunSheet): void {
    const before = new Map(this.maps.map((map) => [map.id, map]))
    const now = this.now()
    this.sheet = sheet
    this.maps = sheet.triggers ?? []
    for (const map of this.maps) {
      const [run, old] = [this.runs.get(map.id), before.get(map.id)]
      const next = run && old ? resumed(map, run, old, now) : begun(map, now)
      // What sources say by now is said once more: whatever is known already changes nothing.
      const last = new Map(map.told.filter(({ at_ms: at }) => at <= now).map((one) => [one.signal, one.value]))
      const said = [...last].map(([only, value]): Entry => ({ at: now, only, value }))
      this.runs.set(map.id, said.length ? until(map, next, now, said).run : next)
    }
    for (const id of [...this.runs.keys()]) if (!this.maps.some((map) => map.id === id)) this.runs.delete(id)
    this.lastNow = now
    this.lastEven = this.even()
    this.write()
  }

  /** What is due by itself up to now. @returns until when nothing is, Unix ms (Infinity where nothing ever is), and whether anything else is shown */
  pass(): { due: number; isOther: boolean } {
    if (this.wrongAt !== null && this.even() - this.wrongAt >= QUIET_MS) {
      this.wrongAt = null
      this.dropped = 0
      this.tell(null)
    }
    const isOther = this.step([])
    const due = Math.min(Infinity, ...[...this.runs.values()].map((run) => dueAt(run) ?? Infinity), ...this.maps.map((map) => this.toldNext(map)))
    return { due, isOther }
  }

  private toldNext(map: TriggersMap): number {
    return map.told[toldFrom(map, this.lastNow)]?.at_ms ?? Infinity
  }

  /** @returns whether anything else is shown for it */
  hear(said: Raw[]): boolean {
    if (!this.runsAny) return false
    const even = this.even()
    if (even - this.window > WITHIN_MS) [this.window, this.taken] = [even, 0]
    const room = Math.max(0, MOST - this.taken)
    const heard = said.slice(0, room)
    this.taken += heard.length
    if (said.length > room) {
      this.dropped += said.length - room
      this.wrong(`A sensor says more than ${(MOST * 1000) / WITHIN_MS} things a second; ${this.dropped} were left out.`)
    }
    const now = this.now()
    const entries: Entry[] = []
    for (const one of heard) {
      const why = whyNot(this.maps, one)
      if (why === null) entries.push({ ...(one as Omit<Entry, 'at'>), at: now })
      else this.wrong(`What a sensor said is left out: ${why}.`)
    }
    return entries.length > 0 && this.step(entries)
  }

  /** A sensor that says one wrong thing after the other is told now and then, and no more once it was right for a while. */
  private wrong(why: string): void {
    const even = this.even()
    if (this.wrongAt === null || even - this.toldAt >= TELL_MS) {
      this.toldAt = even
      this.tell(why)
    }
    this.wrongAt = even
  }

  private step(entries: Entry[]): boolean {
    const [now, even] = [this.now(), this.even()]
    const set = now - this.lastNow - (even - this.lastEven)
    if (Math.abs(set) > SET_MS) for (const map of this.maps) this.runs.set(map.id, shifted(map, this.runs.get(map.id)!, set))
    let isOther = Math.abs(set) > SET_MS
    for (const map of this.maps) {
      let run = this.runs.get(map.id)!
      for (let n = toldFrom(map, this.lastNow); n < map.told.length && map.told[n]!.at_ms <= now; n++) {
        const { at_ms: at, signal, value } = map.told[n]!
        const after = until(map, run, at, [{ at, only: signal, value }])
        run = after.run
        isOther ||= after.entered.length > 0
      }
      const own = entries.filter(({ signal }) => signal === undefined || map.signals.some(({ id }) => id === signal))
      const after = until(map, run, now, own)
      this.runs.set(map.id, after.run)
      isOther ||= after.entered.length > 0
    }
    this.lastNow = now
    this.lastEven = even
    if (isOther) this.write()
    return isOther
  }

  private write(): void {
    if (this.sheet && this.maps.length) put(this.sheet, this.entered)
  }

  get entered(): ReadonlyMap<string, Entered> {
    return new Map([...this.runs].map(([id, run]) => [id, run.entered]))
  }
}
