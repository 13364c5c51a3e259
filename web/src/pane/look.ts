import type { Now, Part, TextStyle } from './sheet'

/** How the parts of a run sheet look: what is made once for each, and what is told anew at every instant. */

const SVG = 'http://www.w3.org/2000/svg'

/** @param quiet whether what is not there is left out, as on a player, rather than told in its place */
export function contentOf(part: Part, source: string, quiet: boolean): HTMLElement {
  if (!part.media || (quiet && source === '')) return document.createElement('div')
  if (source === '') {
    const missing = document.createElement('div')
    Object.assign(missing.style, {
      background: '#8b8f8d',
      color: '#17272e',
      font: '24px sans-serif',
      padding: '8px',
      overflow: 'hidden',
    })
    missing.textContent = `${part.media.name} is not there`
    return missing
  }
  if (part.media.length_ms === undefined) {
    const picture = document.createElement('img')
    picture.alt = ''
    picture.draggable = false
    picture.src = source
    return picture
  }
  const film = document.createElement('video')
  film.muted = true
  film.playsInline = true
  film.preload = 'auto'
  film.disablePictureInPicture = true
  film.src = source
  film.style.objectFit = 'fill'
  return film
}

export function look(content: HTMLElement, part: Part): void {
  if (part.fill) {
    content.style.background = part.fill
    content.style.borderRadius = part.shape === 'ellipse' ? '50%' : `${part.radius_px ?? 0}px`
  }
  if (part.media) content.style.transform = { across: 'scaleX(-1)', down: 'scaleY(-1)', both: 'scale(-1, -1)', none: '' }[part.flip ?? 'none']
  if (part.code) content.replaceChildren(modules(part.code))
  if (part.dial) content.replaceChildren(dial(part.dial))
  if (part.style) words(content, part, part.style)
}

/** What a part says at one instant: the time in words or by its hands. Where it lies is the stage's matter. */
export function tell(content: HTMLElement, part: Part, now: Now): void {
  if (now.text !== undefined) {
    const line = content.children[0]
    if (line && line.textContent !== now.text) line.textContent = now.text
  }
  if (now.local_ms !== undefined) {
    const seconds = Math.floor(now.local_ms / 1000) % 86_400
    const turns: Record<string, number> = { hours: seconds / 43_200, minutes: seconds / 3600, seconds: seconds / 60 }
    for (const hand of content.querySelectorAll<SVGElement>('[data-hand]')) {
      hand.setAttribute('transform', `rotate(${((turns[hand.dataset.hand!] ?? 0) * 360) % 360})`)
    }
  }
}

function drawn(tag: string, attributes: Record<string, string | number>): SVGElement {
  const element = document.createElementNS(SVG, tag)
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, String(value))
  return element
}

/** Dark modules of a code, a stroke for each row of neighbours. */
function modules(code: NonNullable<Part['code']>): SVGElement {
  const across = code.modules.length + 2 * code.quiet
  const svg = drawn('svg', { viewBox: `0 0 ${across} ${across}`, width: '100%', height: '100%', 'shape-rendering': 'crispEdges' })
  const path = code.modules.flatMap((row, y) =>
    [...row.matchAll(/1+/g)].map((run) => `M${run.index + code.quiet} ${y + code.quiet}h${run[0].length}v1h-${run[0].length}z`),
  )
  svg.append(drawn('path', { d: path.join(''), fill: code.color }))
  return svg
}

/** A dial of 200 units, its middle at 0, 0; hands point up until the time is told. */
function dial(face: NonNullable<Part['dial']>): SVGElement {
  const svg = drawn('svg', { viewBox: '-100 -100 200 200', width: '100%', height: '100%' })
  if (face.ground) svg.append(drawn('circle', { r: 99, fill: face.ground }))
  for (let minute = 0; minute < 60; minute++) {
    const hour = minute % 5 === 0
    svg.append(
      drawn('rect', {
        x: hour ? -2.5 : -0.8,
        y: -94,
        width: hour ? 5 : 1.6,
        height: hour ? 16 : 6,
        fill: face.color,
        transform: `rotate(${minute * 6})`,
      }),
    )
  }
  const hand = (name: string, width: number, length: number, back: number) =>
    svg.append(drawn('rect', { 'data-hand': name, x: -width / 2, y: -length, width, height: length + back, fill: face.color }))
  hand('hours', 9, 54, 12)
  hand('minutes', 6, 82, 14)
  if (face.seconds) hand('seconds', 2, 88, 22)
  svg.append(drawn('circle', { r: 5, fill: face.color }))
  return svg
}

/** The text in a span for each part that is set otherwise; nothing is parted where nothing is marked. */
function parted(part: Part): (Node | string)[] {
  const letters = [...(part.text ?? '')]
  const pieces: (Node | string)[] = []
  let at = 0
  for (const mark of part.marks ?? []) {
    if (mark.from > at) pieces.push(letters.slice(at, mark.from).join(''))
    const span = document.createElement('span')
    span.textContent = letters.slice(mark.from, mark.to).join('')
    if (mark.weight) span.style.fontWeight = String(mark.weight)
    if (mark.size_px) span.style.fontSize = `${mark.size_px}px`
    if (mark.color) span.style.color = mark.color
    pieces.push(span)
    at = mark.to
  }
  if (at < letters.length) pieces.push(letters.slice(at).join(''))
  return pieces
}

function words(content: HTMLElement, part: Part, style: TextStyle): void {
  Object.assign(content.style, {
    fontFamily: `"${style.family}", sans-serif`,
    fontSize: `${style.size_px}px`,
    fontWeight: String(style.weight),
    color: style.color,
    textAlign: style.align,
    lineHeight: String(style.line_height),
    whiteSpace: part.ticker ? 'pre' : 'pre-wrap',
    overflowWrap: 'break-word',
    display: 'flex',
    flexDirection: 'column',
    justifyContent: { top: 'flex-start', middle: 'center', bottom: 'flex-end' }[style.valign],
  })
  const line = document.createElement('div')
  if (part.marks) line.append(...parted(part))
  else line.textContent = part.text ?? ''
  // Right-to-left scripts begin at the right.
  line.dir = 'auto'
  const { outline, plate, shadow } = style
  Object.assign(line.style, {
    webkitTextStroke: outline && outline.px > 0 ? `${2 * outline.px}px ${outline.color}` : '',
    // The stroke lies on both sides of the edge: its inner half is under the letter.
    paintOrder: 'stroke fill',
    strokeLinejoin: 'round',
    textShadow: shadow ? `${shadow.x_px}px ${shadow.y_px}px ${shadow.blur_px}px ${shadow.color}` : '',
    background: plate?.color ?? '',
    padding: plate ? `${plate.px}px` : '',
    boxSizing: 'border-box',
    maxWidth: '100%',
    alignSelf: plate ? { start: 'flex-start', center: 'center', end: 'flex-end' }[style.align] : 'stretch',
  })
  content.replaceChildren(line)
}
