import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, body, type Schemas } from '../api/client'
import { TakeOut } from '../shell/TakeOut'
import { useWorkChange, type WorkPanelProps } from './useWorkChange'

type Session = Schemas['WorkSessionView']
type WorkData = Schemas['WorkSessionData']

/** The order of work: one area at a time, a goal and a time box for each session. */
export function Sessions({ houseId, work }: WorkPanelProps) {
  const change = useWorkChange(houseId)
  const [space, setSpace] = useState('')
  const [goal, setGoal] = useState('')
  const [minutes, setMinutes] = useState<number>(90)
  const path = { household_id: houseId }
  const put = (session: Session, fields: Partial<WorkData>) => {
    const { space: at, goal: aim, minutes: box, done, spent } = session
    change.mutate(() =>
      body(
        api.PUT('/api/households/{household_id}/sessions/{key}', {
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
            <TakeOut
              label={`Drop ${session.goal}`}
              onClick={() =>
                change.mutate(() =>
                  body(
                    api.DELETE('/api/households/{household_id}/sessions/{key}', {
                      params: { path: { ...path, key: session.key } },
                    }),
                  ),
                )
              }
            />
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
              api.POST('/api/households/{household_id}/sessions', {
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
