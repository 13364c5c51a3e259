import type { Heard } from '../formats/report'

/** What was said before a display, and what that makes of its sensors: chosen, never typed. */
export type HeardHere = Heard & { player: string }
export interface Hearsay {
  learns_until: string | null
  heard: HeardHere[]
}

/** As a survey says a sensor. */
export interface Sensor {
  id: string
  kind: string
  bands_mm?: number[]
  buttons?: string[]
  names?: Record<string, string>
}
export interface Choice<S extends Sensor> {
  text: string
  sensors: S[]
}

/** Bands of a sensor of which nothing is known yet, mm: to begin with. Common practice, no source. */
const BANDS = [500, 1000, 2000, 4000]

const text = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value))
/** In words: by whom, and what. */
export function saidIn({ said }: Heard): string {
  if (said.signal !== undefined) return `signal ${text(said.signal)}`
  if (said.key !== undefined) return `key ${said.key === ' ' ? 'space' : text(said.key)}`
  if (said.touch !== undefined) return 'a touch'
  if (said.source !== undefined) return `${text(said.source)} ${text(said.field ?? '')}: ${text(said.value)}`
  if (said.button !== undefined) return `${text(said.sensor)}: button ${text(said.button)}`
  if (said.band !== undefined) return `${text(said.sensor)}: band ${text(said.band)}`
  return `${text(said.sensor)}: ${said.mm === null ? 'nobody' : `${text(said.mm)} mm`}`
}

const isButtons = ({ kind }: Sensor) => kind === 'buttons' || kind === 'press'
/** What is not known yet of what was said. @returns a sentence; null where the display has it */
export function lackOf<S extends Sensor>(sensors: S[], { said }: Heard): string | null {
  if (said.sensor === undefined)
    return said.key !== undefined && !sensors.some(({ kind }) => kind === 'keys' || kind === 'key') ? 'no sensor of keys' : null
  const own = sensors.find(({ id }) => id === said.sensor)
  if (!own) return `no sensor “${text(said.sensor)}”`
  const { button, band } = said
  if (typeof button === 'string') {
    if (!isButtons(own)) return `“${own.id}” has no buttons`
    return own.buttons && !own.buttons.includes(own.names?.[button] ?? button) ? `no button “${button}”` : null
  }
  if (typeof band === 'number' && band > (own.bands_mm ?? []).length) return `no band ${band}`
  return null
}

/** What can be chosen for it: each with the sensors as they are then. */
export function choicesFor<S extends Sensor>(sensors: S[], heard: Heard): Choice<S>[] {
  const { said } = heard
  if (lackOf(sensors, heard) === null) return []
  if (said.sensor === undefined)
    return [{ text: 'take its keyboard as a sensor', sensors: [...sensors, { id: freeId(sensors, 'keys'), kind: 'keys' } as S] }]
  const own = sensors.find(({ id }) => id === said.sensor)
  const { sensor: id, button } = said
  if (!own) {
    if (typeof id !== 'string' || !/^[A-Za-z0-9][A-Za-z0-9._-]*$/.test(id)) return []
    if (typeof button === 'string')
      return [{ text: 'it is a box of buttons', sensors: [...sensors, { id, kind: 'buttons', buttons: [button] } as S] }]
    return [{ text: 'it tells distances', sensors: [...sensors, { id, kind: 'presence', bands_mm: BANDS } as S] }]
  }
  if (typeof button !== 'string' || !isButtons(own)) return []
  const put = (more: Partial<Sensor>) => sensors.map((one) => (one.id === own.id ? { ...one, ...more } : one))
  const meant = new Set(Object.values(own.names ?? {}))
  return [
    { text: `a button called “${button}”`, sensors: put({ buttons: [...(own.buttons ?? []), button] }) },
    ...(own.buttons ?? [])
      .filter((one) => !meant.has(one))
      .map((one) => ({ text: `it is “${one}”`, sensors: put({ names: { ...own.names, [button]: one } }) })),
  ]
}

function freeId(sensors: Sensor[], wanted: string): string {
  for (let n = 1; ; n++) {
    const id = n === 1 ? wanted : `${wanted}-${n}`
    if (!sensors.some((one) => one.id === id)) return id
  }
}
