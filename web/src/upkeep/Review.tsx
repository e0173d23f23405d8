import { Button, NativeSelect, NumberInput, SegmentedControl, TextInput } from '@mantine/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, body, type Schemas } from '../api/client'
import { Fetched } from '../shell/Fetched'
import { useUndo } from '../shell/undo'
import { newKey } from '../survey/waiting'
import { useTell } from './useTell'
import type { Upkeep } from './useUpkeep'

type View = Schemas['SpaceReview']
type Answer = Schemas['Answer']
type School = View['school']

interface Props {
  space: number
  upkeep: Upkeep
  school: School
  onSchool: (school: School) => void
  /** Where the design is bent. */
  toDesign: string
}

/** A look at a space after a while: what overflows, what stays empty, what nobody uses; and what leaves. */
export function Review({ space, upkeep, school, onSchool, toDesign }: Props) {
  const query = useQuery({
    queryKey: ['review', space, school],
    queryFn: () =>
      body(
        api.GET('/api/spaces/{space_id}/review', {
          params: { path: { space_id: space }, query: { school } },
        }),
      ),
    placeholderData: keepPreviousData,
  })
  return (
    <Fetched query={query} waiting="Looking back">
      {(view) => (
        <>
          <Due view={view} onSchool={onSchool} />
          {view.looks.length > 0 && (
            <ul className="looks" aria-label="To look at">
              {view.looks.map((look) => (
                <li key={look.says}>{look.says}</li>
              ))}
            </ul>
          )}
          {upkeep.places.length > 0 && <Look space={space} upkeep={upkeep} view={view} />}
          <Past view={view} toDesign={toDesign} />
          <Leaving view={view} />
          {view.growing.length > 0 && (
            <section aria-label="Growing up">
              <h3>As children grow</h3>
              <ul>
                {view.growing.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
              <p className="quiet">By the usual growth of children of that stature; look again each year.</p>
            </section>
          )}
        </>
      )}
    </Fetched>
  )
}

function Due({ view, onSchool }: { view: View; onSchool: (school: School) => void }) {
  if (!view.due) return <p className="quiet">Move in first; then it shows when to look again.</p>
  return (
    <div className="row labels-head no-print">
      <p className={view.overdue ? 'misheard' : ''}>
        {view.overdue ? 'To be looked at since' : 'To be looked at on'} {view.due}.
      </p>
      {view.past.length === 0 && (
        <NativeSelect
          size="xs"
          aria-label="When to look"
          value={view.school}
          data={view.schools.map(([value, label]) => ({ value: value ?? '', label: label ?? '' }))}
          onChange={(event) => onSchool(event.currentTarget.value as School)}
        />
      )}
    </div>
  )
}

/** The look itself: one place after the other, and what of its things. */
function Look({ space, upkeep, view }: { space: number; upkeep: Upkeep; view: View }) {
  const tell = useTell()
  const undo = useUndo()
  const [answers, setAnswers] = useState<readonly Answer[]>([])
  const [nextOn, setNextOn] = useState('')
  const [begun, setBegun] = useState(false)
  if (!begun)
    return (
      <div className="row no-print">
        <Button variant="default" onClick={() => setBegun(true)}>
          Look now
        </Button>
      </div>
    )
  const of = (place: string) =>
    answers.find((one) => one.place === place && ['overflows', 'empty', 'fine'].includes(one.seen))
  const set = (same: (one: Answer) => boolean, next: Answer | null) =>
    setAnswers([...answers.filter((one) => !same(one)), ...(next ? [next] : [])])
  const send = async () => {
    const key = newKey()
    const said = { key, answers: [...answers], next_on: nextOn }
    const post = () =>
      tell(() =>
        api.POST('/api/spaces/{space_id}/reviews', { params: { path: { space_id: space } }, body: said }),
      )
    if (!(await post())) return
    setAnswers([])
    setBegun(false)
    undo.did({
      label: 'what was seen',
      undo: () =>
        tell(() =>
          api.DELETE('/api/households/{household_id}/reviews/{key}', {
            params: { path: { household_id: upkeep.household, key } },
          }),
        ),
      redo: post,
    })
  }
  return (
    <section aria-label="The look" className="no-print">
      <ul className="places">
        {upkeep.places.map((place) => (
          <li key={place.id}>
            <div className="supply look-place">
              <div>
                <b>{place.name}</b>
                <span className="held">
                  {place.stays.length === 0
                    ? 'nothing'
                    : place.stays.map((stay) => `${String(stay.count)} ${stay.name}`).join('; ')}
                </span>
              </div>
              <SegmentedControl
                size="xs"
                aria-label={`How is ${place.name}`}
                value={of(place.key)?.seen ?? 'fine'}
                onChange={(seen) =>
                  set(
                    (one) => one === of(place.key),
                    seen === 'fine' ? null : answer({ seen: seen as Answer['seen'], place: place.key }),
                  )
                }
                data={[
                  { value: 'fine', label: 'fine' },
                  { value: 'overflows', label: 'overflows' },
                  { value: 'empty', label: 'stays empty' },
                ]}
              />
            </div>
            {place.stays.map((stay) => (
              <Seen
                key={stay.thing}
                stay={stay}
                decisions={view.decisions}
                answer={answers.find((one) => one.thing === stay.thing)}
                onSay={(next) => set((one) => one.thing === stay.thing, next)}
              />
            ))}
          </li>
        ))}
      </ul>
      <div className="row labels-head">
        <TextInput
          size="xs"
          type="date"
          label="Look again on (empty: as usual)"
          value={nextOn}
          onChange={(event) => setNextOn(event.currentTarget.value)}
        />
        <Button onClick={() => void send()}>That is what was seen</Button>
        <Button variant="default" onClick={() => setBegun(false)}>
          Not now
        </Button>
      </div>
    </section>
  )
}

interface SeenProps {
  stay: Schemas['StayView']
  decisions: readonly string[]
  answer: Answer | undefined
  onSay: (answer: Answer | null) => void
}

/** What was seen of one thing: it is used, nobody used it, it never goes back, or there are more of it. */
function Seen({ stay, decisions, answer: said, onSay }: SeenProps) {
  const leaves = (decision: string) => decision as Answer['leaves']
  return (
    <div className="row seen">
      <span className="grow">{stay.name}</span>
      <NativeSelect
        size="xs"
        aria-label={`What of ${stay.name}`}
        value={said?.seen ?? ''}
        data={[
          { value: '', label: 'is used, goes back' },
          { value: 'unused', label: 'nobody used it' },
          { value: 'strays', label: 'never goes back' },
          { value: 'more', label: 'there are more, or fewer' },
        ]}
        onChange={(event) => {
          const seen = event.currentTarget.value as Answer['seen'] | ''
          if (!seen) onSay(null)
          else
            onSay(
              answer({
                seen,
                thing: stay.thing,
                count: seen === 'strays' ? null : stay.count,
                leaves: seen === 'unused' ? leaves(decisions[0] ?? '') : '',
              }),
            )
        }}
      />
      {said && said.seen !== 'strays' && (
        <>
          <NumberInput
            size="xs"
            w={76}
            aria-label={said.seen === 'more' ? `How many ${stay.name} now` : `How many ${stay.name} leave`}
            value={said.count ?? stay.count}
            min={1}
            max={said.seen === 'unused' ? stay.count : 10000}
            onChange={(value) => onSay({ ...said, count: Math.max(1, Math.round(Number(value) || 1)) })}
          />
          <NativeSelect
            size="xs"
            aria-label={said.seen === 'more' ? `One in, one out of ${stay.name}` : `${stay.name} goes`}
            value={said.leaves}
            data={[
              ...(said.seen === 'more' ? [{ value: '', label: 'they stay' }] : []),
              ...decisions.map((one) => ({
                value: one,
                label: said.seen === 'more' ? `one in, one out: ${one}` : one,
              })),
            ]}
            onChange={(event) => onSay({ ...said, leaves: leaves(event.currentTarget.value) })}
          />
        </>
      )}
    </div>
  )
}

function answer(some: Partial<Answer> & Pick<Answer, 'seen'>): Answer {
  return { place: '', thing: '', count: null, leaves: '', ...some }
}

function Past({ view, toDesign }: { view: View; toDesign: string }) {
  const [last] = view.past
  if (!last) return null
  return (
    <section aria-label="What was seen">
      <h3>Seen on {last.on}</h3>
      {last.says.length === 0 && <p className="quiet">All is as it should be.</p>}
      <ul>
        {last.says.map((line) => (
          <li key={line}>{line}</li>
        ))}
        {view.relief.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {last.says.length > 0 && (
        <p className="no-print">
          What is asked for has changed with it.{' '}
          <Button component={Link} to={toDesign} size="compact-sm" variant="default">
            Bend the design, or have a bay filled anew
          </Button>
        </p>
      )}
      {view.past.length > 1 && (
        <details>
          <summary>Looks before that: {view.past.length - 1}</summary>
          <ul>
            {view.past.slice(1).map((one) => (
              <li key={one.key}>
                {one.on}: {one.says.join('; ') || 'all as it should be'}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

/** The queue of what leaves: where to, by when, and gone. */
function Leaving({ view }: { view: View }) {
  const tell = useTell()
  if (view.leaving.length === 0) return null
  const say = (one: View['leaving'][number], more: Partial<Schemas['LeavingData']>) =>
    tell(() =>
      api.PUT('/api/things/{thing_id}/leaving', {
        params: { path: { thing_id: one.id } },
        body: { to: one.to, by: one.by, ...more },
      }),
    )
  return (
    <section aria-label="What leaves">
      <h3>What leaves</h3>
      <ul className="places">
        {view.leaving.map((one) => (
          <li key={one.id}>
            <div className="supply">
              <div>
                <b>
                  {one.count} {one.name}
                </b>{' '}
                <span className={one.late ? 'misheard' : 'quiet'}>
                  {one.decision}, by {one.by}
                </span>
              </div>
              <Button
                size="compact-sm"
                variant="default"
                aria-label={`${one.name}: gone`}
                onClick={() =>
                  void tell(() =>
                    api.POST('/api/things/{thing_id}/gone', { params: { path: { thing_id: one.id } } }),
                  )
                }
              >
                It is gone
              </Button>
            </div>
            <div className="row no-print">
              <TextInput
                size="xs"
                className="grow"
                aria-label={`Where ${one.name} goes`}
                key={one.to}
                defaultValue={one.to}
                maxLength={200}
                onBlur={(event) => {
                  const to = event.currentTarget.value.trim()
                  if (to !== one.to) void say(one, { to })
                }}
              />
              <TextInput
                size="xs"
                type="date"
                aria-label={`By when ${one.name} goes`}
                key={one.by}
                defaultValue={one.by}
                onBlur={(event) => {
                  const by = event.currentTarget.value
                  if (by && by !== one.by) void say(one, { by })
                }}
              />
            </div>
          </li>
        ))}
      </ul>
    </section>
  )
}
