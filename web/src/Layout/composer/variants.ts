import { type Ref, computed, ref, shallowRef, watch } from 'vue'
import { api } from '../../ui/api'
import { type Element, type LayoutDocument, type Place, type Saved, type Variant, isStyled } from '../designs'
import { arranged } from '../division'
import type { DesignWork } from '../work'

const styleOf = (e: Element, place: Place): Element =>
  isStyled(e) && place.size_px !== undefined
    ? ({ ...e, rect: place.rect, style: { ...e.style, size_px: place.size_px } } as Element)
    : { ...e, rect: place.rect }

/** Without what it says of elements that are not there. */
export function withoutRefs(e: Element, gone: (id: string) => boolean): Element {
  if (e.kind === 'zone' && e.follows && gone(e.follows)) return { ...e, follows: undefined }
  return e.kind === 'shape' && e.progress && gone(e.progress.zone) ? { ...e, progress: undefined } : e
}

/** The layout itself, or one of its variants as a layout of its own: what the composer works on. */
export function seenAs(whole: LayoutDocument, id: string | null): LayoutDocument {
  const { variants, ...base } = whole
  const variant = variants?.find((v) => v.id === id)
  if (!variant) return base
  return {
    ...base,
    canvas: variant.canvas,
    recipe: variant.recipe,
    guides: variant.guides,
    safe: variant.safe,
    elements: base.elements
      .filter((e) => variant.places[e.id])
      .map((e) => withoutRefs(styleOf(e, variant.places[e.id]!), (id) => !variant.places[id])),
  }
}

const placeOf = (e: Element): Place => ({ rect: e.rect, ...(isStyled(e) ? { size_px: e.style.size_px } : {}) })
const without = (variant: Variant, there: Set<string>): Variant => ({
  ...variant,
  places: Object.fromEntries(Object.entries(variant.places).filter(([id]) => there.has(id))),
})

/** What an element says of others that a variant has no more: there it says nothing of them, in the layout it goes on to. */
function refsTo(base: Element, seen: Element, gone: (id: string) => boolean): Partial<Element> {
  if (base.kind === 'zone' && seen.kind === 'zone' && base.follows && !seen.follows && gone(base.follows))
    return { follows: base.follows } as Partial<Element>
  if (base.kind === 'shape' && seen.kind === 'shape' && base.progress && !seen.progress && gone(base.progress.zone))
    return { progress: base.progress } as Partial<Element>
  return {}
}

/**
 * The whole document once the layout, or one of its variants, has become `next`. A variant keeps places and sizes for itself and shares all else;
 * what is new in it is new in the layout as well; what is taken out of it stays in the layout, what is taken out of the layout is gone everywhere.
 */
export function putBack(whole: LayoutDocument, id: string | null, next: LayoutDocument): LayoutDocument {
  const variants = whole.variants ?? []
  const variant = variants.find((v) => v.id === id)
  if (!variant) {
    const there = new Set(next.elements.map((e) => e.id))
    return { ...next, ...(variants.length ? { variants: variants.map((v) => without(v, there)) } : {}) }
  }
  const now = new Map(next.elements.map((e) => [e.id, e]))
  const elements = whole.elements.map((e): Element => {
    const seen = now.get(e.id)
    if (!seen) return e
    const own = { ...seen, rect: e.rect, ...refsTo(e, seen, (id) => !now.has(id)) } as Element
    return isStyled(own) && isStyled(e) ? ({ ...own, style: { ...own.style, size_px: e.style.size_px } } as Element) : own
  })
  const known = new Set(whole.elements.map((e) => e.id))
  const { canvas, recipe, guides, safe, elements: seen, ...shared } = next
  return {
    ...whole,
    ...shared,
    elements: [...elements, ...seen.filter((e) => !known.has(e.id))],
    variants: variants.map((v) =>
      v === variant
        ? {
            id: v.id,
            canvas,
            ...(recipe ? { recipe } : {}),
            ...(guides ? { guides } : {}),
            ...(safe ? { safe } : {}),
            places: Object.fromEntries(seen.map((e) => [e.id, placeOf(e)])),
          }
        : v,
    ),
  }
}

