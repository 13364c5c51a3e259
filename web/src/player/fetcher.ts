import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import type { Kept, Store } from './store'

/** A file that is named by its hash. */
export interface Wanted {
  url: string
  sha256: string
  bytes: number
}

/** What becomes of what is wanted. */
export type News =
  | { is: 'here'; url: string }
  /** Kept, and not what it should be: it is fetched anew. */
  | { is: 'damaged'; url: string }
  /** Tried again by itself after so many ms; how often it was tried. */
  | { is: 'trouble'; url: string; why: string; tries: number; again_ms: number }

/** What is outside: the network, the clock, chance, the disk. */
export interface Outside {
  fetch(url: string, init: RequestInit): Promise<Response>
  later(ms: number, work: () => void): () => void
  random(): number
  /** Bytes that can still be kept; Infinity where nobody says. */
  room(): Promise<number>
  /** Work that one page at a time does, of all that share the store. */
  alone(name: string, work: () => Promise<void>): Promise<void>
}

/** So many large files at once, and so many small ones beside them: what says what is to be played never waits for films. */
const LARGE_AT_ONCE = 2
const SMALL_AT_ONCE = 4
const PIECE_BYTES = 1 << 20
/** Nothing came for so long: it is broken off. */
export const STALLED_MS = 20_000
const FIRST_AGAIN_MS = 2000
const LAST_AGAIN_MS = 300_000

interface Order extends Wanted {
  state: 'waiting' | 'working' | 'resting' | 'here'
  tries: number
}

/**
 * Fetches what is wanted into the store, what is wanted first first; every file is held against its hash before anybody hears of it,
 * also one that was kept by an earlier start. One that breaks off goes on where it ended.
 */
export class Fetcher {
  private orders = new Map<string, Order>()
  /** Held against their hashes since this page began. */
  private readonly right = new Set<string>()
  private readonly stops = new Map<string, AbortController>()

  constructor(
    private readonly store: Store,
    private readonly outside: Outside,
    private readonly tell: (news: News) => void,
  ) {}

  /** What is wanted from now on, in this order, and nothing else. */
  want(wanted: Wanted[]): void {
    const before = this.orders
    this.orders = new Map(wanted.map((one) => [one.url, before.get(one.url) ?? { ...one, state: 'waiting', tries: 0 }]))
    for (const [url, stop] of this.stops) if (!this.orders.has(url)) stop.abort(new Error('nobody wants it any more'))
    // Another page may have thrown it away meanwhile.
    for (const order of this.orders.values()) if (order.state === 'here') order.state = 'waiting'
    this.pump()
  }

  /** One before the others, since it is due. */
  first(url: string): void {
    const order = this.orders.get(url)
    if (!order || order.state === 'here') return
    this.orders.delete(url)
    this.orders = new Map([[url, order], ...this.orders])
    this.pump()
  }

  private pump(): void {
    const free = { large: LARGE_AT_ONCE, small: SMALL_AT_ONCE }
    const sizeOf = (order: Order) => (order.bytes < PIECE_BYTES ? 'small' : 'large')
    for (const order of this.orders.values()) if (order.state === 'working') free[sizeOf(order)]--
    for (const order of this.orders.values()) {
      if (order.state !== 'waiting' || free[sizeOf(order)] <= 0) continue
      free[sizeOf(order)]--
      order.state = 'working'
      void this.work(order)
    }
  }

  private async work(order: Order): Promise<void> {
    try {
      await this.outside.alone(order.url, () => this.bring(order))
      order.state = 'here'
      order.tries = 0
      if (this.orders.get(order.url) === order) this.tell({ is: 'here', url: order.url })
    } catch (e) {
      if (this.orders.get(order.url) === order) this.rest(order, e)
    }
    this.pump()
  }

  /** Longer each time, and not when all the others try again. */
  private rest(order: Order, e: unknown): void {
    order.state = 'resting'
    const ms = Math.min(LAST_AGAIN_MS, FIRST_AGAIN_MS * 2 ** order.tries) * (0.5 + this.outside.random())
    order.tries++
    this.tell({ is: 'trouble', url: order.url, why: inWords(e), tries: order.tries, again_ms: Math.round(ms) })
    this.outside.later(ms, () => {
      if (order.state !== 'resting') return
      order.state = 'waiting'
      this.pump()
    })
  }

