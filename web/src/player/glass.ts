import type { Media } from '../pane/sheet'
import { type AddressOf, Stage, type Standing } from '../pane/stage'
import { type Alignment, alignmentPicture } from './alignment'
import type { Bundle } from './larder'
import { type Output, layOut, thisOutput } from './output'

/** How long pictures and films of a new release may take until they are seen; after that it is changed over all the same. */
const SETTLE_MS = 3000

/** What is on the glass: the room of one output, the canvas in it, and what is laid over it. */
export class Glass {
  private stage: Stage | null = null
  private room: HTMLElement | null = null
  private bundle: Bundle | null = null
  private alignment: HTMLElement | null = null

  constructor(
    private readonly host: HTMLElement,
    private readonly now: () => number,
    /** Whether the page stands still at an instant. */
    private readonly still: boolean,
    /** Told when there is something to draw before it was due. */
    private readonly wake: () => void,
  ) {}

  /**
   * Changed over in one frame, once what is due can be seen: what is in both goes on as it is. Where it cannot be drawn the one before stays.
   */
  async show(bundle: Bundle): Promise<void> {
    const stage = this.stage ?? this.open()
    const addressOf: AddressOf = (id) => bundle.addressOf(id)
    await Promise.race([stage.prepare(bundle.sheet, addressOf, this.now()), new Promise((done) => setTimeout(done, SETTLE_MS))])
    const before = this.bundle
    try {
      this.put(bundle)
    } catch (e) {
      if (before) this.put(before)
      else this.clear()
      throw e
    }
    for (const other of [...this.host.children]) if (other !== this.room) other.remove()
    this.room!.style.visibility = 'visible'
  }

  private open(): Stage {
    this.room = document.createElement('div')
    this.room.className = 'room'
    this.room.style.visibility = 'hidden'
    this.host.append(this.room)
    this.stage = new Stage(this.room, () => null, 'player', this.wake)
    return this.stage
  }

  private put(bundle: Bundle): void {
    this.bundle = bundle
    this.stage!.show(bundle.sheet, (id) => bundle.addressOf(id))
    this.fit()
    this.stage!.draw(this.now(), !this.still)
  }

  /** The output's part of the display's raster fills the window, turned as its panel hangs; the canvas lies on it where the match says. */
  fit(): void {
    if (!this.stage || !this.bundle || !this.room) return
    const { target } = this.bundle.file.match
    const { canvas } = this.bundle.sheet
    const { source } = this.bundle.output
    const scale = layOut(this.room, this.bundle.output)
    this.stage.place(
      (target.x - source.x) * scale.x,
      (target.y - source.y) * scale.y,
      (scale.x * target.width) / canvas.width,
      (scale.y * target.height) / canvas.height,
    )
  }

  /**
   * @param runs whether time goes on; what tells the time is left out where it does not
   * @returns until when nothing has to be drawn again, Unix ms; null where nothing is there to be drawn
   */
  draw(runs: boolean): number | null {
    if (!this.bundle) return null
    this.host.classList.toggle('frozen', !runs)
    return this.stage!.draw(this.now(), runs && !this.still)
  }

  /** What may be seen at any moment stands ready. */
  expect(media: Media[]): void {
    this.stage?.expect(media)
  }

  /** Where a point of the window lies on the canvas, px; panels may hang turned. */
  pointAt(clientX: number, clientY: number): { x: number; y: number } | null {
    if (!this.stage || !this.bundle) return null
    const box = this.stage.canvas.getBoundingClientRect()
    const { width, height } = this.bundle.sheet.canvas
    const [u, v] = [(clientX - box.left) / box.width, (clientY - box.top) / box.height]
    const [x, y] = { 0: [u, v], 90: [1 - v, u], 180: [1 - u, 1 - v], 270: [v, 1 - u] }[((this.bundle.output.rotation % 360) + 360) % 360] ?? [u, v]
    return { x: x! * width, y: y! * height }
  }

  /** How px of the output lie on px of the window. */
  measure(): string {
    if (!this.bundle) return 'nothing is drawn yet'
    const { raster } = this.bundle.output
    const [width, height] = [innerWidth * devicePixelRatio, innerHeight * devicePixelRatio].map(Math.round) as [number, number]
    const window = `window ${width} × ${height}, output ${raster.width} × ${raster.height} px`
    if (width === raster.width && height === raster.height) return `1:1, ${window}`
    return `fitted to ${Math.round(100 * Math.min(width / raster.width, height / raster.height))} %: ${window}`
  }

  /** All that is drawn, the lowest first. */
  standing(): Standing[] {
    return this.bundle ? this.stage!.standing() : []
  }

  /** Shows who this output is until the picture's time is over; then what is handed over comes back. */
  align(alignment: Alignment | null, part: string | null, asked: number | null, known: Output | null = null): void {
    this.alignment?.remove()
    const own = alignment && (known ?? thisOutput(alignment.outputs, part, asked))
    this.alignment = own ? alignmentPicture(alignment, own) : null
    if (this.alignment) document.body.append(this.alignment)
  }

  /** A picture that fills the window, and nothing else. */
  picture(url: string): void {
    const picture = document.createElement('img')
    picture.className = 'last'
    picture.alt = ''
    picture.src = url
    this.host.replaceChildren(picture)
  }

  /** The largest picture that is seen; films are none. */
  largestPicture(): string | null {
    const pictures = this.standing().flatMap(({ part }) => ('media' in part && part.media.length_ms === undefined ? [part] : []))
    const area = ({ rect }: (typeof pictures)[number]) => rect.width * rect.height
    return pictures.sort((a, b) => area(b) - area(a))[0]?.media.id ?? null
  }

  get heldBack(): boolean {
    return this.stage?.heldBack ?? false
  }

  pressed(): void {
    this.stage?.pressed()
  }

  async settled(): Promise<void> {
    await this.stage?.settled()
  }

  clear(): void {
    this.stage?.destroy()
    this.alignment?.remove()
    this.stage = this.room = this.bundle = this.alignment = null
    this.host.replaceChildren()
  }
}
