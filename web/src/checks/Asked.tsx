import { Button } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useQueryClient } from '@tanstack/react-query'

import { api, body, said, type Schemas } from '../api/client'
import { useUndo } from '../shell/undo'

type Says = 'yes' | 'no' | null

/** A question that only a person can answer: yes or no, kept with name and date; an answer can be taken back. */
export function Asked({
  asks,
  spaceId,
  spaceVersion,
  designId,
}: {
  asks: NonNullable<Schemas['CheckedView']['asks']>
  spaceId: number
  spaceVersion: number
  designId: number
}) {
  const client = useQueryClient()
  const undo = useUndo()
  const key = ['design', designId, 'checks']
  const put = async (says: Says) => {
    const known = client
      .getQueriesData<Schemas['ChecksView']>({ queryKey: key })
      .map(([, data]) => data?.space_version ?? 0)
    try {
      await body(
        api.POST('/api/spaces/{space_id}/answers', {
          params: { path: { space_id: spaceId } },
          body: {
            version: Math.max(spaceVersion, ...known),
            question: asks.question,
            about: asks.about,
            says,
            note: '',
          },
        }),
      )
    } finally {
      await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'vocabulary' })
    }
  }
  const answer = (says: Says) =>
    put(says)
      .then(() => {
        undo.did({ label: 'answer', undo: () => put(asks.says), redo: () => put(says) })
      })
      .catch((problem: unknown) => notifications.show({ color: 'red', message: said(problem) }))
  return (
    <span className="row tight answers">
      {(['yes', 'no'] as const).map((says) => (
        <Button
          key={says}
          size="compact-xs"
          variant="default"
          aria-pressed={asks.says === says}
          onClick={() => void answer(says)}
        >
          {says === 'yes' ? 'Yes' : 'No'}
        </Button>
      ))}
      {asks.says !== null && (
        <Button size="compact-xs" variant="subtle" onClick={() => void answer(null)}>
          Ask again
        </Button>
      )}
    </span>
  )
}
