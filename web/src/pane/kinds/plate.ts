import { Moving, shifted } from '../motion'
import { type Box, type PlatePart, type Side, type ZoneNow, isZone, zoneAt } from '../sheet'
import type { Kind, Moment } from './kind'

/** A shape or a ground; one that fills as a zone goes on is seen through a window that opens. */
export const plate: Kind<PlatePart> = (made) => {
  const element = document.createElement('div')
  if (!made.progress) return { element, staysWithin: true, look: (part) => paint(element, part) }
  const window = document.createElement('div')
  const pane = document.createElement('div')
  for (const one of [window, pane]) Object.assign(one.style, { position: 'absolute', left: '0px', top: '0px', width: '100%', height: '100%' })
  window.style.overflow = 'hidden'
  window.append(pane)
  element.append(window)
  const [opening, staying] = [new Moving(window), new Moving(pane)]
  return {
    element,
    look: (part) => paint(pane, part),
    tell({ progress, drawn }, moment) {
      const { gone, ms, runs } = progress ? filling(progress, moment) : { gone: 0, ms: 1, runs: false }
      const { x, y } = away(progress?.from ?? 'left', drawn)
      opening.stand([shifted(x, y), shifted(0, 0)], ms, gone, runs)
      staying.stand([shifted(-x, -y), shifted(0, 0)], ms, gone, runs)
      return Infinity
    },
    destroy() {
      opening.end()
      staying.end()
    },
  }
}

function paint(element: HTMLElement, { fill, shape, radius_px }: PlatePart): void {
  element.style.background = fill
  element.style.borderRadius = shape === 'ellipse' ? '50%' : `${radius_px ?? 0}px`
}

const away = (from: Side, { width, height }: Box) => ({
  x: from === 'left' ? -width : from === 'right' ? width : 0,
  y: from === 'top' ? -height : from === 'bottom' ? height : 0,
})

/** How far the zone beside it is, of its item or of its loop; not at all where it never comes round. */
function filling({ zone: id, of }: NonNullable<PlatePart['progress']>, { began, since, runs, isHeld, layers }: Moment) {
  const zone = layers.filter(isZone).find((one) => one.zone === id)
  const now = zone ? zoneAt(zone, began + since, since) : null
  const [gone, ms] = now === null || now.scene === null ? [0, null] : of === 'loop' ? [now.position, now.period] : [now.into, now.length]
  return ms === null || ms === 0 ? { gone: 0, ms: 1, runs: false } : { gone: Math.min(ms, gone), ms, runs: runs && !isHeld && !waits(now!) }
}

/** Before its anchor a loop without end stands at its beginning. */
const waits = (now: ZoneNow | { scene: null }) => now.scene !== null && now.period === null && now.position === 0
