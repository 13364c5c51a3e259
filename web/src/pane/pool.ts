import type { Media } from './sheet'

/** So many films stand ready, beside those that are seen: each holds a decoder. */
const FILMS = 4
/** So much of decoded pictures stands ready beside those that are seen. */
const BYTES = 128 * 2 ** 20

export type Loaded = HTMLImageElement | HTMLVideoElement

/** Pictures and films that are seen soon stand loaded and decoded; what is seen no more is given back. */
export class Pool {
  private readonly ready = new Map<string, Loaded>()

  constructor(
    private readonly films = FILMS,
    private readonly bytes = BYTES,
  ) {}

  /** @param wanted in the order in which they are seen; what is not among them any more is given back */
  prepare(wanted: { media: Media; url: string }[]): void {
    let [films, bytes] = [0, 0]
    const within = new Map<string, Media>()
    for (const { media, url } of wanted) {
      const isFilm = media.length_ms !== undefined
      if (isFilm) films++
      else bytes += 4 * media.width * media.height
      if (isFilm ? films <= this.films : bytes <= this.bytes) within.set(url, media)
    }
    for (const [url, one] of this.ready) {
      if (within.has(url)) continue
      this.ready.delete(url)
      giveBack(one)
    }
    for (const [url, media] of within) {
      if (this.ready.has(url)) continue
      const one = loaded(media, url)
      if (one instanceof HTMLImageElement) one.decode().catch(() => undefined)
      this.ready.set(url, one)
    }
  }

  take(media: Media, url: string): Loaded {
    const ready = this.ready.get(url)
    this.ready.delete(url)
    return ready ?? loaded(media, url)
  }

  /** Resolves when all that stands here can be seen, or cannot be. */
  async settled(): Promise<void> {
    await Promise.all([...this.ready.values()].map(settled))
  }

  get held(): number {
    return this.ready.size
  }

  empty(): void {
    this.prepare([])
  }
}

function loaded(media: Media, url: string): Loaded {
  if (media.length_ms === undefined) {
    const picture = document.createElement('img')
    picture.alt = ''
    picture.draggable = false
    picture.src = url
    return picture
  }
  const film = document.createElement('video')
  film.muted = true
  film.playsInline = true
  film.preload = 'auto'
  film.disablePictureInPicture = true
  film.src = url
  film.style.objectFit = 'fill'
  return film
}

/** A film lets go of its decoder only when it has nothing to play any more. */
export function giveBack(one: Loaded): void {
  if (one instanceof HTMLVideoElement) {
    one.pause()
    one.removeAttribute('src')
    one.load()
  } else one.removeAttribute('src')
}

/** Resolves when it can be seen at the frame that it is put to, or never will be. */
export function settled(one: Loaded): Promise<unknown> {
  if (one instanceof HTMLImageElement) return one.decode().catch(() => undefined)
  if (one.error !== null || (one.readyState >= 2 && !one.seeking)) return Promise.resolve()
  return new Promise((done) => {
    one.addEventListener(one.seeking ? 'seeked' : 'loadeddata', done, { once: true })
    one.addEventListener('error', done, { once: true })
  })
}
