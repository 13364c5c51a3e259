import type { Fix, Rect } from '../../ui/shelf'
import { type Element, type Item, type Style, isStyled } from '../designs'
import type { Tool } from './composer'

type Size = { width: number; height: number }

/** What a tool puts where a hand has drawn a box: something that can be seen at once, and typed over. */
export function begun(tool: Exclude<Tool, 'choose' | 'picture'>, rect: Rect, canvas: Size): Element {
  const head = { id: '', rect }
  const style = (share: number, more: Partial<Style> = {}): Style => ({
    family: 'Inter',
    size_px: Math.max(12, Math.round(Math.min(rect.height * share, canvas.height / 12))),
    weight: 600,
    color: '#ffffff',
    ...more,
  })
  switch (tool) {
    case 'zone':
      return { ...head, kind: 'zone', playlist: { items: [] } }
    case 'shape':
      return { ...head, kind: 'shape', fill: '#14665b' }
    case 'clock':
      return { ...head, kind: 'clock', pattern: 'HH:mm', style: style(0.7, { align: 'center', valign: 'middle' }) }
    case 'code':
      return { ...head, kind: 'code', text: 'https://example.com' }
    case 'ticker':
      return { ...head, kind: 'ticker', text: 'Running text', speed_px_s: 120, style: style(0.5, { valign: 'middle' }) }
    default:
      return { ...head, kind: 'text', text: 'Text', style: style(0.6) }
  }
}

const whole = <T extends object>(fields: T): T => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== null)) as T

/** What a fix changes of an element: its own fields, or the style of its words; null where it is about something else. */
export function cured(element: Element | undefined, fix: Fix): Partial<Element> | null {
  if (!element) return null
  if (fix.fields) {
    const fields = Object.fromEntries(Object.entries(fix.fields).map(([name, value]) => [name, value ?? undefined]))
    return fields as Partial<Element>
  }
  if (!fix.style) return null
  const rect = fix.rect ? { rect: fix.rect } : {}
  if (isStyled(element)) return { style: whole({ ...element.style, ...fix.style }) as Style, ...rect } as Partial<Element>
  if (element.kind === 'code' && element.caption)
    return { caption: { ...element.caption, style: whole({ ...element.caption.style, ...fix.style }) as Style } } as Partial<Element>
  return null
}

/** What a fix makes of an item: null takes a field away. */
export const curedItem = (item: Item, set: Partial<Record<keyof Item, unknown>>): Item => whole({ ...item, ...set }) as Item
