import { useQuery } from '@tanstack/vue-query'
import { useNow } from '@vueuse/core'
import { computed } from 'vue'
import { api } from '../ui/api'

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
}

interface Estate {
  now: string
  places: { id: string; name: string; parent: string | null }[]
  displays: DisplayState[]
}

/** A player that has not called for so long counts as silent; it calls every ten seconds. */
const SILENT_MS = 45_000

export const isSilent = (player: PlayerState, now: number): boolean =>
  player.called_at === null ? now - Date.parse(player.bound_at) > SILENT_MS : now - Date.parse(player.called_at) > SILENT_MS

/** The estate as it stands, asked again every five seconds. */
export function useEstate() {
  const query = useQuery({ queryKey: ['estate'], queryFn: () => api.get<Estate>('estate'), refetchInterval: 5000 })
  const now = useNow({ interval: 5000 })
  const displays = computed(() => query.data.value?.displays ?? [])
  const places = computed(() => query.data.value?.places ?? [])
  const silentPlayers = (display: DisplayState) => display.players.filter((p) => isSilent(p, now.value.getTime()))

  return {
    query,
    displays,
    places,
    byPlace: computed(() =>
      places.value.map((place) => ({ ...place, displays: displays.value.filter((d) => d.place === place.id) })).filter((p) => p.displays.length > 0),
    ),
    silent: computed(() => displays.value.filter((d) => d.players.length > 0 && silentPlayers(d).length === d.players.length)),
    notHandedOver: computed(() => displays.value.filter((d) => d.saved_not_handed_over)),
    needsSurvey: computed(() => displays.value.filter((d) => d.players.length === 0)),
  }
}
