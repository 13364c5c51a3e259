import type { Panel, PanelGroup, PanelKey } from '../formats/panel'
import { freeId } from './triggers'

export type { Panel, PanelGroup, PanelKey }

// --- changes: each makes a new document ----------------------------------------------------------

export const keysOf = (panel: Panel): PanelKey[] => panel.groups.flatMap(({ keys }) => keys)

/** Without fields that are undefined: what is not said is not written. */
const said = (key: PanelKey): PanelKey => Object.fromEntries(Object.entries(key).filter(([, value]) => value !== undefined)) as unknown as PanelKey

export const withGroups = (panel: Panel, groups: PanelGroup[]): Panel => ({ ...panel, groups })
export const withGroup = (panel: Panel, place: number, part: Partial<PanelGroup>): Panel =>
  withGroups(
    panel,
    panel.groups.map((one, n) => (n === place ? { ...one, ...part } : one)),
  )
export const withKey = (panel: Panel, id: string, part: Partial<PanelKey>): Panel =>
  withGroups(
    panel,
    panel.groups.map((group) => ({ ...group, keys: group.keys.map((one) => (one.id === id ? said({ ...one, ...part }) : one)) })),
  )

/** A key more at the end of a group: like the one before it, so that several for one display are made in a row. */
export function added(panel: Panel, place: number, display: string, does: Pick<PanelKey, 'signal' | 'plays'>, name: string): Panel {
  const id = freeId(
    name,
    keysOf(panel).map((one) => one.id),
  )
  return withGroup(panel, place, { keys: [...panel.groups[place]!.keys, { id, name, display, ...does }] })
}
export const without = (panel: Panel, id: string): Panel =>
  withGroups(
    panel,
    panel.groups.map((group) => ({ ...group, keys: group.keys.filter((one) => one.id !== id) })),
  )

/** One place up or down; at the edge of its group, into the next one. */
export function moved(panel: Panel, id: string, by: 1 | -1): Panel {
  const groups = panel.groups.map((group) => ({ ...group, keys: [...group.keys] }))
  const g = groups.findIndex(({ keys }) => keys.some((one) => one.id === id))
  const own = groups[g]!
  const n = own.keys.findIndex((one) => one.id === id)
  const [key] = own.keys.splice(n, 1)
  const to = n + by
  if (to >= 0 && to <= own.keys.length) own.keys.splice(to, 0, key!)
  else if (groups[g + by]) groups[g + by]!.keys.splice(by > 0 ? 0 : groups[g + by]!.keys.length, 0, key!)
  else return panel
  return withGroups(panel, groups)
}
