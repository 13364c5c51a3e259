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
      const { from_px = 0, length_px } = part.ticker ?? {}
      Object.assign(band.style, {
        position: 'absolute',
        left: `${from_px}px`,
        top: '0px',
        width: length_px === undefined ? '100%' : `${length_px}px`,
        height: '100%',
      })
      words(band, part.text, part.style, [], true)
    },
    tell({ ticker }, { since, runs, isHeld }) {
      if (!ticker) return Infinity
      const { speed_px_s, pass_ms } = ticker
      // Before its beginning it runs as well.
      const gone = since < 0 ? mod(since, pass_ms) : since
      moving.stand([shifted(0, 0), shifted((speed_px_s * pass_ms) / 1000, 0)], pass_ms, gone, runs && !isHeld, true)
      return Infinity
    },
    destroy: () => moving.end(),
  }
}
