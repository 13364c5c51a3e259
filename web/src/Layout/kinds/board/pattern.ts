import type { BoardFigures, Pattern } from '../../designs'

/** What a board comes to, in a line: `5 at once · 3 × 20.4 s`. */
export const pagesOf = (told: BoardFigures) => `${told.at_once} at once · ${told.pages.length} × ${(told.pages[0]?.length_ms ?? 0) / 1000} s`

/** A pattern along one side as long as a hand makes it: what stands in it goes along, its type stays. */
export function resized(pattern: Pattern, side: 'width' | 'height', px: number): Pattern {
  const length = Math.max(1, Math.round(px))
  const factor = length / pattern.size[side]
  const start = side === 'width' ? 'x' : 'y'
  return {
    ...pattern,
    size: { ...pattern.size, [side]: length },
    elements: pattern.elements.map((one) => {
      const [from, to] = [Math.round(one.rect[start] * factor), Math.round((one.rect[start] + one.rect[side]) * factor)]
      return { ...one, rect: { ...one.rect, [start]: from, [side]: Math.max(1, to - from) } }
    }),
  }
}
