import { type Clock, type ClockPart, mod, offsetAt } from '../sheet'
import type { Kind } from './kind'
import { drawn } from './svg'
import { words } from './words'

export const clock: Kind<ClockPart> = () => {
  const element = document.createElement('div')
  let line: HTMLElement | null = null
  return {
    element,
    look({ style, dial }) {
      line = style ? words(element, '', style) : null
      if (dial) element.replaceChildren(face(dial))
    },
    tell({ clock, dial }, { at }) {
      if (dial) turn(element, at + offsetAt(clock, at))
      else if (line) {
        const text = told(clock, at)
        if (line.textContent !== text) line.textContent = text
      }
      return nextTick(clock, dial !== undefined, at)
    },
  }
}

/** When it says something else: at whole seconds or minutes of what it tells. */
export function nextTick(clock: Clock, hasHands: boolean, at: number): number {
  const { until_ms, tokens = [] } = clock
  if (until_ms !== undefined && at >= until_ms && clock.after !== undefined) return Infinity
  const tellsSeconds = hasHands || tokens.some((token) => 'field' in token && (token.field === 'second' || token.field === 'seconds'))
  const step = tellsSeconds || until_ms !== undefined ? 1000 : 60_000
  return at + step - mod(at + offsetAt(clock, at) - (until_ms ?? 0), step)
}

export function told(clock: Clock, at: number): string {
  if (clock.until_ms === undefined) return written(clock, fieldsOf(at + offsetAt(clock, at)))
  if (at >= clock.until_ms && clock.after !== undefined) return clock.after
  return written(clock, fieldsLeft(clock, clock.until_ms - at))
}

function fieldsOf(local: number): Record<string, number> {
  const date = new Date(local)
  const hour = date.getUTCHours()
  return {
    year: date.getUTCFullYear(),
    month: date.getUTCMonth() + 1,
    day: date.getUTCDate(),
    weekday: date.getUTCDay(),
    half: hour < 12 ? 0 : 1,
    hour,
    hour11: hour % 12,
    hour12: hour % 12 || 12,
    hour24: hour || 24,
    minute: date.getUTCMinutes(),
    second: date.getUTCSeconds(),
  }
}

const UNITS: [string, number][] = [
  ['days', 86_400_000],
  ['hours', 3_600_000],
  ['minutes', 60_000],
  ['seconds', 1000],
]

function fieldsLeft(clock: Clock, ms: number): Record<string, number> {
  const told = new Set((clock.tokens ?? []).map((t) => ('field' in t ? t.field : '')))
  const units = UNITS.filter(([name]) => told.has(name))
  const least = units.at(-1)?.[1] ?? 1000
  let left = Math.ceil(Math.max(0, ms) / least) * least
  const fields: Record<string, number> = {}
  for (const [field, unit] of units) {
    fields[field] = Math.floor(left / unit)
    left %= unit
  }
  return fields
}

function written(clock: Clock, fields: Record<string, number>): string {
  return (clock.tokens ?? [])
    .map((token) => {
      if ('say' in token) return token.say
      const value = fields[token.field] ?? 0
      if ('names' in token) return token.names[token.field === 'month' ? value - 1 : value] ?? ''
      const figures = String(token.field === 'year' && token.digits === 2 ? value % 100 : value).padStart(token.digits, '0')
      return clock.figures ? figures.replace(/\d/g, (figure) => clock.figures![Number(figure)]!) : figures
    })
    .join('')
}

/** Hands at a local time, ms. */
function turn(element: HTMLElement, local: number): void {
  const seconds = Math.floor(local / 1000) % 86_400
  const turns: Record<string, number> = { hours: seconds / 43_200, minutes: seconds / 3600, seconds: seconds / 60 }
  for (const hand of element.querySelectorAll<SVGElement>('[data-hand]'))
    hand.setAttribute('transform', `rotate(${((turns[hand.dataset.hand!] ?? 0) * 360) % 360})`)
}

/** A dial of 200 units, its middle at 0, 0; hands point up until the time is told. */
function face(dial: NonNullable<ClockPart['dial']>): SVGElement {
  const svg = drawn('svg', { viewBox: '-100 -100 200 200', width: '100%', height: '100%' })
  if (dial.ground) svg.append(drawn('circle', { r: 99, fill: dial.ground }))
  for (let minute = 0; minute < 60; minute++) {
    const hour = minute % 5 === 0
    svg.append(
      drawn('rect', {
        x: hour ? -2.5 : -0.8,
        y: -94,
        width: hour ? 5 : 1.6,
        height: hour ? 16 : 6,
        fill: dial.color,
        transform: `rotate(${minute * 6})`,
      }),
    )
  }
  const hand = (name: string, width: number, length: number, back: number) =>
    svg.append(drawn('rect', { 'data-hand': name, x: -width / 2, y: -length, width, height: length + back, fill: dial.color }))
  hand('hours', 9, 54, 12)
  hand('minutes', 6, 82, 14)
  if (dial.seconds) hand('seconds', 2, 88, 22)
  svg.append(drawn('circle', { r: 5, fill: dial.color }))
  return svg
}
