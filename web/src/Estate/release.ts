import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, toValue } from 'vue'
import { byId, useMedia } from '../Media/media'
import { loadFaces } from '../pane/faces'
import { type Manifest, type Sheet, type WholeRelease, identified, isManifest, sheetsOf, together } from '../pane/release'
import type { ReleaseState } from './estate'

const published = async <T>(url: string): Promise<T> => {
  const answer = await fetch(url)
  if (!answer.ok) throw new Error('The release cannot be read.')
  return (await answer.json()) as T
}

/** Where the files of a release lie, with the small pictures of those media that are still there. */
export function useAddresses(file: MaybeRefOrGetter<WholeRelease | undefined>) {
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
    queryFn: async (): Promise<WholeRelease> => {
      const file = await published<WholeRelease | Manifest>(toValue(release)!.url)
      void loadFaces(file.faces)
      if (!isManifest(file)) return { ...file, run_sheet: identified(file.run_sheet) }
      const sheets = await sheetsOf(file.planes, (sheet) => published<Sheet>(sheet.url))
      return { ...file, run_sheet: together(file.planes, sheets, Date.now()).sheet }
    },
  })
  const media = useAddresses(() => query.data.value)

  return { file: query.data, media, error: query.error }
}
