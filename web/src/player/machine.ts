import type { Report as ReportFile } from '../formats/report'
import { type Output } from './output'
import { type Beforehand, type Pointer, keyOf, named } from './pointer'

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
/** The clocks of player and server may be so far apart. */
const APART_MS = 5000
/** A correction that is as close to another is left as it is. */
const CLOSE_MS = 2000
/** A later build of the page is looked for so often, once it is said to be there. */
const LOOK_MS = 300_000
/** Not all players at once. */
const LOOK_SPREAD_MS = 20_000
/** A page that is older is loaded anew at night. */
const OLD_MS = 20 * 3_600_000
const NIGHT_HOUR = 3
const AGAIN_MS = 2000
/** So many are told one by one. */
const MOST_TROUBLES = 20
const LAST_AGAIN_MS = 60_000
/** Whoever has asked for something looks for so long at what becomes of it. */
const ASKED_MS = 900_000

/** What stands on the glass. */
export interface Glass {
  key: string
  sha256: string
  since: string
  output: number | null
  /** When something in it begins or ends that is not in its sheets, Unix ms; null for never. */
  until: number | null
}

/** What is wrong, in a sentence, and with which part of what is shown. */
export interface Trouble {
  says: string
  element?: string
  item?: string | null
}

/** What is said of itself; what was seen goes along with it. */
export type Report = Required<Pick<ReportFile, 'format' | 'release' | 'since' | 'trouble' | 'troubles' | 'output' | 'build' | 'every_s'>> & Sensed
/** What its maps of triggers show, what an operator asked for that was taken, and what sensors said; absent where there is nothing. */
export type Sensed = Pick<ReportFile, 'answers' | 'took' | 'heard'>

export interface State {
  readonly build: string
  /** The output that the address of the page names. */
  readonly asked: number | null
  /** A day before which no clock that is right can be, Unix ms. */
  readonly built: number
  /** When the page was loaded, Unix ms. */
  readonly born: number
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
  /** When a later build is looked for next; null while none is said to be there. */
  lookAt: number | null
  /** Whether the page is to be loaded anew at the next change. */
  leaving: boolean
  /** What the clock of the machine is corrected by, ms. */
  offset: number
  /** What it says less what goes on evenly; null before it was looked at. */
  base: number | null
  /** An instant at which all was well, Unix ms; and whether it stands still there, since nobody knows what time it is. */
  lastGood: number | null
  frozen: boolean
  /** When a page was loaded anew because nothing was drawn, Unix ms; kept over reloads. */
  reloads: number[]
  safe: boolean
  /** What the clock of the machine is ahead of the server's, ms, as far as whole seconds tell it; null where nobody said. */
  ahead: number | null
  /** What is wrong, by what it concerns. */
  troubles: Readonly<Record<string, Trouble>>
  sensed: Sensed
  /** When an operator's wish was taken last, by what goes on evenly, ms. */
  tookAt: number
}

export type Event =
  /** The heart: `at` goes on evenly, `raw` is what the clock of the machine says, `undrawn` how long nothing was drawn (0 while the page is hidden), `hour` what a clock on the wall says. */
  | { is: 'beat'; at: number; raw: number; undrawn: number; chance: number; hour: number }
  /** A later build of the page is kept whole. */
  | { is: 'renewed' }
  /** With what the clock of the server says, in whole seconds, and how long the answer took; null where nobody says. */
  | { is: 'told'; at: number; raw: number; date: number | null; took: number; pointer: Pointer }
  | { is: 'unanswered'; at: number; why: string }
  | { is: 'gathered'; key: string }
  | { is: 'failed'; key: string; at: number; why: string; chance: number }
  | { is: 'shown'; glass: Glass }
  | { is: 'to choose'; key: string; outputs: Output[] }
  | { is: 'trouble'; of: string; why: Trouble | null }
  | { is: 'sensed'; at: number; sensed: Sensed }
  /** Whether what was said last arrived, and whether there is more to say. */
  | { is: 'reported'; at: number; arrived: boolean; more?: boolean }

