import { say } from './notes'

const ADDRESS = 'upper-pane:address'
const ANSWER_MS = 10_000
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms))
const ask = (path: string, method = 'GET') => fetch(`/api/pairing${path}`, { method, signal: AbortSignal.timeout(ANSWER_MS) })

/** At /player: a code is shown until somebody binds it; then the page goes to its address, and finds it by itself from then on. */
export async function pair(host: HTMLElement): Promise<void> {
  const known = localStorage.getItem(ADDRESS)
  if (known && !new URLSearchParams(location.search).has('new')) {
    location.replace(known)
    return
  }
  for (;;) {
    try {
      const answer = await ask('', 'POST')
      if (!answer.ok) throw new Error(String(answer.status))
      const { claim, code } = (await answer.json()) as { claim: string; code: string }
      say(host, 'A new player', 'Type this code at Displays, on the display that this player belongs to.', code)
      for (;;) {
        await wait(1500)
        const told = await ask(`/${claim}`)
        if (told.status === 404) break
        if (!told.ok) continue
        const { address, ended } = (await told.json()) as { address: string | null; ended: boolean }
        if (address) {
          localStorage.setItem(ADDRESS, address)
          location.replace(address)
          return
        }
        if (ended) break
      }
    } catch {
      say(host, 'A new player', 'The server does not answer. This page tries again by itself.')
      await wait(5000)
    }
  }
}

/** The address is nobody's any more. */
export function unpaired(): void {
  if (localStorage.getItem(ADDRESS) === location.pathname) localStorage.removeItem(ADDRESS)
}
