import { notifications } from '@mantine/notifications'
import { useQueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'

import { api, type Problem, said } from '../api/client'
import { keys } from '../api/queries'
import { useQueue } from '../shell/useQueue'
import type { Place } from './useUpkeep'

interface Tick {
  key: string
  place: number
  filled: boolean
}

export interface Filled {
  waiting: number
  is: (place: Place) => boolean
  say: (place: Place, filled: boolean) => void
}

/** Which places are filled: ticks wait on the device while there is no connection. */
export function useFilled(space: number): Filled {
  const client = useQueryClient()
  const send = useCallback(async ({ place, filled }: Tick) => {
    await api.PUT('/api/places/{place_id}/filled', {
      params: { path: { place_id: place } },
      body: { filled },
    })
  }, [])
  const onRefused = useCallback(
    (_: Tick, problem: Problem) => notifications.show({ color: 'red', message: said(problem) }),
    [],
  )
  const onSent = useCallback(() => {
    void client.invalidateQueries({ queryKey: keys.upkeep(space) })
    void client.invalidateQueries({ queryKey: ['log'] })
  }, [client, space])
  const { waiting, put } = useQueue<Tick>(`filled:${String(space)}`, { send, onRefused, onSent })
  return {
    waiting: waiting.length,
    is: (place) => waiting.find((one) => one.place === place.id)?.filled ?? place.filled_on !== '',
    say: (place, filled) =>
      put((now) => [
        ...now.filter((one) => one.place !== place.id),
        { key: `${String(place.id)}-${String(filled)}`, place: place.id, filled },
      ]),
  }
}
