import { Button, Modal, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { api, type Schemas } from '../api/client'
import { keys } from '../api/queries'
import { Refused } from '../shell/Refused'

/** The end of a household: what it has is saved first, and its name is typed. */
export function EndHousehold({ house }: { house: Schemas['HouseView'] }) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [open, setOpen] = useState(false)
  const [name, setName] = useState('')
  const end = useMutation({
    mutationFn: () =>
      api.POST('/api/households/{household_id}/end', {
        params: { path: { household_id: house.id } },
        body: { name },
      }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.session })
      void navigate('/houses')
    },
  })
  return (
    <>
      <h2>Delete the household</h2>
      <p className="small quiet">For good, with its spaces, things, designs, photos and log.</p>
      <Button variant="default" onClick={() => setOpen(true)}>
        Delete {house.name}…
      </Button>
      <Modal opened={open} onClose={() => setOpen(false)} title={`Delete ${house.name}`}>
        <form
          className="stacked"
          onSubmit={(event) => {
            event.preventDefault()
            end.mutate()
          }}
        >
          <p>Nobody can bring it back but you, from its house file.</p>
          <Button component="a" href={`/api/households/${house.id}/house-file`} download variant="default">
            Save the house file first
          </Button>
          <TextInput
            label="Type the household’s name"
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Refused error={end.error} />
          <Button type="submit" color="red" disabled={name.trim() !== house.name} loading={end.isPending}>
            Delete it for good
          </Button>
        </form>
      </Modal>
    </>
  )
}
