import type { Part } from '../sheet'
import { clock } from './clock'
import { code } from './code'
import type { Content, Kind, Tools } from './kind'
import { line } from './line'
import { media } from './media'
import { plate } from './plate'
import { text } from './text'
import { ticker } from './ticker'

/** How each kind of part is drawn. A new kind has a module here and a line. */
const KINDS: { [K in Part['kind']]: Kind<Extract<Part, { kind: K }>> } = {
  zone: media,
  picture: media,
  shape: plate,
  background: plate,
  text,
  clock,
  code,
  ticker,
  line,
}

export const isKnown = (kind: string): kind is Part['kind'] => Object.hasOwn(KINDS, kind)

export const contentOf = (part: Part, tools: Tools): Content => (KINDS[part.kind] as Kind<Part>)(part, tools)
