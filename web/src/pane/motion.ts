/** What moves by itself: run by the browser beside the page's own script (Web Animations), and held by the clock. */

/** A motion that is further from where the clock has it is put there, ms. */
const APART_MS = 40

export class Motion {
  private readonly animation: Animation
  private runs = false

  /** @param ms how long it takes; it ends where it arrives, or goes round and round */
  constructor(
    element: HTMLElement,
    readonly frames: [Keyframe, Keyframe],
    readonly ms: number,
    isEndless = false,
  ) {
    this.animation = element.animate(frames, { duration: ms, iterations: isEndless ? Infinity : 1, fill: 'both', easing: 'linear' })
    this.animation.pause()
  }

  /** @param gone how far it is, ms since it began */
  stand(gone: number, runs: boolean): void {
    const { animation } = this
    if (!runs) {
      if (this.runs) animation.pause()
      if (animation.currentTime !== gone) animation.currentTime = gone
    } else if (!this.runs || Math.abs(Number(animation.currentTime ?? -Infinity) - gone) > APART_MS) {
      // In step with others: it began at an instant, whenever its frame is drawn.
      animation.startTime = performance.now() - gone
    }
    this.runs = runs
  }

  end(): void {
    this.animation.cancel()
  }
}

export const shifted = (x: number, y: number): Keyframe => ({ transform: `translate(${x}px, ${y}px)` })

/** The motion of one element, made anew where it is another. */
export class Moving {
  private motion: Motion | null = null
  private key = ''

  constructor(private readonly element: HTMLElement) {}

  stand(frames: [Keyframe, Keyframe], ms: number, gone: number, runs: boolean, isEndless = false): void {
    const key = JSON.stringify([frames, ms, isEndless])
    if (key !== this.key) {
      this.end()
      this.motion = new Motion(this.element, frames, ms, isEndless)
      this.key = key
    }
    this.motion!.stand(gone, runs)
  }

  end(): void {
    this.motion?.end()
    this.motion = null
    this.key = ''
  }
}
