import { loadFaces } from '../pane/faces'
import { type Manifest, type Named, type Planes, type Sheet, type WholeRelease, isManifest, sheetsOf, together } from '../pane/release'
import { Stage } from '../pane/stage'
import { type Alignment, alignmentPicture } from './alignment'
import { type Output, layOut, ownOutputs, thisOutput, wholeRaster } from './output'
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import './player.scss'

/**
 * The player page. At /player it shows a code until somebody binds it; at /play/SECRET/ it plays.
 *
 * A player with several outputs has a page for each: `?output=2`. Each is drawn turned where its panel is turned.
 *
 * It keeps its page, the release and all files in the browser's own store, so that it goes on without any server,
 * also after it was started anew. `#at=2026-06-01T10:00:00Z` makes it stand still at an instant.
 */

interface Pointer {
  revoked: boolean
  player?: { name: string; part: string | null; outputs: number[] }
  alignment?: Alignment | null
  display?: { name: string; raster: { width: number; height: number } }
  release?: ({ number: number } & Named) | null
  manifest?: Named | null
  planes?: Planes | null
  /** How often a player says that it is there, s. */
  report_every_s?: number
}

declare const __BUILD__: string
const POLL_MS = 2000
/** Until a pointer says otherwise. */
const REPORT_S = 10
const host = document.getElementById('player')!
const secret = /^\/play\/([0-9a-f]{40})\/$/.exec(location.pathname)?.[1] ?? null
const asked = Number(new URLSearchParams(location.search).get('output')) || null
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms))

function say(title: string, text: string, code = ''): void {
  const note = document.createElement('div')
  note.className = 'note'
  const heading = document.createElement('h1')
  heading.textContent = title
  const body = document.createElement('p')
  body.textContent = text
  note.append(heading)
  if (code) {
    const big = document.createElement('p')
    big.className = 'code'
    big.textContent = `${code.slice(0, 3)} ${code.slice(3)}`
    big.dataset.code = code
    note.append(big)
  }
  note.append(body)
  host.replaceChildren(note)
}

let choosing = false
/** This player has several outputs, each with a page of its own: which one is this window? */
function chooseOutput(outputs: Output[]): void {
  if (choosing) return
  choosing = true
  say('Which output is this window?', asked === null ? 'Open one window for each output, and press its number.' : `There is no output ${asked} here.`)
  const list = document.createElement('nav')
  list.className = 'outputs'
  for (const o of outputs) {
    const link = document.createElement('a')
    link.href = `?output=${o.output ?? 1}`
    link.textContent = String(o.output ?? 1)
    link.title = o.panels.join(', ')
    list.append(link)
  }
  host.querySelector('.note')?.append(list)
}

// --- a new player -----------------------------------------------------------------

async function pair(): Promise<void> {
  const known = localStorage.getItem('upper-pane:address')
  if (known && !new URLSearchParams(location.search).has('new')) {
    location.replace(known)
    return
  }
  for (;;) {
    try {
      const answer = await fetch('/api/pairing', { method: 'POST' })
      if (!answer.ok) throw new Error(String(answer.status))
      const { claim, code } = (await answer.json()) as { claim: string; code: string }
      say('A new player', 'Type this code at Displays, on the display that this player belongs to.', code)
      for (;;) {
        await wait(1500)
        const asked = await fetch(`/api/pairing/${claim}`)
        if (asked.status === 404) break
        if (!asked.ok) continue
        const { address, ended } = (await asked.json()) as { address: string | null; ended: boolean }
        if (address) {
          localStorage.setItem('upper-pane:address', address)
          location.replace(address)
          return
        }
        if (ended) break
      }
    } catch {
      say('A new player', 'The server does not answer. This page tries again by itself.')
      await wait(5000)
    }
  }
}

// --- playing ----------------------------------------------------------------------

const store = () => caches.open(`upper-pane:${secret}`)
const objectUrls = new Map<string, string>()

async function kept(url: string): Promise<Response | undefined> {
  return (await store()).match(url)
}

/** Fetches a file into the store unless it is there, and holds it against its hash. */
async function fetchKept(url: string, sha256: string): Promise<void> {
  if (await kept(url)) return
  const answer = await fetch(url)
  if (!answer.ok) throw new Error(`${url} answered ${answer.status}`)
  const body = await answer.blob()
  const hash = await crypto.subtle.digest('SHA-256', await body.arrayBuffer())
  const hex = [...new Uint8Array(hash)].map((b) => b.toString(16).padStart(2, '0')).join('')
  if (hex !== sha256) throw new Error(`${url} does not have the hash that the release names`)
  await (await store()).put(url, new Response(body, { headers: { 'Content-Type': answer.headers.get('Content-Type') ?? '' } }))
}

async function objectUrl(url: string): Promise<string> {
  let address = objectUrls.get(url)
  if (!address) {
    const answer = await kept(url)
    if (!answer) throw new Error(`${url} is not in the store`)
    address = URL.createObjectURL(await answer.blob())
    objectUrls.set(url, address)
  }
  return address
}

