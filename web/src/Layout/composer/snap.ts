import type { Rect } from '../../ui/shelf'

export interface Snapped {
  dx: number
  dy: number
  /** Canvas px of the lines that were met. */
  linesX: number[]
  linesY: number[]
}

/**
 * How far a box has to be nudged so that one of its edges, or its centre, lies on a line; pure.
 *
 * @param within canvas px in which a line draws
 * @param edges which edges of the box may be drawn: all for moving, the dragged ones for sizing
 */
export function snap(
  box: Rect,
  linesX: number[],
  linesY: number[],
  within: number,
  edges: { left: boolean; right: boolean; top: boolean; bottom: boolean; centre: boolean },
): Snapped {
  const xs = [edges.left ? box.x : null, edges.right ? box.x + box.width : null, edges.centre ? Math.round(box.x + box.width / 2) : null]
  const ys = [edges.top ? box.y : null, edges.bottom ? box.y + box.height : null, edges.centre ? Math.round(box.y + box.height / 2) : null]
  const dx = nearest(xs, linesX, within)
  const dy = nearest(ys, linesY, within)
  return { dx, dy, linesX: met(xs, dx, linesX), linesY: met(ys, dy, linesY) }
}

function nearest(points: (number | null)[], lines: number[], within: number): number {
  let best = within + 1
  for (const point of points) {
    if (point === null) continue
    for (const line of lines) if (Math.abs(line - point) < Math.abs(best)) best = line - point
  }
  return Math.abs(best) <= within ? best : 0
}

const met = (points: (number | null)[], by: number, lines: number[]) => [
  ...new Set(lines.filter((line) => points.some((p) => p !== null && p + by === line))),
]

/** A gap that is as wide as another: from, to and where across it is written, px of the canvas. */
export interface Gap {
  along: 'x' | 'y'
  from: number
  to: number
  at: number
}

type Span = { a: number; b: number }

/**
 * How far a box has to be nudged so that it stands as far from its neighbour as two others stand from one another, or midway between two; pure.
 *
 * Neighbours are those in the same row (or column): what shares some of its height (width).
 *
 * @param within canvas px in which a gap draws
 */
export function snapGaps(box: Rect, others: Rect[], within: number): { dx: number; dy: number; gaps: Gap[] } {
  const row = others.filter((r) => r.y < box.y + box.height && r.y + r.height > box.y)
  const column = others.filter((r) => r.x < box.x + box.width && r.x + r.width > box.x)
  const x = equal(
    { a: box.x, b: box.x + box.width },
    row.map((r) => ({ a: r.x, b: r.x + r.width })),
    within,
  )
  const y = equal(
    { a: box.y, b: box.y + box.height },
    column.map((r) => ({ a: r.y, b: r.y + r.height })),
    within,
  )
  const middle = { x: box.y + box.height / 2, y: box.x + box.width / 2 }
  return {
    dx: x.by,
    dy: y.by,
    gaps: [...x.gaps.map((g) => ({ along: 'x' as const, ...g, at: middle.x })), ...y.gaps.map((g) => ({ along: 'y' as const, ...g, at: middle.y }))],
  }
}

function equal(box: Span, others: Span[], within: number): { by: number; gaps: { from: number; to: number }[] } {
  const size = box.b - box.a
  const spans = [...others].sort((p, q) => p.a - q.a)
  // Between which two it stands, and the gaps between others that stand side by side.
  const before = spans.filter((s) => s.b <= box.a + within).sort((p, q) => q.b - p.b)[0]
  const behind = spans.filter((s) => s.a >= box.b - within)[0]
  const pairs = spans.slice(1).flatMap((s, i) => (s.a > spans[i]!.b ? [{ from: spans[i]!.b, to: s.a }] : []))
  const wishes: { at: number; gaps: { from: number; to: number }[] }[] = []
  if (before && behind && behind.a - before.b > size) {
    const at = Math.round((before.b + behind.a - size) / 2)
    wishes.push({
      at,
      gaps: [
        { from: before.b, to: at },
        { from: at + size, to: behind.a },
      ],
    })
  }
  for (const pair of pairs) {
    const gap = pair.to - pair.from
    if (before) wishes.push({ at: before.b + gap, gaps: [pair, { from: before.b, to: before.b + gap }] })
    if (behind) wishes.push({ at: behind.a - gap - size, gaps: [pair, { from: behind.a - gap, to: behind.a }] })
  }
  const best = wishes.reduce<(typeof wishes)[number] | null>(
    (found, wish) => (found === null || Math.abs(wish.at - box.a) < Math.abs(found.at - box.a) ? wish : found),
    null,
  )
  return best && Math.abs(best.at - box.a) <= within ? { by: best.at - box.a, gaps: best.gaps } : { by: 0, gaps: [] }
}
