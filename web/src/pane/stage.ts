import { type AddressOf, type Content, type Moment, type Surface, type Tools } from './kinds/kind'
import { contentOf } from './kinds/kinds'
import { Moving, shifted } from './motion'
import { Pool } from './pool'
import {
  type Box,
  type Layer,
  type Media,
  type Part,
  type RunSheet,
  type Side,
  type ZoneLayer,
  isZone,
  lowestAt,
  mediaSoon,
  partsAt,
  zoneAt,
} from './sheet'

export type { AddressOf, Surface } from './kinds/kind'

/** What is seen within so long stands loaded and decoded. */
const SOON_MS = 10_000
/** What is seen soon is looked up again after so long. */
const LOOK_MS = 2000

/** What stands on a stage and may be told of: since when, whether it is really there to be seen, and what is wrong with it. */
export interface Standing {
  part: Part
  /** When its item began, Unix ms; null outside of all. */
  begun: number | null
  isThere: boolean
  trouble: string | null
}

/** What all that stands on one stage shares. */
interface Shared {
  tools: Tools
  /** Elements that a hand holds elsewhere. */
  overridden: ReadonlyMap<string, Box>
}

const sameBox = (a: Box, b: Box) => a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height
const px = ({ x, y, width, height }: Box) => ({ left: `${x}px`, top: `${y}px`, width: `${width}px`, height: `${height}px` })
const made = () => {
  const element = document.createElement('div')
  Object.assign(element.style, { position: 'absolute', left: '0px', top: '0px' })
  return element
}

/**
 * Draws what a run sheet shows at an instant into an element: the same code in the composer, in thumbnails and in the player.
 *
 * Everything is placed where the core says; nothing is laid out here. What moves is run by the browser (motion.ts): nothing has to be
 * drawn again before the instant that `draw` returns.
 */
export class Stage {
  readonly canvas: HTMLElement
  readonly pool = new Pool()
  private sheet: RunSheet | null = null
  private scene: Scene
  private readonly overridden = new Map<string, Box>()
  private readonly tools: Tools
  private lookAt = -Infinity
  private expected: Media[] = []

  constructor(host: HTMLElement, addressOf: AddressOf, surface: Surface = 'desk', wake: () => void = () => undefined) {
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
    this.tools = { surface, pool: this.pool, addressOf, heldBack: false, wake }
    this.scene = new Scene(this.canvas, { tools: this.tools, overridden: this.overridden })
  }

  /** What is the same in another sheet (docs/formats/release.md: `id`) goes on as it is. */
  show(sheet: RunSheet, addressOf?: AddressOf): void {
    if (addressOf) this.tools.addressOf = addressOf
    this.sheet = sheet
    this.lookAt = -Infinity
    this.overridden.clear()
    this.canvas.style.width = `${sheet.canvas.width}px`
    this.canvas.style.height = `${sheet.canvas.height}px`
    this.canvas.style.background = sheet.background
  }

  /** Has loaded and decoded what a sheet shows at an instant and soon after, so that it can be shown without a dark frame. */
  async prepare(sheet: RunSheet, addressOf: AddressOf, at: number): Promise<void> {
    // Of what is seen already each keeps what it has; the same film elsewhere is another one.
    const key = (part: Part) => ('media' in part ? `${part.id} ${part.media.id}` : '')
    const seen = new Set(this.standing().map(({ part }) => key(part)))
    const media = partsAt(sheet, at).flatMap((part) => ('media' in part && part.media.id && !seen.has(key(part)) ? [part.media] : []))
    this.lookAt = at + LOOK_MS
    this.pool.prepare(located([...media, ...this.soon(at)], addressOf))
    await this.pool.settled()
  }

  place(x: number, y: number, scaleX: number, scaleY = scaleX): void {
    this.canvas.style.transform = `translate(${x}px, ${y}px) scale(${scaleX}, ${scaleY})`
  }

  /** Shows an element elsewhere until the next run sheet comes: what a hand drags between two frames. */
  override(element: string, rect: Box | null): void {
    if (rect) this.overridden.set(element, rect)
    else this.overridden.delete(element)
    this.scene.put(element)
  }

  /**
   * Draws the instant; films and what moves run on when `runs`, else they stand.
   *
   * @returns until when nothing has to be drawn again, Unix ms
   */
  draw(at: number, runs: boolean): number {
    if (!this.sheet) return Infinity
    const until = this.scene.draw(this.sheet.layers, {
      at,
      began: this.sheet.anchor_ms,
      since: at - this.sheet.anchor_ms,
      offset: null,
      runs,
      isHeld: false,
    })
    if (this.tools.surface === 'player' && runs && (at >= this.lookAt || at < this.lookAt - LOOK_MS)) {
      this.lookAt = at + LOOK_MS
      this.pool.prepare(located(this.soon(at), this.tools.addressOf))
    }
    return until
  }

