import type { Alignment } from '../formats/pointer'
import { type Output, layOut } from './output'

export type { Alignment }

const SVG = 'http://www.w3.org/2000/svg'
function draw(parent: Element, name: string, attributes: Record<string, string | number>, text = ''): Element {
  const element = document.createElementNS(SVG, name)
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, String(value))
  element.textContent = text
  parent.append(element)
  return element
}

/**
 * The alignment picture: each output shows who it is, so that a wrong cable is seen at once. Lines and circles are drawn in px of the
 * whole canvas, so that they run straight on across the seams where everything is right.
 */
export function alignmentPicture({ canvas, outputs }: Alignment, own: Output): HTMLElement {
  const room = document.createElement('div')
  room.className = 'room alignment'
  const { source } = own
  const svg = document.createElementNS(SVG, 'svg')
  svg.setAttribute('viewBox', `${source.x} ${source.y} ${source.width} ${source.height}`)
  svg.setAttribute('preserveAspectRatio', 'none')
  const { width, height } = canvas
  const unit = Math.min(source.width, source.height)
  const thin = Math.max(1, unit / 360)
  draw(svg, 'rect', { ...source, fill: '#17272e' })
  for (const [x1, y1, x2, y2] of [
    [0, 0, width, height],
    [0, height, width, 0],
  ])
    draw(svg, 'line', { x1: x1!, y1: y1!, x2: x2!, y2: y2!, stroke: '#8fc4d6', 'stroke-width': thin })
  for (const o of outputs) {
    const s = o.source
    const r = 0.32 * Math.min(s.width, s.height)
    for (const [cx, cy] of [
      [s.x, s.y],
      [s.x + s.width, s.y + s.height],
      [s.x + s.width, s.y],
      [s.x, s.y + s.height],
    ])
      draw(svg, 'circle', { cx: cx!, cy: cy!, r, fill: 'none', stroke: '#f7e6b8', 'stroke-width': thin })
  }
  draw(svg, 'circle', { cx: width / 2, cy: height / 2, r: 0.45 * Math.min(width, height), fill: 'none', stroke: '#8fc4d6', 'stroke-width': thin })
  const [cx, cy] = [source.x + source.width / 2, source.y + source.height / 2]
  const box = { width: unit * 0.62, height: unit * 0.42 }
  draw(svg, 'rect', { x: cx - box.width / 2, y: cy - box.height / 2, ...box, fill: '#fffdf8' })
  const words = (y: number, size: number, weight: number, fill: string, text: string) =>
    draw(svg, 'text', { x: cx + unit * 0.07, y: cy + unit * y, 'font-size': unit * size, 'font-weight': weight, fill, 'text-anchor': 'middle' }, text)
  words(0.02, 0.16, 700, '#17272e', own.panels.length === 1 ? own.panels[0]! : `${own.panels.length} panels`)
  words(0.15, 0.085, 600, '#14665b', `${own.player ? `${own.player} → ` : ''}${own.output ?? 1}`)
  const arrow = `M${cx - unit * 0.22} ${cy + unit * 0.14} V${cy - unit * 0.14} M${cx - unit * 0.28} ${cy - unit * 0.05} L${cx - unit * 0.22} ${cy - unit * 0.14} L${cx - unit * 0.16} ${cy - unit * 0.05}`
  draw(svg, 'path', { d: arrow, fill: 'none', stroke: '#17272e', 'stroke-width': unit * 0.014 })
  room.append(svg)
  const edge = document.createElement('div')
  edge.className = 'edge'
  room.append(edge)
  room.dataset.output = String(own.output ?? 1)
  room.dataset.panels = own.panels.join(' ')
  layOut(room, own)
  return room
}
