import { contentOf, look, tell } from './look'
import { type Box, type Due, type Now, type Part, type RunSheet, dueAt } from './sheet'

/** Where the file of a media id lies, and a small picture of a film until its frame is there; null where there is none. */
export type AddressOf = (mediaId: string) => { url: string; type: string; thumbnail?: string | null } | null

interface Drawn {
  clip: HTMLElement
  content: HTMLElement
  part: Part
  source: string
  now?: Now
  /** Stacking order and opacity as they were set last; undefined while it is not to be seen. */
  order?: number
  opacity?: number
}

const DRIFT_MS = 300

const sameBox = (a: Box, b: Box) => a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height

/**
 * Draws what a run sheet shows at an instant into an element: the same code in the composer, in thumbnails and in the player.
 *
 * Everything is placed where the core says; nothing is laid out here.
 */
export class Stage {
  readonly canvas: HTMLElement
  private sheet: RunSheet | null = null
  private readonly drawn = new Map<string, Drawn>()
  private readonly keys = new WeakMap<Part, string>()
  private readonly overridden = new Map<string, Box>()
  /** Set where the browser lets nothing be heard until somebody presses the page. */
  heldBack = false

  constructor(
    host: HTMLElement,
    private addressOf: AddressOf,
    private readonly keepAll = false,
    /** Whether it is seen in public: films are heard, and nothing is said of what is not there. */
    private readonly onGlass = false,
  ) {
    this.canvas = document.createElement('div')
    this.canvas.className = 'stage-canvas'
    Object.assign(this.canvas.style, {
      position: 'absolute',
      left: '0',
      top: '0',
      overflow: 'hidden',
      transformOrigin: '0 0',
      isolation: 'isolate',
    })
    host.append(this.canvas)
  }

  show(sheet: RunSheet, addressOf?: AddressOf): void {
    if (addressOf) this.addressOf = addressOf
    this.sheet = sheet
    this.overridden.clear()
    this.canvas.style.width = `${sheet.canvas.width}px`
    this.canvas.style.height = `${sheet.canvas.height}px`
    this.canvas.style.background = sheet.background
  }

  place(x: number, y: number, scaleX: number, scaleY = scaleX): void {
    this.canvas.style.transform = `translate(${x}px, ${y}px) scale(${scaleX}, ${scaleY})`
  }

  /** Shows an element elsewhere until the next run sheet comes: what a hand drags between two frames. */
  override(element: string, rect: Box | null): void {
    if (rect) this.overridden.set(element, rect)
    else this.overridden.delete(element)
    for (const one of this.drawn.values()) if (one.part.element === element) this.put(one)
  }

  /** Draws the instant; films run on when `playing`, else they stand at their frame. */
  draw(at: number, playing: boolean): Due[] {
    if (!this.sheet) return []
    const due = dueAt(this.sheet, at)
    const seen = new Set<string>()
    const times = new Map<string, number>()
    due.forEach((thing, order) => {
      const key = this.keyOf(thing.part, times)
      seen.add(key)
      const one = this.make(key, thing.part)
      // Drawn at every frame: only what changes is touched.
      const { style } = one.clip
      if (one.order === undefined) style.visibility = 'visible'
      if (one.order !== order) style.zIndex = String(order + 1)
      if (one.opacity !== thing.opacity) style.opacity = String(thing.opacity)
      one.order = order
      one.opacity = thing.opacity
      if (thing.now) {
        one.now = thing.now
        if (thing.now.rect || thing.now.drawn) this.put(one)
        tell(one.content, thing.part, thing.now)
      } else if (one.now) {
        // What moved stands still again.
        one.now = undefined
        this.put(one)
      }
      if (one.content instanceof HTMLVideoElement) {
        if (this.onGlass) this.hear(one.content, thing)
        this.time(one.content, thing, playing)
      }
    })
    for (const [key, one] of this.drawn) {
      if (seen.has(key)) continue
      if (this.keepAll && one.part.media) {
        one.clip.style.visibility = 'hidden'
        one.order = undefined
        if (one.content instanceof HTMLVideoElement && !one.content.paused) one.content.pause()
      } else {
        this.forget(key, one)
      }
    }
    return due
  }

  /** Resolves when every picture and film that is due can be seen. */
  async settled(): Promise<void> {
    await Promise.all(
      [...this.drawn.values()].map(({ content }) => {
        if (content instanceof HTMLImageElement) return content.decode().catch(() => undefined)
        if (content instanceof HTMLVideoElement && (content.readyState < 2 || content.seeking)) {
          return new Promise((done) => {
            content.addEventListener(content.seeking ? 'seeked' : 'loadeddata', done, { once: true })
            content.addEventListener('error', done, { once: true })
          })
        }
        return undefined
      }),
    )
  }

