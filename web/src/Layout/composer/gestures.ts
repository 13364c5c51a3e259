import type { Rect } from '../../ui/shelf'

export type Handle = 'n' | 's' | 'e' | 'w' | 'ne' | 'nw' | 'se' | 'sw'
export const HANDLES: Handle[] = ['nw', 'n', 'ne', 'e', 'se', 's', 'sw', 'w']

/** The box that spans two points of the canvas, at least 1 px each way. */
export const spanned = (ax: number, ay: number, bx: number, by: number): Rect => ({
  x: Math.min(ax, bx),
  y: Math.min(ay, by),
  width: Math.max(1, Math.abs(bx - ax)),
  height: Math.max(1, Math.abs(by - ay)),
})

/** What a press with a tool puts down where no box is drawn: a third as wide and a fifth as high as the canvas; in its middle where no place is pressed. */
export function usual(canvas: { width: number; height: number }, at?: { x: number; y: number }): Rect {
  const size = { width: Math.max(1, Math.round(canvas.width / 3)), height: Math.max(1, Math.round(canvas.height / 5)) }
  return { x: at?.x ?? Math.round((canvas.width - size.width) / 2), y: at?.y ?? Math.round((canvas.height - size.height) / 2), ...size }
}

/** A box whose edges at `handle` are dragged by dx, dy; with `keepAspect` its height follows its width. Never under 1 px. */
export function sized(start: Rect, handle: Handle, dx: number, dy: number, keepAspect: boolean): Rect {
  let { x, y, width, height } = start
  if (handle.includes('e')) width = Math.max(1, start.width + dx)
  if (handle.includes('s')) height = Math.max(1, start.height + dy)
  if (handle.includes('w')) width = Math.max(1, start.width - dx)
  if (handle.includes('n')) height = Math.max(1, start.height - dy)
  if (keepAspect) {
    if (handle === 'n' || handle === 's') width = Math.max(1, Math.round((height * start.width) / start.height))
    else height = Math.max(1, Math.round((width * start.height) / start.width))
  }
  if (handle.includes('w')) x = start.x + start.width - width
  if (handle.includes('n')) y = start.y + start.height - height
  return { x, y, width, height }
}

export const meets = (a: Rect, b: Rect): boolean => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

export const around = (rects: Rect[]): Rect => {
  const x = Math.min(...rects.map((r) => r.x))
  const y = Math.min(...rects.map((r) => r.y))
  return {
    x,
    y,
    width: Math.max(...rects.map((r) => r.x + r.width)) - x,
    height: Math.max(...rects.map((r) => r.y + r.height)) - y,
  }
}
