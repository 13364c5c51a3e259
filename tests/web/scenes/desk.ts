import { type Answer, mounted, pass, server } from '../scene'
import { useEstate } from '@/Estate/estate'
import { facts, refOf, useMedia } from '@/Media/media'
import { Problem, api } from '@/ui/api'
import { useSession } from '@/ui/session'
import { useShelf } from '@/ui/shelf'

/** What every station of the desk is built on: the API, the session, the shelf, what is listed (web/src/ui). */

const opened = () => mounted(() => useSession()).it
const ines = (csrf: string) => ({ body: { account: { login: 'ines', name: 'Ines' }, csrf } })

export async function wordsOfTheServer() {
  opened()
  const call = () =>
    api.get('thing').catch((e: unknown) => (e instanceof Problem ? [e.status, e.code, e.message, e.path, e.mayPass] : 'another error'))
  const answers: Answer[] = [
    { status: 422, body: { error: { code: 'value.range', message: '/name is empty.', path: '/name' } } },
    {
      status: 422,
      body: { error: { code: 'value.range', message: '/elements/2/style/size_px is 0; 1 is the least.', path: '/elements/2/style/size_px' } },
    },
    { status: 422, body: { error: { code: 'value.range', message: 'On "Wide": /elements/0/playlist/items/1 has no media. Open /player.' } } },
    { status: 500, body: '<h1>Oops</h1>' },
    { status: 502, body: '' },
    'away',
    { status: 200, body: '<h1>Welcome</h1>' },
    { status: 204 },
    { body: { id: 'x' } },
  ]
  const said: unknown[] = []
  for (const answer of answers) {
    server.answer = () => answer
    said.push(await call())
  }
  return said
}

export async function tokens() {
  const session = opened()
  server.answer = () => ines('first')
  await session.load()
  // Signing in gives the session another token.
  server.answer = ({ path }) => (path === 'sign-in' ? { body: {} } : ines('second'))
  await session.signIn('ines', 'harbour')
  server.calls.length = 0
  await api.get('layouts')
  await api.post('layouts', {})
  await api.put('layouts/x', {})
  await api.delete('layouts/x')
  return Object.fromEntries(server.calls.map((c) => [c.method, c.headers['X-CSRF-Token'] ?? null]))
}

export async function oldToken() {
  const session = opened()
  session.csrf = 'old'
  let right = 'new'
  server.answer = ({ path, headers }) =>
    path === 'session'
      ? ines('new')
      : headers['X-CSRF-Token'] === right
        ? { body: { id: 'x' } }
        : { status: 403, body: { error: { code: 'csrf.wrong', message: 'This request does not come from the application.' } } }
  const saved = await api.put('layouts/x', {})
  const sent = server.calls.map((c) => [c.method, c.method === 'PUT' ? c.headers['X-CSRF-Token'] : ''].join(' ').trim())
  right = 'never'
  server.calls.length = 0
  const refused = await api.put('layouts/x', {}).catch((e: Problem) => [e.status, e.code])
  return [saved, sent, refused, server.calls.length]
}

/** It was sent while nobody was signed in, and is answered once somebody is. */
export async function late() {
  const session = opened()
  server.answer = () => ines('old')
  await session.load()
  server.calls.length = 0
  server.ms = 200
  server.answer = () => ({ status: 401, body: { error: { code: 'session.none', message: 'Nobody is signed in.' } } })
  const asked = api.get('layouts')
  await pass(50)
  server.ms = 0
  server.answer = ({ path }) => (path === 'layouts' ? { body: { layouts: [] } } : ines('new'))
  await session.signIn('ines', 'harbour')
  await pass(300)
  return [await asked, session.isLost, server.log()]
}

export async function lost() {
  const session = opened()
  const lost = { status: 401, body: { error: { code: 'session.none', message: 'Nobody is signed in.' } } }
  server.answer = () => lost
  await api.get('layouts').catch(() => undefined)
  const seen: unknown[] = [session.isLost]
  session.account = { login: 'ines', name: 'Ines', rights: {} }
  await api.get('session').catch(() => undefined)
  seen.push(session.isLost)
  await api.get('layouts').catch(() => undefined)
  seen.push(session.isLost)
  let back = 0
  void session.back().then(() => back++)
  void session.back().then(() => back++)
  await pass(50)
  seen.push(back)
  server.answer = () => ines('new')
  await session.signIn('ines', 'harbour')
  await pass(50)
  seen.push(back, session.isLost)
  server.answer = () => ({ status: 401, body: { error: { message: 'Wrong name or password.' } } })
  seen.push(await session.signIn('ines', 'x').catch((e: Error) => e.message))
  return seen
}

export function shelf() {
  const { it: shelf } = mounted(() => useShelf())
  shelf.findings = (['stop', 'warning', 'stop'] as const).map((level) => ({ code: 'x', level, elements: [], message: '' }))
  shelf.remark = 'Three.'
  shelf.chosen = () => undefined
  const before = [shelf.stops, shelf.warnings, shelf.hints]
  shelf.clear()
  return [before, [shelf.stops, shelf.warnings, shelf.hints], shelf.remark, shelf.chosen === null]
}

export async function broughtIn() {
  let state = 'waiting'
  const pier = () => ({ id: 'pier', name: 'pier.png', state, kind: 'picture', width: 640, height: 480, length_ms: null })
  server.answer = () => ({ body: { media: [pier(), { ...pier(), id: 'song', state: 'refused' }] } })
  const { it } = mounted(() => useMedia())
  await pass(100)
  const counts = [server.calls.length]
  await pass(1100)
  state = 'ready'
  await pass(1100)
  counts.push(server.calls.length)
  await pass(9000)
  counts.push(server.calls.length)
  const ready = it.ready.value
  return [...counts, ready.map((m) => m.id), refOf(ready[0]!), facts({ ...ready[0]!, kind: 'film', length_ms: 2400 })]
}

export async function estate() {
  const display = (id: string, place: string, standing: number, older = false) => ({
    id,
    name: id,
    place,
    kind: 0,
    number: null,
    release: null,
    older,
    standing,
    due: null,
    players: [{ id: `p${id}`, standing }],
  })
  server.answer = () => ({
    body: {
      places: [
        { id: 'h', name: 'Hall', way: ['Estate', 'Hall'] },
        { id: 'e', name: 'Empty', way: [] },
        { id: 'p', name: 'Pier', way: [] },
      ],
      kinds: [{ timezone: 'UTC' }],
      standings: [{ state: 'plays' }, { state: 'unbound' }, { state: 'silent' }],
      releases: [],
      dues: [],
      findings: [],
      displays: [display('a', 'h', 0, true), display('c', 'p', 1), display('b', 'h', 2)],
    },
  })
  const { it } = mounted(() => useEstate())
  await pass(100)
  const ids = (list: { value: { id: string }[] }) => list.value.map((d) => d.id)
  const first = it.displays.value[0]!
  const one = [first.timezone, first.way, first.players[0]!.standing.state]
  return [
    one,
    Object.fromEntries(it.byPlace.value.map((p) => [p.name, p.displays.map((d) => d.id)])),
    ids(it.silent),
    ids(it.unbound),
    ids(it.plays),
    ids(it.notHandedOver),
  ]
}
