import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, toValue } from 'vue'
import { byId, useMedia } from '../Media/media'
import { loadFaces } from '../pane/faces'
import { api } from '../ui/api'
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

type Above = Manifest['planes']['above'][number]
/** The lower first: by kind, level and when they were made. */
function lower(a: Above, b: Above): number {
  const [one, other] = [a.lies ?? [0, 0, 0], b.lies ?? [0, 0, 0]]
  const apart = one.findIndex((figure, n) => figure !== other[n])
  return apart < 0 ? (a.id < b.id ? -1 : 1) : one[apart]! - other[apart]!
}

/** What was put up in a hurry, by display; it lies above what was handed over. */
function usePlanesInForce() {
  const query = useQuery({
    queryKey: ['in-force-planes'],
    queryFn: () => api.get<{ planes: Record<string, Above[]> }>('in-force/planes'),
    refetchInterval: 10_000,
    staleTime: 5_000,
  })
  return computed(() => query.data.value?.planes ?? {})
}

/** The published bytes of a release, as a player reads them; they never change. */
export function useRelease(release: MaybeRefOrGetter<ReleaseState | null>, display: MaybeRefOrGetter<string | null> = null) {
  const inForce = usePlanesInForce()
  const above = computed(() => inForce.value[toValue(display) ?? ''] ?? [])
  const query = useQuery({
    queryKey: computed(() => ['release', toValue(release)?.url, above.value.map((plane) => plane.sheet.sha256)]),
    enabled: computed(() => toValue(release) !== null),
    staleTime: Infinity,
    queryFn: async (): Promise<WholeRelease> => {
      const file = await published<WholeRelease | Manifest>(toValue(release)!.url)
      void loadFaces(file.faces)
      if (!isManifest(file)) return { ...file, run_sheet: identified(file.run_sheet) }
      const planes = { ...file.planes, above: [...file.planes.above, ...above.value].sort(lower) }
      const sheets = await sheetsOf(planes, (sheet) => published<Sheet>(sheet.url))
      const media = [...file.media, ...above.value.flatMap((plane) => plane.media ?? [])]
      return { ...file, media, run_sheet: together(planes, sheets, Date.now()).sheet }
    },
  })
  const media = useAddresses(() => query.data.value)

  return { file: query.data, media, error: query.error }
}