/** The layout with one more variant, arranged as `arranged` is. */
export function withVariant(whole: LayoutDocument, id: string, arranged: LayoutDocument): LayoutDocument {
  const variant: Variant = {
    id,
    canvas: arranged.canvas,
    ...(arranged.recipe ? { recipe: arranged.recipe } : {}),
    ...(arranged.guides ? { guides: arranged.guides } : {}),
    ...(arranged.safe ? { safe: arranged.safe } : {}),
    places: Object.fromEntries(arranged.elements.map((e) => [e.id, placeOf(e)])),
  }
  return { ...whole, variants: [...(whole.variants ?? []), variant] }
}

/** Gives a saved layout a variant for a raster, solved by its recipe or scaled; says what became of it. */
export async function makeVariantOf(id: string, raster: { width: number; height: number }): Promise<string> {
  const saved = await api.get<Saved<LayoutDocument>>(`layouts/${id}`)
  const whole = saved.document
  const there = [whole.canvas, ...(whole.variants ?? []).map((v) => v.canvas)]
  if (there.some((c) => c.width === raster.width && c.height === raster.height)) return 'It has a variant of this size already.'
  const size = { width: raster.width, height: raster.height }
  const next = await arranged(seenAs(whole, null), { do: whole.recipe ? 'solve' : 'scale', raster: size })
  const document = withVariant(whole, freeVariant(whole, `${size.width}x${size.height}`), next.document)
  await api.put(`layouts/${id}`, { base: saved.revision, document, note: `variant for a zone of ${size.width} x ${size.height} px` })
  return `"${whole.name}" has a variant for this zone now.`
}

function freeVariant(whole: LayoutDocument, name: string): string {
  const taken = new Set((whole.variants ?? []).map((v) => v.id))
  let id = name
  for (let n = 2; taken.has(id); n++) id = `${name}${n}`
  return id
}

export function withoutVariant(whole: LayoutDocument, id: string): LayoutDocument {
  const { variants, ...base } = whole
  const left = (variants ?? []).filter((v) => v.id !== id)
  return left.length ? { ...base, variants: left } : base
}

export const shapeOf = ({ width, height }: { width: number; height: number }) =>
  width === height ? 'square' : width > height ? 'landscape' : 'portrait'

/** The variant that is worked on, null for the layout itself, and the display on which it is checked. */
export function useVariants(
  work: Pick<DesignWork<LayoutDocument>, 'document' | 'display' | 'change' | 'setDisplay'>,
  displays: Ref<{ id: string; raster: { width: number; height: number } }[]>,
) {
  const variant = ref<string | null>(null)
  const variants = computed(() => work.document.value?.variants ?? [])
  watch(variants, (all) => all.some((v) => v.id === variant.value) || (variant.value = null))
  const document = computed(() => (work.document.value ? seenAs(work.document.value, variant.value) : null))
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
    change: (next: LayoutDocument, gesture?: string) => work.change(putBack(work.document.value!, variant.value, next), gesture),
    setDisplay(id: string | null) {
      if (variant.value === null) work.setDisplay(id)
      else chosen.value = { ...chosen.value, [variant.value]: id }
    },
    /** One more variant, for the canvas turned upright or level: the recipe is solved there, or everything is scaled. Gives its shape. */
    async turn(): Promise<string> {
      const whole = work.document.value!
      const raster = { width: whole.canvas.height, height: whole.canvas.width }
      const turned = await arranged(seenAs(whole, null), { do: whole.recipe ? 'solve' : 'scale', raster })
      const id = freeVariant(whole, shapeOf(raster))
      work.change(withVariant(work.document.value!, id, turned.document))
      variant.value = id
      return id
    },
    drop() {
      const id = variant.value
      if (!id || !work.document.value) return
      variant.value = null
      work.change(withoutVariant(work.document.value, id))
    },
  }
}
