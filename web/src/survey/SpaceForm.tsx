import { Alert, Button, Modal, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { keepAnswer, keys, useSpace } from '../api/queries'

/** Rename a space, or take it away with all that was read and designed in it. */
export function SpaceForm({
  houseId,
  space,
  onClose,
}: {
  houseId: number
  space: Schemas['SpaceLine']
  onClose: () => void
}) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const version = useSpace(space.id).data?.version ?? 0
  const [name, setName] = useState(space.name)
  const [sure, setSure] = useState(false)
  const at = { path: { space_id: space.id }, query: { version } }
  const settle = () => client.invalidateQueries({ queryKey: keys.house(houseId) })
  const rename = useMutation({
    mutationFn: () => body(api.PATCH('/api/spaces/{space_id}', { params: at, body: { name } })),
    onSuccess: async (next) => {
      keepAnswer(client, keys.space(space.id), next)
      await settle()
      onClose()
    },
  })
  const remove = useMutation({
    mutationFn: () => api.DELETE('/api/spaces/{space_id}', { params: at }),
    onSuccess: async () => {
      await settle()
      onClose()
      void navigate(`/house/${houseId}`)
    },
  })
  const error = rename.error ?? remove.error
  return (
    <Modal opened onClose={onClose} title={space.name}>
      <form
        className="row"
        style={{ alignItems: 'flex-end' }}
        onSubmit={(event) => {
          event.preventDefault()
          rename.mutate()
        }}
      >
        <TextInput
          data-autofocus
          label="Name"
          style={{ flex: 1 }}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" disabled={!name.trim() || name === space.name} loading={rename.isPending}>
          Rename
        </Button>
      </form>
      <div className="row" style={{ marginTop: 18 }}>
        {sure ? (
          <>
            <span>Its readings and designs go for good; its things stay in the house.</span>
            <Button color="red" loading={remove.isPending} onClick={() => remove.mutate()}>
              Take it away
            </Button>
            <Button variant="default" onClick={() => setSure(false)}>
              Keep it
            </Button>
          </>
        ) : (
          <Button variant="default" onClick={() => setSure(true)}>
            Take this space away…
          </Button>
        )}
      </div>
      {error && (
        <Alert color="red" variant="outline" role="alert" mt="sm">
          {said(error)}
        </Alert>
      )}
    </Modal>
  )
}
