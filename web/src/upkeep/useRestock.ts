import { notifications } from '@mantine/notifications'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useState } from 'react'

import { api, body, type Problem, said, type Schemas } from '../api/client'
import { useUndo } from '../shell/undo'
import { useQueue } from '../shell/useQueue'
import { newKey } from '../survey/waiting'

export type RestockData = Schemas['RestockView']
export type Supply = Schemas['SupplyView']
type Said = Schemas['MovementData'] & { supply: string; gone?: boolean }

const restockKey = (house: number) => ['restock', house] as const

/** What is used up in the household. */
export function useRestock(house: number) {
  return useQuery({
    queryKey: restockKey(house),
    queryFn: () =>
      body(api.GET('/api/households/{household_id}/restock', { params: { path: { household_id: house } } })),
    placeholderData: keepPreviousData,
    // In the cellar the connection comes and goes; what is here is good until something was ticked.
    staleTime: 30_000,
  })
}

/** What is taken and bought waits on the device until it is told; how much is kept is told at once. */
export function useRestocking(house: number) {
  const client = useQueryClient()
  const undo = useUndo()
  const [refused, setRefused] = useState('')
  const answered = useCallback(
    (view: RestockData) => client.setQueryData<RestockData>(restockKey(house), view),
    [client, house],
  )
  const send = useCallback(
    async ({ gone, supply, ...movement }: Said) => {
      const path = { household_id: house, key: gone ? movement.key : supply }
      answered(
        await body(
          gone
            ? api.DELETE('/api/households/{household_id}/movements/{key}', { params: { path } })
            : api.POST('/api/households/{household_id}/supplies/{key}/movements', {
                params: { path },
                body: movement,
              }),
        ),
      )
    },
    [answered, house],
  )
  const onRefused = useCallback((_: Said, problem: Problem) => setRefused(said(problem)), [])
  const onSent = useCallback(() => {
    void client.invalidateQueries({ queryKey: ['upkeep'] })
    void client.invalidateQueries({ queryKey: ['log'] })
  }, [client])
  const { waiting, put } = useQueue<Said>(`restock:${String(house)}`, { send, onRefused, onSent })

  const back = (one: Said) =>
    put((now) =>
      now.some((other) => other.key === one.key && !other.gone)
        ? now.filter((other) => other.key !== one.key)
        : [...now, { ...one, gone: true }],
    )
  const tell = async (act: Promise<{ data?: RestockData | undefined }>): Promise<boolean> => {
    try {
      answered(await body(act))
      onSent()
      return true
    } catch (error) {
      notifications.show({ color: 'red', message: said(error) })
      return false
    }
  }
  const watch = (kept: Schemas['SupplyData']) =>
    tell(
      api.PUT('/api/households/{household_id}/supplies', {
        params: { path: { household_id: house } },
        body: kept,
      }),
    )
  return {
    waiting,
    refused,
    /** So many were bought, taken, thrown away or counted. */
    did: (supply: Supply, did: Said['did'], more: Partial<Said> = {}) => {
      const one: Said = {
        supply: supply.key,
        key: newKey(),
        did,
        count: 1,
        on: today(),
        best_before: '',
        ...more,
      }
      setRefused('')
      put((now) => [...now, one])
      undo.did({
        label: `${supply.name} ${did}`,
        undo: () => Promise.resolve(back(one)),
        redo: () => Promise.resolve(put((now) => [...now.filter((other) => other.key !== one.key), one])),
      })
    },
    /** It did not happen after all. */
    back: (supply: Supply, { key, count, on, best_before, did }: Schemas['MovementView']) =>
      back({ supply: supply.key, key, count, on, best_before, did: did as Said['did'] }),
    watch,
    unwatch: (supply: Supply) =>
      tell(
        api.DELETE('/api/households/{household_id}/supplies/{key}', {
          params: { path: { household_id: house, key: supply.key } },
        }),
      ),
  }
}

export type Restocking = ReturnType<typeof useRestocking>

/** The day here, not in Greenwich. */
function today(): string {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}
