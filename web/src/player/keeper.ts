import { type News, Fetcher, type Wanted } from './fetcher'
import { Store } from './store'

/** Fetching beside the page: a worker of its own, so that hashing films never makes the picture stumble. */

export type Wish = { is: 'store'; name: string } | { is: 'want'; wanted: Wanted[] } | { is: 'first'; url: string }

const scope = self as unknown as {
  postMessage(news: News): void
  addEventListener(type: 'message', listener: (event: MessageEvent<Wish>) => void): void
}
let fetcher: Promise<Fetcher> | null = null

scope.addEventListener('message', ({ data: wish }) => {
  if (wish.is === 'store') {
    fetcher = Store.open(wish.name).then((store) => new Fetcher(store, network(), (news) => scope.postMessage(news)))
    // Told to the page as an error of this worker.
    fetcher.catch((e: unknown) =>
      setTimeout(() => {
        throw e
      }),
    )
  } else void fetcher?.then((fetching) => (wish.is === 'want' ? fetching.want(wish.wanted) : fetching.first(wish.url)))
})

function network() {
  return {
    fetch: (url: string, init: RequestInit) => fetch(url, init),
    later(ms: number, work: () => void) {
      const timer = setTimeout(work, ms)
      return () => clearTimeout(timer)
    },
    random: () => Math.random(),
    async room() {
      const { quota, usage } = (await navigator.storage?.estimate?.()) ?? {}
      // A little is left for what the browser itself writes down.
      return quota === undefined || usage === undefined ? Infinity : quota * 0.98 - usage
    },
    alone: async (name: string, work: () => Promise<void>) =>
      navigator.locks ? await navigator.locks.request(`upper-pane ${name}`, work) : await work(),
  }
}
