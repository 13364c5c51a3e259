import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api } from '../ui/api'
import { type Chosen, type Level, type RowsDocument, fieldsOf, levelAt, richest } from './sources'

/** The rows of a source that were looked at last, where that is kept. */
export const looked = (source: string) => `upper-pane:rows:${source}`

/** The rows that one begins with: those that were looked at last, else the list that tells the most. */
export async function rowsBegun(source: string): Promise<RowsDocument> {
  const { outline } = await api.post<{ outline: Level | null }>(`sources/${source}/outline`, {})
  const kept = JSON.parse(localStorage.getItem(looked(source)) ?? 'null') as RowsDocument | null
  const path = kept?.path ?? (outline && richest(outline)?.path)
  const level = outline && path ? levelAt(outline, path) : null
  const fields = level ? fieldsOf(level) : {}
  return {
    source,
    ...(path ? { path } : {}),
    ...(Object.keys(fields).length ? { fields } : {}),
    ...kept,
  }
}

/** What rows choose by now, and the fields that they have. */
export function useChosen(rows: () => RowsDocument | undefined) {
  const { data: chosen } = useQuery({
    queryKey: computed(() => ['rows', JSON.stringify(rows())]),
    queryFn: () => api.post<Chosen>('rows', { rows: rows() }),
    enabled: computed(() => rows() !== undefined),
  })
  const fields = computed(() => (rows() ? (chosen.value?.fields ?? Object.keys(rows()!.fields ?? {})) : []))
  return { chosen, fields }
}
