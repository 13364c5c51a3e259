import { keepPreviousData, useQueries } from '@tanstack/vue-query'
import { useRafFn } from '@vueuse/core'
import { type Ref, computed, ref } from 'vue'
import type { WholeRelease } from '../pane/release'
import { loadFaces } from '../pane/faces'
import { nextChange, previousChange } from '../pane/sheet'
import type { Day } from '../Time/schedule'
import { api } from '../ui/api'
import type { Finding } from '../ui/shelf'

/** What one thing shows from when to when: the whole display, or one of its zones. */
export interface Stretch {
  from: string
  to: string
  zone: string | null
  kind: 'layout' | 'playlist' | 'media' | 'item' | 'rows' | 'nothing'
  name: string
  booking: string | null
  why: string
}

export interface Rehearsal {
  display: string
  /** The schedule that rules there, whether or not it is what stands. */
  rules: { id: string; name: string } | null
  timezone: string
  from: string
  to: string
  days: Day[]
  clock_changes: { at: string; shift_s: number }[]
  source: { kind: string; id: string; revision: number | null; name: string } | null
  course: Stretch[]
  left: number
  /** Sources of data that it tells. */
  sources: { id: string; name: string }[]
  release: WholeRelease | null
  /** That nothing is there to be rehearsed. */
  findings: Finding[]
}

export interface Asked {
  display: string
  source?: { kind: string; id: string }
  scheduled?: boolean
  from?: string
  to?: string
  items?: boolean
  /** Which kept fetch of a source is told, by its id; the others as screens tell them. */
  fetches?: Record<string, number>
  /** Without the release, which is much longer. */
  course_only?: boolean
}

/** One rehearsal for each that is asked for; the old one stays until the new one is there. */
export function useRehearsals(asked: Ref<Asked[]>) {
  return useQueries({
    queries: computed(() =>
      asked.value.map((one) => ({
        queryKey: ['rehearsal', JSON.stringify(one)],
        retry: false,
        staleTime: 60_000,
        placeholderData: keepPreviousData,
        queryFn: async () => {
          const told = await api.post<Rehearsal>('rehearsal', one)
          if (told.release) void loadFaces(told.release.faces)
          return told
        },
      })),
    ),
  })
}

export const SPEEDS = ['1', '10', '60'] as const

/** The hand of a rehearsal: it stands, or runs so many times as fast as the clock. */
export function useRehearsalHand(sheets: () => WholeRelease['run_sheet'][], span: () => [number, number]) {
  const at = ref(Date.now())
  const running = ref(false)
  const speed = ref('1')
  useRafFn(({ delta }) => {
    if (!running.value) return
    // A tab that was away does not leap.
    const next = at.value + Math.min(delta, 250) * Number(speed.value)
    const [from, to] = span()
    if (next >= to) running.value = false
    at.value = Math.max(from, Math.min(next, to - 1))
  })
  const to = (instant: number) => {
    const [from, until] = span()
    at.value = Math.round(Math.max(from, Math.min(instant, until - 1)))
  }
  return {
    at,
    running,
    speed,
    to,
    toChange(forward: boolean) {
      const now = Math.round(at.value)
      const edges = sheets().flatMap((sheet) => (forward ? nextChange : previousChange)(sheet, now) ?? [])
      if (edges.length) to(forward ? Math.min(...edges) : Math.max(...edges))
    },
  }
}

/** The instant at which the wall clock of some days first shows a time, by what the core says of these days; null where none does. */
export function instantAt(days: Day[], date: string, secondsOfDay: number): number | null {
  const day = days.find((d) => d.date === date)
  if (!day) return null
  const length = Date.parse(day.to) - Date.parse(day.from)
  for (const [n, [begin, minutes]] of day.steps.entries()) {
    const end = day.steps[n + 1]?.[0] ?? length
    const ms = begin + (secondsOfDay - minutes * 60) * 1000
    if (ms >= begin && ms < end) return Date.parse(day.from) + ms
  }
  return null
}

/** The steps at which pictures stand in a strip, ms: as many as there is room for, at whole steps of the wall clock. */
const STEPS = [1000, 5000, 15_000, 60_000, 300_000, 900_000, 1_800_000, 3_600_000, 7_200_000, 10_800_000, 21_600_000, 43_200_000, 86_400_000]
export function pictureTimes(from: number, to: number, most: number): number[] {
  const step = STEPS.find((s) => (to - from) / s <= most) ?? Math.ceil((to - from) / Math.max(1, most))
  const times: number[] = []
  for (let t = from; t < to; t += step) times.push(t)
  return times
}
