import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, type Ref, toValue } from 'vue'
import { useAnswer } from '../ui/answer'
import type { Display, Panel as PanelDocument, Player as PlayerDocument, Raster as Size, Sides } from '../formats/display'
import { api } from '../ui/api'
import type { Finding, Rect } from '../ui/shelf'

/** The document of a display; it says its format and its id where it is kept. */
export type DisplayDocument = Omit<Display, 'format' | 'id'>
export type SensorDocument = NonNullable<DisplayDocument['sensors']>[number]
export type SensorKind = SensorDocument['kind']
export type { PanelDocument, PlayerDocument, Sides, Size }

/** What the core says of a display. */
export interface PlacedPanel {
  id: string
  player: string | null
  output: number | null
  rotation: number
  source: Rect
  native: Size
  place_mm: Rect
  frame_mm: Sides
}
export interface Wall {
  canvas: Size
  hidden: { columns: number[]; rows: number[] }
  panels: PlacedPanel[]
  voids: Rect[]
  strips: Rect[]
  density: number
  size_mm: Size
  error_mm: { x: number; y: number }
  free: boolean
  /** How the canvas adds up, across and down: so many tracks and seams of so many px. */
  sums: { terms: [number, number][]; total: number; canvas: number }[]
}
export interface Feed {
  player: string | null
  output: number | null
  panels: string[]
  source: Rect
  rotation: number
  raster: Size
  timing: { pixel_clock_khz: number; refresh_hz: number; h_total: number; v_total: number } | null
  link: string | null
  load: number | null
  load_says: string | null
}
interface Needed {
  cap_px: number
  cap_mm: number
  type_px: number
}
export interface Reading {
  mm_per_px: number
  viewing: { nearest_mm: number; farthest_mm: number; centre_height_mm: number; eye_height_mm: number }
  size_mm: Size
  usable_angle: number
  easy_slant: number
  slant_at_nearest: number
  easy_from_mm: number
  comfortable: Needed
  limit: Needed
  rule_of_thumb_mm: number
  least_share: number
  led: { pitch_mm: number; comfortable_from_mm: number; merges_at_mm: number } | null
  text: {
    cap_px: number
    cap_mm: number
    arcmin_at_farthest: number
    verdict: 'comfortable' | 'limit' | 'unreadable'
    too_few_px: boolean
    comfortable_to_mm: number
    limit_to_mm: number
  } | null
}
export interface Said {
  wall: Wall
  feeds: Feed[]
  /** What one output feeds all panels through: surveyed, or that of a wall of LED cabinets. */
  processor: { raster: Size } | null
  reading: Reading
  findings: Finding[]
  stops: number
  warnings: number
  hints: number
  /** Of the layout that was asked for. */
  smallest?: { element: string; text: string; type_px: number; cap_px: number } | null
}
export interface WholeDisplay extends Said {
  id: string
  place: string
  way: string[]
  revision: number
  alignment_until: string | null
  document: DisplayDocument
}

export interface SizeClass {
  id: string
  name: string
  technology: 'lcd' | 'led'
  native: Size
  active_mm: Size
  bezel_mm: number
}

/** What surveys are typed from: classes of sizes, links, time zones. */
export function useSizes() {
  return useQuery({
    queryKey: ['sizes'],
    staleTime: Infinity,
    queryFn: () =>
      api.get<{ sizes: SizeClass[]; links: string[]; timezones: string[]; columns: string[]; kinds: string[]; sensors: SensorKind[] }>(
        'survey/sizes',
      ),
  })
}

/** A display as it is saved, with all that the core says of it; for those who design for it. */
export function useDisplay(id: MaybeRefOrGetter<string | null>) {
  return useQuery({
    queryKey: ['display', id],
    enabled: () => toValue(id) !== null,
    staleTime: 5000,
    queryFn: () => api.get<WholeDisplay>(`displays/${toValue(id)}`),
  })
}

/** What the core says of the survey as it is typed: asked again after each change. Where it is refused, the last good answer stays. */
export function useSaid(
  document: Ref<DisplayDocument | null>,
  place: MaybeRefOrGetter<string | null>,
  capPx: Ref<number | null>,
  layout: Ref<string>,
) {
  const { answer: said, trouble } = useAnswer(
    () => {
      const there = toValue(place)
      return (
        document.value && {
          document: document.value,
          ...(there ? { place: there } : {}),
          ...(capPx.value ? { cap_px: capPx.value } : {}),
          ...(layout.value ? { layout: layout.value } : {}),
        }
      )
    },
    (asked, signal) => api.post<Said>('displays/analysis', asked, signal),
  )
  return { said, trouble }
}

export const metres = (mm: number, digits = 1): string => `${(mm / 1000).toFixed(digits)} m`
/** A figure of at most so many decimals, without noughts at the end. */
export const plain = (value: number, digits = 1): string => String(Number(value.toFixed(digits)))
/** A link as it is said: `HDMI 2.0`, `DP 1.2`. */
export const linkName = (link: string): string =>
  link
    .replace(/^displayport-|^dp-/, 'DP ')
    .replace(/^hdmi-/, 'HDMI ')
    .replace(/^dvi$/, 'DVI')
