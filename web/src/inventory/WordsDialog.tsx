import { Button, Modal } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'

import { api, body } from '../api/client'
import { Fetched } from '../shell/Fetched'

/** What this house calls its things, learned from what was put right. */
export function WordsDialog({ houseId, onClose }: { houseId: number; onClose: () => void }) {
  const client = useQueryClient()
  const key = ['words', houseId]
  const path = { household_id: houseId }
  const words = useQuery({
    queryKey: key,
    queryFn: () => body(api.GET('/api/households/{household_id}/words', { params: { path } })),
  })
  const forget = async (word: string) => {
    await api.DELETE('/api/households/{household_id}/words', { params: { path, query: { word } } })
    await client.invalidateQueries({ queryKey: key })
  }
  return (
    <Modal opened onClose={onClose} title="Words of this house">
      <Fetched query={words} waiting="Fetching the words">
        {({ words: found }) =>
          found.length === 0 ? (
            <p className="quiet">
              None yet. When you say what a guessed group is, or give it a size, its name is known from then
              on.
            </p>
          ) : (
            <table className="table">
              <thead>
                <tr>
                  <th>Word</th>
                  <th>Means</th>
                  <th>
                    <span className="visually-hidden">Acts</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {found.map((row) => (
                  <tr key={row.word}>
                    <td>{row.word}</td>
                    <td>{[row.kind_name, row.size].filter(Boolean).join(', ')}</td>
                    <td>
                      <Button size="compact-xs" variant="default" onClick={() => void forget(row.word)}>
                        Forget
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )
        }
      </Fetched>
    </Modal>
  )
}
