import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api } from '../ui/api'
import type { Open } from './hours'
import type { Change } from '../Overlay/overlays'

/** What holds of a setting at a place: its value, where it comes from, and what it takes the place of. */
export interface Held {
  value: unknown
  from: string | string[]
  instead_of?: { from: string; value: unknown }[]
}

interface Stated {
  id: string
  name: string
  settings: {
    timezone?: string
    style?: string
    languages?: string[]
    standby?: Record<string, string>
    vars?: Record<string, string | number>
    hours?: Open[]
    overlays?: Change
    triggers?: Change
  }
  resolved: Record<string, Held>
}
export interface PlaceSettings extends Stated {
  parent: string | null
  way: string[]
  displays: number
}
export interface DisplaySettings extends Stated {
  place: string
}

export function useSettings() {
  const query = useQuery({
    queryKey: ['settings'],
    queryFn: () => api.get<{ places: PlaceSettings[]; displays: DisplaySettings[]; timezones: string[] }>('settings'),
  })
  return {
    query,
    places: computed(() => query.data.value?.places ?? []),
    displays: computed(() => query.data.value?.displays ?? []),
    timezones: computed(() => query.data.value?.timezones ?? []),
  }
}
