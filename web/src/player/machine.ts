import { type Output } from './output'
import { type Pointer, keyOf, named } from './pointer'

/**
 * What a player does next: a pure function of what it knows and what happened. All that touches the world is an effect (effects.ts),
 * and whatever becomes of an effect comes back as an event, so that nothing is waited for and nothing can stand still for good.
 */

export const POLL_MS = 2000
/** Longest pause where nobody answers. */
export const LAST_POLL_MS = 10_000
/** Until a pointer says otherwise. */
const REPORT_S = 10
/** Nothing was drawn for so long, though something should be: the page is loaded anew. */
export const UNDRAWN_MS = 10_000
/** So many times within so long; then it shows its last whole picture and nothing that moves. */
export const RELOADS = 3
export const RELOADS_MS = 600_000
/** Whoever asked gives up sooner; this is for one who never says so. */
const ANSWER_MS = 30_000
const AGAIN_MS = 2000
const LAST_AGAIN_MS = 60_000

/** What stands on the glass. */
export interface Glass {
  key: string
  sha256: string
  since: string
  output: number | null
  /** When something in it begins or ends that is not in its sheets, Unix ms; null for never. */
  until: number | null
}

export interface Report {
  release: string | null
  since: string | null
  trouble: string | null
  output: number | null
  build: string
  every_s: number
}

export interface State {
  readonly build: string
  /** The output that the address of the page names. */
  readonly asked: number | null
  over: boolean
  pointer: Pointer | null
  glass: Glass | null
  /** What is being put together; null for nothing. */
  gathering: string | null
  gatherAt: number
  gatherTries: number
  /** When the pointer is asked for next, also where an answer never comes. */
  askAt: number
  unanswered: number
  /** Until when an answer to a report is waited for. */
  reporting: number
  reportAt: number
  said: string
  unheard: number
  choosing: boolean
  aligned: string
  /** When a page was loaded anew because nothing was drawn, Unix ms; kept over reloads. */
  reloads: number[]
  safe: boolean
  /** What is wrong, by what it concerns. */
  troubles: Readonly<Record<string, string>>
}

export type Event =
  /** The heart: `at` goes on evenly, `now` is what the clock says, `undrawn` how long nothing was drawn (0 while the page is hidden). */
  | { is: 'beat'; at: number; now: number; undrawn: number; chance: number }
  | { is: 'told'; at: number; now: number; pointer: Pointer }
  | { is: 'unanswered'; at: number; why: string }
  | { is: 'gathered'; key: string }
  | { is: 'failed'; key: string; at: number; why: string; chance: number }
  | { is: 'shown'; glass: Glass }
  | { is: 'to choose'; key: string; outputs: Output[] }
  | { is: 'trouble'; of: string; why: string | null }
  /** Whether what was said last arrived. */
  | { is: 'reported'; at: number; arrived: boolean }

export type Effect =
  | { do: 'ask' }
  | { do: 'gather'; pointer: Pointer; key: string }
  | { do: 'show'; key: string }
  | { do: 'report'; report: Report }
  | { do: 'note'; title: string; text: string }
  | { do: 'choose'; outputs: Output[]; asked: number | null }
  | { do: 'align'; pointer: Pointer | null }
  | { do: 'last picture' }
  | { do: 'reload'; reloads: number[] }
  | { do: 'end' }

export const begun = (build: string, asked: number | null, reloads: number[], now: number): State => ({
  build,
  asked,
  over: false,
  pointer: null,
  glass: null,
  gathering: null,
  gatherAt: 0,
  gatherTries: 0,
  askAt: 0,
  unanswered: 0,
  reporting: 0,
  reportAt: 0,
  said: '',
  unheard: 0,
  choosing: false,
  aligned: '',
  reloads,
  safe: reloads.filter((at) => at <= now && now - at < RELOADS_MS).length >= RELOADS,
  troubles: {},
})

const without = (troubles: State['troubles'], gone: (of: string) => boolean) =>
  Object.fromEntries(Object.entries(troubles).filter(([of]) => !gone(of)))

