/** An operator's panel as the server tells it (app/src/Panel/PanelTold.php). */

export interface Row {
  says: string
  row: Record<string, string | number | boolean | null>
}
export interface Key {
  id: string
  name: string
  display: string
  press: string | null
  ground: string | null
  ink: string | null
  trouble?: string
  /** Of a key that puts something on a display. */
  zone?: string | null
  for_min?: number | null
  stands?: boolean
  /** Of a key that asks for a signal. */
  signal?: string
  map?: string
  rows?: Row[]
}
export interface Stands {
  zone: string | null
  name: string
  since: string
  until: string | null
}
export interface Shown {
  id: string
  name: string
  raster: { width: number; height: number }
  plays: string | null
  status: 'unbound' | 'silent' | 'troubled' | 'blank' | 'changing' | 'plays'
  says: string
  release: { number: number; url: string } | null
  stands: Stands[]
  answers: { map: string; state: string; why: string; since: string }[]
  maps: Record<string, string>
  asked: { id: string; signal: string; said_at: string; said_by: string | null; taken: boolean } | null
}
export interface Told {
  name: string
  groups: { name: string; keys: Key[] }[]
  displays: Shown[]
}

/** So long a player that is there has to take what it is asked for, ms: it looks every 2 s. */
const PATIENCE_MS = 10_000

/** Where a key is: nothing of it, on its way, there and said by the player, or not known. */
export type State = { is: 'off' | 'asked' | 'on' | 'lost'; says: string }

/**
 * @param pressed what was pressed here last on that display, and when, Unix ms
 * @param now Unix ms
 */
export function stateOf(key: Key, shown: Shown | undefined, pressed: { key: string; id: string; at: number } | null, now: number): State {
  if (!shown) return { is: 'off', says: '' }
  const mine = pressed?.key === key.id ? pressed : null
  const isSilent = shown.status === 'silent' || shown.status === 'unbound'
  if (key.signal === undefined) {
    if (key.stands && shown.status === 'plays') return { is: 'on', says: 'stands there' }
    if (key.stands) return { is: isSilent ? 'lost' : 'asked', says: isSilent ? 'the player is silent' : 'on its way' }
    return mine ? { is: 'asked', says: 'being handed over' } : { is: 'off', says: '' }
  }
  const stands = shown.answers.some(({ map, why }) => map === key.map && why === key.signal)
  if (mine && shown.asked?.id === mine.id && !shown.asked.taken && !stands)
    return isSilent || now - mine.at > PATIENCE_MS ? { is: 'lost', says: 'no player has taken it' } : { is: 'asked', says: 'on its way' }
  return stands ? { is: 'on', says: 'stands there' } : { is: 'off', says: '' }
}
