import { type Box, type Layer, type LoopOf, type Media, type RunSheet, type ZoneLayer, isZone, mediaSoon, zoneAt } from '../pane/sheet'
import type { Entered, TriggersMap } from './answers'
import type { Turn } from './tally'

/** What maps of triggers show, in a run sheet: each state that is entered is a turn of the zones that answer, from that instant on. */

const NOTHING: LoopOf = { period_ms: null, segments: [] }

function answering(layers: Layer[], each: (layer: ZoneLayer, beside: Layer[]) => void): void {
  for (const layer of layers) {
    if (!isZone(layer)) continue
    if (layer.answers) each(layer, layers)
    for (const scene of layer.scenes) answering(scene, each)
  }
}

/** Which scene of a zone a state is that was entered; -1 where it shows nothing there. */
function sceneOf({ answers }: ZoneLayer, { state, row }: Entered): number {
  const exactly = answers!.scenes.findIndex((one) => one.state === state && one.row === row)
  return exactly >= 0 || row === null ? exactly : answers!.scenes.findIndex((one) => one.state === state && one.row === 0)
}

/** @param entered the state of each map, by its id; of two maps that show in one place the later is drawn */
export function put(sheet: RunSheet, entered: ReadonlyMap<string, Entered>): void {
  const shown = (layer: ZoneLayer): number => {
    const one = entered.get(layer.answers!.map)
    return one ? sceneOf(layer, one) : -1
  }
  answering(sheet.layers, (layer, beside) => {
    const one = entered.get(layer.answers!.map)
    if (!one) return
    const above = beside.slice(beside.indexOf(layer) + 1)
    const isHidden = above.some((other) => isZone(other) && other.answers && other.zone === layer.zone && shown(other) >= 0)
    const scene = isHidden ? -1 : sceneOf(layer, one)
    const loops = layer.loops!.length > layer.answers!.scenes.length ? layer.loops! : [...layer.loops!, NOTHING]
    // At rest from the beginning on all players of a wall are in step: it counts as the layers beside it do.
    const anchor = one.why === 'start' ? sheet.anchor_ms : one.at
    layer.loops = loops
    layer.turns = [{ from_ms: one.at, anchor_ms: anchor, loop: scene < 0 ? loops.length - 1 : scene }]
  })
}

/** Where a point of the canvas lies on all that plays, px: strips may have squeezed it; null where nobody asks. */
export function touched(sheet: RunSheet, at: number, x: number, y: number): { x: number; y: number } | null {
  const find = (layers: Layer[], since: number): Box | null => {
    for (const layer of layers) {
      if (!isZone(layer)) continue
      if (layer.answers?.place) return layer.answers.place
      const { scene } = layer.through ? zoneAt(layer, at, since) : { scene: null }
      const inside = scene === null ? null : find(layer.scenes[scene]!, since)
      if (inside) return inside
    }
    return null
  }
  const place = find(sheet.layers, at - sheet.anchor_ms)
  const canvas = sheet.triggers?.[0]?.canvas
  return place && canvas ? { x: ((x - place.x) / place.width) * canvas.width, y: ((y - place.y) / place.height) * canvas.height } : null
}

/** Pictures and films of what a map may show next: of the states to which a way leads from this one, as they begin. */
export function mediaNext(sheet: RunSheet, maps: TriggersMap[], entered: ReadonlyMap<string, Entered>): Media[] {
  const next = new Set<string>()
  for (const map of maps) {
    const state = entered.get(map.id)?.state ?? map.rest
    for (const { from, to } of map.transitions) if (from.includes(state) || from.includes('*')) next.add(`${map.id} ${to}`)
  }
  const media: Media[] = []
  answering(sheet.layers, (layer) => {
    layer.answers!.scenes.forEach(({ state }, n) => {
      if (next.has(`${layer.answers!.map} ${state}`)) media.push(...mediaSoon({ ...sheet, anchor_ms: 0, layers: layer.scenes[n]! }, 0, 0))
    })
  })
  return media
}

/** What was answered, as a thing that is seen: the state of each map that is not at rest, and what it came of. */
export function answeredNow(maps: TriggersMap[], entered: ReadonlyMap<string, Entered>): Turn[] {
  return maps.flatMap(({ id, rest }) => {
    const one = entered.get(id)
    if (!one || one.state === rest) return []
    const part = {
      id: `triggers/${id}:${one.state}/${one.why}`,
      element: `triggers/${id}`,
      kind: 'state',
      item: `${one.state}, because of ${one.why}`,
    }
    return [{ part, begun: one.at, isThere: true }]
  })
}
