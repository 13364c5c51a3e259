import type { CodePart } from '../sheet'
import type { Kind } from './kind'
import { drawn } from './svg'

export const code: Kind<CodePart> = () => {
  const element = document.createElement('div')
  return {
    element,
    isFitted: true,
    staysWithin: true,
    look(part) {
      element.style.background = part.fill
      element.replaceChildren(modules(part.code))
    },
  }
}

/** Dark modules, a stroke for each row of neighbours. */
function modules(code: CodePart['code']): SVGElement {
  const across = code.modules.length + 2 * code.quiet
  const svg = drawn('svg', {
    viewBox: `0 0 ${across} ${across}`,
    width: '100%',
    height: '100%',
    overflow: 'visible',
    'shape-rendering': 'crispEdges',
  })
  const path = code.modules.flatMap((row, y) =>
    [...row.matchAll(/1+/g)].map((run) => `M${run.index + code.quiet} ${y + code.quiet}h${run[0].length}v1h-${run[0].length}z`),
  )
  svg.append(drawn('path', { d: path.join(''), fill: code.color }))
  return svg
}
