import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'

import { api, body, type Schemas } from '../api/client'
import { keepAnswer, keys, useHouse } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import { Refused } from '../shell/Refused'
import { LinkToSend } from './LinkToSend'
import './shown.css'

type View = Schemas['ClientView']

/** For whom the work in a household is done: links by which they look, what they said, chose and signed off. */
export default function Client() {
  const id = Number(useParams().houseId)
  const path = { household_id: id }
  const client = useQueryClient()
  const house = useHouse(id)
  const view = useQuery({
    queryKey: keys.client(id),
    queryFn: () => body(api.GET('/api/households/{household_id}/client', { params: { path } })),
  })
  const [link, setLink] = useState('')
  const show = (answer: View) => {
    keepAnswer(client, keys.client(id), answer)
    if (answer.link) setLink(answer.link)
  }
  const unshow = useMutation({
    mutationFn: (showing: number) =>
      body(
        api.DELETE('/api/households/{household_id}/showings/{showing_id}', {
          params: { path: { ...path, showing_id: showing } },
        }),
      ),
    onSuccess: show,
  })
  const settle = useMutation({
    mutationFn: ({ remark, settled }: { remark: number; settled: boolean }) =>
      body(
        api.PUT('/api/households/{household_id}/remarks/{remark_id}', {
          params: { path: { ...path, remark_id: remark } },
          body: { settled },
        }),
      ),
    onSuccess: show,
  })
  const reopen = useMutation({
    mutationFn: (design: number) =>
      body(api.POST('/api/designs/{design_id}/reopen', { params: { path: { design_id: design } } })),
    onSuccess: show,
  })
  const at = (space: number, design: number) => `/house/${id}/${space}/layout?design=${design}`
  return (
    <main className="front">
      <div className="card wide">
        <h1>Client</h1>
        <p className="motto">
          <Link to={`/house/${id}`}>{house.data?.name ?? 'The household'}</Link>
        </p>
        <Fetched query={view} waiting="Opening what the client said">
          {(one) => (
            <>
              <Refused error={unshow.error ?? settle.error ?? reopen.error} />
              {one.may_show && <ForWhom key={one.version} id={id} view={one} onSaved={show} />}
              <h2>Chosen and signed off</h2>
              {one.agreed.length === 0 && <p className="quiet">Nothing yet.</p>}
              <ul className="people" aria-label="Chosen and signed off">
                {one.agreed.map((row) => (
                  <li key={row.design}>
                    <span className="who">
                      <Link to={at(row.space, row.design)}>
                        {row.space_name}: {row.design_title}
                      </Link>
                      <span className="quiet small"> · {row.says}</span>
                    </span>
                    {row.signed && one.may_show && (
                      <Button
                        variant="subtle"
                        title="It may be changed again, and is signed off no more"
                        onClick={() => reopen.mutate(row.design)}
                      >
                        Open again
                      </Button>
                    )}
                  </li>
                ))}
              </ul>
              <h2>What they said</h2>
              {one.remarks.length === 0 && <p className="quiet">Nothing yet.</p>}
              <ul className="remarks" aria-label="Remarks">
                {one.remarks.map((row) => (
                  <li key={row.id} className={row.settled ? 'settled' : ''}>
                    <span className="quiet small">
                      {row.by}, {row.on}, of{' '}
                      <Link to={at(row.space, row.design)}>
                        {row.space_name}: {row.design_title}
                      </Link>
                      {row.about && `, ${row.about}`}
                    </span>
                    <p>{row.text}</p>
                    <Checkbox
                      size="xs"
                      label="settled"
                      aria-label={`Settled: ${row.text.slice(0, 60)}`}
                      checked={
                        settle.isPending && settle.variables.remark === row.id
                          ? settle.variables.settled
                          : row.settled
                      }
                      onChange={(event) =>
                        settle.mutate({ remark: row.id, settled: event.currentTarget.checked })
                      }
                    />
                  </li>
                ))}
              </ul>
              {one.may_show && (
                <>
                  <h2>Links to look by</h2>
                  <ul className="people" aria-label="Links">
                    {one.links.map((row) => (
                      <li key={row.id}>
                        <span className="who">
                          {row.note}
                          <span className="quiet small">
                            {' '}
                            · until {row.expires} · {row.seen ? `looked on ${row.seen}` : 'not looked yet'}
                          </span>
                        </span>
                        <Button
                          variant="subtle"
                          aria-label={`Take back the link of ${row.note}`}
                          onClick={() => unshow.mutate(row.id)}
                        >
                          Take back
                        </Button>
                      </li>
                    ))}
                  </ul>
                  {link && (
                    <LinkToSend link={link}>
                      It is shown only now. Whoever has it sees the designs, and may speak for the one it is
                      made for.
                    </LinkToSend>
                  )}
                  <NewLink id={id} client={one.client} onMade={show} />
                </>
              )}
            </>
          )}
        </Fetched>
      </div>
    </main>
  )
}

function ForWhom({ id, view, onSaved }: { id: number; view: View; onSaved: (view: View) => void }) {
  const [name, setName] = useState(view.client)
  const cache = useQueryClient()
  const save = useMutation({
    mutationFn: () =>
      body(
        api.PUT('/api/households/{household_id}/client', {
          params: { path: { household_id: id } },
          body: { version: view.version, client: name },
        }),
      ),
    onSuccess: (answer) => {
      onSaved(answer)
      void cache.invalidateQueries({ queryKey: keys.house(id) })
    },
  })
  return (
    <form
      className="stacked"
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <TextInput
        label="For whom the work is"
        description="Households are listed by it. Empty for your own."
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Refused error={save.error} />
      {name !== view.client && (
        <Button type="submit" loading={save.isPending}>
          Keep
        </Button>
      )}
    </form>
  )
}

function NewLink({ id, client, onMade }: { id: number; client: string; onMade: (view: View) => void }) {
  const [note, setNote] = useState(client)
  const [days, setDays] = useState('30')
  const make = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/households/{household_id}/showings', {
          params: { path: { household_id: id } },
          body: { note, days: Number(days) },
        }),
      ),
    onSuccess: onMade,
  })
  return (
    <form
      className="stacked"
      onSubmit={(event) => {
        event.preventDefault()
        make.mutate()
      }}
    >
      <TextInput
        label="Who looks"
        description="What they say and choose stands under this name."
        value={note}
        maxLength={120}
        onChange={(event) => setNote(event.currentTarget.value)}
      />
      <NativeSelect
        label="For how long"
        value={days}
        onChange={(event) => setDays(event.currentTarget.value)}
        data={[
          { value: '7', label: 'a week' },
          { value: '30', label: '30 days' },
          { value: '90', label: '90 days' },
        ]}
      />
      <Refused error={make.error} />
      <Button type="submit" variant="default" disabled={note.trim() === ''} loading={make.isPending}>
        Make a link
      </Button>
    </form>
  )
}
