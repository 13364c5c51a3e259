import type { Ref } from 'vue'
import { useDrag } from './drag'

/**
 * A pointer takes the hand of an instant along; where it gives up, the hand stands where it stood or runs on.
 *
 * @param instantAt the instant below the pointer, Unix ms
 */
export function useHandTaken(
  { at, running, to }: { at: Ref<number>; running: Ref<boolean>; to: (instant: number) => void },
  instantAt: (event: PointerEvent) => number,
) {
  const { drag } = useDrag(0)
  return (event: PointerEvent) => {
    if (event.button !== 0) return
    const [before, wasRunning] = [at.value, running.value]
    const follow = (e: PointerEvent) => to(instantAt(e))
    follow(event)
    drag(event, { move: follow, revert: () => (wasRunning ? (running.value = true) : to(before)) })
  }
}
