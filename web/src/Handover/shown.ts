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

/** How many displays are within reach, and are called as is asked: the first of these; on how many it is to be seen, and where it stands by itself. */
export interface WhereShown {
  total: number
  found: number
  displays: Standing[]
  carrying: number
  stands: Standing[]
}

/** As the validity of an item. */
export interface Within {
  until?: string
  days?: string[]
  hours?: string[][]
}
