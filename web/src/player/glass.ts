import { Stage } from '../pane/stage'
import { type Alignment, alignmentPicture } from './alignment'
import type { Bundle } from './larder'
import { layOut, thisOutput } from './output'

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
  ) {}

  /** Changed over at once: the new room is shown in the same frame in which the old one goes. Where it cannot be drawn the old one stays. */
  async show(bundle: Bundle): Promise<void> {
    const room = document.createElement('div')
    room.className = 'room'
    const next = new Stage(room, (id) => bundle.addressOf(id), true, true)
    try {
      next.show(bundle.sheet)
      layOut(room, bundle.output)
      next.draw(this.now(), !this.still)
      room.style.visibility = 'hidden'
      this.host.append(room)
      await Promise.race([next.settled(), new Promise((done) => setTimeout(done, SETTLE_MS))])
    } catch (e) {
      next.destroy()
      room.remove()
      throw e
    }
    room.style.visibility = 'visible'
    for (const old of [...this.host.children]) if (old !== room) old.remove()
    this.stage?.destroy()
    this.stage = next
    this.room = room
    this.bundle = bundle
    this.fit()
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
   * @returns whether anything is there to be drawn
   */
  draw(runs: boolean): boolean {
    if (!this.stage) return false
    this.host.classList.toggle('frozen', !runs)
    this.stage.draw(this.now(), runs && !this.still)
    return true
  }

  /** Shows who this output is until the picture's time is over; then what is handed over comes back. */
  align(alignment: Alignment | null, part: string | null, asked: number | null): void {
    this.alignment?.remove()
    const own = alignment && thisOutput(alignment.outputs, part, asked)
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
    const sized = (this.stage?.draw(this.now(), !this.still) ?? []).filter(({ part }) => part.media?.id && part.media.length_ms === undefined)
    const area = ({ part }: (typeof sized)[number]) => part.rect.width * part.rect.height
    return sized.sort((a, b) => area(b) - area(a))[0]?.part.media?.id ?? null
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
