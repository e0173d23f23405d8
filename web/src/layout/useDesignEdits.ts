import { notifications } from '@mantine/notifications'
import { useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'

import { api, body, Problem, said, type Schemas } from '../api/client'
import { keepAnswer, keys, relabel, useForget } from '../api/queries'

type Design = Schemas['DesignView']
export type Command = Schemas['EditAt']['command']

export interface DesignEdits {
  edit: (command: Command) => Promise<Design | null>
  undo: () => Promise<Design | null>
  redo: () => Promise<Design | null>
}

/** Hand edits of a design, one after the other in the order they were made, each on the version the last one left. */
export function useDesignEdits(spaceId: number, designId: number | null): DesignEdits {
  const client = useQueryClient()
  const forget = useForget(spaceId)
  const queue = useRef<Promise<unknown>>(Promise.resolve())
  const waiting = useRef(0)

  const settle = (design: Design) => {
    keepAnswer(client, keys.design(design.id), design)
    client.setQueryData<Schemas['SpaceLedger']>([...keys.ledger(spaceId), design.id], (before) =>
      before ? { ...before, ledger: design.ledger } : before,
    )
  }
  const send = async (ask: (path: { design_id: number }, version: number) => Promise<Design>) => {
    const seen = designId === null ? undefined : client.getQueryData<Design>(keys.design(designId))
    if (!seen) return null
    try {
      const design = await ask({ design_id: seen.id }, seen.version)
      settle(design)
      return design
    } catch (error) {
      notifications.show({ color: 'red', message: said(error) })
      // Someone else changed it: show theirs.
      if (error instanceof Problem && error.status === 409) {
        await client.invalidateQueries({ queryKey: keys.design(seen.id) })
      }
      return null
    }
  }
  const inTurn = (ask: Parameters<typeof send>[0]) => {
    waiting.current += 1
    const turn = queue.current.then(() => send(ask))
    queue.current = turn.finally(() => {
      waiting.current -= 1
      if (waiting.current > 0) return
      forget('ledger')
      if (designId !== null)
        void relabel(client, spaceId, designId).catch(() => {
          forget('gallery')
        })
    })
    return turn
  }

  return {
    edit: (command) =>
      inTurn((path, version) =>
        body(api.POST('/api/designs/{design_id}/edits', { params: { path }, body: { version, command } })),
      ),
    undo: () =>
      inTurn((path, version) =>
        body(api.POST('/api/designs/{design_id}/undo', { params: { path }, body: { version } })),
      ),
    redo: () =>
      inTurn((path, version) =>
        body(api.POST('/api/designs/{design_id}/redo', { params: { path }, body: { version } })),
      ),
  }
}
