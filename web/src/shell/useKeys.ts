import { useEffect, useLayoutEffect, useRef } from 'react'

const FLOATING = '.mantine-Popover-dropdown, .mantine-Menu-dropdown'

export type Keymap = Readonly<Record<string, (event: KeyboardEvent) => void>>

/** Whether the key belongs to the control in focus: all keys in a text, the arrows in a row of radio buttons, `Enter` on
 * a button.
 */
function isTyping({ target, key }: KeyboardEvent): boolean {
  if ((key === 'Enter' || key === ' ') && target instanceof Element && target.closest('button, a, summary'))
    return true
  if (target instanceof HTMLInputElement && /^(radio|checkbox)$/.test(target.type))
    return target.type === 'radio' && key.startsWith('Arrow')
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  )
}

/** Keys of the whole page; none while someone types, with a modifier, or while a dialog is open. */
export function useKeys(keymap: Keymap): void {
  const latest = useRef(keymap)
  // Before the screen changes, so that no key ever acts on what was there before.
  useLayoutEffect(() => {
    latest.current = keymap
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return
      if (document.querySelector('[role="dialog"][data-open], .mantine-Modal-content')) return
      // The first Escape shuts what floats over the page, and nothing else.
      if (event.key === 'Escape' && document.querySelector(FLOATING)) return
      const handler = latest.current[event.key]
      if (!handler) return
      event.preventDefault()
      handler(event)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
