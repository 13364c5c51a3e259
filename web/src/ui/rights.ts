import type { App } from 'vue'
import { useSession } from './session'

/** What somebody may do, as the server tells it; it holds there as well, whatever a page shows. */
export type Right = 'look' | 'fill-in' | 'hand-over' | 'survey' | 'design' | 'administer'

/** Whether whoever is signed in has a right: anywhere, or at a place. */
export function may(right: Right, place?: string): boolean {
  const where = useSession().account?.rights[right]
  return where === true || (where !== undefined && (place === undefined || where.includes(place)))
}

/** In templates: what one may not do is not offered. */
export const rights = { install: (app: App) => void (app.config.globalProperties.$may = may) }
declare module 'vue' {
  interface ComponentCustomProperties {
    $may: typeof may
  }
}
