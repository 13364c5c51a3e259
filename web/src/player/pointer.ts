import type { Named, Pointer as PointerFile } from '../formats/pointer'

/** What a player is told: a small file that is asked for again and again. Read as it comes: servers from before do not say all of it. */
export type Pointer = Partial<Omit<Extract<PointerFile, { revoked: false }>, 'revoked'>> & { revoked: boolean }

/** A file that may be needed one day. */
export type Beforehand = NonNullable<Pointer['beforehand']>[number]

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
