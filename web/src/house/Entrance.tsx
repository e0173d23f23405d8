import { Alert, Button, Divider, PasswordInput, Stack, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said } from '../api/client'
import { forgetAll, keys } from '../api/queries'

/** Signing in, registering, and the button into the demo house. */
export function Entrance({ demo }: { demo: boolean }) {
  const client = useQueryClient()
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const enter = useMutation({
    mutationFn: (way: 'sign in' | 'register' | 'demo') => {
      const credentials = { body: { name, password } }
      if (way === 'demo') return body(api.POST('/api/session/demo'))
      if (way === 'register') return body(api.POST('/api/session/register', credentials))
      return body(api.POST('/api/session', credentials))
    },
    onSuccess: (session) => {
      forgetAll(client)
      client.setQueryData(keys.session, session)
    },
  })
  const ready = name.trim() !== '' && password !== ''
  return (
    <main className="front">
      <div className="card">
        <h1>Pinakotheke</h1>
        <p className="motto">From the tape to the shopping list.</p>
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
            {enter.isError && (
              <Alert color="red" variant="outline" role="alert">
                {said(enter.error)}
              </Alert>
            )}
            <Stack gap="xs">
              <Button type="submit" disabled={!ready} loading={enter.isPending}>
                Sign in
              </Button>
              <Button variant="default" disabled={!ready} onClick={() => enter.mutate('register')}>
                Register
              </Button>
            </Stack>
            {demo && (
              <>
                <Divider label="or" />
                <Button variant="light" onClick={() => enter.mutate('demo')}>
                  Enter the demo house
                </Button>
              </>
            )}
          </Stack>
        </form>
      </div>
    </main>
  )
}
