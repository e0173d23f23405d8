import { Alert, Button, Checkbox, Loader, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { keys, useHouse } from '../api/queries'
import { Refused } from '../shell/Refused'
import { EndHousehold } from './EndHousehold'
import { LinkToSend } from './LinkToSend'

type Role = Schemas['Role']
const ROLES: Record<Role, string> = {
  guest: 'Guest: looks',
  member: 'Member: works in it',
  organizer: 'Organizer: lets others in and out',
  owner: 'Owner: hands it over, deletes it',
}
const RANK: readonly Role[] = ['guest', 'member', 'organizer', 'owner']

/** Who is in a household and in which role, who is invited, how one leaves, and how it ends. */
export default function Members() {
  const id = Number(useParams().houseId)
  const client = useQueryClient()
  const navigate = useNavigate()
  const house = useHouse(id)
  const path = { path: { household_id: id } }
  const members = useQuery({
    queryKey: keys.members(id),
    queryFn: () => body(api.GET('/api/households/{household_id}/members', { params: path })),
  })
  const [link, setLink] = useState('')
  const show = (view: Schemas['MembersView']) => {
    client.setQueryData(keys.members(id), view)
    if (view.link) setLink(view.link)
  }
  const change = useMutation({
    mutationFn: ({ member, role }: { member: number; role: Role }) =>
      body(
        api.PUT('/api/households/{household_id}/members/{member_id}', {
          params: { path: { household_id: id, member_id: member } },
          body: { role },
        }),
      ),
    onSuccess: show,
  })
  const remove = useMutation({
    mutationFn: async (member: Schemas['MemberView']) => {
      await api.DELETE('/api/households/{household_id}/members/{member_id}', {
        params: { path: { household_id: id, member_id: member.id } },
      })
      return member.you
    },
    onSuccess: (left) => {
      void client.invalidateQueries({ queryKey: left ? keys.session : keys.members(id) })
      if (left) void navigate('/houses')
    },
  })
  const uninvite = useMutation({
    mutationFn: (invitation: number) =>
      body(
        api.DELETE('/api/households/{household_id}/invitations/{invitation_id}', {
          params: { path: { household_id: id, invitation_id: invitation } },
        }),
      ),
    onSuccess: show,
  })
  const failed = change.error ?? remove.error ?? uninvite.error
  const view = members.data
  const lets = view !== undefined && RANK.indexOf(view.role) >= 2
  return (
    <main className="front">
      <div className="card wide">
        <h1>Members</h1>
        <p className="motto">
          <Link to={`/house/${id}`}>{house.data?.name ?? 'The household'}</Link>
        </p>
        {members.isPending && <Loader aria-label="Opening the members" />}
        {(failed ?? members.error) && (
          <Alert color="red" variant="outline" role="alert" mb="md">
            {said(failed ?? members.error)}
          </Alert>
        )}
        {view && (
          <>
            <ul className="people" aria-label="Members">
              {view.members.map((member) => (
                <li key={member.id}>
                  <span className="who">
                    {member.name}
                    {member.you && <span className="quiet"> · you</span>}
                    {member.since && <span className="quiet small"> since {member.since}</span>}
                  </span>
                  <NativeSelect
                    aria-label={`Role of ${member.name}`}
                    value={member.role}
                    disabled={!lets || (member.role === 'owner' && view.role !== 'owner')}
                    onChange={(event) =>
                      change.mutate({ member: member.id, role: event.currentTarget.value as Role })
                    }
                    data={RANK.filter(
                      (role) => role !== 'owner' || view.role === 'owner' || member.role === 'owner',
                    ).map((role) => ({ value: role, label: ROLES[role] }))}
                  />
                  {(member.you || lets) && (
                    <Button
                      variant="subtle"
                      aria-label={member.you ? 'Leave this household' : `Let ${member.name} out`}
                      onClick={() => remove.mutate(member)}
                    >
                      {member.you ? 'Leave' : 'Let out'}
                    </Button>
                  )}
                </li>
              ))}
            </ul>
            {view.invitations.length > 0 && (
              <>
                <h2>Invited</h2>
                <ul className="people" aria-label="Invited">
                  {view.invitations.map((one) => (
                    <li key={one.id}>
                      <span className="who">
                        {one.for_whom || 'whoever has the link'}
                        <span className="quiet small">
                          {one.by_name ? '' : ' · by link'} ·{' '}
                          {one.hands_over ? 'it is handed over' : one.role} · until {one.expires}
                        </span>
                      </span>
                      <Button
                        variant="subtle"
                        aria-label={`Take back the invitation of ${one.for_whom || 'a link'}`}
                        onClick={() => uninvite.mutate(one.id)}
                      >
                        Take back
                      </Button>
                    </li>
                  ))}
                </ul>
              </>
            )}
            {link && (
              <LinkToSend link={link}>
                It is shown only now, holds for 14 days, and lets one person in.
              </LinkToSend>
            )}
            {lets && <Invite id={id} owner={view.role === 'owner'} onMade={show} />}
            {view.role === 'owner' && house.data && <EndHousehold house={house.data} />}
          </>
        )}
      </div>
    </main>
  )
}

function Invite({
  id,
  owner,
  onMade,
}: {
  id: number
  owner: boolean
  onMade: (view: Schemas['MembersView']) => void
}) {
  const [name, setName] = useState('')
  const [note, setNote] = useState('')
  const [role, setRole] = useState<Role>('member')
  const [handsOver, setHandsOver] = useState(false)
  const invite = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/households/{household_id}/invitations', {
          params: { path: { household_id: id } },
          body: { name, note, role, hands_over: handsOver },
        }),
      ),
    onSuccess: (view) => {
      setName('')
      setNote('')
      onMade(view)
    },
  })
  return (
    <form
      className="stacked"
      onSubmit={(event) => {
        event.preventDefault()
        invite.mutate()
      }}
    >
      <h2>Invite somebody</h2>
      <TextInput
        label="Their name here"
        description="As they sign in. Without one you get a link to send."
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      {name.trim() === '' && (
        <TextInput
          label="For whom the link is"
          description="So that you know it again."
          value={note}
          onChange={(event) => setNote(event.currentTarget.value)}
        />
      )}
      {!handsOver && (
        <NativeSelect
          label="As"
          value={role}
          onChange={(event) => setRole(event.currentTarget.value as Role)}
          data={RANK.filter((one) => one !== 'owner' || owner).map((one) => ({
            value: one,
            label: ROLES[one],
          }))}
        />
      )}
      {owner && (
        <Checkbox
          label="Hand the household over: they become its owner, you stay as its organizer"
          checked={handsOver}
          onChange={(event) => setHandsOver(event.currentTarget.checked)}
        />
      )}
      <Refused error={invite.error} />
      <Button type="submit" loading={invite.isPending}>
        {name.trim() === '' ? 'Make a link' : 'Invite'}
      </Button>
    </form>
  )
}
