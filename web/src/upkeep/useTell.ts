import { notifications } from '@mantine/notifications'
import { useQueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'

import { said } from '../api/client'

/** What an act of keeping may touch: all of it is asked for again where it is shown. */
const TOUCHED = [
  'seasons',
  'review',
  'before-after',
  'upkeep',
  'restock',
  'things',
  'ledger',
  'space',
  'found',
  'log',
]

/** Carries out an act, says what went wrong, and asks again for what it may have touched. */
export function useTell() {
  const client = useQueryClient()
  return useCallback(
    async (act: () => Promise<unknown>): Promise<boolean> => {
      try {
        await act()
        return true
      } catch (error) {
        notifications.show({ color: 'red', message: said(error) })
        return false
      } finally {
        await Promise.all(TOUCHED.map((name) => client.invalidateQueries({ queryKey: [name] })))
      }
    },
    [client],
  )
}
