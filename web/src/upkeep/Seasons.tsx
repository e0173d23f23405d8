import { Button, NativeSelect, NumberInput, Select, TextInput } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, type Schemas } from '../api/client'
import { Fetched } from '../shell/Fetched'
import { useUndo } from '../shell/undo'
import { useTell } from './useTell'

type Swap = Schemas['SwapView']
type View = Schemas['SeasonsView']
type Plan = Schemas['SwapData']

const IN_USE = { value: '', label: 'in use' }
/** A list of more helps nobody: what is typed narrows it. */
const MOST_SHOWN = 60

/** What takes turns by the season: planned, held against what the places take, carried out. */
export function Seasons({ house, space }: { house: number; space: number }) {
  const query = useQuery({
    queryKey: ['seasons', house, space],
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/seasons', {
          params: { path: { household_id: house }, query: { space } },
        }),
      ),
    placeholderData: keepPreviousData,
  })
  return (
    <Fetched query={query} waiting="Looking at the seasons">
      {(view) => <Swaps house={house} view={view} />}
    </Fetched>
  )
}

function useSwaps(house: number) {
  const tell = useTell()
  const undo = useUndo()
  const at = { household_id: house }
  const swap = (key: string) =>
    tell(() =>
      api.POST('/api/households/{household_id}/swaps/{key}/done', { params: { path: { ...at, key } } }),
    )
  const change = (key: string, plan: Plan) =>
    tell(() =>
      api.PUT('/api/households/{household_id}/swaps/{key}', {
        params: { path: { ...at, key } },
        body: plan,
      }),
    )
  return {
    plan: (plan: Plan) =>
      tell(() => api.POST('/api/households/{household_id}/swaps', { params: { path: at }, body: plan })),
    change: async (one: Swap, more: Partial<Plan>) => {
      const was = asPlan(one)
      if (await change(one.key, { ...was, ...more }))
        undo.did({
          label: one.name,
          undo: () => change(one.key, was),
          redo: () => change(one.key, { ...was, ...more }),
        })
    },
    drop: (key: string) =>
      tell(() =>
        api.DELETE('/api/households/{household_id}/swaps/{key}', { params: { path: { ...at, key } } }),
      ),
    /** Done once more it is as it was. */
    done: async (one: Swap) => {
      if (await swap(one.key))
        undo.did({ label: one.name, undo: () => swap(one.key), redo: () => swap(one.key) })
    },
  }
}

function asPlan({ name, begins, ends, now, rows }: Swap): Plan {
  return {
    name,
    begins,
    ends,
    now,
    rows: rows.map(({ thing, count, during, after }) => ({ thing, count, during, after })),
  }
}

function Swaps({ house, view }: { house: number; view: View }) {
  const acts = useSwaps(house)
  const [open, setOpen] = useState<string | null>(null)
  return (
    <>
      {view.swaps.length === 0 && (
        <p className="quiet">
          Plan what takes turns: winter clothes and summer clothes, two sets of tyres, what comes out for a
          feast.
        </p>
      )}
      <ul className="places" aria-label="Swaps">
        {view.swaps.map((swap) => (
          <li key={swap.key} className={open === swap.key ? 'open' : ''}>
            <button
              type="button"
              className="plain place-name"
              aria-expanded={open === swap.key}
              onClick={() => setOpen(open === swap.key ? null : swap.key)}
            >
              <b>{swap.name}</b>
              <span className="quiet">
                {swap.now === 'during' ? 'out now' : 'put away now'}, next on {swap.next_on}
              </span>
              {swap.wrong.length > 0 && <span className="misheard">does not fit</span>}
            </button>
            {open === swap.key && <Inside swap={swap} view={view} acts={acts} />}
          </li>
        ))}
      </ul>
      <NewSwap view={view} onPlan={acts.plan} />
      {view.swaps.length > 0 && (
        <div className="row no-print">
          <Button
            component="a"
            size="compact-sm"
            variant="default"
            href={`/api/households/${String(house)}/keeping.ics`}
            download
          >
            All days as calendar
          </Button>
        </div>
      )}
    </>
  )
}

