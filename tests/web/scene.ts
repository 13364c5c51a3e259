import { mock } from 'node:test'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createRenderer } from 'vue'
import type { Element, Item, LayoutDocument } from '../../web/src/Layout/designs'

/** What a scene is played with: a clock that only `pass` moves, a server that answers as told, a store, a page. */

export const NOW = Date.parse('2026-06-01T10:00:00Z')
mock.timers.enable({ apis: ['setTimeout', 'Date'], now: NOW })
// Of one piece with the timeouts: an interval of the mock goes on when it is cleared late.
const intervals = new Map<number, ReturnType<typeof setTimeout>>()
let interval = 0
Object.assign(globalThis, {
  setInterval(work: () => void, ms: number) {
    const id = ++interval
    const again = () =>
      intervals.set(
        id,
        setTimeout(() => (again(), work()), ms),
      )
    again()
    return id
  },
  clearInterval(id: number) {
    clearTimeout(intervals.get(id))
    intervals.delete(id)
  },
})

/** Lets so many ms pass, with everything that happens in them. */
export async function pass(ms: number): Promise<void> {
  const settle = () => new Promise((done) => setImmediate(done))
  await settle()
  for (let gone = 0; gone < ms; gone += 10) {
    mock.timers.tick(Math.min(10, ms - gone))
    await settle()
  }
}

/** What the desk asks with, as far as scenes read it. */
export interface Asked {
  base: number
  display: string | null
  variant: string | null
  light?: boolean
  text: string
  document: LayoutDocument
  items: Item[]
  act: { do: string; elements: Element[]; items: Item[]; dx: number }
}
interface Call {
  method: string
  path: string
  body: Asked
  headers: Record<string, string>
}
export type Answer = { status?: number; body?: unknown } | 'away'

export const server = {
  calls: [] as Call[],
  /** How long an answer takes. */
  ms: 0,
  answer: (() => ({ status: 404, body: { error: { code: 'not.found', message: 'Nothing here.' } } })) as (call: Call) => Answer,
  /** The calls of one method, or all, as `PUT layouts/x`. */
  log: (method = '') => server.calls.filter((c) => c.method.startsWith(method)).map((c) => `${c.method} ${c.path}`),
}

globalThis.fetch = (async (url: string, init: RequestInit = {}) => {
  const call: Call = {
    method: init.method ?? 'GET',
    path: url.replace(/^\/api\//, ''),
    headers: (init.headers ?? {}) as Record<string, string>,
    body: JSON.parse(typeof init.body === 'string' ? init.body : '{}') as Asked,
  }
  server.calls.push(call)
  const answer = server.answer(call)
  if (server.ms) await new Promise((done) => setTimeout(done, server.ms))
  if (answer === 'away') throw new TypeError('Failed to fetch')
  const text = typeof answer.body === 'string' ? answer.body : JSON.stringify(answer.body ?? {})
  return new Response(answer.status === 204 ? null : text, { status: answer.status ?? 200 })
}) as typeof fetch

/** The store of the browser; `full` refuses what is put in. */
export const storage = { kept: new Map<string, string>(), full: false }
globalThis.localStorage = {
  get length() {
    return storage.kept.size
  },
  key: (n: number) => [...storage.kept.keys()][n] ?? null,
  getItem: (key: string) => storage.kept.get(key) ?? null,
  setItem(key: string, value: string) {
    if (storage.full) throw new Error('QuotaExceededError')
    storage.kept.set(key, value)
  },
  removeItem: (key: string) => void storage.kept.delete(key),
} as unknown as Storage
globalThis.sessionStorage = globalThis.localStorage

/** The locks that pages of this browser hold. */
export const locks = new Set<string>()
Object.defineProperty(globalThis, 'navigator', {
  value: {
    userAgent: '',
    locks: {
      request(name: string, _how: object, then: (lock: object | null) => unknown) {
        const isFree = !locks.has(name)
        locks.add(name)
        then(isFree ? {} : null)
        return Promise.resolve()
      },
      query: () => Promise.resolve({ held: [...locks].map((name) => ({ name })) }),
    },
  },
})

/** A component with this setup, on no page: `it` is what the setup gave. */
export function mounted<T>(setup: () => T): { it: T; unmount: () => void } {
  const noop = () => ({})
  const { createApp } = createRenderer({
    createElement: noop,
    createText: noop,
    createComment: noop,
    insert: noop,
    remove: noop,
    patchProp: noop,
    setText: noop,
    setElementText: noop,
    parentNode: () => null,
    nextSibling: () => null,
  })
  let it: T
  const app = createApp({ setup: () => ((it = setup()), () => null) })
  app.config.errorHandler = (e) => {
    throw e
  }
  app.use(createPinia()).use(VueQueryPlugin).mount({})
  return { it: it!, unmount: () => app.unmount() }
}

/** As much of a thing as a scene needs. */
export const some = <T>(part: unknown): T => part as T