export type Effect =
  | { do: 'ask' }
  | { do: 'gather'; pointer: Pointer; key: string }
  /** Files that may be needed one day. */
  | { do: 'keep beforehand'; files: Beforehand[] }
  | { do: 'show'; key: string }
  | { do: 'report'; report: Report }
  | { do: 'note'; title: string; text: string }
  | { do: 'choose'; outputs: Output[]; asked: number | null }
  | { do: 'align'; pointer: Pointer | null }
  | { do: 'last picture' }
  | { do: 'reload'; reloads: number[] }
  | { do: 'look for a page' }
  | { do: 'reload at a change' }
  | { do: 'end' }

export const begun = (build: string, built: number, asked: number | null, reloads: number[], now: number): State => ({
  build,
  asked,
  built,
  born: now,
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
  lookAt: null,
  leaving: false,
  offset: 0,
  base: null,
  lastGood: null,
  frozen: false,
  reloads,
  safe: reloads.filter((at) => at <= now && now - at < RELOADS_MS).length >= RELOADS,
  ahead: null,
  troubles: {},
  sensed: {},
  tookAt: -Infinity,
})

/** What is wrong with the machine goes on being wrong, whatever is shown. */
const LASTING = ['sound', 'clock', 'unbelieved', 'faces', 'output']
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
      hear(state, event)
      told(state, event.pointer, event.at, event.raw + state.offset, effects)
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
      state.troubles = { ...state.troubles, release: { says: event.why } }
      break
    case 'shown':
      if (event.glass.key !== state.gathering) break
      state.gathering = null
      state.gatherTries = 0
      state.choosing = false
      state.glass = event.glass
      state.troubles = without(state.troubles, (of) => !LASTING.includes(of))
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
    case 'sensed':
      if (event.sensed.took?.[0] !== state.sensed.took?.[0]) state.tookAt = event.at
      state.sensed = event.sensed
      break
    case 'renewed':
      leave(state, effects)
      break
    case 'reported':
      state.reporting = 0
      if (event.arrived) {
        state.unheard = 0
        if (event.more) state.reportAt = event.at
      } else {
        state.said = ''
        state.reportAt = event.at + Math.min(LAST_AGAIN_MS, AGAIN_MS * 1.5 ** state.unheard++)
      }
      break
  }
  return [state, effects]
}

/** The server's clock has whole seconds: it is no better than this one, unless they are far apart. */
function hear(state: State, { raw, date, took }: Event & { is: 'told' }): void {
  if (date === null) return
  const ahead = raw - (date + 500)
  state.ahead = ahead
  const offset = Math.abs(ahead) > APART_MS + 500 + took ? -ahead : 0
  if (offset !== 0 && state.offset !== 0 && Math.abs(offset - state.offset) < CLOSE_MS) return
  state.offset = offset
  state.troubles =
    offset === 0
      ? without(state.troubles, (of) => of === 'clock')
      : { ...state.troubles, clock: { says: `The clock of this player is ${apart(ahead)}; it goes by the server's until it is set.` } }
}

/** How far a clock is from the server's, in words. */
export function apart(ahead: number): string {
  const s = Math.abs(ahead) / 1000
  const [size, unit] = s < 120 ? [s, 's'] : s < 7200 ? [s / 60, 'min'] : s < 172_800 ? [s / 3600, 'h'] : [s / 86_400, 'days']
  return `${Math.round(size)} ${unit} ${ahead > 0 ? 'fast' : 'slow'}`
}

/** A clock that jumps to where no clock can be (an empty battery, a wrong hand) is not followed. */
function watchClock(state: State, at: number, raw: number): void {
  const jumped = state.base === null ? 0 : raw - at - state.base
  if (Math.abs(jumped) > APART_MS && raw + state.offset < state.built && raw - jumped + state.offset >= state.built) {
    state.offset -= jumped
    state.troubles = { ...state.troubles, clock: { says: `The clock of this player was set to ${day(raw)}; it goes on as before.` } }
  }
  state.base = raw - at
}

