/** What this page asks the server: as little as can be, since somebody stands there with a telephone. */

export interface Place {
  id: string
  name: string
  depth: number
  displays: number
  closes: Closes
}
/** When the first and the last of its displays close next, as instants; null where that is not known of all. */
export type Closes = [string, string] | null
export interface Where {
  places: Place[]
  displays: { id: string; name: string; place: string; closes: Closes }[]
  /** More are there than are told. */
  more: boolean
  may_take_over: boolean
  takeovers: { id: string; name: string; reason: string }[]
}
export interface Standing {
  id: string
  kind: 'notice' | 'takeover'
  name: string
  place: string
  displays: number
  stands: boolean
  begun_at: string
  begun_by: string | null
  until: string
}

export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message)
  }
}
/** Nobody answered: whether it counted is not known. */
export class Away extends Error {}

let csrf = ''

export async function ask<T>(method: 'GET' | 'POST', path: string, body?: unknown): Promise<T> {
  let answer: Response
  try {
    answer = await fetch(`/api/${path}`, {
      method,
      headers: { Accept: 'application/json', ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), 'X-CSRF-Token': csrf },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  } catch {
    throw new Away('The server does not answer.')
  }
  if ([502, 503, 504].includes(answer.status)) throw new Away('The server does not answer.')
  const told = answer.status === 204 ? {} : ((await answer.json().catch(() => ({}))) as { csrf?: string; error?: { message?: string } })
  if (told.csrf) csrf = told.csrf
  if (!answer.ok) throw new Refused(answer.status, told.error?.message ?? `The server answered ${answer.status}.`)
  return told as T
}

/** The name of whoever is signed in; null for nobody. */
export const session = async (): Promise<string | null> => (await ask<{ account: { name: string } | null }>('GET', 'session')).account?.name ?? null
export async function signIn(login: string, password: string): Promise<string | null> {
  await ask('POST', 'sign-in', { login, password })
  return session()
}

/** 26 small letters and figures, as the server wants it: known before it is asked for, so that asking twice does it once. */
export function newId(): string {
  const letters = '0123456789abcdefghjkmnpqrstvwxyz'
  return [...crypto.getRandomValues(new Uint8Array(26))].map((byte) => letters[byte % 32]).join('')
}
