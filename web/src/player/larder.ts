import { loadFaces } from '../pane/faces'
import { type Manifest, type Named, type Planes, type Sheet, type WholeRelease, identified, isManifest, sheetsOf, together } from '../pane/release'
import { isKnown } from '../pane/kinds/kinds'
import { type RunSheet, isZone, mediaSoon } from '../pane/sheet'
import type { News, Wanted } from './fetcher'
import { type Output, ownOutputs, thisOutput, wholeRaster } from './output'
import { type Beforehand, type Pointer, keyOf, named } from './pointer'
import type { Store } from './store'

/** Who fetches (keeper.ts). */
export interface Keeper {
  want(wanted: Wanted[]): void
  first(url: string): void
  onNews(listener: (news: News) => void): void
}

/** A release that can be shown: its sheet, and where its files are. */
export interface Bundle {
  /** How many were put together before it. */
  turn: number
  key: string
  sha256: string
  file: WholeRelease | Manifest
  sheet: RunSheet
  until: number | null
  output: Output
  /** Those of this player; one of them is `output`, unless the survey has changed since. */
  outputs: Output[]
  /** Of all that it needs, by url. */
  files: Wanted[]
  addressOf(media: string): { url: string; type: string } | null
}

/** There are several outputs, and nothing says which of them this page is. */
export class ToChoose extends Error {
  constructor(readonly outputs: Output[]) {
    super('This player has several outputs; choose one of them.')
  }
}

const FORMATS = [undefined, 'upper-pane/release@1', 'upper-pane/release@2']
/** What is due within so long has to be there before anything is shown. */
const SOON_MS = 10_000
/** The release that stood last. */
const STOOD = 'stood'

/** Puts releases together from the files of the store, and has fetched what is not there. */
export class Larder {
  private readonly here = new Set<string>()
  private readonly waiting = new Map<string, (() => void)[]>()
  private readonly addresses = new Map<string, string>()
  private readonly names = new Map<string, string>()
  private wanted: Wanted[] = []
  /** What stands on the glass goes on being wanted. */
  private standing: Wanted[] = []
  /** What may be needed one day: it is fetched while something stands and nothing else is being put together, so that nothing ever waits for it. */
  private ahead: Beforehand[] = []
  private isGathering = true
  private gathered = 0

  constructor(
    private readonly store: Store,
    /** What tells this page from others that share the store. */
    private readonly page: string,
    private readonly keeper: Keeper,
    private readonly tell: (of: string, why: string | null) => void,
    private readonly createUrl = (blob: Blob) => URL.createObjectURL(blob),
    /** How long the glass stays dark at the most for what is due and not there. */
    private readonly patienceMs = 4000,
  ) {
    keeper.onNews((news) => this.heard(news))
  }

  private heard(news: News): void {
    const { url } = news
    if (news.is === 'here') {
      this.here.add(url)
      this.tell(url, null)
      for (const done of this.waiting.get(url) ?? []) done()
      this.waiting.delete(url)
    } else if (news.is === 'damaged') {
      this.here.delete(url)
    } else if (news.tries > 1 || !news.why.startsWith('the server does not answer')) {
      this.tell(url, `${this.nameOf(url)} is not here: ${news.why}. It is tried again in ${Math.ceil(news.again_ms / 1000)} s.`)
    }
  }

  private nameOf(url: string): string {
    return this.names.get(url) ?? 'The release'
  }

  private want(list: Wanted[]): void {
    this.wanted = list
    this.keeper.want(once([...list, ...this.standing, ...(this.isGathering ? [] : this.ahead)], ({ url }) => url))
  }

  async beforehand(files: Beforehand[]): Promise<void> {
    this.ahead = files
    for (const { url, name } of files) if (!this.names.has(url)) this.names.set(url, `"${name}", kept for what is put up in a hurry,`)
    if (!this.isGathering) this.want(this.wanted)
    await this.note()
  }

