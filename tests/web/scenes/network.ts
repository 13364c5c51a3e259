import { createHash } from 'node:crypto'
import type { Outside, Wanted } from '@/player/fetcher'

/** A stand-in for the network of a player: it drops, drips, lies about lengths and hashes, answers pages and errors. */

interface Thing {
  bytes: Uint8Array
  /** Breaks off after so many bytes of an answer, so often. */
  dropsAfter?: number
  drops?: number
  /** Says nothing more after so many bytes. */
  stallsAfter?: number
  status?: number
  type?: string
  /** The length that is announced; none where it is null. */
  announced?: number | null
  ranges?: boolean
}

export class Network implements Outside {
  readonly things = new Map<string, Thing>()
  readonly asked: string[] = []
  free = Infinity
  private readonly timers = new Set<{ at: number; work: () => void }>()
  private now = 0

  file(url: string, size: number, more: Partial<Thing> = {}): Wanted {
    const bytes = new Uint8Array(size).map((_, i) => (i * 31 + size) % 251)
    this.things.set(url, { bytes, ...more })
    return { url, sha256: createHash('sha256').update(bytes).digest('hex'), bytes: size }
  }

  async fetch(url: string, { headers, signal }: RequestInit): Promise<Response> {
    const range = new Headers(headers).get('Range')
    this.asked.push(range ? `${url} ${range}` : url)
    const thing = this.things.get(url)
    if (!thing) throw new TypeError('fetch failed')
    if (thing.status) return new Response('no', { status: thing.status })
    const from = range && thing.ranges !== false ? Number(/bytes=(\d+)-/.exec(range)![1]) : 0
    const body = thing.bytes.slice(from)
    const drops = thing.dropsAfter !== undefined && (thing.drops ?? 1) > 0
    if (drops) thing.drops = (thing.drops ?? 1) - 1
    const end = drops ? thing.dropsAfter! : (thing.stallsAfter ?? body.length)
    let at = 0
    const stream = new ReadableStream<Uint8Array>({
      pull(controller) {
        if (at < Math.min(end, body.length)) controller.enqueue(body.slice(at, (at = Math.min(at + 1000, end))))
        else if (drops) controller.error(new TypeError('network error'))
        else if (thing.stallsAfter === undefined) controller.close()
        else return new Promise((_, no) => signal!.addEventListener('abort', () => (controller.error(signal!.reason), no(signal!.reason as Error))))
      },
    })
    const told = new Headers({ 'Content-Type': thing.type ?? 'image/png' })
    if (thing.announced !== null) told.set('Content-Length', String(thing.announced ?? body.length))
    if (from) told.set('Content-Range', `bytes ${from}-${thing.bytes.length - 1}/${thing.bytes.length}`)
    return new Response(stream, { status: from ? 206 : 200, headers: told })
  }

  later(ms: number, work: () => void): () => void {
    const timer = { at: this.now + ms, work }
    this.timers.add(timer)
    return () => this.timers.delete(timer)
  }

  random(): number {
    return 0.5
  }

  async room(): Promise<number> {
    return this.free
  }

  alone(_: string, work: () => Promise<void>): Promise<void> {
    return work()
  }

  /** Lets so many ms pass; what is under way comes to its end first. */
  async pass(ms: number): Promise<void> {
    await this.quiet()
    for (const end = this.now + ms; ;) {
      const next = [...this.timers].sort((a, b) => a.at - b.at)[0]
      if (!next || next.at > end) {
        this.now = end
        return
      }
      this.timers.delete(next)
      this.now = next.at
      next.work()
      await this.quiet()
    }
  }

  /** Until nothing happens any more without the clock. */
  async quiet(): Promise<void> {
    for (let turns = 0; turns < 60; turns++) await new Promise((done) => setImmediate(done))
  }
}
