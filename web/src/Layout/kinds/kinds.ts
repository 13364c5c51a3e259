import type { Component } from 'vue'
import type { Analysis, Element } from '../designs'
import { board } from './board'
import { chart } from './chart'
import { clock } from './clock'
import { code } from './code'
import { picture } from './picture'
import { programme } from './programme'
import { shape } from './shape'
import { text } from './text'
import { ticker } from './ticker'
import { zone } from './zone'

/** What the composer knows of a kind of element; what it is, how it is checked and drawn is the core's. */
export interface ElementKind {
  kind: string
  /** The key that takes its tool. */
  key: string
  /** Its fields: `one`, and as it wants them `timezone` or `analysis`. */
  Details: Component
  /** Whether its details take the whole width, and not two columns of fields. */
  isWide?: boolean
  /** Whether it is outlined on the pane also where nobody has chosen it. */
  isOutlined?: boolean
  /** Whether its words are typed over on the pane. */
  isTypedOver?: boolean
  /** What of it a template can leave open, beside whether it is there. */
  leavesOpen?: 'words' | 'picture' | 'items'
  /** Where the colour stands that one sees first, if that is not the one of its type. */
  colourIn?: string
  /** What has to be chosen before it can begin: media, or what this asks for (`v-model` whether it is open, `rect`; it tells `chosen` fields). */
  begins?: 'media' | Component
  /** What hands take hold of on the pane, beside its edges: `one`, `analysis`, and the `view` of the pane. In SVG. */
  Handles?: Component
  /** A few words beside its name. */
  figures?: (one: Element, analysis: Analysis | null) => string
}

/** The kinds of elements that can be drawn, in the order of their tools. A new one is a folder here and a line in this table. */
export const KINDS: ElementKind[] = [zone, text, shape, picture, clock, code, ticker, board, chart, programme]
const byName = new Map(KINDS.map((one) => [one.kind, one]))
export const kindOf = (element: { kind: string }): ElementKind => byName.get(element.kind)!
