import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { Rows } from '../formats/rows'
import type { Source } from '../formats/source'
import { api } from '../ui/api'
import type { Finding } from '../ui/shelf'

export type { Source as SourceDocument }
/** Which rows are chosen, as it stands within other documents. */
export type RowsDocument = Omit<Rows, 'format'>
export type Field = NonNullable<Rows['fields']>[string]
export type Condition = NonNullable<Rows['where']>[number]
type Whole = Extract<Field, { of: string }>
export type Unit = NonNullable<Whole['unit']>[number]
export type Value = string | number | boolean | null

export interface Cost {
  fetches_h: number
  bytes_h: number
  /** What fetching half as often would save, bytes in an hour. */
  half: number
}

/** How a source stands. */
export interface SourceState {
  id: string
  name: string
  from: 'address' | 'file' | 'table' | null
  address: string | null
  status: 'fresh' | 'empty' | 'late' | 'failing' | 'stale'
  finding: Finding | null
  taken_at: string | null
  failing_since: string | null
  why: string | null
  due_at: string | null
  file: string | null
  bytes: number | null
  /** Names of the headers with which it is asked. */
  sealed: string[]
  every_s: number | null
  cost: Cost
}

/** Pictures that its rows name, as far as anybody has asked for them. */
export interface SourcePictures {
  there: number
  coming: number
  failed: number
  failures: { address: string; why: string }[]
}

export interface Fetched {
  id: number
  at: string
  took_ms: number
  outcome: 'read' | 'same' | 'refused' | 'failed'
  status: number | null
  came_bytes: number
  why: string | null
}

/** One level of a tree: what all that stand there have in common. */
export interface Level {
  path: string
  name: string
  count: number
  missing: number
  types: Record<string, number>
  examples: string[]
  more: number
  levels: Level[]
}

export interface Chosen {
  /** The instant that was asked for. */
  at: string
  count: number
  rows: Record<string, Value>[]
  spans: [string | null, string | null][]
  unreadable: number
  changes_at: string | null
  fields: string[]
  /** Those that most likely mean pictures. */
  pictures: string[]
  nodes: number
  taken_at: string | null
}

const LOOK_AGAIN_MS = 5000
const SELDOM_MS = 30_000

/** @param live asked again every few seconds, where somebody looks at them */
export const useSources = (live = true) => {
  const query = useQuery({
    queryKey: ['data'],
    queryFn: () => api.get<{ sources: SourceState[]; cost: Cost; findings: Finding[]; units: Unit[][] }>('data'),
    refetchInterval: live ? LOOK_AGAIN_MS : SELDOM_MS,
    staleTime: live ? 0 : SELDOM_MS,
  })
  return { query, all: computed(() => query.data.value?.sources ?? []), cost: computed(() => query.data.value?.cost ?? null) }
}

export const useSourceState = (id: string) =>
  useQuery({
    queryKey: ['data', id],
    queryFn: () => api.get<SourceState & { fetches: Fetched[]; pictures: SourcePictures }>(`sources/${id}/state`),
    refetchInterval: LOOK_AGAIN_MS,
  })

export const STATUS: Record<SourceState['status'], string> = {
  fresh: 'fresh',
  empty: 'never read',
  late: 'late',
  failing: 'failing',
  stale: 'too old',
}
export const OUTCOME: Record<Fetched['outcome'], string> = { read: 'read anew', same: 'the same', refused: 'cannot be read', failed: 'nothing came' }

/** What a level is made of, the commonest first. */
export const typesOf = (level: Level): string =>
  Object.keys(level.types)
    .map((type) => ({ local: 'local time', figure: 'number as text' })[type] ?? type)
    .join(', ')

/** A name that a message can say, from that of a member. */
export function nameFor(member: string, taken: string[]): string {
  const bare = member.replace(/[^A-Za-z0-9_]+/g, '_').replace(/^[^A-Za-z]+/, '') || 'field'
  let name = bare
  for (let n = 2; taken.includes(name); n++) name = `${bare}_${n}`
  return name
}

/** How often: `10 s`, `5 min`, `1 h 30 min`. */
export function interval(s: number): string {
  const parts = [
    [Math.floor(s / 3600), 'h'],
    [Math.floor(s / 60) % 60, 'min'],
    [s % 60, 's'],
  ] as const
  return parts.flatMap(([n, unit]) => (n > 0 ? [`${n} ${unit}`] : [])).join(' ')
}

/** The things of a list, by its path. */
export function levelAt(level: Level, path: string): Level | null {
  if (level.path === path) return level
  for (const one of level.levels) {
    const found = levelAt(one, path)
    if (found) return found
  }
  return null
}

/** What is mostly written as a local time, a day or a number is taken for one. */
export function begun(way: string, level: Level): Field {
  const type = Object.keys(level.types)[0]
  if (type === 'local' || type === 'date') return { of: way, type }
  return type === 'figure' ? { of: way, type: 'number' } : way
}

/** The fields that rows begin with: all that is no list and no object. */
export function fieldsOf(rows: Level): Record<string, Field> {
  const fields: Record<string, Field> = {}
  for (const one of rows.levels) {
    const way = within(rows.path, one.path)
    if (way !== null && one.levels.length === 0 && !one.types.list) fields[nameFor(one.name, Object.keys(fields))] = begun(way, one)
  }
  return fields
}

/** Where one begins to look: the list whose rows tell the most. */
export function richest(level: Level): Level | null {
  let best: Level | null = null
  let most = 0
  const look = (one: Level) => {
    const tells = one.levels.filter((inner) => inner.levels.length === 0).length * one.count
    if (one.name === '[*]' && one.types.object && tells > most) [best, most] = [one, tells]
    one.levels.forEach(look)
  }
  look(level)
  return best
}

/** The path of a level within a row at another one; null where it does not stand in it. */
export const within = (row: string, level: string): string | null => (level.startsWith(row) && level !== row ? `$${level.slice(row.length)}` : null)

export const pathOf = (field: Field): string => (typeof field === 'string' ? field : 'of' in field ? field.of : field.count)
