import { ref } from 'vue'

/** The faces of the desk: that of its words, and that of its figures. */
export type DeskFace = 'words' | 'figures'

/** Faces that come late are measured anew. */
const come = ref(0)
if (typeof document !== 'undefined') void document.fonts.ready.then(() => come.value++)

let surface: CanvasRenderingContext2D | null = null
let families: Record<DeskFace, string> | null = null
const widths = new Map<string, number>()
function widthOf(text: string, face: DeskFace, sizePx: number): number {
  const key = `${come.value} ${sizePx} ${face} ${text}`
  let px = widths.get(key)
  if (px === undefined) {
    if (!families || !surface) {
      const style = getComputedStyle(document.body)
      families = { words: style.fontFamily, figures: style.getPropertyValue('--figures') }
      surface = document.createElement('canvas').getContext('2d')!
    }
    surface.font = `${sizePx}px ${families[face]}`
    if (widths.size > 5000) widths.clear()
    widths.set(key, (px = surface.measureText(text).width))
  }
  return px
}

/**
 * As much of a line as has room in so many px, with an ellipsis where it is cut; nothing where not even a letter has. Where hundreds of lines
 * stand side by side this costs the browser far less at every frame than a clip around each.
 *
 * @param measured width of a text, px
 */
export function cut(text: string, px: number, face: DeskFace, sizePx: number, measured = widthOf): string {
  if (measured(text, face, sizePx) <= px) return text
  const letters = [...text]
  let [fits, long] = [0, letters.length]
  while (long - fits > 1) {
    const middle = (fits + long) >> 1
    if (measured(`${letters.slice(0, middle).join('')}…`, face, sizePx) <= px) fits = middle
    else long = middle
  }
  return fits ? `${letters.slice(0, fits).join('').trimEnd()}…` : ''
}
