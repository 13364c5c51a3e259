import type { Heard } from '../formats/report'
import type { Raw } from './answering'

/** So many different things are remembered; what was not heard for the longest time goes. */
export const MOST = 40
/** As the report tells it. */
const NAMES = ['sensor', 'button', 'band', 'mm', 'key', 'signal', 'source', 'field', 'value', 'touch'] as const

/** What was said before the display since the page began: what each sensor, button and key is called by itself. */
export class Hearsay {
  private readonly all = new Map<string, Heard>()

  /** @param known whether any map that runs there could hear it */
  hear(said: Raw, at: number, known: boolean): void {
    const one = Object.fromEntries(NAMES.flatMap((name) => (said[name] === undefined ? [] : [[name, plain(said[name])]])))
    if (Object.keys(one).length === 0) return
    // Distances of one sensor are one thing; so are touches, and figures of a field.
    const key = JSON.stringify({ ...one, mm: 'mm' in one, value: 'value' in one, touch: 'touch' in one })
    const times = (this.all.get(key)?.times ?? 0) + 1
    this.all.delete(key)
    this.all.set(key, { said: one, last: new Date(Math.round(at)).toISOString(), times, known })
    if (this.all.size > MOST) this.all.delete(this.all.keys().next().value!)
  }

  /** The last first. */
  told(): Heard[] {
    return [...this.all.values()].reverse()
  }
}

function plain(value: unknown): string | number | boolean | null {
  if (typeof value === 'number' || typeof value === 'boolean' || value === null) return value
  return (typeof value === 'string' ? value : (JSON.stringify(value) ?? '')).slice(0, 80)
}
