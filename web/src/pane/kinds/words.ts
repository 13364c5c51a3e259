import type { Mark, TextStyle } from '../sheet'

/** The text in a span for each part that is set otherwise; nothing is parted where nothing is marked. */
function parted(text: string, marks: Mark[]): (Node | string)[] {
  const letters = [...text]
  const pieces: (Node | string)[] = []
  let at = 0
  for (const mark of marks) {
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

/** Sets words into a box. @returns their line, whose text may change */
export function words(content: HTMLElement, text: string, style: TextStyle, marks: Mark[] = [], isOneLine = false): HTMLElement {
  Object.assign(content.style, {
    fontFamily: `"${style.family}", sans-serif`,
    fontSize: `${style.size_px}px`,
    fontWeight: String(style.weight),
    color: style.color,
    textAlign: style.align,
    lineHeight: String(style.line_height),
    whiteSpace: isOneLine ? 'pre' : 'pre-wrap',
    overflowWrap: 'break-word',
    display: 'flex',
    flexDirection: 'column',
    justifyContent: { top: 'flex-start', middle: 'center', bottom: 'flex-end' }[style.valign],
  })
  const line = document.createElement('div')
  if (marks.length) line.append(...parted(text, marks))
  else line.textContent = text
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
  return line
}
