import { useLocalStorage } from '@vueuse/core'

/** Keys of one letter or sign can be turned off (WCAG 2.1.4), in the list that ? opens. */
export const singleKeys = useLocalStorage('upper-pane:single-keys', true)

/**
 * Whether a key that was pressed may act: not while something is typed, nor in a dialogue. One of a letter or sign alone acts only where it is
 * meant, or where nothing has the focus.
 *
 * @param within CSS selector of where it is meant
 */
export function mayAct(e: KeyboardEvent, within = '*'): boolean {
  const target = e.target instanceof HTMLElement ? e.target : document.body
  if (target.closest('input, textarea, select, [contenteditable], .modal')) return false
  const isSingle = e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey
  return !isSingle || (singleKeys.value && (target === document.body || target.closest(within) !== null))
}
