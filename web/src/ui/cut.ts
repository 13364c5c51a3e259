import { ref } from 'vue'

/** Faces that come late are measured anew. */
const faces = ref(0)
if (typeof document !== 'undefined') void document.fonts.ready.then(() => faces.value++)

let surface: CanvasRenderingContext2D | null = null
const widths = new Map<string, number>()
function widthOf(text: string, font: string): number {
  const key = `${faces.value} ${font} ${text}`
  let px = widths.get(key)
  if (px === undefined) {
    surface ??= document.createElement('canvas').getContext('2d')!
    surface.font = font
    if (widths.size > 5000) widths.clear()
    widths.set(key, (px = surface.measureText(text).width))
  }
  return px
}

/**
 * As much of a line as has room in so many px, with an ellipsis where it is cut; nothing where not even a letter has. Where hundreds of lines
 * stand side by side this costs the browser far less at every frame than a clip around each.
 *
 * @param font as CSS writes it
 * @param measured width of a text, px
 */
export function cut(text: string, px: number, font: string, measured = widthOf): string {
  if (measured(text, font) <= px) return text
  const letters = [...text]
  let [fits, long] = [0, letters.length]
  while (long - fits > 1) {
    const middle = (fits + long) >> 1
    if (measured(`${letters.slice(0, middle).join('')}…`, font) <= px) fits = middle
    else long = middle
  }
  return fits ? `${letters.slice(0, fits).join('').trimEnd()}…` : ''
}