/** A file of the store, fetched into it where it is not there. */
async function fetched<T>({ url, sha256 }: Named): Promise<T> {
  await fetchKept(url, sha256)
  return (await (await kept(url))!.json()) as T
}

/** All that decides what is played. */
const keyOf = (pointer: Pointer) => `${(pointer.manifest ?? pointer.release)?.sha256} ${JSON.stringify(pointer.planes ?? null)}`
const planesOf = ({ base, above, data }: Planes): Named[] => [base, ...above, ...data].map((plane) => plane.sheet)

class Playing {
  private stage: Stage | null = null
  private release: WholeRelease | null = null
  /** When something that is planned in planes begins or ends, so that it is put together anew, Unix ms. */
  private until = Infinity
  private takenFor = ''
  private room: HTMLElement | null = null
  /** Which of its player's outputs this page is; null until it is known. */
  output: Output | null = null
  playsSha256: string | null = null
  since: string | null = null
  trouble: string | null = null
  private alignment: HTMLElement | null = null
  private alignedFor = ''
  private readonly still = /^#at=(.+)$/.exec(location.hash)?.[1] ?? null

  /** Whether what a pointer says is not what it plays. */
  isBehind(pointer: Pointer): boolean {
    return keyOf(pointer) !== this.takenFor || this.at() >= this.until
  }

  /** Takes a release over once all of it is in the store; until then the old one goes on. */
  async take(pointer: Pointer, part: string | null): Promise<void> {
    const named = (pointer.manifest ?? pointer.release)!
    const file = await fetched<WholeRelease | Manifest>(named)
    const planes = isManifest(file) ? (pointer.planes ?? file.planes) : null
    const sheets = planes && (await sheetsOf(planes, fetched<Sheet>))
    const now = planes && together(planes, sheets!, this.at())
    const release = now ? { ...file, run_sheet: now.sheet } : (file as WholeRelease)
    const outputs = (release.display.outputs as Output[] | undefined) ?? [wholeRaster(release.display.raster)]
    const output = thisOutput(outputs, part, asked)
    if (!output) {
      chooseOutput(ownOutputs(outputs, part))
      return
    }
    const files = [...release.media, ...release.faces]
    for (const one of files) await fetchKept(one.url, one.sha256)
    const addresses = new Map<string, { url: string; type: string }>()
    for (const media of release.media) addresses.set(media.id, { url: await objectUrl(media.url), type: media.type })
    const faces = new Map<string, string>()
    for (const face of release.faces) faces.set(face.url, await objectUrl(face.url))
    await loadFaces(release.faces, (face) => faces.get(face.url) ?? face.url)
    const room = document.createElement('div')
    room.className = 'room'
    const next = new Stage(room, (id) => addresses.get(id) ?? null, true, true)
    next.show(release.run_sheet)
    layOut(room, output)
    next.draw(this.at(), this.still === null)
    room.style.visibility = 'hidden'
    host.append(room)
    await Promise.race([next.settled(), wait(3000)])
    // Changed over at once: the new room is shown in the same frame in which the old one goes.
    room.style.visibility = 'visible'
    for (const old of [...host.children]) if (old !== room) old.remove()
    this.stage?.destroy()
    this.stage = next
    this.room = room
    this.output = output
    this.release = release
    this.playsSha256 = named.sha256
    this.takenFor = keyOf(pointer)
    this.until = now?.until ?? Infinity
    this.since = new Date().toISOString().replace(/\.\d+Z$/, 'Z')
    this.trouble = null
    this.fit()
    const own = isManifest(file)
      ? [...file.sheets, ...planesOf(planes!), ...Object.values(sheets!).flatMap((sheet) => Object.values(sheet.includes ?? {}))]
      : []
    await this.tidy(new Set([named.url, ...[...own, ...files].map((f) => f.url)]))
  }

  /** The output's part of the display's raster fills the window, turned as its panel hangs; the canvas lies on it where the match says. */
  fit(): void {
    if (!this.stage || !this.release || !this.room || !this.output) return
    const { target } = this.release.match
    const { canvas } = this.release.run_sheet
    const { source } = this.output
    const scale = layOut(this.room, this.output)
    this.stage.place(
      (target.x - source.x) * scale.x,
      (target.y - source.y) * scale.y,
      (scale.x * target.width) / canvas.width,
      (scale.y * target.height) / canvas.height,
    )
  }

  /** Shows who this output is until the picture's time is over; then what is handed over comes back. */
  align(alignment: Alignment | null, part: string | null): void {
    const own = alignment && Date.parse(alignment.until) > Date.now() ? thisOutput(alignment.outputs, part, asked) : null
    const key = own ? JSON.stringify(alignment) : ''
    if (key === this.alignedFor) return
    this.alignedFor = key
    this.alignment?.remove()
    this.alignment = own ? alignmentPicture(alignment!, own) : null
    if (this.alignment) document.body.append(this.alignment)
  }