const day = (ms: number) => new Date(ms).toISOString().slice(0, 10)

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
    state.troubles = without(state.troubles, (of) => of === 'release' || of.startsWith('/') || of.startsWith('part '))
  }
  const beforehand = pointer.beforehand ?? []
  if (JSON.stringify(state.pointer?.beforehand ?? []) !== JSON.stringify(beforehand)) effects.push({ do: 'keep beforehand', files: beforehand })
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
  if (now < state.built) {
    if (state.troubles.unbelieved === undefined) {
      const why = `The clock of this player says ${day(now)}, which is before its page was made; until it hears the server it stands still as it was last.`
      state.troubles = { ...state.troubles, unbelieved: { says: why } }
      if (!glass && state.lastGood === null)
        effects.push({
          do: 'note',
          title: 'Player',
          text: 'The clock of this player is not set, and the server does not answer. It is tried again by itself.',
        })
    }
    if (state.lastGood === null) return
    state.frozen = true
  } else {
    state.frozen = false
    state.troubles = without(state.troubles, (of) => of === 'unbelieved')
  }
  const key = keyOf(pointer)
  const stands = glass?.key === key && (glass.until === null || now < glass.until)
  if (stands || state.gathering === key || at < state.gatherAt) return
  if (state.safe) {
    if (!glass && state.gathering === null) effects.push({ do: 'last picture' })
    state.gatherAt = Infinity
    state.troubles = {
      ...state.troubles,
      safe: { says: `Drawing stopped ${RELOADS} times within 10 minutes: it shows its last whole picture until something else is handed over.` },
    }
    return
  }
  state.gathering = key
  effects.push({ do: 'gather', pointer, key })
}

/** For the better: what plays is kept, and stands again within a second or so. */
function leave(state: State, effects: Effect[]): void {
  if (state.leaving) return
  state.leaving = true
  effects.push({ do: 'reload at a change' })
}

function beat(state: State, { at, raw, undrawn, chance, hour }: Event & { is: 'beat' }, effects: Effect[]): void {
  watchClock(state, at, raw)
  const now = raw + state.offset
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
  const later = state.pointer?.build
  if (!later || later === state.build) state.lookAt = null
  else if (state.lookAt === null) state.lookAt = at + LOOK_SPREAD_MS * chance
  else if (at >= state.lookAt && !state.leaving) {
    state.lookAt = at + LOOK_MS
    effects.push({ do: 'look for a page' })
  }
  // Some time within the hour, and not all at once.
  if (now - state.born > OLD_MS && hour === NIGHT_HOUR && chance < 0.001) leave(state, effects)
  report(state, at, now, chance, effects)
}

/** What changes is said at once; that it is there, now and then, and not when all the others say so. */
function report(state: State, at: number, now: number, chance: number, effects: Effect[]): void {
  if (at < state.reporting || state.choosing || !state.pointer) return
  const every = state.pointer.report_every_s ?? REPORT_S
  const report: Report = {
    format: 'upper-pane/report@1',
    release: state.glass?.sha256 ?? null,
    since: state.glass?.since ?? null,
    trouble: wrong(state),
    troubles: Object.entries(state.troubles)
      .slice(0, MOST_TROUBLES)
      .map(([of, trouble]) => ({ of, ...trouble })),
    output: state.glass?.output ?? state.asked,
    build: state.build,
    every_s: every,
    ...state.sensed,
  }
  // What sensors say, and what is answered to them, is told along with the rest: at once only where somebody wants to learn it, or asks for something.
  const isLearning = learns(state.pointer, now)
  const isAsked = isLearning || at - state.tookAt < ASKED_MS
  const said = JSON.stringify({ ...report, ...(!isLearning && { heard: null }), ...(!isAsked && { answers: null }) })
  if (at < state.reportAt && (said === state.said || state.unheard > 0)) return
  state.reporting = at + ANSWER_MS
  state.said = said
  state.reportAt = at + 1000 * every * (0.9 + 0.2 * chance)
  effects.push({ do: 'report', report })
}

/** Whether somebody wants to know what is said before the display. */
export const learns = (pointer: Pointer | null, now: number): boolean => Date.parse(pointer?.learns_until ?? '') > now

/** In one sentence or two; what was said first goes on being said first. */
export function wrong(state: State): string | null {
  const troubles = Object.values(state.troubles)
  if (troubles.length === 0) return null
  const more = troubles.length > 2 ? ` (and ${troubles.length - 2} more)` : ''
  return troubles.slice(0, 2).map(sentence).join('; ').slice(0, 260) + more
}

const sentence = ({ says, element, item }: Trouble) => (element === undefined ? says : `${says} (${item ? `${element}, ${item}` : element})`)
