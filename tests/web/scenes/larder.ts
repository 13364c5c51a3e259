import 'fake-indexeddb/auto'
import { createHash } from 'node:crypto'
import { Fetcher, type News, type Wanted } from '@/player/fetcher'
import { Larder } from '@/player/larder'
import type { Pointer } from '@/player/pointer'
import { Store } from '@/player/store'
import { Network } from './network'

/** Releases that are put together from what is kept and what is fetched; each scene answers what it saw. */

const NOW = Date.parse('2026-06-01T10:00:00Z')
let names = 0

async function begun(network = new Network(), name = `larder-${names++}`, page = '1') {
  const store = await Store.open(name)
  const troubles: Record<string, string | null> = {}
  const listeners: ((news: News) => void)[] = []
  const fetcher = new Fetcher(store, network, (news) => listeners.forEach((hear) => hear(news)))
  const keeper = {
    want: (wanted: Wanted[]) => fetcher.want(wanted),
    first: (url: string) => fetcher.first(url),
    onNews: (hear: (news: News) => void) => void listeners.push(hear),
  }
  const larder = new Larder(
    store,
    page,
    keeper,
    (of, why) => (troubles[of] = why),
    (blob) => `blob:${blob.size}`,
    20,
  )
  const gather = (pointer: Pointer) => larder.gather(pointer, null, () => NOW)
  return { network, store, larder, gather, troubles, name }
}

/** Three pictures one after the other for 9 s each, beginning now. */
function release(network: Network, url: string, sizes: Record<string, number>, more: object = {}, kind = 'zone'): Pointer {
  const media = Object.entries(sizes).map(([id, bytes]) => ({
    id,
    name: `${id}.png`,
    type: 'image/png',
    ...network.file(`/files/${id}`, bytes),
  }))
  const rect = { x: 0, y: 0, width: 9, height: 9 }
  const scenes = media.map((one) => [
    { part: { element: 'z', kind, item: one.id, rect, drawn: rect, media: { id: one.id, name: one.name, width: 9, height: 9 } } },
  ])
  const segments = media.map((_, n) => ({ start_ms: 9000 * n, length_ms: 9000, fade_ms: 0, scene: n }))
  const run_sheet = {
    canvas: { width: 9, height: 9 },
    background: '#000',
    anchor_ms: NOW,
    layers: [{ zone: 'z', rect, period_ms: 9000 * media.length, segments, scenes }],
  }
  const text = JSON.stringify({ display: { raster: { width: 9, height: 9 } }, match: { target: rect }, media, faces: [], run_sheet, ...more })
  const bytes = new TextEncoder().encode(text)
  network.things.set(url, { bytes, type: 'application/json' })
  const sha256 = createHash('sha256').update(bytes).digest('hex')
  return { revoked: false, release: { number: 1, url, sha256, bytes: bytes.length } }
}

const state = async (promise: Promise<unknown>) =>
  Promise.race([
    promise.then(
      () => 'ready',
      (e: Error) => e.message,
    ),
    new Promise((done) => setImmediate(() => done('waiting'))),
  ])

/** What may be needed one day is fetched once something stands, gives way to what is to stand next, and is kept as long as it is named. */
export async function keptBeforehand() {
  const { network, store, larder, gather, troubles } = await begun()
  const beforehand = ['siren', 'face'].map((name) => ({ name, ...network.file(`/files/${name}`, 5) }))
  const kept = async () =>
    (await store.all())
      .filter((one) => one.whole)
      .map((one) => one.url)
      .sort()
  const steps: string[][] = []
  await larder.beforehand(beforehand)
  const first = gather(release(network, '/releases/1', { a: 1 }))
  await network.pass(1000)
  steps.push(await kept())
  network.things.get('/files/siren')!.status = 500
  await larder.stands(await first)
  await network.pass(1000)
  steps.push(await kept())
  const trouble = troubles['/files/siren']
  delete network.things.get('/files/siren')!.status
  // A new one is put together meanwhile: what stands told of the one before stops nothing of it.
  const second = gather(release(network, '/releases/2', { b: 2 }))
  await larder.stands(await first)
  await network.pass(10_000)
  steps.push(await kept())
  await larder.stands(await second)
  await network.pass(10_000)
  steps.push(await kept())
  const { all, missing } = larder.progress()
  await larder.beforehand([beforehand[1]!])
  await larder.stands(await gather(release(network, '/releases/2', { b: 2 })))
  steps.push(await kept())
  return { steps, trouble, progress: [all, missing] }
}

/** A new release waits for all of its files; the third one breaks off first, which is told by its name until it is there. */
export async function aNewOne() {
  const { network, gather, troubles } = await begun()
  const pointer = release(network, '/releases/1', { a: 100, b: 200, c: 300 })
  network.things.get('/files/c')!.status = 500
  const bundle = gather(pointer)
  await network.pass(1000)
  const before = [await state(bundle), troubles['/files/c']]
  delete network.things.get('/files/c')!.status
  await network.pass(3000)
  const told = await bundle
  return { before, after: troubles['/files/c'], addresses: ['a', 'b', 'c', 'x'].map((id) => told.addressOf(id)?.url ?? null), asked: network.asked }
}

