import { Button, Checkbox, NativeSelect, NumberInput, SegmentedControl, TextInput } from '@mantine/core'
import { useState } from 'react'

import { Fetched } from '../shell/Fetched'
import { useRestock, useRestocking, type RestockData, type Restocking, type Supply } from './useRestock'

interface Props {
  house: number
  space: { id: number; name: string }
}

/** What is used up: tick what was taken, see what runs out, and what to buy. */
export function Restock({ house, space }: Props) {
  const query = useRestock(house)
  return (
    <Fetched query={query} waiting="Looking into the cupboards">
      {(view) => <Supplies house={house} space={space} view={view} />}
    </Fetched>
  )
}

function Supplies({ house, space, view }: Props & { view: RestockData }) {
  const acts = useRestocking(house)
  const here = view.supplies.filter((one) => one.space === space.id)
  const [whose, setWhose] = useState(here.length > 0 ? 'here' : 'house')
  const [open, setOpen] = useState<string | null>(null)
  const shown = whose === 'here' ? here : view.supplies
  return (
    <>
      {acts.waiting.length > 0 && (
        <p className="quiet" role="status">
          {acts.waiting.length === 1 ? '1 tick waits' : `${String(acts.waiting.length)} ticks wait`} on this
          device
        </p>
      )}
      {acts.refused && <p className="misheard">{acts.refused}</p>}
      {view.supplies.length === 0 && (
        <p className="quiet">
          Say what is used up and bought again; then tick here what was taken, and when it runs out shows from
          that.
        </p>
      )}
      {view.supplies.length > 0 && (
        <div className="row no-print">
          <SegmentedControl
            size="xs"
            aria-label="Of which space"
            value={whose}
            onChange={setWhose}
            data={[
              { value: 'here', label: space.name },
              { value: 'house', label: 'the whole house' },
            ]}
          />
          <Button
            component="a"
            size="compact-sm"
            variant="default"
            href={`/api/households/${String(house)}/restock.pdf`}
            target="_blank"
          >
            Print the list
          </Button>
        </div>
      )}
      {whose === 'here' && here.length === 0 && view.supplies.length > 0 && (
        <p className="quiet">Nothing of {space.name} is watched.</p>
      )}
      <ul className="places supplies" aria-label="Used up">
        {shown.map((supply) => (
          <Row
            key={supply.key}
            supply={supply}
            acts={acts}
            open={open === supply.key}
            onOpen={() => setOpen(open === supply.key ? null : supply.key)}
          />
        ))}
      </ul>
      <Shopping view={view} />
      <Watch view={view} space={space.id} acts={acts} onWatch={() => setWhose('house')} />
    </>
  )
}

