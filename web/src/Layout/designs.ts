import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, toValue } from 'vue'
import type { MediaRef } from '../Media/media'
import type { RunSheet } from '../pane/sheet'
import { api } from '../ui/api'
import type { Standby } from '../Time/schedule'
import type { Finding, Rect } from '../ui/shelf'
import type { Border, Recipe } from './division'

export const TRANSITIONS = ['cut', 'fade', 'push', 'wipe'] as const
export const SIDES = ['left', 'right', 'top', 'bottom'] as const
export const DAY_NAMES: Record<string, string> = { MO: 'Mon', TU: 'Tue', WE: 'Wed', TH: 'Thu', FR: 'Fri', SA: 'Sat', SU: 'Sun' }
export const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const

export interface Transition {
  kind: (typeof TRANSITIONS)[number]
  ms?: number
  from?: (typeof SIDES)[number]
}

/** When an item may play, on the clock on the wall of its display. */
/** Hours of the day at which an item is louder or lower. */
export interface Level {
  hours: [string, string]
  volume: number
}

export interface Validity {
  from?: string
  until?: string
  days?: (typeof DAYS)[number][]
  hours?: [string, string][]
}

export interface Item {
  id: string
  media?: MediaRef
  layout?: { ref: string }
  duration_ms?: number
  lasts?: 'own' | 'leader' | 'endless'
  fit?: Fit
  focus?: [number, number]
  enabled?: boolean
  transition?: Transition
  weight?: number
  tied?: boolean
  volume?: number
  levels?: Level[]
  valid?: Validity
}

/** What is put in after every n items: a list of its own, or another playlist. */
export type Interleave = { every: number; items: Item[] } | { every: number; ref: string }

/** How a zone goes round, as the core counts it. */
export interface Playing {
  cycle_ms: number | null
  cycle_items: number
  cycle: string[]
  items: { id: string; plays: number; plays_per_hour: number; share: number; may_last: ('stated' | 'own' | 'leader' | 'endless')[] }[]
  /** In the order of the scenes of its run sheet. */
  scenes: { id: string; name: string; standby?: true }[]
}

export const FITS = ['contain', 'cover', 'fill', 'none', 'scale-down'] as const
export type Fit = (typeof FITS)[number]

export interface Style {
  family?: string
  size_px: number
  weight?: number
  color?: string
  align?: 'start' | 'center' | 'end'
  valign?: 'top' | 'middle' | 'bottom'
  line_height?: number
  outline?: Surround
  plate?: Surround
  shadow?: Shadow
}

/** An outline outside the letters, or a plate that goes so far beyond the words. */
export interface Surround {
  px: number
  color: string
}
export interface Shadow {
  x_px?: number
  y_px?: number
  blur_px?: number
  color: string
}

interface Head {
  id: string
  name?: string
  rect: Rect
  /** Left out for the time being. */
  hidden?: boolean
  /** Hands leave it alone. */
  locked?: boolean
  /** Elements of one group are chosen together. */
  group?: string
}

/** Characters of a text, counted as Unicode code points, in another weight, size (a multiple of its own) or colour. */
export interface Mark {
  from: number
  to: number
  weight?: number
  size?: number
  color?: string
}
export type ZoneElement = Head & {
  kind: 'zone'
  playlist: { items: Item[]; interleave?: Interleave } | { ref: string }
  standby?: Standby
  follows?: string
  ground?: string
}
export type TextElement = Head & {
  kind: 'text'
  text: string
  style: Style
  marks?: Mark[]
  overflow?: 'report' | 'shrink' | 'clip'
  least_px?: number
}
export type PictureElement = Head & {
  kind: 'picture'
  media: MediaRef
  fit?: Fit
  focus?: [number, number]
  crop?: Rect
  flip?: Flip
  opacity?: number
  radius_px?: number
  ground?: string
}
export const FLIPS = ['none', 'across', 'down', 'both'] as const
export type Flip = (typeof FLIPS)[number]
export interface Progress {
  zone: string
  of?: 'item' | 'loop'
  from?: 'left' | 'right' | 'top' | 'bottom'
}
export type ShapeElement = Head & { kind: 'shape'; shape?: 'rectangle' | 'ellipse'; fill: string; radius_px?: number; progress?: Progress }
export interface Dial {
  color: string
  ground?: string
  seconds?: boolean
}
export type ClockElement = Head & {
  kind: 'clock'
  pattern?: string
  locale?: string
  timezone?: string
  style?: Style
  dial?: Dial
  until?: string
  after?: string
}
export type CodeElement = Head & {
  kind: 'code'
  text: string
  level?: 'L' | 'M' | 'Q' | 'H'
  quiet?: number
  color?: string
  ground?: string
  caption?: { text: string; style: Style }
}
export type TickerElement = Head & { kind: 'ticker'; text: string; style: Style; speed_px_s?: number; way?: 'left' | 'right' }
export type Element = ZoneElement | TextElement | PictureElement | ShapeElement | ClockElement | CodeElement | TickerElement
/** Those whose words are set in one style. */
export type StyledElement = TextElement | TickerElement | (ClockElement & { style: Style })
export const isStyled = (e: Element): e is StyledElement => 'style' in e && e.style !== undefined

