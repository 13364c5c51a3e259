import { api } from '../ui/api'
import type { Fix } from '../ui/shelf'
import type { DisplayDocument, PanelDocument } from './survey'

/** What hands do to the document of a display: fields are changed here, all else is an act that the core does. */

export type SurveyAct =
  | { do: 'grid'; columns: number; rows: number }
  | { do: 'hang'; way: 'free' | 'grid' }
  | { do: 'swap' | 'remove'; panels: string[] }
  | { do: 'feed'; panel: string; player: string | null; output: number | null }
  | { do: 'renumber' | 'apart' | 'together' | 'add-player' | 'add-input' | 'add-sensor' }
  | { do: 'add'; like: string }
  | { do: 'size'; panels: string[]; size: string }
  | { do: 'outputs'; player: string; count: number }
  | { do: 'remove-player'; player: string }
  | { do: 'cure'; fix: Fix }
export const surveyed = (document: DisplayDocument, act: SurveyAct) => api.post<{ document: DisplayDocument }>('displays/act', { document, act })

/** Panels taken for a field: those that are chosen, else all. */
export const meant = (doc: DisplayDocument, chosen: ReadonlySet<string>): PanelDocument[] =>
  chosen.size ? doc.panels.filter((p) => chosen.has(p.id)) : doc.panels

/** The same without some of its fields. */
export function without<T extends object, K extends keyof T>(of: T, ...names: K[]): Omit<T, K> {
  const rest = { ...of }
  for (const name of names) delete rest[name]
  return rest
}

export function eachPanel(doc: DisplayDocument, chosen: ReadonlySet<string>, change: (panel: PanelDocument) => PanelDocument): DisplayDocument {
  return { ...doc, panels: doc.panels.map((p) => (chosen.size === 0 || chosen.has(p.id) ? change(p) : p)) }
}

export function moved(doc: DisplayDocument, ids: ReadonlySet<string>, dx: number, dy: number): DisplayDocument {
  const to = (mm: number, by: number) => Math.round((mm + by) * 10) / 10
  return eachPanel(doc, ids, (p) => (p.origin_mm && ids.has(p.id) ? { ...p, origin_mm: { x: to(p.origin_mm.x, dx), y: to(p.origin_mm.y, dy) } } : p))
}
