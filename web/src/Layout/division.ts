import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, toValue } from 'vue'
import type { Recipe as WrittenRecipe } from '../formats/layout'
import { api } from '../ui/api'
import type { Fix, Rect } from '../ui/shelf'
import type { Element, LayoutDocument } from './designs'

export type Recipe = Required<WrittenRecipe>

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
  | { do: 'begin'; kind: string; rect: Rect; fields?: object }
  | { do: 'insert'; elements: Element[]; dx: number; dy: number }
  | { do: 'remove'; elements: string[] }
  | { do: 'restack'; elements: string[]; by: number }
  | { do: 'cure'; fix: Fix }
  | { do: 'vary'; raster: Raster; name?: string }
  | { do: 'drop'; variant: string }

export interface Arranged {
  /** The whole layout, its variants included, and the one that is seen now. */
  document: LayoutDocument
  variant: string | null
  /** That one as a layout of its own. */
  seen: LayoutDocument
  /** What a hand holds now, where that is told. */
  chosen?: string[]
  /** What changed beside what was asked for, in sentences. */
  said: string[]
}

/** An act done to a layout, or to one of its variants. */
export const arranged = (document: LayoutDocument, variant: string | null, act: Act) => api.post<Arranged>('arrangement', { document, variant, act })

/** The same act upon act: later ones on what the earlier ones gave. */
export async function arrangedInTurn(document: LayoutDocument, variant: string | null, acts: Act[]): Promise<Arranged> {
  const said: string[] = []
  let answer: Arranged = { document, variant, seen: document, said }
  for (const act of acts) {
    answer = await arranged(answer.document, variant, act)
    said.push(...answer.said)
  }
  return { ...answer, said }
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
