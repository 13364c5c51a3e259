const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']

/** A window of the day in which a place is open; on every day where none are named. */
export interface Open {
  days?: string[]
  hours: [string, string]
}

/** Days in the order of the week, those that follow one another told by the first and the last. */
function daysSaid(days: string[]): string {
  const runs: string[][] = []
  for (const day of DAYS) {
    if (!days.includes(day)) continue
    const last = runs.at(-1)
    if (last && DAYS.indexOf(last.at(-1)!) === DAYS.indexOf(day) - 1) last.push(day)
    else runs.push([day])
  }
  const name = (day: string) => day[0] + day[1]!.toLowerCase()
  return runs.map((run) => (run.length > 2 ? `${name(run[0]!)}–${name(run.at(-1)!)}` : run.map(name).join(', '))).join(', ')
}

/** All of them in words: `Mo–Fr 08:00–20:00; Sa 09:00–18:00`. */
export const hoursSaid = (open: Open[]): string =>
  open.map(({ days, hours: [from, to] }) => `${days?.length && days.length < 7 ? `${daysSaid(days)} ` : ''}${from}–${to}`).join('; ') || 'never'

/** The same on other days; all seven are every day. */
export const onDays = ({ hours }: Open, days: string[]): Open => (days.length < DAYS.length ? { days, hours } : { hours })
