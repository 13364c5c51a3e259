import { onScopeDispose, shallowRef } from 'vue'

/** What a hand does with what it has taken hold of. */
export interface Hands {
  /** For each move of the pointer, from the first by which it is more than a slip. */
  move: (event: PointerEvent) => void
  /** Let go; whether it was more than a press. */
  end?: (event: PointerEvent, moved: boolean) => void
  /** Escape, or the pointer was taken away: all is as it was before. */
  revert?: () => void
}

/**
 * Follows a pointer from its press to its end, wherever on the page it goes; Escape gives up what was dragged.
 *
 * @param slip px within which a press is no move
 */
export function useDrag(slip = 3) {
  const isDragging = shallowRef(false)
  let stop: (() => void) | null = null

  function drag(pressed: PointerEvent, hands: Hands): void {
    stop?.()
    const heard = new AbortController()
    const { signal } = heard
    let moved = slip === 0
    const over = () => {
      heard.abort()
      stop = null
      isDragging.value = false
    }
    stop = () => {
      over()
      hands.revert?.()
    }
    isDragging.value = true
    const mine = (event: PointerEvent) => event.pointerId === pressed.pointerId
    window.addEventListener(
      'pointermove',
      (event) => {
        if (!mine(event)) return
        moved ||= Math.hypot(event.clientX - pressed.clientX, event.clientY - pressed.clientY) >= slip
        if (moved) hands.move(event)
      },
      { signal },
    )
    window.addEventListener(
      'pointerup',
      (event) => {
        if (!mine(event)) return
        over()
        hands.end?.(event, moved)
      },
      { signal },
    )
    window.addEventListener('pointercancel', (event) => mine(event) && stop?.(), { signal })
    window.addEventListener(
      'keydown',
      (event) => {
        if (event.key !== 'Escape') return
        event.stopImmediatePropagation()
        event.preventDefault()
        stop?.()
      },
      { signal, capture: true },
    )
  }

  onScopeDispose(() => stop?.())
  return { drag, isDragging }
}
