import type { Tool } from './composer'

/** The tools of the pane, in the order of the bar, with the key of each. */
export const TOOLS: { tool: Tool; name: string; key: string }[] = [
  { tool: 'choose', name: 'choose', key: 'v' },
  { tool: 'zone', name: 'zone', key: 'z' },
  { tool: 'text', name: 'text', key: 't' },
  { tool: 'shape', name: 'shape', key: 's' },
  { tool: 'picture', name: 'picture', key: 'p' },
  { tool: 'clock', name: 'clock', key: 'k' },
  { tool: 'code', name: 'code', key: 'q' },
  { tool: 'ticker', name: 'ticker', key: 'r' },
]
