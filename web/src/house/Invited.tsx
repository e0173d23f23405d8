import { Button, Loader } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Link, useNavigate, useParams } from 'react-router'

import { api, body, type Schemas } from '../api/client'
import { keys } from '../api/queries'
import { Refused } from '../shell/Refused'
import { Entrance } from './Entrance'

/** What an invitation is into, in a sentence. */
export function invitedInto(invited: Schemas['InvitedView']): string {
  return invited.hands_over
    ? `${invited.by} hands ${invited.household} over to you: you become its owner.`
    : `${invited.by} invites you into ${invited.household}, as ${invited.role}.`
}

/** The page of an invitation's link: signing in first, where one is not; then in. */
export default function Invited({ session }: { session: Schemas['SessionView'] }) {
  const token = useParams().token ?? ''
  const client = useQueryClient()
  const navigate = useNavigate()
  const path = { path: { token } }
  const invited = useQuery({
    queryKey: ['invited', token],
    queryFn: () => body(api.GET('/api/invited/{token}', { params: path })),
    retry: false,
  })
  const accept = useMutation({
    mutationFn: () => body(api.POST('/api/invited/{token}', { params: path })),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: keys.session })
      void navigate(`/house/${id}`)
    },
  })
  if (invited.data && session.user === null)
    return <Entrance demo={false} notice={`${invitedInto(invited.data)} Sign in or register to come in.`} />
  return (
    <main className="front">
      <div className="card">
        <h1>Pinakotheke</h1>
        {invited.isPending && <Loader aria-label="Opening the invitation" />}
        {invited.isError && (
          <>
            <p role="alert">This link holds no longer. Ask for a new one.</p>
            <Button component={Link} to="/" variant="default">
              Go on
            </Button>
          </>
        )}
        {invited.data && (
          <div className="stacked">
            <p>{invitedInto(invited.data)}</p>
            <Refused error={accept.error} />
            <Button loading={accept.isPending} onClick={() => accept.mutate()}>
              Come in
            </Button>
            <Button component={Link} to="/houses" variant="subtle">
              Not now
            </Button>
          </div>
        )}
      </div>
    </main>
  )
}
