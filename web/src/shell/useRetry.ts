import { useEffect } from 'react'

import { Problem } from '../api/client'

const AGAIN_MS = 4000

/** Sends what waits on the device: at once, every few seconds, and when the connection returns, until nothing waits. */
export function useRetry(pending: number, send: () => Promise<unknown>): void {
  useEffect(() => {
    if (pending === 0) return
    const attempt = () => {
      send().catch((error: unknown) => {
        if (!(error instanceof Problem)) throw error
      })
    }
    attempt()
    const timer = setInterval(attempt, AGAIN_MS)
    window.addEventListener('online', attempt)
    return () => {
      clearInterval(timer)
      window.removeEventListener('online', attempt)
    }
  }, [pending, send])
}
