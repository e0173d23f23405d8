import { Alert, Button, Divider, PasswordInput, Stack, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, body } from '../api/client'
import { forgetAll, keys } from '../api/queries'
import { Refused } from '../shell/Refused'
import closet from './closet.svg'

/** What this is, in a picture and three sentences; the way into the demo house; signing in and registering. */
export function Entrance({ demo, notice = '' }: { demo: boolean; notice?: string }) {
  const client = useQueryClient()
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const enter = useMutation({
    mutationFn: (way: 'sign in' | 'register' | 'demo') => {
      const credentials = { body: { name, password } }
      if (way === 'demo') return body(api.POST('/api/session/demo'))
      if (way === 'register')
        return body(api.POST('/api/session/register', { body: { name, password, email: '' } }))
      return body(api.POST('/api/session', credentials))
    },
    onSuccess: (session) => {
      forgetAll(client)
      client.setQueryData(keys.session, session)
    },
  })
  const ready = name.trim() !== '' && password !== ''
  return (
    <main className="front entrance">
      <figure className="entrance-picture">
        <img src={closet} alt="A closet from the front, to scale: what hangs, lies and stands in it" />
      </figure>
      <div className="card">
        <h1>Pinakotheke</h1>
        <p className="motto">From the tape to the shopping list.</p>
        <p>
          Measure a closet, a wall, a drawer or a garage, and say what is to be kept. Complete designs are
          found that hold all of it, each proven to fit. Bend them by hand, and take the priced list to the
          shop.
        </p>
        {notice && (
          <Alert variant="outline" mb="md" role="status">
            {notice}
          </Alert>
        )}
        {demo && (
          <>
            <Button fullWidth loading={enter.isPending} onClick={() => enter.mutate('demo')}>
              Enter the demo house
            </Button>
            <Divider label="or with a house of your own" my="md" />
          </>
        )}
        <form
          onSubmit={(event) => {
            event.preventDefault()
            if (ready) enter.mutate('sign in')
          }}
        >
          <Stack gap="sm">
            <TextInput
              label="Name"
              autoComplete="username"
              value={name}
              onChange={(event) => setName(event.currentTarget.value)}
            />
            <PasswordInput
              label="Password"
              description="Eight characters or more to register."
              autoComplete="current-password"
              value={password}
              onChange={(event) => setPassword(event.currentTarget.value)}
            />
            <Refused error={enter.error} />
            <Stack gap="xs">
              <Button type="submit" variant="default" disabled={!ready} loading={enter.isPending}>
                Sign in
              </Button>
              <Button variant="default" disabled={!ready} onClick={() => enter.mutate('register')}>
                Register
              </Button>
              <Link to="/forgotten" className="small">
                Password forgotten?
              </Link>
            </Stack>
          </Stack>
        </form>
      </div>
    </main>
  )
}
