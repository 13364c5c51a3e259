import type { Named, Plane, Planes, Release } from '../formats/release'
import type { Layers, Sheet } from '../formats/sheet'
import type { Box, Layer, RunSheet } from './sheet'

/** What is handed over (docs/formats/release.md): a manifest of sheets, put together to what a stage draws. */

export type { Named, Planes, Release as Manifest, Sheet }

/** A release in one piece; those that were made before there were manifests are published so. */
export type WholeRelease = Pick<Release, 'media' | 'faces' | 'display'> & { format?: string; match: { target: Box }; run_sheet: RunSheet }

type SheetLayer = Layers[number]

const FORMAT: Release['format'] = 'upper-pane/release@2'
export const isManifest = (file: WholeRelease | Release): file is Release => file.format === FORMAT

/** A whole release, whose parts have no ids where it was made before they were compiled. */
export function identified(sheet: RunSheet): RunSheet {
  const inOne = (layers: Layer[], way: string): Layer[] =>
    layers.map((layer) => {
      if ('part' in layer) return { part: { ...layer.part, id: layer.part.id ?? `${way}${layer.part.element}:${layer.part.item ?? ''}` } }
      const id = layer.id ?? `${way}${layer.zone}`
      return { ...layer, id, scenes: layer.scenes.map((scene, n) => inOne(scene, `${id}/${n}/`)) }
    })
  return { ...sheet, layers: inOne(sheet.layers, '') }
}

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
      if ('part' in layer) return [{ part: { ...layer.part, id: way + layer.part.id } }]
      const id = way + layer.id
      if ('include' in layer) {
        const named = data.get(layer.include) ?? sheet.includes?.[layer.include]
        const included = named && sheets[named.sha256]
        return included ? inOne(included, included.layers, `${id}/`) : []
      }
      return [{ ...layer, id, scenes: layer.scenes.map((scene) => inOne(sheet, scene, way)) }]
    })
  const [base, ...above] = [planes.base, ...planes.above.filter(holds)].map((plane) => sheets[plane.sheet.sha256]!)
  const { canvas, background, anchor_ms, triggers } = base as RunSheet
  return {
    sheet: {
      canvas,
      background,
      anchor_ms,
      ...(triggers && { triggers }),
      layers: [base!, ...above].flatMap((sheet) => inOne(sheet, sheet.layers, '')),
    },
    until,
  }
}
