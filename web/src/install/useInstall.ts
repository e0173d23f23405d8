import { notifications } from '@mantine/notifications'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'

import { api, body, said, type Schemas } from '../api/client'
import { keepAnswer, keys } from '../api/queries'
import { useUndo } from '../shell/undo'

export type Plan = Schemas['InstallView']
export type Step = Schemas['StepView']
type Choice = Schemas['ChoiceData']

export const planKey = (design: number) => ['design', design, 'install'] as const

/** The plan at the wall; `version` is the design's, so that it is made anew when the design was edited. */
export function useInstall(design: number, version: number) {
  return useQuery({
    queryKey: [...planKey(design), version],
    queryFn: () =>
      body(api.GET('/api/designs/{design_id}/install', { params: { path: { design_id: design } } })),
    placeholderData: keepPreviousData,
    // At the wall the connection comes and goes; what is here is good until something was ticked.
    staleTime: 30_000,
  })
}

/** What is said of the work: each change is kept at once, and can be taken back. */
export function useChoice(spaceId: number, design: number, version: number, plan: Plan) {
  const client = useQueryClient()
  const undo = useUndo()
  const put = async (choice: Choice) => {
    const now = client.getQueryData<Plan>([...planKey(design), version]) ?? plan
    const answer = await body(
      api.PUT('/api/designs/{design_id}/install', {
        params: { path: { design_id: design } },
        body: { ...choice, version: now.space_version },
      }),
    )
    keepAnswer(client, [...planKey(design), version], answer)
    void client.invalidateQueries({ queryKey: keys.space(spaceId) })
  }
  const key = [...planKey(design), version]
  const choice = () => (client.getQueryData<Plan>(key) ?? plan).choice
  const mutation = useMutation({
    // One after the other: each is based on the version that the one before it made.
    scope: { id: `install-${String(design)}` },
    mutationFn: async ({ before, change, label }: Said) => {
      const after = { ...choice(), ...change }
      await put(after)
      undo.did({ label, undo: () => put(before), redo: () => put(after) })
    },
    onError: (error) => {
      notifications.show({ color: 'red', message: said(error) })
      void client.invalidateQueries({ queryKey: planKey(design) })
    },
  })
  return {
    /** It stands on the page at once, and is taken back there if it is refused. */
    say: (change: Partial<Choice>, label: string) => {
      const before = choice()
      client.setQueryData<Plan>(key, (now) => now && { ...now, choice: { ...now.choice, ...change } })
      mutation.mutate({ before, change, label })
    },
  }
}

interface Said {
  before: Choice
  change: Partial<Choice>
  label: string
}