  /** What may be seen at any moment, whatever the time is. */
  expect(media: Media[]): void {
    this.expected = media
    this.lookAt = -Infinity
  }

  private soon(at: number): Media[] {
    if (!this.sheet) return []
    const now = new Set(mediaSoon(this.sheet, at, 0).map(({ id }) => id))
    return [...this.expected, ...mediaSoon(this.sheet, at, SOON_MS)].filter(
      ({ id }, n, all) => !now.has(id) && all.findIndex((one) => one.id === id) === n,
    )
  }

  /** All that is drawn, the lowest first. */
  standing(): Standing[] {
    return this.scene.standing()
  }

  /** Resolves when every picture and film that is due can be seen. */
  async settled(): Promise<void> {
    await this.scene.settled()
  }

  get heldBack(): boolean {
    return this.tools.heldBack
  }

  /** After somebody has pressed the page a browser lets films be heard. */
  pressed(): void {
    this.tools.heldBack = false
  }

  destroy(): void {
    this.scene.destroy()
    this.pool.empty()
    this.canvas.remove()
  }
}

const located = (media: Media[], addressOf: AddressOf) =>
  media.flatMap((one) => {
    const address = addressOf(one.id!)
    return address ? [{ media: one, url: address.url }] : []
  })

interface View {
  readonly element: HTMLElement
  order: number | null
  standing(): Standing[]
  put(element: string): void
  settled(): Promise<unknown>
  destroy(): void
}

type SceneMoment = Omit<Moment, 'layers'>

/** Layers one over the other: those of the canvas, or of one item of a zone. */
class Scene {
  private readonly views = new Map<string, PartView | ZoneView | PlaceView>()
  private moment: SceneMoment | null = null

  constructor(
    readonly element: HTMLElement,
    private readonly shared: Shared,
  ) {}

  draw(layers: Layer[], moment: SceneMoment): number {
    this.moment = moment
    const turns = new Map<string, number>()
    const seen = new Set<string>()
    let until = Infinity
    const lowest = lowestAt(layers, moment.began + moment.since, moment.since)
    layers.slice(lowest).forEach((layer, order) => {
      // Of one that was made before each had an id of its own several may be called the same.
      const name = isZone(layer) ? `zone ${layer.id}` : `${layer.part.id} ${layer.part.kind}`
      const turn = turns.get(name) ?? 0
      turns.set(name, turn + 1)
      const key = `${name} ${turn}`
      seen.add(key)
      const view = this.view(key, layer)
      // Only what changes is touched.
      if (view.order !== order) view.element.style.zIndex = String(order + 1)
      view.order = order
      const own = { ...moment, layers }
      until = Math.min(until, view instanceof PartView ? view.draw((layer as { part: Part }).part, own) : view.draw(layer as ZoneLayer, own))
    })
    for (const [key, view] of this.views) {
      if (seen.has(key)) continue
      view.destroy()
      this.views.delete(key)
    }
    return until
  }

  private view(key: string, layer: Layer): PartView | ZoneView | PlaceView {
    let view = this.views.get(key)
    const isOther = view instanceof PartView ? !view.shows((layer as { part: Part }).part) : view && view instanceof PlaceView !== goesThrough(layer)
    if (view && isOther) {
      view.destroy()
      view = undefined
    }
    if (!view) {
      view = !isZone(layer) ? new PartView(layer.part, this.shared) : layer.through ? new PlaceView(this.shared) : new ZoneView(layer, this.shared)
      this.element.append(view.element)
      this.views.set(key, view)
    }
    return view
  }

  standing(): Standing[] {
    const begun = this.moment?.offset == null ? null : this.moment.began
    return [...this.views.values()]
      .sort((a, b) => (a.order ?? 0) - (b.order ?? 0))
      .flatMap((view) => (view instanceof PartView ? view.standing().map((one) => ({ ...one, begun })) : view.standing()))
  }

  put(element: string): void {
    for (const view of this.views.values()) view.put(element)
  }

  settled(): Promise<unknown> {
    return Promise.all([...this.views.values()].map((view) => view.settled()))
  }

  destroy(): void {
    for (const view of this.views.values()) view.destroy()
    this.views.clear()
  }
}

/** One part: its box, which clips it, and its content where all of it lies. */
class PartView implements View {
  readonly element = document.createElement('div')
  order: number | null = null
  private readonly content: Content
  private readonly source: string | null
  private looked: Part | null = null

