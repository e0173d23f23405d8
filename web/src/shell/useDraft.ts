import { useCallback, useState } from 'react'

/** Text that survives a reload until it was kept: typed words are never lost. */
export function useDraft(name: string): [string, (text: string) => void] {
  const key = `draft:${name}`
  const [text, setText] = useState(() => localStorage.getItem(key) ?? '')
  const change = useCallback(
    (next: string) => {
      setText(next)
      if (next) localStorage.setItem(key, next)
      else localStorage.removeItem(key)
    },
    [key],
  )
  return [text, change]
}
