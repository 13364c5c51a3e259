/** Figures as they are written everywhere: with their unit, and no more digits than they are worth. */
export const seconds = (ms: number): string => `${(ms / 1000).toFixed(ms % 1000 === 0 || ms % 100 === 0 ? 1 : 3)} s`

/** How long something lasted, to three figures or so: `4.2 s`, `3 min 20 s`, `1 h 08 min`. */
export function lasting(ms: number): string {
  const s = Math.round(ms / 1000)
  if (s < 60) return ms < 10_000 ? `${(ms / 1000).toFixed(1)} s` : `${s} s`
  if (s < 3600) return `${Math.floor(s / 60)} min ${String(s % 60).padStart(2, '0')} s`
  return `${Math.floor(s / 3600)} h ${String(Math.floor((s % 3600) / 60)).padStart(2, '0')} min`
}

export function bytes(n: number): string {
  if (n < 1000) return `${n} B`
  if (n < 1e6) return `${(n / 1e3).toFixed(0)} kB`
  return n < 1e9 ? `${(n / 1e6).toFixed(1)} MB` : `${(n / 1e9).toFixed(2)} GB`
}

export const size = (of: { width: number; height: number }): string => `${of.width} × ${of.height}`

const formats = new Map<string, Intl.DateTimeFormat>()
/** A format of dates; making one is dear, and lists write hundreds of times a second. */
function format(timeZone: string | undefined, parts: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${timeZone}|${JSON.stringify(parts)}`
  let one = formats.get(key)
  if (!one) formats.set(key, (one = new Intl.DateTimeFormat('en-GB', { timeZone, ...parts })))
  return one
}

export function clock(ms: number, timeZone?: string, withSeconds = true): string {
  return format(timeZone, { hour: '2-digit', minute: '2-digit', ...(withSeconds ? { second: '2-digit' } : {}) }).format(ms)
}

export function day(ms: number, timeZone?: string): string {
  return format(timeZone, { weekday: 'long', day: 'numeric', month: 'long' }).format(ms)
}

/** `10:43` of today, `21 Nov 10:43` of another day. */
export function moment(iso: string | null | undefined, timeZone?: string): string {
  if (!iso) return 'never'
  const at = Date.parse(iso)
  const date = (t: number) => format(timeZone, { day: 'numeric', month: 'short' }).format(t)
  return date(at) === date(Date.now()) ? clock(at, timeZone, false) : `${date(at)} ${clock(at, timeZone, false)}`
}

export function ago(iso: string | null | undefined, now: number): string {
  if (!iso) return 'never'
  const s = Math.max(0, Math.round((now - Date.parse(iso)) / 1000))
  if (s < 60) return `${s} s ago`
  if (s < 3600) return `${Math.floor(s / 60)} min ago`
  return s < 86_400 ? `${Math.floor(s / 3600)} h ago` : `${Math.floor(s / 86_400)} days ago`
}

export const zoneName = (timeZone: string, at: number): string =>
  format(timeZone, { timeZoneName: 'short' })
    .formatToParts(at)
    .find((p) => p.type === 'timeZoneName')?.value ?? timeZone

/** So many of something, in words: the many are one with an s. */
export const count = (n: number, noun: string): string => `${n.toLocaleString('en')} ${n === 1 ? noun : `${noun}s`}`

/** The first few of many names, and how many more there are. */
export const some = (names: string[], most = 5): string =>
  names.slice(0, most).join(', ') + (names.length > most ? ` and ${(names.length - most).toLocaleString('en')} more` : '')
