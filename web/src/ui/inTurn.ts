import { nextTick } from 'vue'

/**
 * Acts that the core does to what is worked on, one after the other: each to what the ones before have made of it. A hand may be faster than an
 * answer; then the act is asked for again with what stands there by then.
 *
 * @param state what is worked on, compared by its parts
 */
export function inTurn<S extends readonly unknown[], A, R>(
  state: () => S,
  ask: (state: S, act: A) => Promise<R>,
  take: (answer: R, from: S, gesture?: string) => void,
) {
  let last: Promise<unknown> = Promise.resolve()
  async function done(act: A, gesture?: string) {
    let from: S
    let answer: R
    do {
      from = state()
      answer = await ask(from, act)
    } while (state().some((part, n) => part !== from[n]))
    take(answer, from, gesture)
    // What is worked on may come from a parent, which hands it down at its next turn.
    await nextTick()
  }

  /** Throws what the core refuses. A function is asked for its act once those before are done; null is none. */
  return (act: A | (() => A | null), gesture?: string): Promise<void> => {
    const mine = last.then(() => {
      const what = typeof act === 'function' ? (act as () => A | null)() : act
      return what ? done(what, gesture) : undefined
    })
    last = mine.catch(() => undefined)
    return mine
  }
}