export function next(before: State, event: Event): [State, Effect[]] {
  if (before.over) return [before, []]
  const state = { ...before }
  const effects: Effect[] = []
  switch (event.is) {
    case 'beat':
      beat(state, event, effects)
      break
    case 'told':
      state.unanswered = 0
      state.askAt = event.at + POLL_MS
      told(state, event.pointer, event.at, event.now, effects)
      break
    case 'unanswered':
      state.askAt = event.at + Math.min(LAST_POLL_MS, POLL_MS * 1.5 ** state.unanswered++)
      if (!state.glass && !state.pointer)
        effects.push({ do: 'note', title: 'Player', text: 'The server does not answer, and nothing is kept here yet. It is tried again by itself.' })
      break
    case 'gathered':
      if (event.key === state.gathering) effects.push({ do: 'show', key: event.key })
      break
    case 'failed':
      if (event.key !== state.gathering) break
      state.gathering = null
      state.gatherAt = event.at + Math.min(LAST_AGAIN_MS, AGAIN_MS * 2 ** state.gatherTries++) * (0.5 + event.chance)
      state.troubles = { ...state.troubles, release: event.why }
      break
    case 'shown':
      if (event.glass.key !== state.gathering) break
      state.gathering = null
      state.gatherTries = 0
      state.choosing = false
      state.glass = event.glass
      state.troubles = without(state.troubles, (of) => of !== 'sound')
      break
    case 'to choose':
      if (event.key !== state.gathering) break
      state.gathering = null
      // Asked for again when what is handed over or surveyed is another.
      state.gatherAt = Infinity
      state.choosing = true
      effects.push({ do: 'choose', outputs: event.outputs, asked: state.asked })
      break
    case 'trouble':
      state.troubles = event.why === null ? without(state.troubles, (of) => of === event.of) : { ...state.troubles, [event.of]: event.why }
      break
    case 'reported':
      state.reporting = 0
      if (event.arrived) state.unheard = 0
      else {
        state.said = ''
        state.reportAt = event.at + Math.min(LAST_AGAIN_MS, AGAIN_MS * 1.5 ** state.unheard++)
      }
      break
  }
  return [state, effects]
}

function told(state: State, pointer: Pointer, at: number, now: number, effects: Effect[]): void {
  if (pointer.revoked) {
    state.over = true
    effects.push({ do: 'end' })
    return
  }
  const key = keyOf(pointer)
  if (state.pointer && keyOf(state.pointer) !== key) {
    // Another one: what was wrong with the one before is over.
    state.gatherTries = 0
    state.gatherAt = at
    state.safe = false
    state.troubles = without(state.troubles, (of) => of === 'release' || of.startsWith('/'))
  }
  state.pointer = pointer
  align(state, now, effects)
  if (!named(pointer) && !state.glass)
    effects.push({
      do: 'note',
      title: pointer.player?.name ?? 'Player',
      text: `Bound to ${pointer.display?.name ?? 'a display'}. Nothing was handed over to it yet.`,
    })
  gather(state, at, now, effects)
}

function align(state: State, now: number, effects: Effect[]): void {
  const alignment = state.pointer?.alignment ?? null
  const key = alignment && Date.parse(alignment.until) > now ? JSON.stringify([alignment, state.pointer?.player?.part ?? null]) : ''
  if (key === state.aligned) return
  state.aligned = key
  effects.push({ do: 'align', pointer: key ? state.pointer : null })
}

/** What is named and not on the glass is put together, as soon as it may be tried again. */
function gather(state: State, at: number, now: number, effects: Effect[]): void {
  const { pointer, glass } = state
  if (!pointer || !named(pointer)) return
  const key = keyOf(pointer)
  const stands = glass?.key === key && (glass.until === null || now < glass.until)
  if (stands || state.gathering === key || at < state.gatherAt) return
  if (state.safe) {
    if (!glass && state.gathering === null) effects.push({ do: 'last picture' })
    state.gatherAt = Infinity
    state.troubles = {
      ...state.troubles,
      safe: `Drawing stopped ${RELOADS} times within 10 minutes: it shows its last whole picture until something else is handed over.`,
    }
    return
  }
  state.gathering = key
  effects.push({ do: 'gather', pointer, key })
}

function beat(state: State, { at, now, undrawn, chance }: Event & { is: 'beat' }, effects: Effect[]): void {
  if (at >= state.askAt) {
    state.askAt = at + ANSWER_MS
    effects.push({ do: 'ask' })
  }
  align(state, now, effects)
  gather(state, at, now, effects)
  if (state.glass && undrawn > UNDRAWN_MS) {
    const reloads = [...state.reloads.filter((one) => one <= now && now - one < RELOADS_MS), now]
    state.over = true
    effects.push({ do: 'reload', reloads })
    return
  }
  report(state, at, chance, effects)
}

/** What changes is said at once; that it is there, now and then, and not when all the others say so. */
function report(state: State, at: number, chance: number, effects: Effect[]): void {
  if (at < state.reporting || state.choosing || !state.pointer) return
  const every = state.pointer.report_every_s ?? REPORT_S
  const report: Report = {
    release: state.glass?.sha256 ?? null,
    since: state.glass?.since ?? null,
    trouble: wrong(state),
    output: state.glass?.output ?? state.asked,
    build: state.build,
    every_s: every,
  }
  const said = JSON.stringify(report)
  if (at < state.reportAt && (said === state.said || state.unheard > 0)) return
  state.reporting = at + ANSWER_MS
  state.said = said
  state.reportAt = at + 1000 * every * (0.9 + 0.2 * chance)
  effects.push({ do: 'report', report })
}

/** In one sentence or two; what was said first goes on being said first. */
export function wrong(state: State): string | null {
  const troubles = Object.values(state.troubles)
  if (troubles.length === 0) return null
  const more = troubles.length > 2 ? ` (and ${troubles.length - 2} more)` : ''
  return troubles.slice(0, 2).join('; ').slice(0, 260) + more
}
