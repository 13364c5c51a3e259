/** A grid of which one cell takes the focus with Tab, and the arrows go from there. Rows and cells as they stand on the page. */

export interface Cell {
  row: number
  /** Its left and right edge, in whatever runs along the row. */
  from: number
  to: number
}

/**
 * Where a key leads: a cell, or nowhere within the rows.
 *
 * @param at one of the cells of `rows`
 */
export function nextCell<C extends Cell>(rows: C[][], at: C, key: string, ctrl = false): C | null {
  const row = rows[at.row] ?? []
  const place = row.indexOf(at)
  if (key === 'ArrowRight') return row[place + 1] ?? null
  if (key === 'ArrowLeft') return row[place - 1] ?? null
  if (key === 'Home') return (ctrl ? rows.find((one) => one.length)?.[0] : row[0]) ?? null
  if (key === 'End') return (ctrl ? rows.filter((one) => one.length).at(-1) : row)?.at(-1) ?? null
  const by = { ArrowUp: -1, ArrowDown: 1 }[key]
  if (by === undefined) return null
  for (let n = at.row + by; n >= 0 && n < rows.length; n += by) if (rows[n]!.length) return nearest(rows[n]!, at)
  return null
}

/** The cell that shares most with another one, else the one that is nearest to it. */
export function nearest<C extends Cell>(row: C[], at: Pick<Cell, 'from' | 'to'>): C {
  const apart = (c: C) => Math.max(c.from, at.from) - Math.min(c.to, at.to)
  return row.reduce((best, cell) => (apart(cell) < apart(best) ? cell : best))
}
