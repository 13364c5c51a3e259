import type { Element, ZoneElement } from '../../designs'

export const isZone = (e: Element): e is ZoneElement => e.kind === 'zone'
export const zonesAmong = (elements: Element[]): ZoneElement[] => elements.filter(isZone)

/** The zone that sets the moments of another; none where that is not among what is seen, as in a variant without it. */
export const leaderOf = (zone: ZoneElement | undefined, elements: Element[]): ZoneElement | undefined =>
  zone?.follows === undefined ? undefined : zonesAmong(elements).find((e) => e.id === zone.follows)
