/** Elements enough to draw on: what is made, where it hangs, how it looks, and what moves in it. */

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

type Style = Record<string, string | undefined>

/** A motion as the stage makes it: from one frame to another, at an even pace. */
class Animation_ {
  startTime: number | null = null
  held = 0
  isOver = false
  constructor(
    readonly frames: Style[],
    readonly timing: { duration: number; iterations: number },
    private readonly forget: (one: Animation_) => void,
  ) {}
  get currentTime() {
    return this.startTime === null ? this.held : performance.now() - this.startTime
  }
  set currentTime(to: number) {
    this.held = to
  }
  pause() {
    this.held = this.currentTime
    this.startTime = null
  }
  cancel() {
    this.isOver = true
    // Nothing holds it any more, as in a browser.
    this.forget(this)
  }
  private get share() {
    const { duration, iterations } = this.timing
    return iterations === Infinity ? (((this.currentTime / duration) % 1) + 1) % 1 : Math.min(1, Math.max(0, this.currentTime / duration))
  }
  value(of: 'opacity' | 'transform'): number[] | null {
    const [from, to] = this.frames.map((frame) => frame[of])
    if (from === undefined || to === undefined) return null
    const [a, b] = [figures(String(from)), figures(String(to))]
    return a.map((one, n) => one + (b[n]! - one) * this.share)
  }
}

const figures = (text: string) => (text.match(/-?\d+(\.\d+)?(e-?\d+)?/g) ?? []).map(Number)

export class Element_ {
  style: Style = {}
  dataset: Record<string, string> = {}
  className = ''
  textContent = ''
  children: Element_[] = []
  parent: Element_ | null = null
  animations: Animation_[] = []
  attributes: Record<string, string> = {}
  constructor(readonly tag: string) {}
  append(...nodes: (Element_ | string)[]) {
    for (const one of nodes) {
      const node = typeof one === 'string' ? Object.assign(new Element_('#text'), { textContent: one }) : one
      node.parent = this
      this.children.push(node)
    }
  }
  replaceChildren(...nodes: Element_[]) {
    this.children = []
    this.append(...nodes)
  }
  remove() {
    if (this.parent) this.parent.children = this.parent.children.filter((one) => one !== this)
  }
  setAttribute(name: string, value: string) {
    this.attributes[name] = value
    if (name === 'data-hand') this.dataset.hand = value
  }
  removeAttribute(name: string) {
    delete (this as Record<string, unknown>)[name]
  }
  addEventListener() {}
  removeEventListener() {}
  querySelectorAll(): Element_[] {
    return this.all().filter((one) => one.dataset.hand !== undefined)
  }
  all(): Element_[] {
    return this.children.flatMap((one) => (one instanceof Element_ ? [one, ...one.all()] : []))
  }
  animate(frames: Style[], timing: { duration: number; iterations: number }) {
    const animation = new Animation_(frames, timing, (over) => (this.animations = this.animations.filter((one) => one !== over)))
    this.animations.push(animation)
    return animation
  }
  private moving(of: 'opacity' | 'transform') {
    return this.animations.flatMap((one) => (one.isOver ? [] : [one.value(of)])).find((value) => value !== null) ?? null
  }
  /** How much of what is behind is covered, by itself and by what it lies in. */
  get opacity(): number {
    return (this.moving('opacity')?.[0] ?? Number(this.style.opacity || 1)) * (this.parent?.opacity ?? 1)
  }
  /** Where it lies on the canvas, px. */
  get box(): Box {
    const [x, y] = this.moving('transform') ?? [0, 0]
    const within = this.parent && this.parent.className !== 'stage-canvas' ? this.parent.box : { x: 0, y: 0, width: 0, height: 0 }
    const side = (name: string, whole: number) => {
      const given = this.style[name] ?? '0px'
      return given.endsWith('%') ? (parseFloat(given) / 100) * whole : parseFloat(given)
    }
    return {
      x: within.x + side('left', 0) + x!,
      y: within.y + side('top', 0) + y!,
      width: side('width', within.width),
      height: side('height', within.height),
    }
  }
  /** How much of it can be seen: what it lies in, and it itself, cuts off what reaches out. */
  get seen(): Box {
    let seen = this.box
    for (let one = this as Element_ | null; one && one.className !== 'stage-canvas'; one = one.parent)
      if (one.style.overflow === 'hidden') seen = cut(seen, one.box)
    return seen
  }
}

export function cut(a: Box, b: Box): Box {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)]
  return {
    x,
    y,
    width: Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x),
    height: Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y),
  }
}

class Image_ extends Element_ {
  decode = () => Promise.resolve()
}

/** Films that hold a decoder. */
const loaded = new Set<Film>()

class Film extends Element_ {
  private source = ''
  paused = true
  seeking = false
  readyState = 4
  error = null
  playbackRate = 1
  at = 0
  seeks = 0
  get currentTime() {
    return this.at
  }
  set currentTime(to: number) {
    this.at = to
    this.seeks++
  }
  play() {
    this.paused = false
    return Promise.resolve()
  }
  pause() {
    this.paused = true
  }
  get src() {
    return this.source
  }
  set src(url: string) {
    this.source = url
    loaded.add(this)
  }
  override removeAttribute(name: string) {
    if (name === 'src') this.source = ''
  }
  /** A decoder is given back only when nothing is loaded in place of what was. */
  load() {
    if (this.source === '') loaded.delete(this)
  }
}

/** Letters are of no width here. */
class Face {
  load() {
    return Promise.resolve(this)
  }
}

const make = (tag: string) => (tag === 'img' ? new Image_(tag) : tag === 'video' ? new Film(tag) : new Element_(tag))

export const page = {
  /** An empty element of a page on which can be drawn. */
  open(): Element_ {
    const document = { createElement: make, createElementNS: (_: string, tag: string) => make(tag), fonts: new Set() }
    Object.assign(globalThis, { document, HTMLImageElement: Image_, HTMLVideoElement: Film, FontFace: Face })
    return make('div')
  },
  films: () => loaded.size,
  /** Boxes of parts on a canvas, the lowest first. */
  parts(canvas: Element_): Element_[] {
    const order = (one: Element_): number[] => [...(one.parent && one.parent !== canvas ? order(one.parent) : []), Number(one.style.zIndex ?? 0)]
    return canvas
      .all()
      .filter((one) => one.dataset.kind !== undefined)
      .map((one) => ({ one, at: order(one) }))
      .sort((a, b) => a.at.map((n, i) => n - (b.at[i] ?? -1)).find((n) => n !== 0) ?? 0)
      .map(({ one }) => one)
  },
}
