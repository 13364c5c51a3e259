import { seconds } from '../../../ui/format'
import type { Analysis, Element } from '../../designs'
import type { ElementKind } from '../kinds'
import { isZone } from './zone'
import ZoneDetails from './ZoneDetails.vue'

/** How many items play in it, and how long they take. */
function figures(zone: Element, analysis: Analysis | null): string {
  if (!isZone(zone)) return ''
  const count = 'items' in zone.playlist ? zone.playlist.items.filter((i) => i.enabled !== false).length : null
  const loop = analysis?.loops[zone.id]
  const items = count === null ? '' : `${count} ${count === 1 ? 'item' : 'items'}`
  return [items, loop === null ? 'without end' : loop ? seconds(loop) : ''].filter(Boolean).join(' · ')
}

export const zone: ElementKind = { kind: 'zone', key: 'z', Details: ZoneDetails, isWide: true, isOutlined: true, figures, leavesOpen: 'items' }
