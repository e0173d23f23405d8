import { notifications } from '@mantine/notifications'
import { useMutation, useQueryClient } from '@tanstack/react-query'

import { said, type Schemas } from '../api/client'
import { keepAnswer, keys } from '../api/queries'

type Work = Schemas['WorkView']

export interface WorkPanelProps {
  houseId: number
  work: Work
}

export const failed = (error: unknown) => notifications.show({ color: 'red', message: said(error) })

/** Carries out a change of the plan and shows what the server made of it. */
export function useWorkChange(houseId: number) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (act: () => Promise<Work>) => act(),
    onSuccess: (work) => {
      keepAnswer(client, keys.work(houseId), work)
      void client.invalidateQueries({ queryKey: ['homes'] })
      void client.invalidateQueries({ queryKey: ['space'] })
      void client.invalidateQueries({ queryKey: ['things'] })
    },
    onError: failed,
  })
}