function Inside({ swap, view, acts }: { swap: Swap; view: View; acts: ReturnType<typeof useSwaps> }) {
  const phone = useMediaQuery('(width <= 760px)')
  const [thing, setThing] = useState<string | null>(null)
  const plan = asPlan(swap)
  const rows = plan.rows ?? []
  const places = [IN_USE, ...view.places.map((one) => ({ value: one.key, label: one.name }))]
  const change = (n: number, more: Partial<(typeof rows)[number]>) =>
    void acts.change(swap, { rows: rows.map((row, k) => (k === n ? { ...row, ...more } : row)) })
  const others = view.things.filter((one) => !rows.some((row) => row.thing === one.key))
  return (
    <div className="inside">
      <div className="row">
        <Day label="Out from" value={swap.begins} onKeep={(begins) => void acts.change(swap, { begins })} />
        <Day label="Away from" value={swap.ends} onKeep={(ends) => void acts.change(swap, { ends })} />
      </div>
      {swap.rows.map((row, n) => (
        <div key={row.thing} className="row swap-row">
          <NumberInput
            size="xs"
            w={76}
            aria-label={`How many ${row.name}`}
            key={row.count}
            defaultValue={row.count}
            min={1}
            max={10000}
            onBlur={(event) => {
              const count = Math.round(Number(event.currentTarget.value))
              if (count > 0 && count !== row.count) change(n, { count })
            }}
          />
          <span className="grow">{row.name}</span>
          {(['during', 'after'] as const).map((state) => (
            <Select
              key={state}
              size="xs"
              w={220}
              label={n > 0 && !phone ? undefined : state === 'during' ? 'in the season' : 'out of it'}
              aria-label={`${row.name} ${state === 'during' ? 'in the season' : 'out of it'}`}
              data={places}
              value={row[state]}
              searchable
              limit={MOST_SHOWN}
              allowDeselect={false}
              onChange={(place) => place !== null && change(n, { [state]: place })}
            />
          ))}
          <Button
            size="compact-xs"
            variant="subtle"
            aria-label={`${row.name} takes no turns`}
            onClick={() => void acts.change(swap, { rows: rows.filter((_, k) => k !== n) })}
          >
            Leave out
          </Button>
        </div>
      ))}
      <div className="row">
        <Select
          size="xs"
          w={220}
          aria-label="Something that takes turns"
          placeholder="something that takes turns"
          data={others.map((one) => ({ value: one.key, label: `${one.name} (${String(one.count)})` }))}
          value={thing}
          searchable
          limit={MOST_SHOWN}
          onChange={setThing}
        />
        <Button
          size="compact-sm"
          variant="default"
          disabled={!thing}
          onClick={() => {
            const found = view.things.find((one) => one.key === thing)
            if (found)
              void acts
                .change(swap, {
                  rows: [...rows, { thing: found.key, count: found.count, during: '', after: found.at }],
                })
                .then(() => setThing(null))
          }}
        >
          Add it
        </Button>
      </div>
      {swap.wrong.length > 0 && (
        <ul className="misheard">
          {swap.wrong.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      {swap.note && <p className="quiet">{swap.note}</p>}
      {swap.moves.length > 0 && (
        <>
          <p>
            In this order no place ever holds more than it takes
            {swap.aside > 0 &&
              `; ${String(swap.aside)} ${swap.aside === 1 ? 'thing is' : 'things are'} laid aside for a while${swap.fewest ? ', no order does with fewer' : ''}`}
            .
          </p>
          <ol>
            {swap.moves.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
          <div className="row">
            <Button onClick={() => void acts.done(swap)}>
              {swap.now === 'during' ? 'Put away: done' : 'Brought out: done'}
            </Button>
          </div>
        </>
      )}
      {swap.rows.length > 0 && swap.moves.length === 0 && (
        <p className="quiet">Nothing of it lies where it would be taken from, so nothing moves.</p>
      )}
      <div>
        <Button size="compact-sm" variant="subtle" onClick={() => void acts.drop(swap.key)}>
          Plan it no longer
        </Button>
      </div>
    </div>
  )
}

/** A day of every year; it is kept when the field is left. */
function Day({ label, value, onKeep }: { label: string; value: string; onKeep: (day: string) => void }) {
  return (
    <TextInput
      size="xs"
      w={110}
      label={label}
      placeholder="10-15"
      key={value}
      defaultValue={value}
      maxLength={5}
      onBlur={(event) => {
        const next = event.currentTarget.value.trim()
        if (next && next !== value) onKeep(next)
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
      }}
    />
  )
}

function NewSwap({ view, onPlan }: { view: View; onPlan: (plan: Plan) => Promise<boolean> }) {
  const [usual, setUsual] = useState('')
  const [name, setName] = useState('')
  const had = new Set(view.swaps.map((one) => one.name))
  const offered = view.usual.filter((one) => !had.has(one.name))
  const found = offered.find((one) => one.name === usual)
  return (
    <form
      className="row no-print"
      onSubmit={(event) => {
        event.preventDefault()
        const things = view.things.filter((one) => found?.things.includes(one.key))
        const plan: Plan = {
          name: found?.name ?? name.trim(),
          begins: found?.begins ?? '10-15',
          ends: found?.ends ?? '04-15',
          now: 'after',
          rows: things.map((one) => ({ thing: one.key, count: one.count, during: '', after: one.at })),
        }
        if (plan.name)
          void onPlan(plan).then((done) => {
            if (!done) return
            setName('')
            setUsual('')
          })
      }}
    >
      {offered.length > 0 && (
        <NativeSelect
          size="xs"
          aria-label="A usual swap"
          value={usual}
          data={[
            { value: '', label: 'a swap of your own' },
            ...offered.map((one) => ({
              value: one.name,
              label: `${one.name} (${String(one.things.length)})`,
            })),
          ]}
          onChange={(event) => setUsual(event.currentTarget.value)}
        />
      )}
      {!found && (
        <TextInput
          size="xs"
          aria-label="Name of the swap"
          placeholder="winter clothes"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      )}
      <Button type="submit" size="compact-sm" variant="default" disabled={!found && !name.trim()}>
        Plan it
      </Button>
    </form>
  )
}
