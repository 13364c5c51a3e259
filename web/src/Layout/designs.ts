import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, computed, toValue } from 'vue'
import type {
  ClockElement,
  Item,
  Layout as LayoutDocument,
  PictureElement,
  Rect,
  Style,
  TextElement,
  TickerElement,
  Transition,
} from '../formats/layout'
import type { Playlist as PlaylistDocument } from '../formats/playlist'
import type { RunSheet } from '../pane/sheet'
import { api } from '../ui/api'
import type { Finding } from '../ui/shelf'
import type { Border } from './division'

/** The documents of designs, as docs/formats tells them. */
export type { PlaylistDocument }
/** What plays in a list, wherever that stands. */
export type Listed = Pick<PlaylistDocument, 'items' | 'interleave'>
export type {
  BoardElement,
  ChartElement,
  ClockElement,
  CodeElement,
  Dial,
  Guides,
  Interleave,
  Item,
  Layout as LayoutDocument,
  Level,
  Mark,
  PictureElement,
  Place,
  Progress,
  Recipe,
  Shadow,
  ShapeElement,
  Style,
  Surround,
  TextElement,
  TickerElement,
  Transition,
  Validity,
  Variant,
  ZoneElement,
  Pattern,
} from '../formats/layout'

export const TRANSITIONS = ['cut', 'fade', 'push', 'wipe'] as const satisfies Transition['kind'][]
export const SIDES = ['left', 'right', 'top', 'bottom'] as const
export const DAY_NAMES: Record<string, string> = { MO: 'Mon', TU: 'Tue', WE: 'Wed', TH: 'Thu', FR: 'Fri', SA: 'Sat', SU: 'Sun' }
export const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const

/** How a zone goes round, as the core counts it. */
export interface Playing {
  cycle_ms: number | null
  cycle_items: number
  cycle: string[]
  items: { id: string; plays: number; plays_per_hour: number; share: number; may_last: ('stated' | 'own' | 'leader' | 'endless')[] }[]
  /** Ids of the items that play row by row. */
  row_by_row?: string[]
  /** In the order of the scenes of its run sheet; where it plays row by row, those of its list and its standby. */
  scenes: { id: string; name: string; standby?: true }[]
}

export const FITS = ['contain', 'cover', 'fill', 'none', 'scale-down'] as const satisfies Fit[]
export const FLIPS = ['none', 'across', 'down', 'both'] as const satisfies Flip[]
export type Fit = NonNullable<Item['fit']>
export type Flip = NonNullable<PictureElement['flip']>
export type Element = LayoutDocument['elements'][number]
/** Those whose words are set in one style. */
export type StyledElement = TextElement | TickerElement | (ClockElement & { style: Style })
export const isStyled = (e: Element): e is StyledElement => 'style' in e && e.style !== undefined

export interface DesignSummary {
  id: string
  kind: 'layout' | 'filled' | 'playlist' | 'schedule' | 'source' | 'style' | 'overlay' | 'trigger' | 'panel'
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
  /** Of a layout: how much of it is left open to be filled in; a template leaves something. */
  slots?: number
  /** Of what is filled in: its template, that one's newest revision, and the one that it goes by; null for the newest. */
  template?: { id: string; name: string; newest: number; revision: number | null } | null
}

export type Saved<D> = Omit<DesignSummary, 'standing' | 'used_in' | 'slots' | 'template'> & { document: D }

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
/** What a board makes of the rows of an instant. */
export interface BoardFigures {
  rows: number
  at_once: number
  pages: { rows: number[]; start_ms: number; length_ms: number }[]
  total_ms: number
  values: number
  changes_at: string | null
  legible_rows: number | null
}

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
  /** What the message of each element tells that somebody could fill in, by the names of its arguments. */
  arguments: Record<string, string[]>
  /** What each board makes of its rows. */
  boards: Record<string, BoardFigures>
  /** Whose rows it is told over, where another design plays it row by row; their fields, and how many there are. */
  told_over: { by: string; source: string; fields: string[]; rows: number } | null
  borders: Border[]
  /** Where the tracks of the recipe begin and end, canvas px. */
  tracks: { columns: number[]; rows: number[] }
  loops: Record<string, number | null>
  playing: Record<string, Playing>
  meets_every_ms: number | null
  run_sheet: RunSheet
  media: Addresses
}

export type Plural = 'layouts' | 'filled' | 'playlists' | 'schedules' | 'sources' | 'styles' | 'overlays' | 'triggers' | 'panels'
/** Of designs that have a picture each in a list. */
export type Pictured = Exclude<Plural, 'schedules' | 'sources' | 'styles' | 'overlays' | 'triggers' | 'panels'>
/** One of them, as people say it. */
export const NOUNS: Record<Plural, string> = {
  layouts: 'layout',
  filled: 'filled layout',
  playlists: 'playlist',
  schedules: 'schedule',
  sources: 'source',
  styles: 'house style',
  overlays: 'overlay',
  triggers: 'map of triggers',
  panels: 'panel',
}
/** Of designs that are seen: data show nothing by themselves. */
export type Shown = Exclude<Plural, 'sources' | 'styles' | 'overlays' | 'triggers' | 'panels'>

/** Whether what is saved is shown nowhere, or somewhere not as it is saved now. */
export const toHandOver = (d: DesignSummary): boolean => d.standing.displays === 0 || d.standing.older > 0

export const useDesigns = <K extends Plural>(plural: K) => {
  const query = useQuery({ queryKey: [plural], queryFn: () => api.get<Record<K, DesignSummary[]>>(plural) })
  return { query, all: computed<DesignSummary[]>(() => query.data.value?.[plural] ?? []) }
}

/** All that plays as a layout: layouts, and what is filled into them. */
export function usePlayedLayouts() {
  const [layouts, filled] = [useDesigns('layouts'), useDesigns('filled')]
  return computed(() => [...layouts.all.value, ...filled.all.value].sort((a, b) => a.name.localeCompare(b.name)))
}

const PATHS: Record<DesignSummary['kind'], string> = {
  layout: '/layouts',
  filled: '/filled',
  playlist: '/playlists',
  schedule: '/schedules',
  source: '/data',
  style: '/layouts/styles',
  overlay: '/overlays',
  trigger: '/triggers',
  panel: '/triggers/panels',
}
/** Where a design is opened. */
export const wayTo = ({ kind, id }: Pick<DesignSummary, 'kind' | 'id'>): string => `${PATHS[kind]}/${id}`

/** The run sheet and addresses that draw a saved design. */
export const usePicture = (plural: Plural, design: MaybeRefOrGetter<{ id: string; revision: number }>) =>
  useQuery({
    queryKey: computed(() => ['picture', toValue(design).id, toValue(design).revision]),
    staleTime: Infinity,
    queryFn: () => api.get<{ run_sheet: RunSheet; media: Addresses }>(`${plural}/${toValue(design).id}/picture`),
  })
