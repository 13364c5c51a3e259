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
