import { type ComputedRef, computed } from 'vue'
import { useDesigns, usePlayedLayouts } from '../Layout/designs'
import { useMedia } from '../Media/media'

/** All that can be booked, or be a standby: layouts, playlists and media by `kind:id`; the first is none of them. */
export function usePlayables(none: () => string): ComputedRef<{ value: string; text: string }[]> {
  const layouts = usePlayedLayouts()
  const playlists = useDesigns('playlists')
  const { ready } = useMedia()
  return computed(() => [
    { value: '', text: none() },
    ...layouts.value.map((d) => ({ value: `layout:${d.id}`, text: d.name })),
    ...playlists.all.value.map((d) => ({ value: `playlist:${d.id}`, text: `${d.name} (playlist)` })),
    ...ready.value.map((m) => ({ value: `media:${m.id}`, text: m.name })),
  ])
}
