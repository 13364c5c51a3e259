import type { DisplayDocument, PanelDocument, PlayerDocument, Wall } from './survey'

/** What hands do to the document of a display. Pure: each gives a new document; what they mean the core says. */

/** Panels taken for a field: those that are chosen, else all. */
export const meant = (doc: DisplayDocument, chosen: ReadonlySet<string>): PanelDocument[] =>
  chosen.size ? doc.panels.filter((p) => chosen.has(p.id)) : doc.panels

/** The same without some of its fields. */
export function without<T extends object, K extends keyof T>(of: T, ...names: K[]): Omit<T, K> {
  const rest = { ...of }
  for (const name of names) delete rest[name]
  return rest
}

export function eachPanel(doc: DisplayDocument, chosen: ReadonlySet<string>, change: (panel: PanelDocument) => PanelDocument): DisplayDocument {
  return { ...doc, panels: doc.panels.map((p) => (chosen.size === 0 || chosen.has(p.id) ? change(p) : p)) }
}

const letters = (row: number): string =>
  row < 26 ? String.fromCharCode(65 + row) : letters(Math.floor(row / 26) - 1) + String.fromCharCode(65 + (row % 26))

/** A grid of so many columns and rows: what hangs there stays, the rest is like the first panel, its output not said. */
export function onGrid(doc: DisplayDocument, columns: number, rows: number): DisplayDocument {
  const at = new Map(doc.panels.filter((p) => p.column !== undefined).map((p) => [`${p.column} ${p.row}`, p]))
  const kept = new Set<string>()
  for (const [key, p] of at) {
    const [column, row] = key.split(' ').map(Number) as [number, number]
    if (column < columns && row < rows) kept.add(p.id)
  }
  const free = (column: number, row: number): string => {
    const plainId = `${letters(row)}${column + 1}`
    let id = plainId
    for (let n = 2; kept.has(id); n++) id = `${plainId}-${n}`
    kept.add(id)
    return id
  }
  const like = without(doc.panels[0]!, 'output', 'origin_mm')
  const panels: PanelDocument[] = []
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) panels.push(at.get(`${column} ${row}`) ?? { ...like, id: free(column, row), column, row })
  return { ...doc, panels }
}

/** Panels hung where they hang now, but freely. */
export function hungFreely(doc: DisplayDocument, wall: Wall): DisplayDocument {
  const placed = new Map(wall.panels.map((p) => [p.id, p.place_mm]))
  return {
    ...doc,
    bezels: 'hide',
    panels: doc.panels.map((panel) => {
      const place = placed.get(panel.id)
      return { ...without(panel, 'column', 'row'), origin_mm: { x: place?.x ?? 0, y: place?.y ?? 0 } }
    }),
  }
}

/** Free panels put on a grid: those that hang side by side are a row. */
export function hungOnGrid(doc: DisplayDocument, wall: Wall): DisplayDocument {
  const left = [...wall.panels].sort((a, b) => a.place_mm.y - b.place_mm.y)
  const cells = new Map<string, { column: number; row: number }>()
  for (let row = 0; left.length; row++) {
    const first = left[0]!
    const beside = left.filter((p) => p.place_mm.y < first.place_mm.y + first.place_mm.height / 2)
    beside.sort((a, b) => a.place_mm.x - b.place_mm.x).forEach((p, column) => cells.set(p.id, { column, row }))
    for (const p of beside) left.splice(left.indexOf(p), 1)
  }
  return { ...doc, panels: doc.panels.map((panel) => ({ ...without(panel, 'origin_mm'), ...(cells.get(panel.id) ?? { column: 0, row: 0 }) })) }
}

/** Each of two panels gets what feeds the other one: how a swapped cable is mended without pulling it. */
export function swapped(doc: DisplayDocument, wall: Wall, a: string, b: string): DisplayDocument {
  const fed = new Map(wall.panels.map((p) => [p.id, p]))
  const give = (panel: PanelDocument, from: string): PanelDocument => {
    const rest = without(panel, 'output', 'player')
    const source = fed.get(from)
    return { ...rest, ...(source?.output ? { output: source.output } : {}), ...(source?.player ? { player: source.player } : {}) }
  }
  return { ...doc, panels: doc.panels.map((p) => (p.id === a ? give(p, b) : p.id === b ? give(p, a) : p)) }
}

