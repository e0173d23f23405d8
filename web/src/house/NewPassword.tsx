import { Button, PasswordInput, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'

import { api, body } from '../api/client'
import { forgetAll, keys } from '../api/queries'
import { Refused } from '../shell/Refused'

/** Where a letter's link leads: a new password. */
export function NewPassword() {
  const { uid = '', token = '' } = useParams()
  const client = useQueryClient()
  const navigate = useNavigate()
  const [password, setPassword] = useState('')
  const reset = useMutation({
    mutationFn: () => body(api.POST('/api/session/reset', { body: { uid, token, password } })),
    onSuccess: (session) => {
      forgetAll(client)
      client.setQueryData(keys.session, session)
      void navigate('/houses')
    },
  })
  return (
    <main className="front">
      <div className="card">
        <h1>A new password</h1>
        <form
          className="stacked"
          onSubmit={(event) => {
            event.preventDefault()
            reset.mutate()
          }}
        >
          <PasswordInput
            label="New password"
            description="Eight characters or more."
            autoComplete="new-password"
            value={password}
            onChange={(event) => setPassword(event.currentTarget.value)}
          />
          <Refused error={reset.error} />
          <Button type="submit" disabled={!password} loading={reset.isPending}>
            Keep it and sign in
          </Button>
          <Link to="/forgotten">Ask for another letter</Link>
        </form>
      </div>
    </main>
  )
}

/** A letter with a link, for whoever forgot the password. */
export function Forgotten() {
  const [name, setName] = useState('')
  const ask = useMutation({
    mutationFn: () => api.POST('/api/session/forgotten', { body: { name } }),
  })
  return (
    <main className="front">
      <div className="card">
        <h1>Password forgotten</h1>
        <form
          className="stacked"
          onSubmit={(event) => {
            event.preventDefault()
            ask.mutate()
          }}
        >
          <TextInput
            label="Name"
            autoComplete="username"
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Refused error={ask.error} />
          {ask.isSuccess ? (
            <p role="status">
              Where an e-mail address is known for that name, a letter with a link is on its way. It holds for
              three hours.
            </p>
          ) : (
            <Button type="submit" disabled={!name.trim()} loading={ask.isPending}>
              Send a link
            </Button>
          )}
          <Link to="/">Back</Link>
        </form>
      </div>
    </main>
  )
}
