// The service worker of the player page: the page opens from the store when no server answers.
// The release and its files are kept and read by the page itself.

interface ExtendableEvent extends Event {
  waitUntil(promise: Promise<unknown>): void
}
interface FetchEvent extends ExtendableEvent {
  request: Request
  respondWith(response: Promise<Response>): void
}
interface PageClient {
  url: string
  postMessage(message: string, transfer: Transferable[]): void
  navigate(url: string): Promise<unknown>
}
interface WorkerScope {
  addEventListener(type: 'install' | 'activate', listener: (event: ExtendableEvent) => void): void
  addEventListener(type: 'fetch', listener: (event: FetchEvent) => void): void
  skipWaiting(): Promise<void>
  clients: { claim(): Promise<void>; matchAll(options: { type: 'window' }): Promise<PageClient[]> }
  location: Location
}
const scope = self as unknown as WorkerScope

scope.addEventListener('install', (event) => event.waitUntil(scope.skipWaiting()))
scope.addEventListener('activate', (event) => event.waitUntil(scope.clients.claim().then(() => void reloadUnknowing())))
scope.addEventListener('fetch', (event) => {
  const url = new URL(event.request.url)
  const isPage = event.request.mode === 'navigate' && url.pathname.startsWith('/play/')
  if (
    event.request.method !== 'GET' ||
    url.origin !== scope.location.origin ||
    !(isPage || url.pathname.startsWith('/assets/') || url.pathname === '/mark.svg')
  )
    return
  event.respondWith(serve(event.request, isPage))
})

/** A page that answers nothing was built before pages knew their build, and would never load another one by itself. */
const ANSWER_MS = 5000

async function reloadUnknowing(): Promise<void> {
  for (const client of await scope.clients.matchAll({ type: 'window' })) {
    const { port1, port2 } = new MessageChannel()
    const unknowing = setTimeout(() => void client.navigate(client.url).catch(() => undefined), ANSWER_MS)
    port1.onmessage = () => clearTimeout(unknowing)
    client.postMessage('build?', [port2])
  }
}

/** What is built never changes under its name, so the store is asked first; the page itself is taken fresh where that is possible. */
async function serve(request: Request, isPage: boolean): Promise<Response> {
  const page = await caches.open('upper-pane:page')
  if (!isPage) {
    const kept = await page.match(request)
    if (kept) return kept
  }
  try {
    const answer = await fetch(request)
    if (answer.ok) {
      await page.put(isPage ? new URL(request.url).pathname : request, answer.clone())
      return answer
    }
    if (answer.status < 500) return answer
  } catch {
    // No server: the store below.
  }
  const kept = await page.match(new URL(request.url).pathname)
  return kept ?? new Response('The player page is not kept here yet.', { status: 503 })
}

export {}
