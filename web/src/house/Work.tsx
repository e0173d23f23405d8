import { ActionIcon, Button, NativeSelect, NumberInput, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconX } from '@tabler/icons-react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { keys, useVocabulary } from '../api/queries'
import { Fetched } from '../shell/Fetched'

type Work = Schemas['WorkView']
type Session = Schemas['WorkSessionView']
type WorkData = Schemas['WorkSessionData']

const failed = (error: unknown) => notifications.show({ color: 'red', message: said(error) })

/** The order of work, what each space is for, and what the house has already. */
export function Work({ house }: { house: Schemas['HouseView'] }) {
  const query = useQuery({
    queryKey: keys.work(house.id),
    queryFn: () =>
      body(api.GET('/api/households/{household_id}/work', { params: { path: { household_id: house.id } } })),
  })
  return (
    <Fetched query={query} waiting="Fetching the plan of work">
      {(work) => (
        <>
          <Sessions houseId={house.id} work={work} />
          <Uses houseId={house.id} work={work} />
          <OwnedList houseId={house.id} work={work} />
        </>
      )}
    </Fetched>
  )
}

interface PanelProps {
  houseId: number
  work: Work
}

/** Carries out a change of the plan and shows what the server made of it. */
function useWorkChange(houseId: number) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (act: () => Promise<Work>) => act(),
    onSuccess: (work) => {
      client.setQueryData(keys.work(houseId), work)
      void client.invalidateQueries({ queryKey: ['homes'] })
      void client.invalidateQueries({ queryKey: ['space'] })
      void client.invalidateQueries({ queryKey: ['things'] })
    },
    onError: failed,
  })
}

function Sessions({ houseId, work }: PanelProps) {
  const change = useWorkChange(houseId)
  const [space, setSpace] = useState('')
  const [goal, setGoal] = useState('')
  const [minutes, setMinutes] = useState<number>(90)
  const path = { household_id: houseId }
  const put = (session: Session, fields: Partial<WorkData>) => {
    const { space: at, goal: aim, minutes: box, done, spent } = session
    change.mutate(() =>
      body(
        api.PUT('/api/households/{household_id}/work/{key}', {
          params: { path: { ...path, key: session.key } },
          body: { space: at, goal: aim, minutes: box, done, spent, ...fields },
        }),
      ),
    )
  }
  return (
    <div className="panel across">
      <h2>Order of work</h2>
      <p className="quiet small">
        One area at a time: a goal and a time box. {work.planned} min planned, {work.spent} min spent so far.
      </p>
      <ol className="sessions">
        {work.sessions.map((session) => (
          <li key={session.key} className={session.done ? 'done' : ''}>
            <label>
              <input
                type="checkbox"
                checked={session.done}
                aria-label={`Done: ${session.goal}`}
                onChange={() =>
                  put(session, {
                    done: !session.done,
                    spent: session.done ? null : (session.spent ?? session.minutes),
                  })
                }
              />{' '}
              <Link to={`/house/${houseId}/${session.space_id}/inventory`}>{session.space_name}</Link>:{' '}
              {session.goal}
            </label>
            <span className="quiet">
              {session.done ? `${session.spent ?? '?'} of ${session.minutes} min` : `${session.minutes} min`}
            </span>
            <ActionIcon
              size={24}
              variant="subtle"
              color="gray"
              aria-label={`Drop ${session.goal}`}
              onClick={() =>
                change.mutate(() =>
                  body(
                    api.DELETE('/api/households/{household_id}/work/{key}', {
                      params: { path: { ...path, key: session.key } },
                    }),
                  ),
                )
              }
            >
              <IconX size={14} />
            </ActionIcon>
          </li>
        ))}
      </ol>
      <form
        className="row"
        style={{ alignItems: 'flex-end' }}
        onSubmit={(event) => {
          event.preventDefault()
          const at = space || work.spaces[0]?.key || ''
          change.mutate(() =>
            body(
              api.POST('/api/households/{household_id}/work', {
                params: { path },
                body: { space: at, goal, minutes, done: false },
              }),
            ),
          )
          setGoal('')
        }}
      >
        <NativeSelect
          label="Space"
          value={space}
          data={work.spaces.map((row) => ({ value: row.key, label: row.name }))}
          onChange={(event) => setSpace(event.currentTarget.value)}
        />
        <TextInput
          label="Goal of the session"
          placeholder="Empty it, sort, measure what is left"
          value={goal}
          style={{ flex: 1, minWidth: 160 }}
          onChange={(event) => setGoal(event.currentTarget.value)}
        />
        <NumberInput
          label="Minutes"
          w={84}
          min={5}
          max={600}
          step={15}
          value={minutes}
          onChange={(value) => setMinutes(Number(value) || 90)}
        />
        <Button type="submit" variant="default" disabled={!goal.trim() || work.spaces.length === 0}>
          Plan it
        </Button>
      </form>
    </div>
  )
}

const WHERE = ['indoors', 'basement', 'attached', 'outdoors'] as const