/** After a start without a server: what is due within 10 s is enough, what is damaged and due later is fetched as soon as there is one. */
export async function keptByAnEarlierStart() {
  const first = await begun()
  const pointer = release(first.network, '/releases/1', { a: 100, b: 200, c: 300 })
  const early = first.gather(pointer)
  await first.network.pass(1000)
  await first.larder.stands(await early)
  await first.store.drop('/files/c')
  await first.store.append({ url: '/files/c', sha256: '', type: '' }, new Blob(['wrong']))
  await first.store.finish('/files/c')

  const network = new Network()
  const again = await begun(network, first.name)
  const bundle = again.gather(pointer)
  await network.pass(1000)
  const without = [await state(bundle), (await bundle).addressOf('a')?.url, (await bundle).addressOf('c')]
  release(network, '/releases/1', { a: 100, b: 200, c: 300 })
  await network.pass(10_000)
  ;(await bundle).addressOf('c')
  await network.quiet()
  return { without, later: (await bundle).addressOf('c')?.url, asked: [...new Set(network.asked)] }
}

/** Also where what is due now is damaged and nobody is there: all else is better than a dark glass. */
export async function dueAndDamaged() {
  const first = await begun()
  const pointer = release(first.network, '/releases/1', { a: 100, b: 200 })
  const early = first.gather(pointer)
  await first.network.pass(1000)
  await first.larder.stands(await early)
  await first.store.drop('/files/a')
  const again = await begun(new Network(), first.name)
  const bundle = again.gather(pointer)
  await again.network.pass(1000)
  await new Promise((done) => setTimeout(done, 50))
  return [await state(bundle), (await bundle).addressOf('a'), (await bundle).addressOf('b')?.url, Object.values(again.troubles).filter(Boolean)]
}

/** What the new release does not name goes once it stands, and not before. */
export async function whatNobodyNeeds() {
  const { network, store, larder, gather } = await begun()
  const kept = async () => (await store.all()).map((one) => one.url).sort()
  const steps: string[][] = []
  for (const [url, files] of [
    ['/releases/1', { a: 1, b: 2 }],
    ['/releases/2', { b: 2, c: 3 }],
  ] as const) {
    const bundle = gather(release(network, url, files))
    await network.pass(1000)
    steps.push(await kept())
    await larder.stands(await bundle)
    steps.push(await kept())
  }
  return steps
}

/** Two pages of one player: the one that goes ahead leaves the other what it needs; what is gone all the same is fetched again. */
export async function twoPages() {
  const one = await begun()
  const first = release(one.network, '/releases/1', { a: 1, b: 2 })
  const other = await begun(one.network, one.name, '2')
  for (const page of [one, other]) {
    const bundle = page.gather(first)
    await one.network.pass(1000)
    await page.larder.stands(await bundle)
  }
  const second = one.gather(release(one.network, '/releases/2', { b: 2, c: 3 }))
  await one.network.pass(1000)
  await one.larder.stands(await second)
  const kept = (await one.store.all()).map((file) => file.url).sort()
  await one.store.drop('/files/a')
  one.network.asked.length = 0
  const again = other.gather(first)
  await one.network.pass(1000)
  return { kept, again: (await again).addressOf('a')?.url, asked: one.network.asked }
}

export async function whatThisBuildDoesNotKnow() {
  const { network, gather } = await begun()
  const said: unknown[] = []
  for (const [url, more, kind] of [
    ['/releases/1', { format: 'upper-pane/release@9' }, 'zone'],
    ['/releases/2', {}, 'hologram'],
  ] as const) {
    const bundle = gather(release(network, url, { a: 1 }, more, kind))
    bundle.catch(() => undefined)
    await network.pass(1000)
    said.push(await state(bundle))
  }
  return said
}

/** A survey that is edited never lets a question appear where it played before: it goes on where it was. */
export async function outputsThatChange() {
  const network = new Network()
  const raster = { width: 200, height: 100 }
  const output = (n: number, x: number) => ({
    player: null,
    output: n,
    panels: [`p${n}`],
    raster: { width: 100, height: 100 },
    rotation: 0,
    source: { x, y: 0, width: 100, height: 100 },
  })
  const handed = (url: string, outputs: object[], size = raster) => release(network, url, { a: 10 }, { display: { raster: size, outputs } })
  const { larder, store, troubles, name } = await begun(network)
  const seen = async (pointer: Pointer, asked: number | null = null, which = larder) => {
    try {
      const bundle = await which.gather(pointer, asked, () => NOW)
      await which.stands(bundle)
      return [bundle.output.output, bundle.output.source.x, bundle.outputs.length]
    } catch (e) {
      return (e as Error).message
    }
  }
  const told = () => troubles.output ?? null
  const [one, two] = [handed('/r1', [output(1, 0)]), handed('/r2', [output(1, 0), output(2, 100)])]
  const steps: unknown[] = [await seen(two)]
  steps.push(await seen(one), told())
  steps.push(await seen(two), told())
  steps.push(await seen(two, 2), told())
  const smaller = handed('/r3', [output(3, 0), output(4, 0)], { width: 90, height: 90 })
  steps.push(await seen(smaller))
  const wall = await begun(network, name, '2')
  steps.push(await seen(two, 2, wall.larder), await seen(one, 2, wall.larder), wall.troubles.output)
  return { steps, progress: larder.progress(), kept: (await store.facts('output:')).length }
}
