import { type Ref, computed, ref, shallowRef, watch } from 'vue'
import { api } from '../../ui/api'
import { type Element, type LayoutDocument, type Place, type Saved, isStyled } from '../designs'
import { type Act, arranged } from '../division'
import type { DesignWork } from '../work'

/** Fields that a variant has for itself. */
const OWN = ['canvas', 'recipe', 'guides', 'safe'] as const

/** Without the fields that are to be no more. */
const kept = <T extends object>(fields: T): T => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as T

const placed = (e: Element, place: Place): Element =>
  isStyled(e) && place.size_px !== undefined ? { ...e, rect: place.rect, style: { ...e.style, size_px: place.size_px } } : { ...e, rect: place.rect }

/** The layout, or what one of its variants shows of it, where that shows it: what the hands of the composer lie upon. */
export function seenIn(whole: LayoutDocument, id: string | null): LayoutDocument {
  const { variants, ...layout } = whole
  const variant = variants?.find((v) => v.id === id)
  if (!variant) return layout
  return {
    ...layout,
    ...Object.fromEntries(OWN.map((field) => [field, variant[field]])),
    elements: layout.elements.flatMap((e) => (variant.places[e.id] ? [placed(e, variant.places[e.id]!)] : [])),
  }
}

/** Other fields of the layout, or of one of its variants where they are that one's own. */
export function withFields(whole: LayoutDocument, id: string | null, fields: Partial<LayoutDocument>): LayoutDocument {
  if (!whole.variants?.some((v) => v.id === id)) return kept({ ...whole, ...fields })
  const is = (own: boolean) => Object.fromEntries(Object.entries(fields).filter(([name]) => (OWN as readonly string[]).includes(name) === own))
  return kept({ ...whole, ...is(false), variants: whole.variants.map((v) => (v.id === id ? kept({ ...v, ...is(true) }) : v)) })
}

/** Other fields of elements, by id. In a variant their places and the size of their type are that one's own; all else is shared. */
export function withElements(whole: LayoutDocument, id: string | null, changes: Map<string, Partial<Element>>): LayoutDocument {
  const variant = whole.variants?.find((v) => v.id === id)
  const places = { ...variant?.places }
  const elements = whole.elements.map((e): Element => {
    const change = changes.get(e.id)
    if (!change || (variant && !places[e.id])) return e
    const next = kept({ ...e, ...change }) as Element
    if (!variant) return next
    const place = kept({ ...places[e.id]!, ...(change.rect ? { rect: change.rect } : {}) })
    if (!('style' in change) || !isStyled(next) || !isStyled(e)) {
      places[e.id] = place
      return { ...next, rect: e.rect }
    }
    places[e.id] = next.style.size_px === (place.size_px ?? e.style.size_px) ? place : { ...place, size_px: next.style.size_px }
    return { ...next, rect: e.rect, style: { ...next.style, size_px: e.style.size_px } }
  })
  return { ...whole, elements, ...(variant ? { variants: whole.variants!.map((v) => (v === variant ? { ...v, places } : v)) } : {}) }
}

/** Gives a saved layout a variant for a raster; says what became of it. */
export async function makeVariantOf(id: string, raster: { width: number; height: number }): Promise<string> {
  const saved = await api.get<Saved<LayoutDocument>>(`layouts/${id}`)
  const size = { width: raster.width, height: raster.height }
  const { document, said } = await arranged(saved.document, null, { do: 'vary', raster: size, name: `${size.width}x${size.height}` })
  if (said.length) return said.join(' ')
  await api.put(`layouts/${id}`, { base: saved.revision, document, note: `variant for a zone of ${size.width} x ${size.height} px` })
  return `"${document.name}" has a variant for this zone now.`
}

export const shapeOf = ({ width, height }: { width: number; height: number }) =>
  width === height ? 'square' : width > height ? 'landscape' : 'portrait'

/** The variant that is worked on, null for the layout itself, and the display on which it is checked. */
export function useVariants(
  work: Pick<DesignWork<LayoutDocument>, 'document' | 'display' | 'setDisplay'>,
  displays: Ref<{ id: string; raster: { width: number; height: number } }[]>,
) {
  const variant = ref<string | null>(null)
  const variants = computed(() => work.document.value?.variants ?? [])
  watch(variants, (all) => all.some((v) => v.id === variant.value) || (variant.value = null))
  const document = computed(() => (work.document.value ? seenIn(work.document.value, variant.value) : null))
  // A variant is looked at on a display of its own raster, or on the one that was chosen for it in this visit.
  const chosen = shallowRef<Record<string, string | null>>({})
  const seenOn = computed(() => {
    const id = variant.value
    if (id === null) return work.display.value
    const canvas = document.value?.canvas
    const same = displays.value.find((d) => d.raster.width === canvas?.width && d.raster.height === canvas.height)
    return chosen.value[id] === undefined ? (same?.id ?? null) : chosen.value[id]
  })

  return {
    variant,
    variants,
    document,
    seenOn,
    words: computed<Record<string, string>>(() => ({
      '': work.document.value ? shapeOf(work.document.value.canvas) : '',
      ...Object.fromEntries(variants.value.map((v) => [v.id, v.id])),
    })),
    setDisplay(id: string | null) {
      if (variant.value === null) work.setDisplay(id)
      else chosen.value = { ...chosen.value, [variant.value]: id }
    },
  }
}

/** The canvas turned upright or level. */
export const turning = ({ width, height }: { width: number; height: number }): Act => ({ do: 'vary', raster: { width: height, height: width } })
