import 'fake-indexeddb/auto'
import { Fetcher, type News, type Wanted } from '@/player/fetcher'
import { Store } from '@/player/store'
import { Network } from './network'

/** A player that fetches: each scene answers what it saw. */

let names = 0
async function begun(network = new Network(), name = `player-${names++}`) {
  const store = await Store.open(name)
  const news: News[] = []
  const fetcher = new Fetcher(store, network, (one) => news.push(one))
  const here = () => news.filter((one) => one.is === 'here').map((one) => one.url)
  const why = () => news.flatMap((one) => (one.is === 'trouble' ? [one.why] : []))
  return { network, store, news, fetcher, here, why, name }
}
const lengthOf = async (store: Store, url: string) => (await store.blob(url))?.size ?? null

/** One that breaks off twice goes on where it ended, and is right. */
export async function brokenOff() {
  const { network, store, fetcher, here, why } = await begun()
  const film = network.file('/film', 3_000_000, { dropsAfter: 1_200_000, drops: 2 })
  fetcher.want([film])
  await network.pass(20_000)
  return { asked: network.asked, why: why(), here: here(), length: await lengthOf(store, '/film') }
}

/** Also after the page was killed: what was kept is held against the hash together with the rest. */
export async function killedInBetween() {
  const first = await begun()
  const film = first.network.file('/film', 2_500_000, { stallsAfter: 1_500_000 })
  first.fetcher.want([film])
  await first.network.quiet()
  const network = new Network()
  network.file('/film', 2_500_000)
  const second = await begun(network, first.name)
  second.fetcher.want([film])
  await network.pass(1000)
  return { asked: network.asked, here: second.here(), length: await lengthOf(second.store, '/film') }
}

/** A server that knows no ranges sends all of it again. */
export async function withoutRanges() {
  const { network, store, fetcher, here } = await begun()
  const film = network.file('/film', 2_500_000, { dropsAfter: 1_200_000, ranges: false })
  fetcher.want([film])
  await network.pass(20_000)
  return { asked: network.asked, here: here(), length: await lengthOf(store, '/film') }
}

/** Whatever is wrong with an answer is said, nothing of it is kept, and it is tried again, later each time. */
export async function wrongAnswers() {
  const said: Record<string, unknown> = {}
  const wrong: Record<string, [Parameters<Network['file']>[2], Partial<Wanted>]> = {
    'not found': [{ status: 404 }, {}],
    'an error': [{ status: 500 }, {}],
    'a web page': [{ type: 'text/html; charset=utf-8' }, {}],
    'another hash': [{}, { sha256: 'f'.repeat(64) }],
    'longer, and says so': [{}, { bytes: 1500 }],
    'longer, and does not say so': [{ announced: null }, { bytes: 1500 }],
    'shorter, and does not say so': [{ announced: null }, { bytes: 9000 }],
    'a lie about its length': [{ announced: 7 }, {}],
    'nothing comes': [{ stallsAfter: 1000 }, {}],
  }
  for (const [name, [thing, other]] of Object.entries(wrong)) {
    const { network, store, fetcher, news, here } = await begun()
    fetcher.want([{ ...network.file('/x', 5000, thing), ...other }])
    await network.pass(60_000)
    const troubles = news.filter((one) => one.is === 'trouble')
    said[name] = {
      why: troubles[0]?.why,
      again: troubles.slice(0, 3).map((one) => one.again_ms),
      here: here(),
      whole: (await store.about('/x'))?.whole ?? false,
    }
  }
  return said
}

/** Where nobody answers, it is tried less and less, and at the most every five minutes. */
export async function nobodyAnswers() {
  const { network, fetcher, news } = await begun()
  fetcher.want([{ url: '/gone', sha256: 'a', bytes: 5 }])
  await network.pass(3_600_000)
  return { tries: network.asked.length, last: news.at(-1) }
}

export async function aFullDisk() {
  const { network, store, fetcher, why, here } = await begun()
  network.free = 4_000_000
  fetcher.want([network.file('/large', 5_000_000), network.file('/small', 5000)])
  await network.pass(1000)
  const before = { why: why(), here: here() }
  network.free = 6_000_000
  await network.pass(60_000)
  return { before, here: here(), length: await lengthOf(store, '/large') }
}

/** A file that was damaged on the disk is never used: after a start each is held against its hash, and fetched anew where it is another. */
export async function damaged() {
  const first = await begun()
  const files = [first.network.file('/a', 5000), first.network.file('/b', 5000)]
  first.fetcher.want(files)
  await first.network.pass(100)
  await first.store.drop('/a')
  await first.store.append({ url: '/a', sha256: files[0]!.sha256, type: '' }, new Blob([new Uint8Array(5000)]))
  await first.store.finish('/a')
  const network = new Network()
  network.file('/a', 5000)
  const second = await begun(network, first.name)
  second.fetcher.want(files)
  await network.pass(100)
  return { news: second.news.map((one) => `${one.url} ${one.is}`), asked: network.asked }
}

/** What is due first is fetched first, and what nobody wants any more is broken off. */
export async function order() {
  const { network, fetcher, here } = await begun()
  const files = ['/1', '/2', '/3', '/4'].map((url) => network.file(url, 2_000_000, url < '/3' ? { stallsAfter: 1000 } : {}))
  fetcher.want(files)
  await network.quiet()
  const before = [...network.asked]
  fetcher.first('/4')
  network.things.get('/1')!.stallsAfter = undefined
  fetcher.want([files[0]!, files[3]!])
  await network.pass(60_000)
  return { before, asked: network.asked.filter((one) => one === '/3' || one === '/4'), here: here() }
}
