/** What a page answers to a new worker (sw.ts): that it loads its later build by itself, at the next change. */
const LEAVES = 'leaves by itself'

/** The page itself, kept by its service worker (sw.ts). */
export class Page {
  private registration: ServiceWorkerRegistration | null = null
  /** Whether the browser promised to throw nothing away by itself; null while it has not said. */
  persists: boolean | null = null
  /** Whether the browser keeps the screen from going dark; null while it has not said. */
  isAwake: boolean | null = null

  /** @param renewed told once a later build of the page is there, whole */
  constructor(private readonly renewed: () => void) {}

  /** Where the page cannot be kept it plays all the same, as long as the server stands. */
  async keep(): Promise<void> {
    void navigator.storage?.persist?.().then(
      (persists) => (this.persists = persists),
      () => undefined,
    )
    const workers = navigator.serviceWorker
    if (!workers) return
    // Whoever opened it without one gets the first one, of the same build.
    let isFirst = workers.controller === null
    workers.addEventListener('controllerchange', () => {
      if (!isFirst) this.renewed()
      isFirst = false
    })
    workers.addEventListener('message', (event) => event.ports[0]?.postMessage(LEAVES))
    workers.startMessages()
    try {
      this.registration = await workers.register('/play/sw.js', { scope: '/play/' })
    } catch {
      // Tried again when the page is loaded again.
    }
  }

  /** The screen goes on shining; the browser lets go whenever the page was hidden. */
  async keepAwake(): Promise<void> {
    const lock = async () => {
      if (document.hidden) return
      this.isAwake = await (navigator.wakeLock?.request('screen') ?? Promise.reject(new Error('unknown'))).then(
        () => true,
        () => false,
      )
    }
    document.addEventListener('visibilitychange', () => void lock())
    await lock()
  }

  /** A later build is said to be there: the browser looks for it. */
  look(): void {
    void this.registration?.update().catch(() => undefined)
  }
}
