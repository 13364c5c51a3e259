import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { api } from '../ui/api'

/** One press of "Hand over": a job does it, and goes on whoever looks on. */
export interface Handing {
  id: string
  name: string
  state: 'waiting' | 'working' | 'handed' | 'done' | 'failed'
  /** Of how many of its displays all is compiled. */
  done: number
  of: number
  /** The first of its displays. */
  displays: string[]
  trouble: string | null
  begun_at: string
  begun_by: string | null
  ended_at: string | null
}

const RUNNING_MS = 500
const IDLE_MS = 15_000
const isRunning = (handing: Handing) => handing.state !== 'done' && handing.state !== 'failed'

/** What was handed over last, the newest first; while one is under way it is asked for often. */
export function useHandings() {
  const queries = useQueryClient()
  const query = useQuery({
    queryKey: ['handings'],
    queryFn: () => api.get<{ handings: Handing[] }>('handings'),
    refetchInterval: (q) => (q.state.data?.handings.some(isRunning) ? RUNNING_MS : IDLE_MS),
  })
  const all = computed(() => query.data.value?.handings ?? [])
  const running = computed(() => all.value.filter(isRunning))
  // Whatever was handed over is seen everywhere.
  watch(
    () => running.value.map((one) => one.id).join(' '),
    (now, before) => {
      if (before.split(' ').some((id) => id && !now.includes(id)))
        for (const key of ['estate', 'shown', 'layouts', 'filled', 'playlists', 'schedules', 'preview', 'releases'])
          void queries.invalidateQueries({ queryKey: [key] })
    },
  )

  return { query, all, running }
}

/** So many displays are told by name. */
const NAMED = 4
/** "Check-in 1, Check-in 2 and 30 more" */
export function told(displays: string[], of: number, nameOf: (display: string) => string): string {
  const named = displays.slice(0, NAMED)
  return named.map(nameOf).join(', ') + (of > named.length ? ` and ${of - named.length} more` : '')
}

/** Where one sees it arrive: its displays alone, or where they are too many to be named, all that play what it is called. */
export const arrivalOf = ({ displays, of, name }: Handing) => ({
  path: '/playback',
  query: displays.length === of ? { display: displays } : { search: name },
})

/** How far it is, in words. */
export function saysOf(handing: Handing, nameOf: (display: string) => string): string {
  const where = told(handing.displays, handing.of, nameOf)
  return {
    waiting: `waits for its turn, to ${where}`,
    working: `compiling: ${handing.done} of ${handing.of} ${handing.of === 1 ? 'display' : 'displays'}`,
    handed: 'telling the players',
    done: `handed over to ${where}`,
    failed: `not handed over to ${where}: ${handing.trouble}`,
  }[handing.state]
}
