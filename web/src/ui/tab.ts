const NAME = 'upper-pane:tab'
const lockOf = (tab: string) => `${NAME}:${tab}`
const fresh = () => Array.from(crypto.getRandomValues(new Uint32Array(3)), (n) => n.toString(36)).join('-')

/** Held as long as the page stands; whether it could be had. Where the browser has no locks nobody can be told apart. */
function held(tab: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(true)
  return new Promise((done) => {
    void navigator.locks.request(lockOf(tab), { ifAvailable: true }, (lock) => {
      done(lock !== null)
      return lock === null ? undefined : new Promise<void>(() => undefined)
    })
  })
}

async function begun(): Promise<string> {
  const known = sessionStorage.getItem(NAME)
  if (known !== null && (await held(known))) return known
  const tab = fresh()
  await held(tab)
  sessionStorage.setItem(NAME, tab)
  return tab
}

let own: Promise<string> | null = null

/** The name of this tab: the same after a reload, another one where a tab was doubled. */
export const thisTab = (): Promise<string> => (own ??= begun())

/** Whether a tab of that name is open in this browser. */
export async function openTabs(): Promise<(tab: string) => boolean> {
  const names = new Set((await navigator.locks?.query())?.held?.map((lock) => lock.name))
  return (tab) => names.has(lockOf(tab))
}
