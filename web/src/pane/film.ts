/** Keeps a film where the clock has it. */

/** What is nearer than this is right. */
const CLOSE_MS = 25
/** What is further away is not caught up with by running faster or slower, but in one jump. */
const FAR_MS = 400
/** A film runs at the most by so much faster or slower: nobody sees it, and sound keeps its pitch. */
const MOST = 0.02
/** A drift is caught up with within so long, if that is slow enough. */
const CATCH_UP_MS = 4000
/** A jump that did not help is not done again at once. */
const JUMP_AGAIN_MS = 3000
/** The last picture of a film is as long as this, or a little longer. */
const LAST_MS = 40

export class FilmRun {
  private jumped = -Infinity
  /** How long a jump takes until the film goes on, ms. */
  private jumpMs = 0

  constructor(
    private readonly film: HTMLVideoElement,
    /** Told where the browser lets nothing be heard until somebody presses the page. */
    private readonly heldBack: () => void,
  ) {
    film.addEventListener('seeked', () => {
      if (performance.now() - this.jumped < JUMP_AGAIN_MS) this.jumpMs = performance.now() - this.jumped
    })
  }

  /**
   * @param offset into the film, ms
   * @param length of the film, ms; it holds its last picture behind that
   * @param isHeld whether its item is at its end, while another comes
   * @returns in how many ms it has to be looked after again
   */
  stand(offset: number, length: number, runs: boolean, isHeld = false): number {
    const { film } = this
    const last = Math.max(0, length - LAST_MS)
    if (!runs || isHeld || offset >= last) {
      const want = Math.min(offset, last) / 1000
      if (!film.paused) film.pause()
      // A film that was running stands near enough, and is not seen to jump.
      if (Math.abs(film.currentTime - want) > (runs ? 0.12 : 0.02) && !film.seeking) film.currentTime = want
      return Infinity
    }
    const behind = offset - film.currentTime * 1000
    if (Math.abs(behind) > FAR_MS) {
      const now = performance.now()
      if (!film.seeking && now - this.jumped > JUMP_AGAIN_MS) {
        this.jumped = now
        film.currentTime = Math.min(last, offset + this.jumpMs) / 1000
      }
    } else {
      const rate = Math.abs(behind) < CLOSE_MS ? 1 : 1 + Math.max(-MOST, Math.min(MOST, behind / CATCH_UP_MS))
      if (film.playbackRate !== rate) film.playbackRate = rate
    }
    if (film.paused && film.readyState >= 2)
      void film.play().catch((e: unknown) => {
        if (!film.muted && e instanceof DOMException && e.name === 'NotAllowedError') {
          film.muted = true
          this.heldBack()
        }
      })
    return Math.min(1000, last - offset)
  }
}