export interface LayoutDocument {
  format: 'upper-pane/layout@1'
  id: string
  name: string
  canvas: { width: number; height: number }
  background?: { color: string }
  recipe?: Partial<Recipe>
  elements: Element[]
  variants?: Variant[]
  /** Lines for the hands of designers, px. */
  guides?: Guides
  /** Margin kept free at each edge, px. */
  safe?: number
}

export interface Guides {
  x?: number[]
  y?: number[]
}

/** Where an element lies in a variant, and the size of its type there. */
export interface Place {
  rect: Rect
  size_px?: number
}

/** The layout for another orientation or aspect: the same content, places of its own; what is not named is left out. */
export interface Variant {
  id: string
  canvas: { width: number; height: number }
  recipe?: Partial<Recipe>
  places: Record<string, Place>
  guides?: Guides
  safe?: number
}

export interface PlaylistDocument {
  format: 'upper-pane/playlist@1'
  id: string
  name: string
  items: Item[]
  interleave?: Interleave
  /** What plays whenever nothing of it is due, where it is handed over whole. */
  standby?: Standby
}

export interface DesignSummary {
  id: string
  kind: 'layout' | 'playlist' | 'schedule'
  name: string
  revision: number
  display: string | null
  place: string | null
  canvas: { width: number; height: number } | null
  saved_at: string
  saved_by: string | null
  /** On how many displays it stands, by itself or within something; on how many of them not as it is saved now; and what is to be handed over for that. */
  standing: { displays: number; older: number; some: string[]; again: { kind: string; id: string } | null }
  /** Names of the designs that refer to this one. */
  used_in: string[]
}

export type Saved<D> = Omit<DesignSummary, 'standing' | 'used_in'> & { document: D }

export interface Addresses {
  [mediaId: string]: { url: string; thumbnail: string | null; type: string }
}

export interface Sum {
  side: 'width' | 'height'
  elements: string[]
  sizes: number[]
  total: number
  canvas: number
  difference: number
  /** Px between its zones that lie behind the frames of a wall alone, and are not missed. */
  behind_frames: number
}

/** What the core says of a layout. */
export interface Analysis {
  findings: Finding[]
  stops: number
  warnings: number
  hints: number
  match: { verdict: 'exact' | 'scaled' | 'padded' | 'crossed'; scale: number; target: Rect } | null
  mm_per_px: number | null
  sums: Sum[]
  /** A sentence with its figures for each element of which there is something to say. */
  says: Record<string, string>
  /** Which part of the canvas each zone takes up, 0 to 1. */
  shares: Record<string, number>
  borders: Border[]
  /** Where the tracks of the recipe begin and end, canvas px. */
  tracks: { columns: number[]; rows: number[] }
  loops: Record<string, number | null>
  playing: Record<string, Playing>
  meets_every_ms: number | null
  run_sheet: RunSheet
  media: Addresses
}

export type Plural = 'layouts' | 'playlists' | 'schedules'

/** Whether what is saved is shown nowhere, or somewhere not as it is saved now. */
export const toHandOver = (d: DesignSummary): boolean => d.standing.displays === 0 || d.standing.older > 0

export const useDesigns = <K extends Plural>(plural: K) => {
  const query = useQuery({ queryKey: [plural], queryFn: () => api.get<Record<K, DesignSummary[]>>(plural) })
  return { query, all: computed<DesignSummary[]>(() => query.data.value?.[plural] ?? []) }
}

/** The run sheet and addresses that draw a saved design. */
export const usePicture = (plural: Plural, design: MaybeRefOrGetter<{ id: string; revision: number }>) =>
  useQuery({
    queryKey: computed(() => ['picture', toValue(design).id, toValue(design).revision]),
    staleTime: Infinity,
    queryFn: () => api.get<{ run_sheet: RunSheet; media: Addresses }>(`${plural}/${toValue(design).id}/picture`),
  })
