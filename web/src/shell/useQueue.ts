import { useCallback, useRef, useState } from 'react'

import { Problem } from '../api/client'
import { useRetry } from './useRetry'

/** Something that waits on this device; `gone` takes back what was sent by that key. */
export interface Waiting {
  key: string
  gone?: boolean
}

function kept<T>(name: string): T[] {
  try {
    const there: unknown = JSON.parse(localStorage.getItem(name) ?? '[]')
    return Array.isArray(there) ? (there as T[]) : []
  } catch {
    return []
  }
}

interface Ways<T> {
  /** Sends one. */
  send: (one: T) => Promise<void>
  /** What is refused would be refused again: it leaves the queue, and is said. */
  onRefused: (one: T, problem: Problem) => void
  /** After something was sent. */
  onSent: () => void
}

/** What is said on a device is kept there first and sent when there is a connection: none is lost, none counts twice. */
export function useQueue<T extends Waiting>(name: string, { send, onRefused, onSent }: Ways<T>) {
  const [waiting, setWaiting] = useState(() => kept<T>(name))
  const sending = useRef(false)
  const put = useCallback(
    (change: (now: T[]) => T[]) => {
      const next = change(kept<T>(name))
      if (next.length > 0) localStorage.setItem(name, JSON.stringify(next))
      else localStorage.removeItem(name)
      setWaiting(next)
    },
    [name],
  )
  const sendAll = useCallback(async () => {
    if (sending.current) return
    sending.current = true
    let sent = 0
    try {
      for (let [next] = kept<T>(name); next; [next] = kept<T>(name)) {
        const one = next
        try {
          await send(one)
        } catch (error) {
          // Without a connection it waits.
          if (!(error instanceof Problem) || error.status === 0 || error.status >= 500) throw error
          onRefused(one, error)
        }
        sent += 1
        put((now) => now.filter((other) => other.key !== one.key || other.gone !== one.gone))
      }
    } finally {
      sending.current = false
      if (sent > 0) onSent()
    }
  }, [name, onRefused, onSent, put, send])
  useRetry(waiting.length, sendAll)
  return { waiting: waiting as readonly T[], put }
}