function Shopping({ view }: { view: RestockData }) {
  if (view.supplies.length === 0) return null
  if (view.shops.length === 0) return <p className="quiet">Nothing is to be bought.</p>
  return (
    <section aria-label="To buy">
      {view.shops.map((shop) => (
        <div key={shop.shop}>
          <h3>To buy{shop.shop ? `: ${shop.shop}` : ''}</h3>
          <ul>
            {shop.lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  )
}

interface RowProps {
  supply: Supply
  acts: Restocking
  open: boolean
  onOpen: () => void
}

function Row({ supply, acts, open, onOpen }: RowProps) {
  const waits = acts.waiting.filter((one) => one.supply === supply.key)
  const verb = supply.lasting ? 'Opened one' : 'Took one'
  return (
    <li className={open ? 'open' : ''}>
      <div className="supply">
        <div>
          <button type="button" className="plain place-name" aria-expanded={open} onClick={onOpen}>
            <b>{supply.name}</b>
            {supply.buy > 0 && (
              <span className="flag">
                buy {supply.buy}
                {supply.pack > 1 && ` × ${String(supply.pack)}`}
              </span>
            )}
          </button>
          <span className="held">
            {[
              supply.says,
              supply.place,
              waits.length > 0 &&
                `${waits.map((one) => (one.gone ? `not ${one.did}` : one.did)).join(', ')}: waits`,
            ]
              .filter(Boolean)
              .join('; ')}
          </span>
        </div>
        <Button
          className="no-print"
          aria-label={`${verb}: ${supply.name}`}
          variant="default"
          onClick={() => acts.did(supply, 'opened')}
        >
          {verb}
        </Button>
      </div>
      <span className="held">{supply.runs_out}.</span>
      {supply.cautions.map((caution) => (
        <span key={caution} className="held misheard">
          {caution}
        </span>
      ))}
      {open && <Inside supply={supply} acts={acts} />}
    </li>
  )
}

/** What else happened to it, how much of it is kept, and what was ticked so far. */
function Inside({ supply, acts }: { supply: Supply; acts: Restocking }) {
  const [count, setCount] = useState(supply.pack)
  const [day, setDay] = useState('')
  const kept = {
    thing: supply.thing,
    lasting: supply.lasting,
    spare: supply.spare,
    days: supply.days,
    shop: supply.shop,
    pack: supply.pack,
    keeps: supply.keeps,
  }
  const say = (change: Partial<typeof kept>) => void acts.watch({ ...kept, ...change })
  const many = { count, best_before: day }
  return (
    <div className="inside">
      <div className="row">
        <NumberInput
          size="xs"
          w={84}
          label="How many"
          value={count}
          min={0}
          max={10000}
          onChange={(value) => setCount(Math.max(0, Math.round(Number(value) || 0)))}
        />
        <TextInput
          size="xs"
          type="date"
          label="Best before"
          value={day}
          onChange={(event) => setDay(event.currentTarget.value)}
        />
        <Button size="compact-sm" disabled={count === 0} onClick={() => acts.did(supply, 'bought', many)}>
          Bought
        </Button>
        {!supply.lasting && (
          <Button
            size="compact-sm"
            variant="default"
            disabled={count === 0}
            onClick={() => acts.did(supply, 'opened', { count })}
          >
            Took
          </Button>
        )}
        <Button
          size="compact-sm"
          variant="default"
          disabled={count === 0}
          onClick={() => acts.did(supply, 'thrown', { count })}
        >
          Threw away
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => acts.did(supply, 'counted', many)}>
          So many are there
        </Button>
        {supply.in_use && (
          <Button size="compact-sm" variant="default" onClick={() => acts.did(supply, 'finished')}>
            The one in use is finished
          </Button>
        )}
      </div>
      <div className="row">
        <Kept label="Spare ones kept" value={supply.spare} least={0} onKeep={(spare) => say({ spare })} />
        <Kept
          label="Or enough for days"
          value={supply.days}
          least={1}
          onKeep={(days) => say({ days: days || null })}
        />
        <Kept label="Bought in packs of" value={supply.pack} least={1} onKeep={(pack) => say({ pack })} />
        <Kept
          label="Keeps open, days"
          value={supply.keeps}
          least={0}
          onKeep={(keeps) => say({ keeps: keeps || null })}
        />
        <TextInput
          size="xs"
          w={140}
          label="Shop"
          key={supply.shop}
          defaultValue={supply.shop}
          maxLength={80}
          onBlur={(event) => {
            const shop = event.currentTarget.value.trim()
            if (shop !== supply.shop) say({ shop })
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur()
          }}
        />
      </div>
      <Checkbox
        label="One is open and in use for a while"
        checked={supply.lasting}
        onChange={(event) => say({ lasting: event.currentTarget.checked })}
      />
      {supply.movements.length > 0 && (
        <ul className="moved">
          {supply.movements.map((one) => (
            <li key={one.key}>
              {one.on}: {one.says}
              <Button
                size="compact-xs"
                variant="subtle"
                aria-label={`${one.on}: ${one.says}: not so`}
                onClick={() => acts.back(supply, one)}
              >
                Not so
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div>
        <Button size="compact-sm" variant="subtle" onClick={() => void acts.unwatch(supply)}>
          Watch it no longer
        </Button>
      </div>
    </div>
  )
}

interface KeptProps {
  label: string
  value: number | null
  least: number
  onKeep: (value: number) => void
}

/** A number that is kept when it is left. */
function Kept({ label, value, least, onKeep }: KeptProps) {
  return (
    <NumberInput
      size="xs"
      w={124}
      label={label}
      key={value}
      defaultValue={value ?? ''}
      min={least}
      max={1000}
      onBlur={(event) => {
        const text = event.currentTarget.value
        const next = text === '' ? 0 : Math.round(Number(text))
        if (Number.isFinite(next) && next !== (value ?? 0) && (text === '' || next >= least)) onKeep(next)
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
      }}
    />
  )
}

interface WatchProps {
  view: RestockData
  space: number
  acts: Restocking
  onWatch: () => void
}

/** Another thing to watch: those of this space first. */
function Watch({ view, space, acts, onWatch }: WatchProps) {
  const [thing, setThing] = useState('')
  const could = [
    ...view.could.filter((one) => one.space === space),
    ...view.could.filter((one) => one.space !== space),
  ]
  if (could.length === 0)
    return view.supplies.length > 0 ? null : (
      <p className="quiet">Sort knows of nothing here that is used up, such as food, soap or medicine.</p>
    )
  const found = could.find((one) => one.thing === thing)
  return (
    <div className="row no-print">
      <NativeSelect
        size="xs"
        aria-label="What is used up"
        value={thing}
        data={[
          { value: '', label: 'what is used up' },
          ...could.map((one) => ({ value: one.thing, label: one.name })),
        ]}
        onChange={(event) => setThing(event.currentTarget.value)}
      />
      <Button
        size="compact-sm"
        variant="default"
        disabled={!found}
        onClick={() => {
          if (!found) return
          void acts
            .watch({
              thing: found.thing,
              lasting: found.lasting,
              spare: 1,
              days: null,
              shop: '',
              pack: 1,
              keeps: null,
            })
            .then((done) => {
              if (!done) return
              setThing('')
              if (found.space !== space) onWatch()
            })
        }}
      >
        Watch it
      </Button>
    </div>
  )
}
