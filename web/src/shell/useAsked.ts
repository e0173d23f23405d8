import { useCallback } from 'react'
import { useSearchParams } from 'react-router'

/** What the address asks a stage to show, and how to ask for something else: a null takes it out. No step back is made of it. */
export function useAsked(): [URLSearchParams, (change: Readonly<Record<string, string | null>>) => void] {
  const [asked, setAsked] = useSearchParams()
  const ask = useCallback(
    (change: Readonly<Record<string, string | null>>) =>
      setAsked(
        (before) => {
          const after = new URLSearchParams(before)
          for (const [name, value] of Object.entries(change)) {
            if (value === null) after.delete(name)
            else after.set(name, value)
          }
          return after
        },
        { replace: true },
      ),
    [setAsked],
  )
  return [asked, ask]
}
