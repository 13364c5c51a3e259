import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, toValue } from 'vue'
import { api } from '../ui/api'
import type { Rect } from '../ui/shelf'
import type { LayoutDocument } from './designs'

export interface Recipe {
  columns: string
  rows: string
  gap: number
  margin: number
  areas: string[]
}

/** A division to begin with, as it lies on the raster that was asked for; one that does not fit says why. */
export interface Division {
  /** Of one that the team keeps; null of one of the trade. */
  id: string | null
  name: string
  recipe: Recipe
  areas?: Record<string, Rect>
  trouble?: string
}

/** A border between zones that can be moved: px of the canvas. */
export interface Border {
  between: 'columns' | 'rows'
  at: number
  gap: number
  before: string[]
  behind: string[]
  from: number
  to: number
  least: number
  most: number
}

export const EDGES = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const
export type Edge = (typeof EDGES)[number]
type Side = 'columns' | 'rows'
type Raster = { width: number; height: number }
export type Act =
  | { do: 'solve' | 'scale'; raster: Raster }
  | { do: 'start'; recipe: Recipe }
  | { do: 'write'; recipe: Omit<Recipe, 'areas'> }
  | { do: 'retell' | 'follow' | 'shares' }
  | { do: 'split'; zone: string; into: Side; tracks: string }
  | { do: 'join' | 'equalise' | 'swap'; zones: string[] }
  | { do: 'align'; zones: string[]; edge: Edge }
  | { do: 'distribute'; zones: string[]; way: 'across' | 'down' }
  | { do: 'repeat'; zones: string[]; columns: number; rows: number; gap_x: number; gap_y: number }
  | { do: 'border'; between: Side; from: number; along: number; to: number }

export interface Arranged {
  document: LayoutDocument
  /** What changed beside what was asked for, in sentences. */
  said: string[]
}

export const arranged = (document: LayoutDocument, act: Act) => api.post<Arranged>('arrangement', { document, act })

/** The same act upon act: later ones on what the earlier ones gave. */
export async function arrangedInTurn(document: LayoutDocument, acts: Act[]): Promise<Arranged> {
  const said: string[] = []
  for (const act of acts) {
    const next = await arranged(document, act)
    document = next.document
    said.push(...next.said)
  }
  return { document, said }
}

/** Those for a raster; with a display, which is a wall of that raster, those at its panels as well. */
export function useDivisions(raster: MaybeRefOrGetter<Raster>, display: () => string | null = () => null) {
  const queries = useQueryClient()
  const sides = computed(() => ({ width: Number(toValue(raster).width), height: Number(toValue(raster).height) }))
  const query = useQuery({
    queryKey: computed(() => ['divisions', sides.value.width, sides.value.height, display()]),
    enabled: computed(() => Object.values(sides.value).every((px) => Number.isInteger(px) && px >= 1 && px <= 1e6)),
    queryFn: () =>
      api.get<{ divisions: Division[] }>(
        `divisions?width=${sides.value.width}&height=${sides.value.height}${display() ? `&display=${display()}` : ''}`,
      ),
  })
  const again = () => queries.invalidateQueries({ queryKey: ['divisions'] })
  return {
    divisions: computed(() => query.data.value?.divisions ?? []),
    keep: (name: string, recipe: Recipe) => api.post('divisions', { name, recipe }).then(again),
    remove: (id: string) => api.delete(`divisions/${id}`).then(again),
  }
}
