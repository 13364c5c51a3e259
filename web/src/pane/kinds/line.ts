import type { LinePart } from '../sheet'
import type { Kind } from './kind'
import { drawn } from './svg'

/** A line through points, as wide as the core says. */
export const line: Kind<LinePart> = () => {
  const element = document.createElement('div')
  return {
    element,
    staysWithin: false,
    look({ line: { points, size, width_px, color } }) {
      const svg = drawn('svg', {
        viewBox: `0 0 ${size.width} ${size.height}`,
        width: '100%',
        height: '100%',
        overflow: 'visible',
        preserveAspectRatio: 'none',
      })
      svg.append(
        drawn('polyline', {
          points: points.map((point) => point.join()).join(' '),
          fill: 'none',
          stroke: color,
          'stroke-width': width_px,
          'stroke-linejoin': 'round',
        }),
      )
      element.replaceChildren(svg)
    },
  }
}
