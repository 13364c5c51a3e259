import type { Output } from '../formats/release'

/** What one output of a player sends: which part of the display's canvas, on which raster, turned how. */
export type { Output }

/** The output of a release that was made before displays had several. */
export const wholeRaster = (raster: Output['raster']): Output => ({
  player: null,
  output: null,
  panels: [],
  raster,
  rotation: 0,
  source: { x: 0, y: 0, ...raster },
})

/** The outputs of a display that this player feeds; all of them where nothing says which. */
export function ownOutputs(outputs: Output[], part: string | null): Output[] {
  const own = outputs.filter((o) => part === null || o.player === null || o.player === part)
  return own.length ? own : outputs
}

/** The output that this page is: the one asked for, else the only one; null where it has to be chosen. */
export function thisOutput(outputs: Output[], part: string | null, asked: number | null): Output | null {
  const own = ownOutputs(outputs, part)
  if (asked === null) return own.length === 1 ? own[0]! : null
  return own.find((o) => o.output === asked) ?? null
}

/**
 * Lays a room over the window so that it fills the panel of an output and stands upright once the panel hangs turned.
 *
 * @returns px of the window for one px of the canvas, across and down
 */
export function layOut(room: HTMLElement, output: Output): { x: number; y: number } {
  const { raster, rotation, source } = output
  const scale = Math.min(innerWidth / raster.width, innerHeight / raster.height)
  const turned = rotation % 180 !== 0
  const width = (turned ? raster.height : raster.width) * scale
  const height = (turned ? raster.width : raster.height) * scale
  Object.assign(room.style, {
    left: `${(innerWidth - width) / 2}px`,
    top: `${(innerHeight - height) / 2}px`,
    width: `${width}px`,
    height: `${height}px`,
    transform: rotation ? `rotate(${-rotation}deg)` : '',
  })
  return { x: width / source.width, y: height / source.height }
}
