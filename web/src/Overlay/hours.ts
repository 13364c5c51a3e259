const DAY_MS = 86_400_000

/** The same from one time of the day to another; what would end before it begins ends on the next day. */
export function between({ start, end }: { start: string; end: string }, hours: { start?: string; end?: string }): { start: string; end: string } {
  const [from, to] = [hours.start ?? start.slice(11, 16), hours.end ?? end.slice(11, 16)]
  const day = start.slice(0, 10)
  const next = new Date(Date.parse(`${day}T00:00:00Z`) + DAY_MS).toISOString().slice(0, 10)
  return { start: `${day}T${from}:00`, end: `${to > from ? day : next}T${to}:00` }
}
