import { Alert, Button, Checkbox, PasswordInput, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { forgetAll, keys } from '../api/queries'

/** One's own account: the password, where letters go, and its end. */
export default function Account({ session }: { session: Schemas['SessionView'] }) {
  return (
    <main className="front">
      <div className="card wide">
        <h1>Your account</h1>
        <p className="motto">
          {session.user} · <Link to="/houses">to your households</Link>
        </p>
        <Password />
        <Letters email={session.email} />
        <EndAccount />
      </div>
    </main>
  )
}

function Failed({ error }: { error: unknown }) {
  return (
    <Alert color="red" variant="outline" role="alert">
      {said(error)}
    </Alert>
  )
}

function Password() {
  const [old, setOld] = useState('')
  const [fresh, setFresh] = useState('')
  const change = useMutation({
    mutationFn: () => body(api.POST('/api/session/password', { body: { old, new: fresh } })),
    onSuccess: () => {
      setOld('')
      setFresh('')
    },
  })
  return (
    <form
      className="stacked"
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate()
      }}
    >
      <h2>Password</h2>
      <PasswordInput
        label="The one you have"
        autoComplete="current-password"
        value={old}
        onChange={(event) => setOld(event.currentTarget.value)}
      />
      <PasswordInput
        label="A new one"
        description="Eight characters or more."
        autoComplete="new-password"
        value={fresh}
        onChange={(event) => setFresh(event.currentTarget.value)}
      />
      {change.isError && <Failed error={change.error} />}
      {change.isSuccess && <p role="status">Changed. Everywhere else you are signed out.</p>}
      <Button type="submit" variant="default" disabled={!old || !fresh} loading={change.isPending}>
        Change the password
      </Button>
    </form>
  )
}

function Letters({ email }: { email: string }) {
  const client = useQueryClient()
  const [address, setAddress] = useState(email)
  const [password, setPassword] = useState('')
  const change = useMutation({
    mutationFn: () => body(api.PUT('/api/session/email', { body: { password, email: address } })),
    onSuccess: (session) => {
      setPassword('')
      client.setQueryData(keys.session, session)
    },
  })
  return (
    <form
      className="stacked"
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate()
      }}
    >
      <h2>Where letters go</h2>
      <TextInput
        label="E-mail"
        description="Only for a link to a new password. Without one a forgotten password stays forgotten."
        type="email"
        autoComplete="email"
        value={address}
        onChange={(event) => setAddress(event.currentTarget.value)}
      />
      <PasswordInput
        label="Your password"
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      {change.isError && <Failed error={change.error} />}
      {change.isSuccess && <p role="status">Kept.</p>}
      <Button type="submit" variant="default" disabled={!password} loading={change.isPending}>
        Keep the address
      </Button>
    </form>
  )
}

function EndAccount() {
  const client = useQueryClient()
  const [password, setPassword] = useState('')
  const [ticked, setTicked] = useState<readonly number[]>([])
  const theirs = useQuery({
    queryKey: ['account'],
    queryFn: () => body(api.GET('/api/session/account')),
  })
  const end = useMutation({
    mutationFn: () => api.POST('/api/session/end', { body: { password, households: [...ticked] } }),
    onSuccess: async () => {
      forgetAll(client)
      await client.invalidateQueries({ queryKey: keys.session })
    },
  })
  const households = theirs.data?.households ?? []
  return (
    <form
      className="stacked"
      onSubmit={(event) => {
        event.preventDefault()
        end.mutate()
      }}
    >
      <h2>Delete the account</h2>
      {households.length > 0 && (
        <>
          <p className="small">
            Only you own these. Save what you want to keep, then tick them: they go with the account.
          </p>
          <ul className="people" aria-label="Households that only you own">
            {households.map((house) => (
              <li key={house.id}>
                <Checkbox
                  className="who"
                  label={house.name}
                  checked={ticked.includes(house.id)}
                  onChange={(event) =>
                    setTicked(
                      event.currentTarget.checked
                        ? [...ticked, house.id]
                        : ticked.filter((one) => one !== house.id),
                    )
                  }
                />
                <a href={`/api/households/${house.id}/house-file`} download>
                  Save the house file
                </a>
              </li>
            ))}
          </ul>
        </>
      )}
      <PasswordInput
        label="Your password, to delete the account"
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      {end.isError && <Failed error={end.error} />}
      <Button
        type="submit"
        color="red"
        variant="outline"
        disabled={!password || ticked.length < households.length}
        loading={end.isPending}
      >
        Delete the account for good
      </Button>
    </form>
  )
}
