import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { Media as MediaRef } from '../formats/layout'
import { api } from '../ui/api'
import { seconds, size } from '../ui/format'
import type { Finding } from '../ui/shelf'

export interface MediaState {
  id: string
  name: string
  state: 'waiting' | 'probing' | 'ready' | 'refused' | 'failed'
  refusal: string | null
  kind: 'picture' | 'film'
  width: number | null
  height: number | null
  length_ms: number | null
  bytes: number
  type: string | null
  url: string | null
  thumbnail: string | null
  brought_in_at: string
}
/** A picture that is whole here, and no film. */
export const isReadyPicture = (one: MediaState): boolean => one.state === 'ready' && one.kind === 'picture'

/** As layouts and playlists name a media. */
export type { MediaRef }

export const refOf = (m: MediaState): MediaRef => ({
  id: m.id,
  name: m.name,
  width: m.width ?? 1,
  height: m.height ?? 1,
  ...(m.length_ms === null ? {} : { length_ms: m.length_ms }),
})

export const facts = (m: MediaState): string =>
  m.width === null || m.height === null
    ? ''
    : `${m.kind}, ${size({ width: m.width, height: m.height })}${m.length_ms ? `, ${seconds(m.length_ms)}` : ''}`

const indexes = new WeakMap<MediaState[], Map<string, MediaState>>()

/** A list of media by id: made once for each list, however many pictures look into it. */
export function byId(list: MediaState[]): Map<string, MediaState> {
  let index = indexes.get(list)
  if (!index) indexes.set(list, (index = new Map(list.map((m) => [m.id, m]))))
  return index
}

const NONE: MediaState[] = []

/** All media; asked again every second as long as something is being looked at. */
export function useMedia() {
  const query = useQuery({
    queryKey: ['media'],
    queryFn: () => api.get<{ media: MediaState[]; findings: Finding[] }>('media'),
    refetchInterval: (q) => (q.state.data?.media.some((m) => m.state === 'waiting' || m.state === 'probing') ? 1000 : false),
  })
  const all = computed(() => query.data.value?.media ?? NONE)
  return {
    query,
    all,
    findings: computed(() => query.data.value?.findings ?? []),
    ready: computed(() => all.value.filter((m) => m.state === 'ready')),
  }
}
