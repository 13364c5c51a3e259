/// <reference lib="webworker" />
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

/**
 * The service worker of the player page: keeps the page with all that it is made of, whole or not at all, and opens it without any server.
 * A new build is another set; the page is loaded anew when all of it is there (page.ts). What is played the page keeps itself.
 */

/** Filled in when it is built (vite.config.ts). */
declare const __PAGE__: { url: string; revision: string | null }[]
const scope = self as unknown as ServiceWorkerGlobalScope

/** What a page answers that loads its later build by itself (page.ts, from which nothing can be imported here: a worker is one file). */
const LEAVES = 'leaves by itself'
/** As pages built before kept themselves. */
const CACHE_OF_BEFORE = 'upper-pane:page'
/** A page that does not answer that it leaves by itself was built before pages did, and would never load another one. */
const ANSWER_MS = 5000

precacheAndRoute(__PAGE__)
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/player'), { allowlist: [/^\/play\/[0-9a-f]{40}\/(\?|$)/] }))

scope.addEventListener('install', (event) => event.waitUntil(scope.skipWaiting()))
scope.addEventListener('activate', (event) =>
  event.waitUntil(Promise.all([scope.clients.claim(), caches.delete(CACHE_OF_BEFORE)]).then(() => void reloadUnknowing())),
)

async function reloadUnknowing(): Promise<void> {
  for (const client of await scope.clients.matchAll({ type: 'window' })) {
    const { port1, port2 } = new MessageChannel()
    const unknowing = setTimeout(() => void client.navigate(client.url).catch(() => undefined), ANSWER_MS)
    port1.onmessage = ({ data }) => data === LEAVES && clearTimeout(unknowing)
    client.postMessage('build?', [port2])
  }
}