  private async bring(order: Order): Promise<void> {
    let kept = await this.store.about(order.url)
    if (kept?.whole) {
      if (this.right.has(order.url) || (await this.isRight(kept, order))) {
        this.right.add(order.url)
        return
      }
      this.tell({ is: 'damaged', url: order.url })
      kept = undefined
    }
    let hash = sha256.create()
    if (kept) {
      try {
        for await (const bytes of this.bytes(kept)) hash.update(bytes)
      } catch {
        kept = undefined
      }
    }
    if (!kept || kept.bytes > order.bytes) {
      await this.store.drop(order.url)
      kept = undefined
      hash = sha256.create()
    }
    if (!kept || kept.bytes < order.bytes || order.bytes === 0) hash = await this.download(order, kept?.bytes ?? 0, hash)
    if (bytesToHex(hash.digest()) !== order.sha256) {
      await this.store.drop(order.url)
      throw new Error('it is not what the release names: its hash is another')
    }
    await this.store.finish(order.url)
    this.right.add(order.url)
  }

  /** @returns the hash of all that is kept of it now */
  private async download(order: Order, from: number, begun: ReturnType<typeof sha256.create>): Promise<ReturnType<typeof sha256.create>> {
    let hash = begun
    const room = await this.outside.room()
    if (order.bytes - from > room) throw new Error(`there is no room for it: it takes ${mb(order.bytes - from)} MB, and ${mb(room)} MB are free`)
    const stop = new AbortController()
    this.stops.set(order.url, stop)
    let watch = this.outside.later(STALLED_MS, () => stop.abort(new Error('nothing came for 20 s')))
    try {
      const answer = await this.outside.fetch(order.url, { signal: stop.signal, ...(from ? { headers: { Range: `bytes=${from}-` } } : {}) })
      const type = answer.headers.get('Content-Type') ?? ''
      if (answer.status === 416) await this.store.drop(order.url)
      if (answer.status !== 200 && answer.status !== 206) throw new Error(`the server answered ${answer.status}`)
      if (type.startsWith('text/html')) throw new Error('a web page was answered in its place')
      let have = from
      if (from && !(answer.status === 206 && answer.headers.get('Content-Range')?.startsWith(`bytes ${from}-`))) {
        // All of it is sent again.
        if (answer.status === 206) throw new Error('another part of it was answered')
        await this.store.drop(order.url)
        hash = sha256.create()
        have = 0
      }
      const said = answer.headers.get('Content-Length')
      if (said !== null && !answer.headers.get('Content-Encoding') && Number(said) !== order.bytes - have)
        throw new Error(`${Number(said) + have} bytes were announced, and the release names ${order.bytes}`)
      const file = { url: order.url, sha256: order.sha256, type }
      let piece: BlobPart[] = []
      let size = 0
      let isLie = false
      const put = async () => {
        if (size === 0) return
        await this.store.append(file, new Blob(piece))
        have += size
        ;[piece, size] = [[], 0]
      }
      const reader = (answer.body ?? new Blob([]).stream()).getReader()
      try {
        for (;;) {
          const { done, value } = await reader.read()
          watch()
          if (done) break
          if (have + size + value.length > order.bytes) {
            isLie = true
            await this.store.drop(order.url)
            throw new Error(`it is longer than the ${order.bytes} bytes that the release names`)
          }
          hash.update(value)
          piece.push(value)
          size += value.length
          if (size >= PIECE_BYTES) await put()
          watch = this.outside.later(STALLED_MS, () => stop.abort(new Error('nothing came for 20 s')))
        }
      } catch (e) {
        // What came is kept, and goes on from there.
        if (!isLie) await put()
        if (have > from) order.tries = 0
        throw e instanceof TypeError ? new Error('the connection broke off') : e
      } finally {
        void reader.cancel().catch(() => undefined)
      }
      await put()
      if (have < order.bytes) throw new Error(`it ended after ${have} of ${order.bytes} bytes`)
      return hash
    } finally {
      watch()
      this.stops.delete(order.url)
    }
  }

  private async isRight(kept: Kept, order: Order): Promise<boolean> {
    if (kept.bytes !== order.bytes) return false
    const hash = sha256.create()
    try {
      for await (const bytes of this.bytes(kept)) hash.update(bytes)
    } catch {
      return false
    }
    return bytesToHex(hash.digest()) === order.sha256
  }

  private async *bytes(kept: Kept): AsyncGenerator<Uint8Array> {
    for await (const piece of this.store.pieces(kept)) yield new Uint8Array(await piece.arrayBuffer())
  }
}

const mb = (bytes: number) => Math.max(0, Math.ceil(bytes / 1e6))

function inWords(e: unknown): string {
  if (e instanceof DOMException && e.name === 'QuotaExceededError') return 'the disk of this player is full'
  if (e instanceof TypeError) return 'the server does not answer'
  return e instanceof Error ? e.message : String(e)
}
