/** Where something that is filled in stands, and how it could. */
export interface Standing {
  id: string
  name: string
  place: string
  timezone: string
  /** What its clock says, and when its day ends, local. */
  now: string
  day_ends: string
  plays: { kind: string; name: string } | null
  /** The playlist that is open there, in which it can come beside what plays. */
  open: { id: string; name: string } | null
  stands: { how: 'beside' | 'instead'; until: string | null } | null
}

/** As the validity of an item. */
export interface Within {
  until?: string
  days?: string[]
  hours?: string[][]
}
