import type { Trace } from '../Trigger/triggers'

const AFTER_MS = 30_000

/**
 * What an agent handed on, as a trace from its beginning.
 * @param said entries with `at`, Unix ms, in their order
 */
export function traceOf(said: { at: number }[], id: string, name: string): Trace {
  const first = said[0]?.at ?? 0
  const entries = said.map(({ at, ...entry }) => ({ ...entry, at_ms: Math.max(0, at - first) }))
  return { id, name, until_ms: (entries.at(-1)?.at_ms ?? 0) + AFTER_MS, entries: entries }
}

/** As `--signals` of bin/upperpane takes it: each entry with its instant. */
export const asSignals = ({ entries }: Trace, fromMs: number) =>
  entries.map(({ at_ms: at, ...entry }) => ({ at: new Date(fromMs + at).toISOString(), ...entry }))

/** Signals of a file as a trace; what is wrong with them the trial says. */
export function fromSignals(text: string, id: string, name: string): Trace {
  let told: unknown
  try {
    told = JSON.parse(text)
  } catch {
    throw new Error(`"${name}" is no JSON; a list of entries with "at" is right, as bin/upperpane takes with --signals.`)
  }
  const entries = Array.isArray(told) ? (told as { at?: unknown }[]) : []
  const said = entries.map((one) => ({ ...one, at: typeof one?.at === 'string' ? Date.parse(one.at) : NaN }))
  const wrong = said.findIndex(({ at }, n) => Number.isNaN(at) || (n > 0 && at < said[n - 1]!.at))
  if (said.length === 0) throw new Error(`"${name}" has no entries; a list of them with "at" is right.`)
  if (wrong >= 0) throw new Error(`Entry ${wrong} of "${name}" has no instant "at" that follows the one before.`)
  return traceOf(said, id, name)
}
