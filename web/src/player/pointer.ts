import type { Named, Planes } from '../pane/release'
import type { Alignment } from './alignment'

/** What a player is told: a small file that is asked for again and again (docs/formats/pointer.schema.json). */
export interface Pointer {
  revoked: boolean
  /** Of the page that is handed out now. */
  build?: string
  player?: { name: string; part: string | null; outputs: number[] }
  alignment?: Alignment | null
  display?: { name: string; raster: { width: number; height: number } }
  release?: ({ number: number } & Named) | null
  manifest?: Named | null
  planes?: Planes | null
  /** How often a player says that it is there, s. */
  report_every_s?: number
}

/** The release that is to be played; null for none. */
export const named = (pointer: Pointer): Named | null => pointer.manifest ?? pointer.release ?? null

/** All that decides what is played. */
export const keyOf = (pointer: Pointer): string => `${named(pointer)?.sha256} ${JSON.stringify(pointer.planes ?? null)}`

/** Read as it comes: what is no pointer is refused whole, and what was said last goes on. */
export function pointerOf(text: string): Pointer {
  const read: unknown = JSON.parse(text)
  if (typeof read !== 'object' || read === null || typeof (read as Pointer).revoked !== 'boolean')
    throw new Error('the server answered something else than a pointer')
  const pointer = read as Pointer
  const release = named(pointer)
  if (release && !(typeof release.url === 'string' && typeof release.sha256 === 'string'))
    throw new Error('the pointer names no release that can be fetched')
  return pointer
}
