import { useEffect } from 'react'

export type Keymap = Readonly<Record<string, (event: KeyboardEvent) => void>>

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}

/** Keys of the whole page; none while someone types, with a modifier, or while a dialog is open. */
export function useKeys(keymap: Keymap): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      if (document.querySelector('[role="dialog"][data-open], .mantine-Modal-content')) return
      const handler = keymap[event.key]
      if (!handler) return
      event.preventDefault()
      handler(event)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [keymap])
}
