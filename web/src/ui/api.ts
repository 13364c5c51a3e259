import { useSession } from './session'

/** Where in a document, as a person says it: `/elements/2/rect/width` is the width of element 3. */
function told(message: string): string {
  return message.replace(/(^|: )((?:\/[\w~-]+)+)(?= )/, (_, before: string, pointer: string) => {
    const parts = pointer.slice(1).split('/')
    const counted = parts.flatMap((part, n) => (/^\d+$/.test(part) && n ? [`${parts[n - 1]!.replace(/s$/, '')} ${Number(part) + 1}`] : []))
    const last = parts.at(-1)!
    const words = [...(/^\d+$/.test(last) ? [] : [last]), ...counted.reverse()].join(' of ').replaceAll('_', ' ')
    return `${before}${words.slice(0, 1).toUpperCase()}${words.slice(1)}`
  })
}

/** What the server does not do, in its own words. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly path: string,
    readonly body: Record<string, unknown>,
  ) {
    super(told(message))
  }

  /** Nothing is wrong with what was sent: it may go through later. */
  get mayPass(): boolean {
    return [0, 401, 429, 502, 503, 504, 507].includes(this.status)
  }
}

const AWAY = 'The server does not answer. What you changed is kept in this window.'

async function answerOf(response: Response): Promise<unknown> {
  if (response.status === 204) return null
  const text = await response.text()
  let body: Record<string, unknown> = {}
  try {
    body = JSON.parse(text) as Record<string, unknown>
  } catch {
    if (response.ok) throw new Problem(response.status, 'answer.wrong', 'The server answered something that cannot be read.', '', {})
  }
  if (response.ok) return body
  const error = (body.error ?? {}) as { code?: string; message?: string; path?: string }
  throw new Problem(response.status, error.code ?? 'failed', error.message ?? `The server answered ${response.status}.`, error.path ?? '', body)
}

/** The session has another token by now, since somebody signed in again, here or in another tab: once more with that. */
const tokenIsOld = (e: unknown): boolean => e instanceof Problem && e.status === 403 && e.code === 'csrf.wrong'

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal, again = false): Promise<T> {
  const session = useSession()
  const headers: Record<string, string> = { Accept: 'application/json' }
  if (body !== undefined) headers['Content-Type'] = body instanceof Blob ? 'application/octet-stream' : 'application/json'
  if (method !== 'GET' && session.csrf) headers['X-CSRF-Token'] = session.csrf
  const { turn } = session
  let response: Response
  try {
    response = await fetch(`/api/${path}`, {
      method,
      headers,
      body: body === undefined || body instanceof Blob ? body : JSON.stringify(body),
      signal,
    })
  } catch {
    throw new Problem(0, 'server.away', AWAY, '', {})
  }
  try {
    return (await answerOf(response)) as T
  } catch (e) {
    const isOut = e instanceof Problem && e.status === 401 && path !== 'session'
    if (isOut && !session.lost(turn) && !again) return call(method, path, body, signal, true)
    if (!tokenIsOld(e) || again) throw e
  }
  await session.load().catch(() => undefined)
  return call(method, path, body, signal, true)
}

export const api = {
  get: <T>(path: string) => call<T>('GET', path),
  /** @param signal breaks it off, where nobody waits for it any more */
  post: <T>(path: string, body: unknown, signal?: AbortSignal) => call<T>('POST', path, body, signal),
  put: <T>(path: string, body: unknown) => call<T>('PUT', path, body),
  delete: <T>(path: string) => call<T>('DELETE', path),

  /** Sends the bytes of a file as they are. */
  bytes: <T>(path: string, file: Blob) => call<T>('POST', path, file),

  /** Sends a file; `progress` hears the share that has gone, 0 to 1. */
  async upload<T>(path: string, file: File, progress: (share: number) => void): Promise<T> {
    try {
      return await send<T>(path, file, progress)
    } catch (e) {
      if (!tokenIsOld(e)) throw e
      await useSession().load()
      return send<T>(path, file, progress)
    }
  },
}

function send<T>(path: string, file: File, progress: (share: number) => void): Promise<T> {
  const session = useSession()
  const { turn } = session
  return new Promise((done, failed) => {
    const request = new XMLHttpRequest()
    request.open('POST', `/api/${path}`)
    request.setRequestHeader('X-CSRF-Token', session.csrf ?? '')
    request.upload.onprogress = (e) => e.lengthComputable && progress(e.loaded / e.total)
    request.onerror = () => failed(new Problem(0, 'server.away', AWAY, '', {}))
    request.onload = () => {
      answerOf(new Response(request.status === 204 ? null : request.responseText, { status: request.status || 500 })).then(
        (body) => done(body as T),
        (e: Error) => {
          if (e instanceof Problem && e.status === 401) session.lost(turn)
          failed(e)
        },
      )
    }
    const form = new FormData()
    form.append('file', file)
    request.send(form)
  })
}

export function sentence(e: unknown): string {
  return e instanceof Error ? e.message : 'Something failed.'
}
