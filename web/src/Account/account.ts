export type Role = 'reader' | 'editor' | 'operator' | 'installer' | 'designer' | 'administrator'
/** What each role may do, as people say it. */
export const ROLES: Record<Role, string> = {
  reader: 'looks',
  editor: 'fills in, and hands that over',
  operator: 'hands over all there is, puts back',
  installer: 'surveys displays, binds players',
  designer: 'makes all documents, styles and settings, and hands them over',
  administrator: 'does everything, accounts too',
}

export interface AccountState {
  login: string
  name: string
  roles: { role: Role; place: string | null; place_name: string | null }[]
  /** When a guest goes. */
  ends_at: string | null
  seen_at: string | null
}

export const inWords = ({ role, place, place_name }: AccountState['roles'][number]): string =>
  `${role} ${place === null ? 'everywhere' : `at ${place_name ?? place}`}`

/** What a browser calls itself, in a few words. */
export function browser(agent: string): string {
  const name = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1] ?? 'a browser'
  const on = /(Windows|Macintosh|Android|iPhone|iPad|Linux)/.exec(agent)?.[1]
  return `${name === 'Edg' ? 'Edge' : name}${on ? ` on ${on}` : ''}`
}