  /** The pages of a player with several outputs share what is kept: each notes what it needs, so that none throws it away for another. */
  private async note(): Promise<void> {
    const urls = [...new Set([...this.standing, ...this.wanted, ...this.ahead].map((one) => one.url))]
    await this.store.keep(`needs:${this.page}`, JSON.stringify({ day: today(), urls }))
  }

  private async neededByAll(): Promise<Set<string>> {
    const needed = new Set<string>()
    for (const fact of await this.store.facts('needs:')) {
      const { day, urls } = JSON.parse(fact) as { day: number; urls: string[] }
      // One that has not been loaded for two days needs nothing any more.
      if (Math.abs(today() - day) <= 2) for (const url of urls) needed.add(url)
    }
    return needed
  }

  private need(files: Wanted[]): Promise<unknown> {
    return Promise.all(
      files.map(({ url }) =>
        this.here.has(url) ? Promise.resolve() : new Promise<void>((done) => this.waiting.set(url, [...(this.waiting.get(url) ?? []), done])),
      ),
    )
  }

  private async json<T>(file: Wanted): Promise<T> {
    const blob = await this.store.blob(file.url)
    if (!blob) throw new Error(`${this.nameOf(file.url)} is not in the store`)
    return JSON.parse(await blob.text()) as T
  }

  /** Fetches and reads one after the other of what names others. */
  async gather(pointer: Pointer, asked: number | null, now: () => number): Promise<Bundle> {
    const release = named(pointer)!
    const list: Wanted[] = [release]
    this.isGathering = true
    const turn = ++this.gathered
    const read = async <T>(file: Named): Promise<T> => {
      if (!list.some((one) => one.url === file.url)) list.push(file)
      this.want(list)
      await this.need([file])
      return this.json<T>(file)
    }
    const file = await read<WholeRelease | Manifest>(release)
    if (!FORMATS.includes(file.format)) throw new Error(`This page does not know the format ${file.format}; it has to be loaded anew.`)
    const planes: Planes | null = isManifest(file) ? (pointer.planes ?? file.planes) : null
    const sheets = planes && (await sheetsOf(planes, (sheet) => read<Sheet>(sheet)))
    const composed = planes && together(planes, sheets!, now())
    const sheet = composed ? composed.sheet : identified((file as WholeRelease).run_sheet)
    this.refuseUnknown(sheet)
    const part = pointer.player?.part ?? null
    const outputs = (file.display.outputs as Output[] | undefined) ?? [wholeRaster(file.display.raster)]
    const known = thisOutput(outputs, part, asked)
    const output = known ?? (await this.asBefore(file.display.raster, ownOutputs(outputs, part)))
    if (!output) throw new ToChoose(ownOutputs(outputs, part))
    this.tell(
      'output',
      known
        ? null
        : asked === null
          ? `This player has ${ownOutputs(outputs, part).length} outputs by now, and nothing says which this window is: it goes on as before until one is chosen there (F2).`
          : `There is no output ${asked} of this player any more: it goes on as before until another is chosen there (F2).`,
    )

    // What was laid above it since brings its own files.
    const media = dueFirst(
      sheet,
      now(),
      once([...file.media, ...(planes?.above ?? []).flatMap((plane) => plane.media ?? [])], ({ id }) => id),
    )
    const faces = once([...file.faces, ...(planes?.above ?? []).flatMap((plane) => plane.faces ?? [])], ({ url }) => url)
    for (const one of media) this.names.set(one.url, `"${one.name}"`)
    for (const face of faces) this.names.set(face.url, `The face ${face.family}`)
    const files = [...faces, ...media]
    // What stood before this start stands again as soon as what is due is found right, and without what is not; the rest is looked at meanwhile.
    const stood = (await this.store.fact(STOOD)) === release.sha256
    this.want([...list, ...files])
    await this.note()
    const soon = new Set(mediaSoon(sheet, now(), SOON_MS).map((one) => one.id))
    if (stood) {
      const due = this.need([...faces, ...media.filter((one) => soon.has(one.id))])
      await Promise.race([due, new Promise((done) => setTimeout(done, this.patienceMs))])
    } else await this.need(files)
    const byId = new Map(media.map((one) => [one.id, one]))
    for (const one of files) if (this.here.has(one.url)) await this.address(one.url)
    const failed = await loadFaces(faces, (face) => this.addresses.get(face.url) ?? face.url)
    this.tell(
      'faces',
      failed.length === 0 ? null : `This browser cannot use the face ${failed.map((face) => face.family).join(', ')}: words are set in another.`,
    )

    return {
      turn,
      key: keyOf(pointer),
      sha256: release.sha256,
      file,
      sheet,
      until: composed && Number.isFinite(composed.until) ? composed.until : null,
      output,
      outputs: ownOutputs(outputs, part),
      files: [...list, ...files],
      addressOf: (id) => {
        const one = byId.get(id)
        if (!one) return null
        const url = this.addresses.get(one.url)
        if (url !== undefined) return { url, type: one.type }
        if (this.here.has(one.url)) void this.address(one.url)
        else this.keeper.first(one.url)
        return null
      },
    }
  }

