/** What a place or a display says of overlays; all else comes from above. */
export interface Change {
  only?: string[]
  without?: string[]
  add?: string[]
}
export type Said = 'add' | 'without' | ''
export const saidOf = (change: Change | undefined, id: string): Said =>
  change?.add?.includes(id) || change?.only?.includes(id) ? 'add' : change?.without?.includes(id) ? 'without' : ''
/** The same with something else said of one; null where nothing is said any more. */
export function saying(change: Change | undefined, id: string, how: Said): Change | null {
  const less = (list: string[] = []) => list.filter((one) => one !== id)
  const next: Change = {
    ...(change?.only ? { only: less(change.only) } : {}),
    without: [...less(change?.without), ...(how === 'without' ? [id] : [])],
    add: [...less(change?.add), ...(how === 'add' ? [id] : [])],
  }
  const left = Object.entries(next).filter(([name, list]: [string, string[]]) => name === 'only' || list.length)
  return left.length ? Object.fromEntries(left) : null
}
