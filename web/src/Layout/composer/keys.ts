import { useEventListener } from '@vueuse/core'
import { mayAct } from '../../ui/keys'
import type { Composer } from './composer'
import type { Hand } from './hand'
import type { PaneScale } from './paneScale'
import { TOOLS } from './tools'

const ARROWS: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }

/** Where keys of one letter act: on the pane, in the list of what is on it, and at the hand. */
const WITHIN = '.room, .ledger, .tide'

/** The keys of the composer (the list that ? opens). */
export function useComposerKeys(
  composer: Composer,
  hand: Hand,
  pane: () => Pick<PaneScale, 'zoomIn' | 'zoomOut' | 'zoomTo' | 'fit'> | null,
  draw: () => void,
  /** Types over what is chosen; whether it can be. */
  retype: () => boolean,
) {
  useEventListener('keydown', (e: KeyboardEvent) => {
    const target = e.target as HTMLElement
    const view = pane()
    if (!view || !mayAct(e, WITHIN)) return
    // Enter puts what the tool draws into the middle, for hands that use no pointer; on a button it presses that.
    const drawing = composer.tool.value !== 'choose' && !target.closest('button, a')
    const by = e.shiftKey ? 10 : 1
    const acts: Record<string, () => unknown> =
      e.ctrlKey || e.metaKey
        ? {
            c: composer.copy,
            v: composer.paste,
            x: () => (composer.copy(), composer.remove()),
            d: composer.duplicate,
            a: () => composer.choose(composer.elements.value.filter((el) => !el.hidden && !el.locked).map((el) => el.id)),
            g: () => (e.shiftKey ? composer.ungroup() : composer.group()),
          }
        : {
            ...(drawing ? { enter: draw } : target.closest('button, a') ? {} : { enter: retype }),
            f2: retype,
            delete: composer.remove,
            backspace: composer.remove,
            escape: () => (composer.tool.value === 'choose' ? composer.choose([]) : (composer.tool.value = 'choose')),
            h: () => composer.toggle('hidden'),
            l: () => composer.toggle('locked'),
            ']': () => composer.restack(1),
            '[': () => composer.restack(-1),
            '}': () => composer.restack(Infinity),
            '{': () => composer.restack(-Infinity),
            '+': () => view.zoomIn(),
            '=': () => view.zoomIn(),
            '-': () => view.zoomOut(),
            '0': view.fit,
            '1': () => view.zoomTo(1),
            ' ': () => (hand.running.value = !hand.running.value),
            ',': () => hand.to(hand.at.value - 1000),
            '.': () => hand.to(hand.at.value + 1000),
            '<': () => hand.toChange(false),
            '>': () => hand.toChange(true),
            ...Object.fromEntries(TOOLS.map((t) => [t.key, () => (composer.tool.value = t.tool)])),
            ...Object.fromEntries(Object.entries(ARROWS).map(([key, [dx, dy]]) => [key.toLowerCase(), () => composer.nudge(dx * by, dy * by)])),
          }
    const act = acts[e.key.toLowerCase()]
    if (!act || (e.key === ' ' && target.closest('button, a'))) return
    e.preventDefault()
    act()
  })
}