  /** What this page drew last, or the first output where that lies outside of the display by now: a survey that was changed never lets a question appear in public. */
  private async asBefore(raster: { width: number; height: number }, outputs: Output[]): Promise<Output | null> {
    const kept = await this.store.fact(`output:${this.page}`)
    if (kept === undefined) return null
    const output = JSON.parse(kept) as Output
    const { x, y, width, height } = output.source
    return x + width <= raster.width && y + height <= raster.height ? output : (outputs[0] ?? null)
  }

  /** How much of what is wanted is here, and the names of what is not. */
  progress(): { all: number; missing: string[] } {
    return { all: this.wanted.length, missing: this.wanted.filter(({ url }) => !this.here.has(url)).map(({ url }) => this.nameOf(url)) }
  }

  private async address(url: string): Promise<void> {
    if (this.addresses.has(url)) return
    const blob = await this.store.blob(url)
    if (blob && !this.addresses.has(url)) this.addresses.set(url, this.createUrl(blob))
  }

  /** What this build of the page cannot draw is refused whole: half a picture is worse than the one before. */
  private refuseUnknown(sheet: RunSheet): void {
    const look = (layers: RunSheet['layers']): void => {
      for (const layer of layers) {
        if (!isZone(layer)) {
          if (!isKnown(layer.part.kind))
            throw new Error(`This page does not know how to draw a ${String(layer.part.kind)}; it has to be loaded anew.`)
        } else for (const scene of layer.scenes) look(scene)
      }
    }
    look(sheet.layers)
  }

  /** What stands on the glass now, and what nobody needs any more. */
  async stands(bundle: Bundle): Promise<void> {
    this.standing = bundle.files
    // Unless another is being put together by now.
    if (bundle.turn === this.gathered) {
      this.isGathering = false
      this.want(bundle.files)
    }
    await this.store.keep(STOOD, bundle.sha256)
    await this.store.keep(`output:${this.page}`, JSON.stringify(bundle.output))
    await this.note()
    const needed = await this.neededByAll()
    for (const { url } of await this.store.all()) {
      if (needed.has(url)) continue
      await this.store.drop(url)
      this.here.delete(url)
      const address = this.addresses.get(url)
      if (address) URL.revokeObjectURL(address)
      this.addresses.delete(url)
    }
  }
}

const once = <T>(all: T[], key: (one: T) => string): T[] => [...new Map(all.map((one) => [key(one), one])).values()]

const today = () => Math.floor(Date.now() / 86_400_000)

/** In the order in which they are seen from an instant on, as far as an hour shows it. */
function dueFirst<M extends { id: string }>(sheet: RunSheet, at: number, media: M[]): M[] {
  const place = new Map(mediaSoon(sheet, at, 3_600_000, 500).map(({ id }, n) => [id!, n]))
  return [...media].sort((a, b) => (place.get(a.id) ?? Infinity) - (place.get(b.id) ?? Infinity) || 0)
}
