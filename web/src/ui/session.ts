import { defineStore } from 'pinia'
import { ref } from 'vue'

interface Session {
  /** With what he may do, and where: everywhere, or at places by their ids. */
  account: { login: string; name: string; rights: Partial<Record<string, true | string[]>> } | null
  csrf: string
}

/** Who is signed in. A session that is lost keeps the page as it is, and asks to sign in above it. */
export const useSession = defineStore('session', () => {
  const account = ref<Session['account']>(null)
  const csrf = ref<string | null>(null)
  const known = ref(false)
  const isLost = ref(false)
  /** How often somebody has signed in: what was sent before says nothing of the session that is now. */
  const turn = ref(0)
  let waiting: (() => void)[] = []

  function take(session: Session) {
    account.value = session.account
    csrf.value = session.csrf
    known.value = true
    if (session.account) {
      isLost.value = false
      waiting.forEach((go) => go())
      waiting = []
    }
  }

  async function ask(method: string, path: string, body?: unknown): Promise<void> {
    const headers: Record<string, string> = { 'Content-Type': 'application/json' }
    if (csrf.value) headers['X-CSRF-Token'] = csrf.value
    const response = await fetch(`/api/${path}`, {
      method,
      headers,
      body: body === undefined ? undefined : JSON.stringify(body),
    })
    const answer = (await response.json()) as Session & { error?: { message: string } }
    if (!response.ok) throw new Error(answer.error?.message ?? 'Signing in failed.')
    if (answer.csrf) take(answer)
  }

  return {
    account,
    csrf,
    known,
    isLost,
    turn,
    load: () => ask('GET', 'session'),
    async signIn(login: string, password: string) {
      await ask('POST', 'sign-in', { login, password })
      // Signing in gives the session a new token, which only the next request can read.
      await ask('GET', 'session')
      turn.value++
    },
    /** By the link of a guest. */
    async come(token: string) {
      await ask('POST', `invitation/${token}`)
      await ask('GET', 'session')
      turn.value++
    },
    signOut: () => ask('DELETE', 'session'),
    /**
     * The server knows nobody.
     *
     * @param since the turn in which it was asked
     * @returns whether that says something of the session that is now
     */
    lost(since: number): boolean {
      if (since !== turn.value) return false
      if (account.value) isLost.value = true
      return true
    },
    /** Resolves when somebody has signed in again. */
    back: () => new Promise<void>((go) => (isLost.value ? waiting.push(go) : go())),
  }
})