  draw(): void {
    this.stage?.draw(this.at(), this.still === null)
  }

  pressed(): void {
    this.stage?.pressed()
  }

  /** What is wrong, as it is reported. */
  get told(): string | null {
    return (
      this.trouble ?? (this.stage?.heldBack ? 'This browser holds sound back until somebody presses the page; let it play sound by itself.' : null)
    )
  }

  async settled(): Promise<void> {
    await this.stage?.settled()
  }

  clear(): void {
    this.stage?.destroy()
    this.stage = null
    this.takenFor = ''
    this.playsSha256 = this.since = null
  }

  private at(): number {
    return this.still === null ? Date.now() : Date.parse(this.still)
  }

  /** Throws away files that the release does not need any more. */
  private async tidy(needed: Set<string>): Promise<void> {
    const cache = await store()
    for (const request of await cache.keys()) {
      const path = new URL(request.url).pathname
      if (/^\/(files|releases|sheets)\//.test(path) && !needed.has(path)) {
        await cache.delete(request)
        const address = objectUrls.get(path)
        if (address) URL.revokeObjectURL(address)
        objectUrls.delete(path)
      }
    }
  }
}

/** Puts the page itself into the store, so that it opens without any server. */
async function keepPage(): Promise<void> {
  // A worker that takes over asks which pages know their build: those that do not are loaded anew.
  navigator.serviceWorker.addEventListener('message', (event) => event.ports[0]?.postMessage(__BUILD__))
  navigator.serviceWorker.startMessages()
  await navigator.serviceWorker.register('/play/sw.js', { scope: '/play/' })
  const parts = [...document.querySelectorAll<HTMLScriptElement | HTMLLinkElement>('script[src], link[href]')].map((e) =>
    e instanceof HTMLScriptElement ? e.src : e.href,
  )
  const page = await caches.open('upper-pane:page')
  await page.addAll([location.pathname, ...new Set(parts)])
}

async function askPointer(): Promise<Pointer> {
  const url = `/pointers/${secret}.json`
  const cache = await store()
  try {
    const answer = await fetch(url, { cache: 'no-cache' })
    if (answer.ok) {
      const copy = answer.clone()
      const pointer = (await answer.json()) as Pointer
      await cache.put(url, copy)
      return pointer
    }
  } catch {
    // Nobody answers: what was said last holds on.
  }
  const last = await cache.match(url)
  if (last) return (await last.json()) as Pointer
  throw new Error('no pointer')
}

async function play(): Promise<void> {
  const playing = new Playing()
  let reported = 0
  let said = ''
  let every = REPORT_S
  // Where the page cannot be kept it plays all the same, as long as the server stands.
  keepPage().catch(() => undefined)
  void navigator.storage?.persist?.().catch(() => undefined)
  addEventListener('resize', () => playing.fit())
  addEventListener('pointerdown', () => playing.pressed())
  const frame = () => {
    playing.draw()
    requestAnimationFrame(frame)
  }
  requestAnimationFrame(frame)
  Object.assign(window, { upperPanePlayer: playing })

  for (;;) {
    try {
      const pointer = await askPointer()
      if (pointer.revoked) {
        playing.clear()
        if (localStorage.getItem('upper-pane:address') === location.pathname) localStorage.removeItem('upper-pane:address')
        say('This player was taken back', 'Its address works no more. Open /player to bind it anew.')
        await caches.delete(`upper-pane:${secret}`)
        return
      }
      every = pointer.report_every_s ?? REPORT_S
      playing.align(pointer.alignment ?? null, pointer.player?.part ?? null)
      if (!pointer.release && !playing.playsSha256)
        say(pointer.player?.name ?? 'Player', `Bound to ${pointer.display?.name ?? 'a display'}. Nothing was handed over to it yet.`)
      if (pointer.release && playing.isBehind(pointer)) {
        try {
          await playing.take(pointer, pointer.player?.part ?? null)
        } catch (e) {
          playing.trouble = e instanceof Error ? e.message : 'The new release could not be taken.'
        }
      }
    } catch {
      if (!playing.playsSha256) say('Player', 'The server does not answer, and nothing is kept here yet. It is tried again by itself.')
    }
    // What changes is said at once; that it is there, now and then, and not when all the others say so.
    const state = JSON.stringify({
      release: playing.playsSha256,
      since: playing.since,
      trouble: playing.told,
      output: playing.output?.output ?? asked,
      build: __BUILD__,
      every_s: every,
    })
    if (!choosing && (state !== said || Date.now() > reported)) {
      reported = Date.now() + 1000 * every * (0.9 + 0.2 * Math.random())
      said = state
      void fetch(`/api/play/${secret}/report`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: state })
        .then((answer) => {
          if (!answer.ok) said = ''
        })
        .catch(() => {
          said = ''
        })
    }
    await wait(POLL_MS)
  }
}

void (secret ? play() : pair())
