import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useRef, useState } from 'react'

import { api, body, type Schemas } from '../api/client'
import { keepAnswer, keys, useForget } from '../api/queries'
import { useRetry } from '../shell/useRetry'
import { keepWaiting, waitingOf, type Message } from './waiting'

export interface Waiting {
  messages: readonly Message[]
  refused: readonly Schemas['RefusedView'][]
  /** Put a message in the queue; it goes up as soon as there is a connection. */
  add: (...messages: Message[]) => void
  /** Send all that waits now; says what was refused. */
  send: () => Promise<readonly Schemas['RefusedView'][]>
  /** Give up a message that cannot be kept. */
  drop: (key: string) => void
}

/** What was read while the connection was gone: kept on the device, sent when it returns, never lost or doubled. */
export function useWaiting(spaceId: number): Waiting {
  const client = useQueryClient()
  const forget = useForget(spaceId)
  const [messages, setMessages] = useState(() => waitingOf(spaceId))
  const [refused, setRefused] = useState<readonly Schemas['RefusedView'][]>([])
  const sending = useRef(false)

  const put = useCallback(
    (next: Message[]) => {
      keepWaiting(spaceId, next)
      setMessages(next)
    },
    [spaceId],
  )
  const send = useCallback(async () => {
    const now = waitingOf(spaceId)
    if (now.length === 0 || sending.current) return []
    sending.current = true
    try {
      const answer = await body(
        api.POST('/api/spaces/{space_id}/arrivals', {
          params: { path: { space_id: spaceId } },
          body: { messages: now },
        }),
      )
      const bad = new Set(answer.refused.map((one) => one.key))
      const sent = new Set(now.map((one) => one.key))
      put(waitingOf(spaceId).filter((one) => !sent.has(one.key) || bad.has(one.key)))
      setRefused(answer.refused)
      keepAnswer(client, keys.space(spaceId), answer.space)
      forget('ledger', 'gallery', 'designs')
      return answer.refused
    } finally {
      sending.current = false
    }
  }, [client, forget, put, spaceId])

  const pending = messages.filter((one) => !refused.some((bad) => bad.key === one.key)).length
  useRetry(pending, send)

  return {
    messages,
    refused,
    send,
    add: (...more) => put([...waitingOf(spaceId), ...more]),
    drop: (key) => {
      put(waitingOf(spaceId).filter((one) => one.key !== key))
      setRefused((before) => before.filter((one) => one.key !== key))
    },
  }
}
