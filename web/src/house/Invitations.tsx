import { Alert, Button } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'

import { api, body, said } from '../api/client'
import { keys } from '../api/queries'
import { invitedInto } from './Invited'

/** Invitations by name that wait for an answer. */
export function Invitations() {
  const client = useQueryClient()
  const navigate = useNavigate()
  const waiting = useQuery({
    queryKey: ['invitations'],
    queryFn: () => body(api.GET('/api/session/invitations')),
  })
  const done = async () => {
    await client.invalidateQueries({ queryKey: keys.session })
    await client.invalidateQueries({ queryKey: ['invitations'] })
  }
  const accept = useMutation({
    mutationFn: (id: number) =>
      body(api.POST('/api/session/invitations/{invitation_id}', { params: { path: { invitation_id: id } } })),
    onSuccess: async ({ id }) => {
      await done()
      void navigate(`/house/${id}`)
    },
  })
  const decline = useMutation({
    mutationFn: (id: number) =>
      api.DELETE('/api/session/invitations/{invitation_id}', { params: { path: { invitation_id: id } } }),
    onSuccess: done,
  })
  const failed = accept.error ?? decline.error ?? waiting.error
  return (
    <section aria-label="Invitations">
      {failed && (
        <Alert color="red" variant="outline" role="alert">
          {said(failed)}
        </Alert>
      )}
      <ul className="people">
        {(waiting.data?.each ?? []).map((one) => (
          <li key={one.id}>
            <span className="who">{invitedInto(one)}</span>
            <Button onClick={() => accept.mutate(one.id)}>Come in</Button>
            <Button variant="subtle" onClick={() => decline.mutate(one.id)}>
              Decline
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
