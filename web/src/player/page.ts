/** Puts the page itself into the browser's store, so that it opens without any server. Where that cannot be it plays all the same. */
export async function keepPage(build: string, ...more: string[]): Promise<void> {
  void navigator.storage?.persist?.().catch(() => undefined)
  try {
    // A worker that takes over asks which pages know their build: those that do not are loaded anew.
    navigator.serviceWorker.addEventListener('message', (event) => event.ports[0]?.postMessage(build))
    navigator.serviceWorker.startMessages()
    await navigator.serviceWorker.register('/play/sw.js', { scope: '/play/' })
    const parts = [...document.querySelectorAll<HTMLScriptElement | HTMLLinkElement>('script[src], link[href]')].map((e) =>
      e instanceof HTMLScriptElement ? e.src : e.href,
    )
    const page = await caches.open('upper-pane:page')
    await page.addAll([location.pathname, ...new Set([...parts, ...more])])
  } catch {
    // Tried again when the page is loaded again.
  }
}
