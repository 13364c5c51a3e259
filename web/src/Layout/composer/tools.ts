import { KINDS } from '../kinds/kinds'

/** The tools of the pane, in the order of the bar, with the key of each. */
export const TOOLS: { tool: string; name: string; key: string }[] = [
  { tool: 'choose', name: 'choose', key: 'v' },
  ...KINDS.map(({ kind, key }) => ({ tool: kind, name: kind, key })),
]