function Uses({ houseId, work }: PanelProps) {
  const change = useWorkChange(houseId)
  const zones = useVocabulary().data?.zones ?? []
  const put = (row: Schemas['UseView'], use: Schemas['SpaceUse']) =>
    change.mutate(() =>
      body(
        api.PUT('/api/spaces/{space_id}/use', {
          params: { path: { space_id: row.id } },
          body: { version: row.version, use },
        }),
      ),
    )
  return (
    <div className="panel across">
      <h2>What each space is for</h2>
      <p className="quiet small">
        Things are sent where their kind lives; a space without a word serves as usual.
      </p>
      <table className="table uses">
        <thead>
          <tr>
            <th>Space</th>
            <th>For</th>
            <th>Where</th>
            <th>Locked</th>
            <th>Before</th>
          </tr>
        </thead>
        <tbody>
          {work.spaces.map((row) => (
            <tr key={row.key}>
              <th scope="row">{row.name}</th>
              <td>
                {row.use.zones.map((zone) => (
                  <button
                    key={zone}
                    type="button"
                    className="chip"
                    aria-label={`${row.name} is no longer for ${zone}`}
                    onClick={() =>
                      put(row, { ...row.use, zones: row.use.zones.filter((one) => one !== zone) })
                    }
                  >
                    {zone} ×
                  </button>
                ))}
                <NativeSelect
                  size="xs"
                  variant="unstyled"
                  aria-label={`Another zone of ${row.name}`}
                  value=""
                  data={[
                    { value: '', label: row.use.zones.length ? 'and…' : 'as usual; or…' },
                    ...zones.filter((zone) => !row.use.zones.includes(zone)),
                  ]}
                  onChange={(event) => {
                    const { value } = event.currentTarget
                    if (value) put(row, { ...row.use, zones: [...row.use.zones, value] })
                  }}
                />
              </td>
              <td>
                <NativeSelect
                  size="xs"
                  variant="unstyled"
                  aria-label={`Where ${row.name} is`}
                  value={row.use.where ?? ''}
                  data={[{ value: '', label: 'as usual' }, ...WHERE]}
                  onChange={(event) => {
                    const where = WHERE.find((one) => one === event.currentTarget.value) ?? null
                    put(row, { ...row.use, where })
                  }}
                />
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={`${row.name} is locked`}
                  checked={row.use.locked}
                  onChange={() => put(row, { ...row.use, locked: !row.use.locked })}
                />
              </td>
              <td>
                <BeforePhoto row={row} houseId={houseId} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** The photo taken before the work, or the button to take it. */
function BeforePhoto({ row, houseId }: { row: Schemas['UseView']; houseId: number }) {
  const client = useQueryClient()
  const send = async (file: File) => {
    const { shrunk } = await import('../survey/shrunk')
    const form = new FormData()
    form.append('file', await shrunk(file), 'before.jpg')
    form.append('moment', 'before')
    await body(
      api.POST('/api/spaces/{space_id}/photos', {
        params: { path: { space_id: row.id } },
        body: { file: '', note: '', moment: 'before' },
        bodySerializer: () => form,
      }),
    )
    await client.invalidateQueries({ queryKey: keys.work(houseId) })
  }
  if (row.before !== null) {
    const url = `/api/photos/${row.before}/file`
    return (
      <a href={url} target="_blank" rel="noreferrer">
        <img className="thumb" src={url} alt={`${row.name} before`} loading="lazy" />
      </a>
    )
  }
  return (
    <label className="plain before">
      photo…
      <input
        type="file"
        accept="image/*"
        className="visually-hidden"
        aria-label={`Photo of ${row.name} before the work`}
        onChange={(event) => {
          const file = event.currentTarget.files?.[0]
          if (file) void send(file).catch(failed)
        }}
      />
    </label>
  )
}

function OwnedList({ houseId, work }: PanelProps) {
  const change = useWorkChange(houseId)
  const [name, setName] = useState('')
  const [count, setCount] = useState<number>(1)
  const [size, setSize] = useState('')
  const [kind, setKind] = useState<'container' | 'furniture'>('container')
  const path = { household_id: houseId }
  return (
    <div className="panel">
      <h2>What the house has already</h2>
      <p className="quiet small">
        Boxes, baskets, jars, racks: offered to the plan before anything is bought.
      </p>
      <table className="table">
        <tbody>
          {work.owned.map((row) => (
            <tr key={row.key}>
              <td className="n">{row.count}</td>
              <th scope="row">{row.name}</th>
              <td>{row.size}</td>
              <td>{row.kind === 'container' ? row.litres : 'furniture'}</td>
              <td>
                <ActionIcon
                  size={24}
                  variant="subtle"
                  color="gray"
                  aria-label={`Take ${row.name} off the list`}
                  onClick={() =>
                    change.mutate(() =>
                      body(
                        api.DELETE('/api/households/{household_id}/owned/{key}', {
                          params: { path: { ...path, key: row.key } },
                        }),
                      ),
                    )
                  }
                >
                  <IconX size={14} />
                </ActionIcon>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <form
        className="row"
        style={{ alignItems: 'flex-end' }}
        onSubmit={(event) => {
          event.preventDefault()
          change.mutate(
            () =>
              body(
                api.POST('/api/households/{household_id}/owned', {
                  params: { path },
                  body: { name, count, size, kind, lid: 'none' },
                }),
              ),
            {
              onSuccess: () => {
                setName('')
                setSize('')
              },
            },
          )
        }}
      >
        <NumberInput
          label="How many"
          w={76}
          min={1}
          max={1000}
          value={count}
          onChange={(value) => setCount(Number(value) || 1)}
        />
        <TextInput
          label="Of what"
          placeholder="wicker baskets"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <TextInput
          label="Outside size"
          placeholder="320 x 380 x 220"
          value={size}
          onChange={(event) => setSize(event.currentTarget.value)}
        />
        <NativeSelect
          label="Kind"
          value={kind}
          data={['container', 'furniture']}
          onChange={(event) => setKind(event.currentTarget.value === 'furniture' ? 'furniture' : 'container')}
        />
        <Button
          type="submit"
          variant="default"
          disabled={!name.trim() || !size.trim()}
          loading={change.isPending}
        >
          List it
        </Button>
      </form>
    </div>
  )
}