  destroy(): void {
    for (const [key, one] of this.drawn) this.forget(key, one)
    this.canvas.remove()
  }

  /** One item that follows itself is there twice, and an element may be drawn in many parts: each keeps what is made for it, by its turn. */
  private keyOf(part: Part, times: Map<string, number>): string {
    let key = this.keys.get(part)
    if (key === undefined) this.keys.set(part, (key = `${part.id ?? `${part.element}|${part.item ?? ''}`}|${part.kind}`))
    const turn = times.get(key) ?? 0
    times.set(key, turn + 1)
    return turn === 0 ? key : `${key}|${turn}`
  }

  private make(key: string, part: Part): Drawn {
    const address = part.media?.id ? this.addressOf(part.media.id) : null
    const source = address?.url ?? ''
    let one = this.drawn.get(key)
    if (one && one.source !== source) {
      this.forget(key, one)
      one = undefined
    }
    if (!one) {
      const clip = document.createElement('div')
      Object.assign(clip.style, { position: 'absolute', overflow: 'hidden' })
      clip.dataset.element = part.element
      clip.dataset.kind = part.kind
      if (part.item) clip.dataset.item = part.item
      const content = contentOf(part, source, this.onGlass)
      // Shows through until the film has decoded its frame, which takes as long as the film's key frames are apart.
      if (part.media?.length_ms !== undefined && address?.thumbnail) content.style.background = `0 0 / 100% 100% url("${address.thumbnail}")`
      clip.append(content)
      this.canvas.append(clip)
      one = { clip, content, part: undefined as unknown as Part, source }
      this.drawn.set(key, one)
    }
    if (one.part !== part) {
      one.part = part
      this.put(one)
      look(one.content, part)
    }
    return one
  }

  private put({ clip, content, part, now }: Drawn): void {
    const moved = this.overridden.get(part.element)
    let rect = now?.rect ?? part.rect
    let drawn = now?.drawn ?? part.drawn
    if (moved) {
      const of = part.of ?? part.rect
      // What fills its box by itself goes on filling it; how content is fitted only the core knows.
      const whole = !part.of && !part.media && !part.code && sameBox(part.rect, part.drawn)
      const shifted = (box: Box): Box => ({ ...box, x: box.x + moved.x - of.x, y: box.y + moved.y - of.y })
      drawn = whole ? moved : shifted(drawn)
      rect = part.of ? shifted(rect) : moved
    }
    Object.assign(clip.style, {
      left: `${rect.x}px`,
      top: `${rect.y}px`,
      width: `${rect.width}px`,
      height: `${rect.height}px`,
    })
    Object.assign(content.style, {
      position: 'absolute',
      left: `${drawn.x - rect.x}px`,
      top: `${drawn.y - rect.y}px`,
      width: `${drawn.width}px`,
      height: `${drawn.height}px`,
      maxWidth: 'none',
    })
    clip.style.borderRadius = part.media && part.radius_px ? `${part.radius_px}px` : ''
  }

  /** Puts a film at its frame, or lets it run and corrects it when it drifts. */
  private time(film: HTMLVideoElement, thing: Due, playing: boolean): void {
    const length = thing.part.media?.length_ms ?? 0
    const offset = thing.offset_ms ?? 0
    const held = offset >= length - 40
    const want = Math.min(offset, Math.max(0, length - 40)) / 1000
    if (!playing || held) {
      if (!film.paused) film.pause()
      if (Math.abs(film.currentTime - want) > 0.02 && !film.seeking) film.currentTime = want
      return
    }
    if (Math.abs(film.currentTime - want) * 1000 > DRIFT_MS && !film.seeking) film.currentTime = want
    if (film.paused && film.readyState >= 2)
      void film.play().catch((e: unknown) => {
        if (!film.muted && e instanceof DOMException && e.name === 'NotAllowedError') this.heldBack = film.muted = true
      })
  }

  private hear(film: HTMLVideoElement, { part, now }: Due): void {
    const volume = (now?.volume ?? part.volume ?? 0) / 100
    const muted = volume === 0 || this.heldBack
    if (film.muted !== muted) film.muted = muted
    if (film.volume !== volume) film.volume = volume
  }

  /** After somebody has pressed the page a browser lets films be heard. */
  pressed(): void {
    this.heldBack = false
  }

  private forget(key: string, { clip, content }: Drawn): void {
    if (content instanceof HTMLVideoElement) {
      content.pause()
      content.removeAttribute('src')
      content.load()
    }
    clip.remove()
    this.drawn.delete(key)
  }
}
