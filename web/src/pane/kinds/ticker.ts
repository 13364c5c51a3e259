import { Moving, shifted } from '../motion'
import { type TickerPart, mod } from '../sheet'
import type { Kind } from './kind'
import { words } from './words'

/** A line that runs through its box again and again. */
export const ticker: Kind<TickerPart> = () => {
  const element = document.createElement('div')
  const band = document.createElement('div')
  element.append(band)
  const moving = new Moving(band)
  return {
    element,
    look(part) {
      const { from_px = 0, length_px, upright } = part.ticker ?? {}
      const length = length_px === undefined ? '100%' : `${length_px}px`
      Object.assign(band.style, {
        position: 'absolute',
        left: upright ? '0px' : `${from_px}px`,
        top: upright ? `${from_px}px` : '0px',
        width: upright ? '100%' : length,
        height: upright ? length : '100%',
        writingMode: upright ? 'vertical-rl' : '',
        textOrientation: upright ? 'sideways' : '',
      })
      words(band, part.text, part.style, [], true)
    },
    tell({ ticker }, { since, runs, isHeld }) {
      if (!ticker) return Infinity
      const { speed_px_s, pass_ms, upright } = ticker
      const way = (speed_px_s * pass_ms) / 1000
      // Before its beginning it runs as well.
      const gone = since < 0 ? mod(since, pass_ms) : since
      moving.stand([shifted(0, 0), upright ? shifted(0, way) : shifted(way, 0)], pass_ms, gone, runs && !isHeld, true)
      return Infinity
    },
    destroy: () => moving.end(),
  }
}
