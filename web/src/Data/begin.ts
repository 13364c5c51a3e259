import { api } from '../ui/api'
import { type Level, type RowsDocument, fieldsOf, levelAt, richest } from './sources'

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
