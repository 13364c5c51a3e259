import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api } from '../ui/api'
import type { Level } from '../ui/shelf'

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
  address: string | null
  bound_at: string
  revoked_at: string | null
  called_at: string | null
  plays_sha256: string | null
  plays_since: string | null
  trouble: string | null
  standing: Standing
}

export interface ReleaseState {
  number: number
  sha256: string
  url: string
  bytes: number
  source: { kind: 'layout' | 'playlist' | 'media'; id: string; revision: number | null }
  name: string
  handed_over_at: string
  handed_over_by: string | null
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
  release: ReleaseState | null
  saved_not_handed_over: boolean
  players: PlayerState[]
  standing: Standing
}

interface Estate {
  now: string
  places: { id: string; name: string; parent: string | null }[]
  displays: DisplayState[]
}

/** The estate as it stands, asked again every five seconds. */
export function useEstate() {
  const query = useQuery({ queryKey: ['estate'], queryFn: () => api.get<Estate>('estate'), refetchInterval: 5000 })
  const displays = computed(() => query.data.value?.displays ?? [])
  const places = computed(() => query.data.value?.places ?? [])
  const standing = (state: Standing['state']) => computed(() => displays.value.filter((d) => d.standing.state === state))

  return {
    query,
    displays,
    places,
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
