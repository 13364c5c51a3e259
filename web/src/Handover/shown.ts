/** Where something that is filled in stands, and how it could. */
export interface Standing {
  id: string
  name: string
  place: string
  timezone: string
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

const parts = (timeZone: string, ms: number) =>
  Object.fromEntries(
    new Intl.DateTimeFormat('en-GB', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    })
      .formatToParts(ms)
      .map(({ type, value }) => [type, value]),
  )

/** What the clock of a zone says, as a field for local times takes it. */
export function localNow(timeZone: string, ms: number): string {
  const { year, month, day, hour, minute } = parts(timeZone, ms)
  return `${year}-${month}-${day}T${hour}:${minute}`
}

/** The end of the day that it is there, local. */
export function untilToday(timeZone: string, ms: number): string {
  const { year, month, day } = parts(timeZone, ms)
  return `${new Date(Date.UTC(Number(year), Number(month) - 1, Number(day) + 1)).toISOString().slice(0, 10)}T00:00:00`
}
