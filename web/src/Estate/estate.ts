import { useQuery } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref } from 'vue'
import { api } from '../ui/api'
import type { Finding, Level } from '../ui/shelf'

/** How a player stands, or a display with its players; judged by the core. */
export interface Standing {
  state: 'unbound' | 'silent' | 'troubled' | 'blank' | 'changing' | 'plays'
  level: Level | null
  says: string
}

export interface PlayerState {
  id: string
  name: string
  display: string
  bound_at: string
  revoked_at: string | null
  called_at: string | null
  plays_sha256: string | null
  plays_since: string | null
  /** Number of the release that it plays; null where it is none of its display's newest. */
  plays_release: number | null
  trouble: string | null
  /** Which surveyed player of the display it is. */
  part: string | null
  standing: Standing
}

export interface ReleaseState {
  number: number
  sha256: string
  url: string
  bytes: number
  source: { kind: 'layout' | 'filled' | 'playlist' | 'media' | 'schedule'; id: string; revision: number | null }
  name: string
  handed_over_at: string
  handed_over_by: string | null
  /** Number of the earlier release that it puts back. */
  puts_back: number | null
  /** It is so old that it cannot be put back any more. */
  gone: boolean
}

export interface DisplayState {
  id: string
  name: string
  place: string
  way: string[]
  timezone: string
  raster: { width: number; height: number }
  orientation: 'landscape' | 'portrait' | 'square'
  rotation: number
  active_mm: { width: number; height: number }
  px_per_mm: number
  viewing: { nearest_mm: number; farthest_mm: number }
  technology: 'lcd' | 'led'
  revision: number
  /** How many panels it has, what each of them shows (x, y, width, height in px of the raster; none of a single panel), and what feeds them. */
  panels: number
  sources: [number, number, number, number][]
  feeds: { player: string | null; output: number | null }[]
  /** What is found in its survey. */
  found: { stops: number; warnings: number; hints: number }
  release: ReleaseState | null
  saved_not_handed_over: boolean
  /** What plays there at this instant by its schedule, as it is saved; null where no schedule stands. */
  due: { plays: string | null; booking: string | null; why: string } | null
  /** What is found in the plan of its release, where it ends soon. */
  planned: string | null
  players: PlayerState[]
  standing: Standing
}

export interface PlaceState {
  id: string
  name: string
  parent: string | null
  timezone: string | null
  zone: string | null
}

export interface Estate {
  places: PlaceState[]
  displays: DisplayState[]
  /** What is wrong with them; the same of many is said once, and names them all. */
  findings: Finding[]
}

/** What is null or false is left out. */
type Player = Partial<Omit<PlayerState, 'standing' | 'display'>> & { standing: number }
interface Row extends Pick<DisplayState, 'id' | 'name' | 'place' | 'revision'> {
  kind: number
  number?: number
  release?: number
  older?: true
  planned?: string
  standing: number
  due?: number
  players: Player[]
}
interface Answer {
  places: (PlaceState & { way: string[] })[]
  findings: Finding[]
  displays: Row[]
  kinds: Partial<DisplayState>[]
  releases: Omit<ReleaseState, 'number'>[]
  standings: Standing[]
  dues: DisplayState['due'][]
}

const SILENT = { part: null, build: null, called_at: null, plays_sha256: null, plays_since: null, trouble: null, plays_release: null }

/** What the answer tells once for many displays is put to each. */
export function together({ places, findings, displays, kinds, releases, standings, dues }: Answer): Estate {
  const ways = new Map(places.map((place) => [place.id, place.way]))
  return {
    places,
    findings,
    displays: displays.map(
      (row) =>
        ({
          ...kinds[row.kind],
          id: row.id,
          name: row.name,
          place: row.place,
          way: ways.get(row.place) ?? [],
          revision: row.revision,
          planned: row.planned ?? null,
          release: row.release === undefined ? null : { ...releases[row.release], number: row.number },
          saved_not_handed_over: row.older ?? false,
          standing: standings[row.standing],
          due: row.due === undefined ? null : dues[row.due],
          players: row.players.map((player) => ({ ...SILENT, ...player, display: row.id, standing: standings[player.standing] })),
        }) as DisplayState,
    ),
  }
}

const texts = new WeakMap<DisplayState, string>()
/** What a display is found by: its name, its places, its time zone and its raster. */
export function wordsOf(d: DisplayState): string {
  let words = texts.get(d)
  if (words === undefined) texts.set(d, (words = `${d.name} ${d.way.join(' ')} ${d.timezone} ${d.raster.width}x${d.raster.height}`.toLowerCase()))
  return words
}

/** How often the estate is asked again, ms: thousands of displays take a moment to take in. */
const OFTEN = 5000
const SELDOM = 15_000
const MANY = 1000
/** Names and rasters seldom change, and whoever changes them asks anew. */
const ONCE_MS = 60_000

interface Counts {
  of: number
  older: number
  standing: Partial<Record<Standing['state'], number>>
}

function counted(displays: DisplayState[]): Counts {
  const standing: Counts['standing'] = {}
  for (const d of displays) standing[d.standing.state] = (standing[d.standing.state] ?? 0) + 1
  return { of: displays.length, older: displays.filter((d) => d.saved_not_handed_over).length, standing }
}

/** How many parts of this page ask for the whole estate again and again: then nobody needs to be asked for its counts. */
const watching = ref(0)

/** How many displays stand how, as every page of the desk shows it. */
export function useCounts() {
  const isWatched = computed(() => watching.value > 0)
  const query = useQuery({
    queryKey: ['estate', 'counts'],
    queryFn: () => api.get<Counts>('estate/counts'),
    enabled: computed(() => !isWatched.value),
    refetchInterval: (q) => ((q.state.data?.of ?? 0) > MANY ? SELDOM : OFTEN),
  })
  const whole = useQuery<Estate>({ queryKey: ['estate'], enabled: false, queryFn: ask })
  return computed(() =>
    isWatched.value && whole.data.value ? counted(whole.data.value.displays) : (query.data.value ?? { of: 0, older: 0, standing: {} }),
  )
}

const ask = async () => together(await api.get<Answer>('estate'))

/** The estate as it stands, asked again every few seconds; where only names and rasters are looked up, `live` is false, and it is asked once. */
export function useEstate(live = true) {
  if (live) {
    watching.value++
    onScopeDispose(() => watching.value--)
  }
  const query = useQuery({
    queryKey: ['estate'],
    queryFn: ask,
    staleTime: live ? 0 : ONCE_MS,
    refetchInterval: (q) => (live ? ((q.state.data?.displays.length ?? 0) > MANY ? SELDOM : OFTEN) : false),
  })
  const displays = computed(() => query.data.value?.displays ?? [])
  const places = computed(() => query.data.value?.places ?? [])
  const standing = (state: Standing['state']) => computed(() => displays.value.filter((d) => d.standing.state === state))

  return {
    query,
    displays,
    places,
    findings: computed(() => query.data.value?.findings ?? []),
    byPlace: computed(() => {
      const at = new Map<string, DisplayState[]>()
      for (const d of displays.value) {
        const there = at.get(d.place)
        if (there) there.push(d)
        else at.set(d.place, [d])
      }
      return places.value.map((place) => ({ ...place, displays: at.get(place.id) ?? [] })).filter((p) => p.displays.length > 0)
    }),
    silent: standing('silent'),
    plays: standing('plays'),
    notHandedOver: computed(() => displays.value.filter((d) => d.saved_not_handed_over)),
    unbound: standing('unbound'),
  }
}
