import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { type Face, loadFaces } from '../../pane/faces'
import { api } from '../../ui/api'

/** The faces that designs may be set in, loaded for drawing. */
export function useFaces() {
  const query = useQuery({
    queryKey: ['faces'],
    staleTime: Infinity,
    queryFn: async () => {
      const { faces } = await api.get<{ faces: Face[] }>('faces')
      await loadFaces(faces)
      return faces
    },
  })
  const all = computed(() => query.data.value ?? [])
  return {
    families: computed(() => [...new Set(all.value.map((f) => f.family))]),
    weights: (family?: string) => all.value.filter((f) => f.family === (family ?? 'Inter')).map((f) => f.weight),
  }
}
