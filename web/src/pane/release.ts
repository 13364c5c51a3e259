import type { Face } from './faces'
import type { Box, Layer, RunSheet } from './sheet'

/** What is handed over (docs/formats/release.md): a manifest of sheets, put together to what a stage draws. */

export interface Named {
  url: string
  sha256: string
  bytes: number
}

/** What holds in [from, until); null is without an end on that side. */
export interface Plane {
  sheet: Named
  from: string | null
  until: string | null
}

export interface Planes {
  base: Plane
  above: (Plane & { id: string })[]
  data: (Plane & { include: string })[]
}

interface Files {
  match: { target: Box }
  media: { id: string; name: string; url: string; sha256: string; bytes: number; type: string }[]
  faces: (Face & { sha256: string; bytes: number })[]
}

/** A release in one piece; of those that were made before there were manifests, these are the published bytes. */
export interface WholeRelease extends Files {
  format?: string
  display: { raster: { width: number; height: number }; outputs?: unknown[] }
  run_sheet: RunSheet
}

export interface Manifest extends Files {
  format?: string
  display: WholeRelease['display']
  planes: Planes
  sheets: Named[]
}

type SheetLayer = Layer | { include: string; id: string }
export interface Sheet extends Partial<Omit<RunSheet, 'layers'>> {
  layers: SheetLayer[]
  includes?: Record<string, Named>
}

const FORMAT = 'upper-pane/release@2'
export const isManifest = (file: WholeRelease | Manifest): file is Manifest => file.format === FORMAT

export type Sheets = Record<string, Sheet>

/** Every sheet that these planes name, and that those include, by hash: each asked for once. */
export async function sheetsOf(planes: Planes, read: (sheet: Named) => Promise<Sheet>): Promise<Sheets> {
  const found: Sheets = {}
  const wanted = [planes.base, ...planes.above, ...planes.data].map((plane) => plane.sheet)
  while (wanted.length) {
    const named = wanted.pop()!
    if (found[named.sha256]) continue
    const sheet = await read(named)
    found[named.sha256] = sheet
    wanted.push(...Object.values(sheet.includes ?? {}))
  }
  return found
}

/** What the planes show together at an instant, and when that changes because one of them begins or ends. */
export function together(planes: Planes, sheets: Sheets, at: number): { sheet: RunSheet; until: number } {
  let until = Infinity
  const holds = ({ from, until: end }: Plane): boolean => {
    const [begins, ends] = [from === null ? -Infinity : Date.parse(from), end === null ? Infinity : Date.parse(end)]
    for (const bound of [begins, ends]) if (bound > at) until = Math.min(until, bound)
    return begins <= at && at < ends
  }
  const data = new Map(planes.data.filter(holds).map((plane) => [plane.include, plane.sheet]))
  const inOne = (sheet: Sheet, layers: SheetLayer[], way: string): Layer[] =>
    layers.flatMap((layer): Layer[] => {
      if ('part' in layer) return [{ part: { ...layer.part, id: way + (layer.part.id ?? '') } }]
      const id = way + (layer.id ?? '')
      if ('include' in layer) {
        const named = data.get(layer.include) ?? sheet.includes?.[layer.include]
        const included = named && sheets[named.sha256]
        return included ? inOne(included, included.layers, `${id}/`) : []
      }
      return [{ ...layer, id, scenes: layer.scenes.map((scene) => inOne(sheet, scene, way)) }]
    })
  const [base, ...above] = [planes.base, ...planes.above.filter(holds)].map((plane) => sheets[plane.sheet.sha256]!)
  const { canvas, background, anchor_ms } = base as RunSheet
  return { sheet: { canvas, background, anchor_ms, layers: [base!, ...above].flatMap((sheet) => inOne(sheet, sheet.layers, '')) }, until }
}
