import { effectScope } from 'vue'
import { instantTyped } from '../../../web/src/Layout/composer/tide'
import { cut } from '../../../web/src/ui/cut'
import { useDrag } from '../../../web/src/ui/drag'
import { type Cell, nearest, nextCell } from '../../../web/src/ui/roving'

/** A pointer that drags (web/src/ui/drag.ts), lines that are cut (cut.ts), arrows that go through a grid (web/src/ui/roving.ts), and times that are typed. */

const page = new EventTarget()
Object.assign(window, {
  addEventListener: page.addEventListener.bind(page),
  removeEventListener: page.removeEventListener.bind(page),
})
const event = (type: string, fields: object) => Object.assign(new Event(type, { cancelable: true }), { pointerId: 1, ...fields }) as PointerEvent
const send = (type: string, fields: object) => page.dispatchEvent(event(type, fields))

function begun(slip?: number) {
  const scope = effectScope()
  const hand = scope.run(() => useDrag(slip))!
  const log: unknown[] = []
  hand.drag(event('pointerdown', { clientX: 10, clientY: 10 }), {
    move: (e) => log.push(e.clientX),
    end: (e, moved) => log.push(['end', e.clientX, moved]),
    revert: () => log.push('reverted'),
  })
  return { scope, hand, log }
}

export function slips() {
  const { log, hand } = begun()
  send('pointermove', { clientX: 12, clientY: 10 })
  const meanwhile = hand.isDragging.value
  send('pointerup', { clientX: 12, clientY: 10 })
  send('pointermove', { clientX: 90, clientY: 10 })
  return [log, meanwhile, hand.isDragging.value]
}

export function drags() {
  const { log } = begun()
  send('pointermove', { clientX: 14, clientY: 10 })
  // Another finger is none of its business.
  send('pointermove', { clientX: 50, clientY: 10, pointerId: 2 })
  send('pointerup', { clientX: 50, clientY: 10, pointerId: 2 })
  // What was more than a slip once stays so.
  send('pointermove', { clientX: 10, clientY: 10 })
  send('pointerup', { clientX: 11, clientY: 10 })
  return log
}

export function isGivenUp() {
  const escape = begun(0)
  send('pointermove', { clientX: 11, clientY: 10 })
  const key = event('keydown', { key: 'Escape' })
  page.dispatchEvent(key)
  send('pointerup', { clientX: 30, clientY: 10 })
  const taken = begun()
  send('pointercancel', {})
  const gone = begun()
  gone.scope.stop()
  send('pointerup', { clientX: 30, clientY: 10 })
  return [escape.log, key.defaultPrevented, taken.log, gone.log]
}

export function instants() {
  const hand = Date.parse('2026-12-01T23:30:00Z')
  const typed = (text: string, zone = 'Europe/Lisbon') => {
    const at = instantTyped(text, hand, zone)
    return at === null ? null : new Date(at).toISOString().slice(0, 19)
  }
  return [typed('14:03'), typed(' 4:03:20 '), typed('2027-07-01 14:03'), typed('8:00', 'Europe/Paris'), typed(''), typed('soon'), typed('25:00')]
}

export function arrows() {
  const row = (row: number, ...edges: [number, number][]): Cell[] => edges.map(([from, to]) => ({ row, from, to }))
  // Two begin at the same place; a row is empty.
  const rows = [row(0, [0, 10], [10, 20], [20, 30]), row(1), row(2, [0, 4], [0, 25], [26, 30])]
  const go = (row: number, cell: number, key: string, ctrl = false) => {
    const next = nextCell(rows, rows[row]![cell]!, key, ctrl)
    return next && [next.row, rows[next.row]!.indexOf(next)]
  }
  return [
    [go(0, 0, 'ArrowRight'), go(0, 0, 'ArrowLeft'), go(0, 2, 'ArrowRight'), go(2, 0, 'ArrowRight'), go(2, 1, 'ArrowLeft')],
    [go(0, 1, 'ArrowDown'), go(0, 2, 'ArrowDown'), go(2, 2, 'ArrowUp'), go(2, 0, 'ArrowDown'), go(0, 0, 'ArrowUp')],
    [go(0, 1, 'Home'), go(0, 1, 'End'), go(2, 1, 'Home', true), go(0, 1, 'End', true), go(0, 1, 'Enter')],
    nearest(rows[0]!, { from: 100, to: 101 }).from,
  ]
}

/** Each letter is 10 px wide here. */
export function cutLines() {
  const measured = (text: string) => 10 * [...text].length
  const within = (text: string, px: number) => cut(text, px, 'words', 12, measured)
  return [within('Tolm', 40), within('Tolm Maid', 89), within('Tolm Maid', 50), within('⛴⛴⛴⛴', 30), within('Tolm', 15), within('', 0)]
}
