import { useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'

import { api, body, Problem, type Schemas } from '../api/client'
import { keepAnswer, keys, useForget } from '../api/queries'
import { useUndo } from '../shell/undo'
import type { Waiting } from './useWaiting'
import { message, type Message } from './waiting'

type Space = Schemas['SpaceView']

export interface SurveyChange {
  /** Keep one reading at a place; null while it waits on the device for a connection. */
  read: (slot: Schemas['SlotRef'], text: string, label: string) => Promise<Space | null>
  /** Keep what is understood of a call-out line; null while it waits. */
  callOut: (line: string, section?: string) => Promise<Schemas['HeardAndSpace'] | null>
  /** Take back a reading or an obstacle by its id. */
  remove: (id: string, label: string) => Promise<Space>
  /** Put another survey in place of this one. */
  replace: (survey: Schemas['Survey'], label: string) => Promise<Space>
  /** Any other change of the space, based on the version seen. */
  act: (label: string, ask: (version: number) => Promise<Space>) => Promise<Space>
}

/** Changes of a survey: each based on the version seen, each a step that can be undone. */
export function useSurveyChange(spaceId: number, waiting: Waiting): SurveyChange {
  const client = useQueryClient()
  const forget = useForget(spaceId)
  const undo = useUndo()
  const last = useRef<Promise<unknown>>(Promise.resolve())
  const path = { space_id: spaceId }

  const seen = (): Space => {
    const space = client.getQueryData<Space>(keys.space(spaceId))
    if (!space)
      throw new Problem(0, { title: 'The space is not loaded yet.', mend: 'Try again in a moment.' })
    return space
  }
  const settle = (space: Space) => {
    keepAnswer(client, keys.space(spaceId), space)
    forget('ledger', 'gallery', 'designs')
  }
  const put = async (survey: Schemas['Survey']) => {
    const space = await body(
      api.PUT('/api/spaces/{space_id}/survey', {
        params: { path },
        body: { version: seen().version, survey },
      }),
    )
    settle(space)
    return space
  }
  // One after the other: each change is based on the version that the one before it left.
  const act = <T>(label: string, ask: (version: number) => Promise<T>, spaceOf: (answer: T) => Space) => {
    const turn = last.current.then(() => carryOut(label, ask, spaceOf))
    last.current = turn.catch(() => undefined)
    return turn
  }
  const carryOut = async <T>(
    label: string,
    ask: (version: number) => Promise<T>,
    spaceOf: (answer: T) => Space,
  ) => {
    const before = seen()
    try {
      const answer = await ask(before.version)
      const after = spaceOf(answer)
      settle(after)
      if (after.version !== before.version) {
        undo.did({ label, undo: () => put(before.survey), redo: () => put(after.survey) })
      }
      return answer
    } catch (error) {
      // Someone else changed it: show theirs before anything is asked again, and keep what was typed.
      if (error instanceof Problem && error.status === 409)
        await client.invalidateQueries({ queryKey: keys.space(spaceId) })
      throw error
    }
  }
  const itself = (space: Space) => space
  /** Carry out a message at once, or let it wait on the device when the server cannot be reached. */
  const orWait = async <T>(one: Message, ask: () => Promise<T>): Promise<T | null> => {
    try {
      return await ask()
    } catch (error) {
      if (!(error instanceof Problem) || error.status !== 0) throw error
      waiting.add(one)
      return null
    }
  }

  return {
    read: (slot, text, label) => {
      const one = message({ slot, text })
      return orWait(one, () =>
        act(
          label,
          (version) =>
            body(
              api.POST('/api/spaces/{space_id}/readings', {
                params: { path },
                body: { version, slot, text, key: one.key },
              }),
            ),
          itself,
        ),
      )
    },
    callOut: (line, section = '') => {
      const one = message({ line, section })
      return orWait(one, () =>
        act(
          line,
          (version) =>
            body(
              api.POST('/api/spaces/{space_id}/call-out', {
                params: { path },
                body: { version, line, section, key: one.key },
              }),
            ),
          (answer) => answer.space,
        ),
      )
    },
    remove: (key, label) =>
      act(
        label,
        (version) =>
          body(
            api.DELETE('/api/spaces/{space_id}/readings/{key}', {
              params: { path: { ...path, key }, query: { version } },
            }),
          ),
        itself,
      ),
    replace: (survey, label) => act(label, () => put(survey), itself),
    act: (label, ask) => act(label, ask, itself),
  }
}