  constructor(
    private part: Part,
    private readonly shared: Shared,
  ) {
    this.element.style.position = 'absolute'
    this.element.dataset.element = part.element
    this.element.dataset.kind = part.kind
    if (part.item) this.element.dataset.item = part.item
    this.source = this.sourceOf(part)
    this.content = contentOf(part, shared.tools)
    this.content.element.style.position = 'absolute'
    this.element.append(this.content.element)
  }

  private sourceOf(part: Part): string | null {
    return 'media' in part && part.media.id ? (this.shared.tools.addressOf(part.media.id)?.url ?? null) : null
  }

  /** Whether it can go on with another part in its place. */
  shows(part: Part): boolean {
    return part.kind === this.part.kind && this.sourceOf(part) === this.source && 'progress' in part === 'progress' in this.part
  }

  draw(part: Part, moment: Moment): number {
    if (this.looked !== part) {
      this.part = this.looked = part
      this.place()
      this.content.look(part)
      this.element.style.opacity = part.opacity === undefined ? '' : String(part.opacity)
      this.element.style.borderRadius = 'media' in part && part.radius_px ? `${part.radius_px}px` : ''
    }
    return this.content.tell?.(part, moment) ?? Infinity
  }

  put(element: string): void {
    if (this.part.element === element) this.place()
  }

  private place(): void {
    const { part } = this
    const moved = this.shared.overridden.get(part.element)
    let { rect, drawn } = part
    const of = part.of ?? rect
    // What is only moved is moved by the compositor: nothing is laid out or painted again.
    const isShifted = moved !== undefined && moved.width === of.width && moved.height === of.height
    this.element.style.transform = isShifted ? `translate(${moved.x - of.x}px, ${moved.y - of.y}px)` : ''
    this.element.style.willChange = isShifted ? 'transform' : ''
    if (moved && !isShifted) {
      // What fills its box by itself goes on filling it; how content is fitted only the core knows.
      const fills = !part.of && !this.content.isFitted && sameBox(rect, drawn)
      const shift = (box: Box): Box => ({ ...box, x: box.x + moved.x - of.x, y: box.y + moved.y - of.y })
      drawn = fills ? moved : shift(drawn)
      rect = part.of ? shift(rect) : moved
    }
    // A clip costs the browser something at every frame in which anything moves.
    const isWhole = this.content.staysWithin && sameBox(rect, drawn) && !('radius_px' in part && part.radius_px)
    Object.assign(this.element.style, px(rect), { overflow: isWhole ? '' : 'hidden' })
    Object.assign(this.content.element.style, px({ ...drawn, x: drawn.x - rect.x, y: drawn.y - rect.y }), { maxWidth: 'none' })
  }

  standing(): Standing[] {
    return [{ part: this.part, begun: null, isThere: this.content.isThere?.() ?? true, trouble: this.content.trouble?.() ?? null }]
  }

  settled(): Promise<unknown> {
    return this.content.settled?.() ?? Promise.resolve()
  }

  destroy(): void {
    this.content.destroy?.()
    this.element.remove()
  }
}

const goesThrough = (layer: Layer): boolean => isZone(layer) && layer.through === true

/** One thing at one place after the other: whatever of it is the same there goes on. */
class PlaceView implements View {
  readonly element = made()
  order: number | null = null
  private readonly scene: Scene

  constructor(shared: Shared) {
    this.scene = new Scene(this.element, shared)
  }

  draw(zone: ZoneLayer, { at, began, since, offset, runs, isHeld }: Moment): number {
    const now = zoneAt(zone, began + since, since)
    const until = this.scene.draw(now.scene === null ? [] : zone.scenes[now.scene]!, { at, began, since, offset, runs, isHeld })
    return isHeld ? until : Math.min(until, now.until)
  }

  standing(): Standing[] {
    return this.scene.standing()
  }

  put(element: string): void {
    this.scene.put(element)
  }

  settled(): Promise<unknown> {
    return this.scene.settled()
  }

  destroy(): void {
    this.scene.destroy()
    this.element.remove()
  }
}

/** A zone: what is due in it, and while it changes what was before. */
class ZoneView implements View {
  readonly element = made()
  order: number | null = null
  private slots: Slot[] = []

  constructor(
    private zone: ZoneLayer,
    private readonly shared: Shared,
  ) {}

