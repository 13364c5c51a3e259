import type { MapSensor } from '../formats/run-sheet'

/** Simulated sensors of the Bench: what such a device says, well or badly; they are no part of what is computed. */

/** What a sensor says at once, as an agent takes it: entries of a trace without their instants. */
export type Said = Record<string, unknown>

export interface Device {
  /** Whether it sends distances in mm, or numbers of its bands. */
  sends: 'mm' | 'band'
  /** It errs by as much, mm: one standard deviation. */
  noise_mm: number
  /** So many of a hundred readings miss who stands there. */
  drops: number
  /** Readings a second. */
  rate: number
}
export const WELL: Device = { sends: 'mm', noise_mm: 0, drops: 0, rate: 10 }

/** Standard normal, by Box and Muller (Annals of Mathematical Statistics 29, 1958), from two numbers within 0 and 1. */
const normal = (u: number, v: number) => Math.sqrt(-2 * Math.log(1 - u)) * Math.cos(2 * Math.PI * v)

/**
 * One reading.
 * @param mm where somebody stands; null for nobody
 */
export function reading(sensor: MapSensor, device: Device, mm: number | null, random: () => number = Math.random): Said {
  const isMissed = random() * 100 < device.drops
  const [u, v] = [random(), random()]
  const read = mm === null || isMissed ? null : Math.max(0, Math.round(mm + device.noise_mm * normal(u, v)))
  if (device.sends === 'mm') return { sensor: sensor.id, mm: read }
  const band = read === null ? 0 : sensor.bands_mm.findIndex((end) => read < end) + 1
  return { sensor: sensor.id, band: band === 0 || !sensor.far_first ? band : sensor.bands_mm.length + 1 - band }
}

/** Sensors that send nonsense, as they come: what each says, and how often a second. */
export interface Broken {
  id: string
  name: string
  rate: number
  says: (n: number) => Said
}
export const brokenOnes = (sensor: string): Broken[] => [
  { id: 'negative', name: 'distances below nothing', rate: 10, says: () => ({ sensor, mm: -830 }) },
  { id: 'far', name: 'ten kilometres', rate: 10, says: () => ({ sensor, mm: 10_000_000 }) },
  { id: 'text', name: 'text', rate: 10, says: () => ({ sensor, mm: 'ERR 7' }) },
  { id: 'unknown', name: 'the name of another', rate: 10, says: () => ({ sensor: `${sensor}-2`, mm: 830 }) },
  { id: 'button', name: 'a button that nobody has', rate: 10, says: (n) => ({ sensor, button: `B${n % 40}` }) },
  { id: 'flutter', name: 'near and far in turn', rate: 20, says: (n) => ({ sensor, mm: n % 2 ? 400 : 4000 }) },
  { id: 'flood', name: 'more than a player takes', rate: 4000, says: (n) => ({ sensor, mm: 700 + (n % 7) }) },
]

/** As a survey says a sensor, and as those who hear it know it. */
export interface Surveyed {
  id: string
  kind: string
  bands_mm?: number[]
  hysteresis_mm?: number
  numbering?: 'near-first' | 'far-first'
  buttons?: string[]
  names?: Record<string, string>
}
export const known = (sensors: Surveyed[]): MapSensor[] =>
  sensors.map((one) => ({
    id: one.id,
    kind: one.kind,
    bands_mm: one.bands_mm ?? [],
    hysteresis_mm: one.hysteresis_mm ?? 0,
    far_first: one.numbering === 'far-first',
    buttons: one.buttons ?? null,
    names: one.names ?? {},
  }))
