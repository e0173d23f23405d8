import { Alert, Button, FileButton, SegmentedControl, Stack, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'

import { api, body, Problem, said, type Schemas } from '../api/client'
import { forgetAll, keys } from '../api/queries'
import { Invitations } from './Invitations'
import { Standing } from './Standing'

/** The households one may enter; a new one; one from a house file. */
export function Houses({ session }: { session: Schemas['SessionView'] }) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [name, setName] = useState('')
  const [units, setUnits] = useState<'metric' | 'imperial'>('metric')
  const entered = {
    onSuccess: (house: { id: number }) => {
      void client.invalidateQueries({ queryKey: keys.session })
      void navigate(`/house/${house.id}`)
    },
  }
  const create = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/households', { body: { name, units, currency: units === 'metric' ? 'EUR' : 'USD' } }),
      ),
    ...entered,
  })
  const bring = useMutation({
    mutationFn: async (file: File) => {
      const form = new FormData()
      form.append('file', file)
      return readIn(
        await body(api.POST('/api/house-file', { body: form as never, bodySerializer: () => form })),
      )
    },
    ...entered,
  })
  const leave = useMutation({
    mutationFn: () => api.DELETE('/api/session'),
    onSuccess: async () => {
      forgetAll(client)
      await client.invalidateQueries({ queryKey: keys.session })
      void navigate('/')
    },
  })
  const error = create.error ?? bring.error
  return (
    <main className="front">
      <div className="card">
        <h1>Households</h1>
        <p className="motto">{session.user}</p>
        {session.invitations > 0 && <Invitations />}
        <Stack gap="xs" mb="lg">
          <Standing households={session.households} />
          {session.households.length === 0 && (
            <p className="quiet">You have no household yet. Name one to begin.</p>
          )}
        </Stack>
        <form
          onSubmit={(event) => {
            event.preventDefault()
            create.mutate()
          }}
        >
          <Stack gap="sm">
            <TextInput
              label="New household"
              placeholder="The Halt"
              value={name}
              onChange={(event) => setName(event.currentTarget.value)}
            />
            <SegmentedControl
              aria-label="Units"
              value={units}
              onChange={(value) => setUnits(value === 'imperial' ? 'imperial' : 'metric')}
              data={[
                { value: 'metric', label: 'Millimetres' },
                { value: 'imperial', label: 'Feet and inches' },
              ]}
            />
            {error && (
              <Alert color="red" variant="outline" role="alert">
                {said(error)}
                {error instanceof Problem && error.faults.length > 1 && (
                  <ul>
                    {error.faults.slice(0, 6).map((fault) => (
                      <li key={fault}>{fault}</li>
                    ))}
                  </ul>
                )}
              </Alert>
            )}
            <Button type="submit" disabled={!name.trim()} loading={create.isPending}>
              Create household
            </Button>
            <FileButton accept=".json,application/json" onChange={(file) => file && bring.mutate(file)}>
              {(props) => (
                <Button {...props} variant="default" loading={bring.isPending}>
                  Bring a house file
                </Button>
              )}
            </FileButton>
            <Button component={Link} to="/account" variant="subtle">
              Your account
            </Button>
            <Button variant="subtle" onClick={() => leave.mutate()}>
              Sign out
            </Button>
          </Stack>
        </form>
      </div>
    </main>
  )
}

const AGAIN_MS = 300

/** Waits until a house file has been read, and says the house it made, or its faults. */
async function readIn(brought: Schemas['ImportView']): Promise<{ id: number }> {
  let now = brought
  while (now.status === 'waiting') {
    await new Promise((go) => setTimeout(go, AGAIN_MS))
    now = await body(api.GET('/api/house-file/{import_id}', { params: { path: { import_id: brought.id } } }))
  }
  if (now.household === null) {
    const detail = now.faults[0] ?? ''
    throw new Problem(422, {
      title: now.problem,
      detail,
      mend: 'Mend the file and choose it again.',
      faults: now.faults,
    })
  }
  return { id: now.household }
}