  draw(zone: ZoneLayer, { at, began, since, runs, isHeld }: Moment): number {
    this.zone = zone
    // What is held stays as it was then.
    const now = zoneAt(zone, began + since, since)
    const before = now.scene === null ? null : now.before
    const leaving = before && this.take(before.scene, before.begun)
    const due = now.scene === null ? null : this.take(now.scene, now.begun, leaving)
    for (const slot of this.slots) if (slot !== leaving && slot !== due) slot.destroy()
    this.slots = [leaving, due].filter((slot) => slot !== null)
    let until = isHeld ? Infinity : now.until
    if (now.scene === null) return until
    const window = this.shared.overridden.has(zone.zone) ? null : zone.rect
    if (leaving && before) {
      const offset = before.held
      leaving.element.style.zIndex = '1'
      until = Math.min(until, leaving.draw(zone.scenes[before.scene]!, { at, began: before.begun, since: offset, offset, runs, isHeld: true }))
      if (now.change?.kind === 'push') leaving.leave(now.change.from, zone.rect, now.change.ms, now.into, runs && !isHeld)
      else leaving.rest()
    }
    due!.element.style.zIndex = '2'
    until = Math.min(until, due!.draw(zone.scenes[now.scene]!, { at, began: now.begun, since: now.into, offset: now.into, runs, isHeld }))
    if (now.change && window) due!.come(now.change.kind, now.change.from, window, now.change.ms, now.into, runs && !isHeld)
    else due!.rest()
    return until
  }

  /** The slot in which it stands already, or stood in the round before; else a new one. */
  private take(scene: number, begun: number, not: Slot | null = null): Slot {
    const free = this.slots.filter((slot) => slot !== not)
    const slot = free.find((one) => one.number === scene && one.begun === begun) ?? free.find((one) => one.number === scene)
    if (slot) {
      slot.begun = begun
      return slot
    }
    const fresh = new Slot(scene, begun, this.shared)
    this.element.append(fresh.element)
    this.slots.push(fresh)
    return fresh
  }

  standing(): Standing[] {
    return this.slots.flatMap((slot) => slot.standing())
  }

  put(element: string): void {
    for (const slot of this.slots) slot.put(element)
  }

  settled(): Promise<unknown> {
    return Promise.all(this.slots.map((slot) => slot.settled()))
  }

  destroy(): void {
    for (const slot of this.slots) slot.destroy()
    this.slots = []
    this.element.remove()
  }
}

const TOWARDS: Record<Side, [number, number]> = { left: [-1, 0], right: [1, 0], top: [0, -1], bottom: [0, 1] }

/** One item of a zone while it is seen. What comes and goes by moving is seen through a window where the zone lies. */
class Slot {
  readonly element = made()
  private readonly inside = made()
  private readonly scene: Scene
  private readonly window = new Moving(this.element)
  private readonly moving = new Moving(this.inside)
  private isWindow = false

  constructor(
    readonly number: number,
    public begun: number,
    shared: Shared,
  ) {
    this.element.append(this.inside)
    this.scene = new Scene(this.inside, shared)
  }

  draw(layers: Layer[], moment: SceneMoment): number {
    return this.scene.draw(layers, moment)
  }

  come(kind: 'fade' | 'push' | 'wipe', from: Side, zone: Box, ms: number, gone: number, runs: boolean): void {
    if (kind === 'fade') {
      this.shut(null)
      this.window.stand([{ opacity: 0 }, { opacity: 1 }], ms, gone, runs)
      return
    }
    const [x, y] = [TOWARDS[from][0] * zone.width, TOWARDS[from][1] * zone.height]
    this.shut(zone)
    if (kind === 'push') {
      this.moving.stand([shifted(x, y), shifted(0, 0)], ms, gone, runs)
    } else {
      // The window comes in, and what is seen through it stays where it is.
      this.window.stand([shifted(x, y), shifted(0, 0)], ms, gone, runs)
      this.moving.stand([shifted(-x, -y), shifted(0, 0)], ms, gone, runs)
    }
  }

  /** Pushed out by what comes from a side. */
  leave(from: Side, zone: Box, ms: number, gone: number, runs: boolean): void {
    this.shut(zone)
    this.moving.stand([shifted(0, 0), shifted(-TOWARDS[from][0] * zone.width, -TOWARDS[from][1] * zone.height)], ms, gone, runs)
  }

  /** Nothing moves any more. */
  rest(): void {
    this.shut(null)
    this.window.end()
    this.moving.end()
  }

  /** Seen through a window, or as far as its parts reach. */
  private shut(window: Box | null): void {
    if (window === null && !this.isWindow) return
    this.isWindow = window !== null
    Object.assign(
      this.element.style,
      window === null ? { ...px({ x: 0, y: 0, width: 0, height: 0 }), overflow: '' } : { ...px(window), overflow: 'hidden' },
    )
    Object.assign(this.inside.style, { left: `${-(window?.x ?? 0)}px`, top: `${-(window?.y ?? 0)}px` })
  }

  standing(): Standing[] {
    return this.scene.standing()
  }

  put(element: string): void {
    this.scene.put(element)
  }

  settled(): Promise<unknown> {
    return this.scene.settled()
  }

  destroy(): void {
    this.rest()
    this.scene.destroy()
    this.element.remove()
  }
}
