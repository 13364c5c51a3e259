import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, toValue } from 'vue'
import { byId, useMedia } from '../Media/media'
import { loadFaces } from '../pane/faces'
import type { Box, RunSheet } from '../pane/sheet'
import type { Face } from '../pane/faces'
import type { ReleaseState } from './estate'

export interface ReleaseFile {
  run_sheet: RunSheet
  match: { target: Box }
  media: { id: string; name: string; url: string; type: string; sha256: string; bytes: number }[]
  faces: (Face & { sha256: string; bytes: number })[]
}

/** Where the files of a release lie, with the small pictures of those media that are still there. */
export function useAddresses(file: MaybeRefOrGetter<ReleaseFile | undefined>) {
  const { all } = useMedia()
  return computed(() =>
    Object.fromEntries(
      (toValue(file)?.media ?? []).map((m) => [m.id, { url: m.url, type: m.type, thumbnail: byId(all.value).get(m.id)?.thumbnail ?? null }]),
    ),
  )
}

/** The published bytes of a release, as a player reads them; they never change. */
export function useRelease(release: MaybeRefOrGetter<ReleaseState | null>) {
  const query = useQuery({
    queryKey: computed(() => ['release', toValue(release)?.url]),
    enabled: computed(() => toValue(release) !== null),
    staleTime: Infinity,
    queryFn: async () => {
      const answer = await fetch(toValue(release)!.url)
      if (!answer.ok) throw new Error('The release cannot be read.')
      const file = (await answer.json()) as ReleaseFile
      void loadFaces(file.faces)
      return file
    },
  })
  const media = useAddresses(() => query.data.value)

  return { file: query.data, media, error: query.error }
}