/** Gives a panel an output; whoever had it gets the one that this panel had. */
export function feeds(doc: DisplayDocument, wall: Wall, panel: string, player: string | null, output: number): DisplayDocument {
  const fed = new Map(wall.panels.map((p) => [p.id, p]))
  const before = fed.get(panel)
  const other = wall.panels.find((p) => p.id !== panel && p.output === output && (p.player ?? null) === player)
  const set = (p: PanelDocument, to: { player: string | null; output: number | null } | undefined): PanelDocument => {
    const rest = without(p, 'output', 'player')
    return { ...rest, ...(to?.output ? { output: to.output } : {}), ...(to?.player ? { player: to.player } : {}) }
  }
  return {
    ...doc,
    panels: doc.panels.map((p) => (p.id === panel ? set(p, { player, output }) : p.id === other?.id ? set(p, before) : p)),
  }
}

/** All outputs forgotten: the core numbers them from left to right and top to bottom. */
/** Every panel fed by an output of its own, also those of a wall that is one output unless it says otherwise. */
export function fedApart(doc: DisplayDocument): DisplayDocument {
  const rest = without(doc, 'processor')
  return doc.technology === 'led' ? { ...rest, panels: rest.panels.map((panel, n) => ({ ...panel, output: n + 1 })) } : rest
}

/** All panels fed by one output, of the canvas. */
export function fedTogether(doc: DisplayDocument): DisplayDocument {
  const whole = numbered(without(doc, 'processor'))
  return doc.technology === 'led' ? whole : { ...whole, processor: { player: doc.players?.[0]?.id ?? 'a', output: 1 } }
}

export function numbered(doc: DisplayDocument): DisplayDocument {
  return {
    ...doc,
    panels: doc.panels.map((panel) => without(panel, 'output')),
  }
}

export function withoutPanels(doc: DisplayDocument, ids: ReadonlySet<string>): DisplayDocument {
  const panels = doc.panels.filter((p) => !ids.has(p.id))
  return panels.length ? { ...doc, panels } : doc
}

/** One more panel like the last chosen one, at the right of all. */
export function withPanel(doc: DisplayDocument, wall: Wall, like: PanelDocument): DisplayDocument {
  const ids = new Set(doc.panels.map((p) => p.id))
  let number = doc.panels.length + 1
  while (ids.has(`p${number}`)) number++
  const rest = without(like, 'output')
  const frame = wall.panels.find((p) => p.id === like.id)?.frame_mm
  const place = like.origin_mm
    ? {
        origin_mm: {
          x: Math.max(...wall.panels.map((p) => p.place_mm.x + p.place_mm.width)) + minX(doc) + (frame ? frame.left + frame.right : 0),
          y: like.origin_mm.y,
        },
      }
    : { column: Math.max(...doc.panels.map((p) => p.column ?? 0)) + 1, row: like.row ?? 0 }
  return { ...doc, panels: [...doc.panels, { ...rest, ...place, id: `p${number}` }] }
}
const minX = (doc: DisplayDocument) => Math.min(...doc.panels.map((p) => p.origin_mm?.x ?? 0))

export function moved(doc: DisplayDocument, ids: ReadonlySet<string>, dx: number, dy: number): DisplayDocument {
  const to = (mm: number, by: number) => Math.round((mm + by) * 10) / 10
  return eachPanel(doc, ids, (p) => (p.origin_mm && ids.has(p.id) ? { ...p, origin_mm: { x: to(p.origin_mm.x, dx), y: to(p.origin_mm.y, dy) } } : p))
}

/** A player with so many outputs; the links of those that stay are kept. */
export function withOutputs(player: PlayerDocument, count: number, link: string): PlayerDocument {
  const had = new Map((player.outputs ?? []).map((o) => [o.number, o]))
  return { ...player, outputs: Array.from({ length: count }, (_, i) => had.get(i + 1) ?? { number: i + 1, link: had.get(1)?.link ?? link }) }
}
