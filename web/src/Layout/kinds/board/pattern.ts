import type { Pattern } from '../../designs'

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
