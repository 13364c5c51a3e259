import { onBeforeUnmount, ref } from 'vue'
import { ADDRESS } from '../player/agent'
import type { Said } from './sensor'

const SIGNAL = ADDRESS.replace('ws:', 'http:').replace('/signals', '/signal')
const AGAIN_MS = 2000
/** So much of what passed is told. */
const MOST = 300

/** What passed by the agent of this machine. */
export type Passed = { n: number; at: number } & (
  | { is: 'said'; entry: Said & { at: number }; times: number }
  /** A player has come to a state; and how long after what was said before it stood on the glass, ms. */
  | { is: 'entered'; map: string; state: string; why: string; took: number | null }
  | { is: 'left out'; why: string }
)
interface Told {
  entered?: { map: string; at: number; state: string; why: string }[]
  drawn_at?: number
  left_out?: string
  heard?: (Said & { at: number })[]
  players?: number
}

/** The Bench at the agent of this machine: it says what sensors say, and hears what passes. */
export function useAgent(recording: (entry: Said & { at: number }) => void) {
  const state = ref<'asking' | 'there' | 'away'>('asking')
  const refused = ref('')
  /** How many pages of players hear it. */
  const players = ref(0)
  const passed = ref<Passed[]>([])
  /** The state of each map that was entered last, by its id. */
  const stands = ref<Record<string, string>>({})
  let socket: WebSocket | null = null
  let count = 0
  let saidAt: number | null = null

  function note(one: Passed) {
    passed.value = [one, ...passed.value].slice(0, MOST)
  }
  const isReading = ({ sensor, mm, band }: Said) => sensor !== undefined && (mm !== undefined || band !== undefined)
  function hear(entry: Said & { at: number }) {
    recording(entry)
    saidAt = entry.at
    // One reading follows the other: only the last of them is told.
    const last = passed.value[0]
    if (isReading(entry) && last?.is === 'said' && isReading(last.entry) && last.entry.sensor === entry.sensor)
      passed.value = [{ ...last, at: entry.at, entry, times: last.times + 1 }, ...passed.value.slice(1)]
    else note({ n: count++, is: 'said', at: entry.at, entry, times: 1 })
  }
  function told({ entered, drawn_at: drawn, left_out: why, heard, players: listening }: Told) {
    if (listening !== undefined) players.value = listening
    heard?.forEach(hear)
    for (const { map, at, state: to, why: because } of entered ?? []) {
      stands.value = { ...stands.value, [map]: to }
      const isAnswer = because !== 'lapse' && because !== 'start' && saidAt !== null && at - saidAt < 100
      note({ n: count++, is: 'entered', at, map, state: to, why: because, took: isAnswer && drawn ? Math.max(0, Math.round(drawn - saidAt!)) : null })
    }
    if (why !== undefined) note({ n: count++, is: 'left out', at: Date.now(), why })
  }
  function open() {
    const one = (socket = new WebSocket(ADDRESS))
    one.onopen = () => (state.value = 'there')
    one.onclose = () => {
      if (socket !== one) return
      socket = null
      state.value = 'away'
    }
    one.onmessage = ({ data }) => {
      const said: unknown = JSON.parse(String(data))
      if (Array.isArray(said)) (said as (Said & { at: number })[]).forEach(hear)
      else told(said as Told)
    }
  }
  open()
  const timer = setInterval(() => socket ?? open(), AGAIN_MS)
  onBeforeUnmount(() => {
    clearInterval(timer)
    const one = socket
    socket = null
    one?.close()
  })

  async function say(said: Said | Said[]): Promise<void> {
    try {
      const answer = await fetch(SIGNAL, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(said) })
      refused.value = answer.ok ? '' : ((await answer.json()) as { error: string }).error
    } catch {
      state.value = 'away'
    }
  }
  return { state, players, refused, passed, stands, say, empty: () => (passed.value = []) }
}
