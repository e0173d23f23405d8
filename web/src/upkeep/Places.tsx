import { Button, Checkbox, NativeSelect, NumberInput, SegmentedControl, TextInput } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'

import { useFilled, type Filled } from './useFilled'
import type { Acts, Place, Upkeep } from './useUpkeep'

interface Props {
  upkeep: Upkeep
  acts: Acts
  chosen: number | null
  onChoose: (place: number | null) => void
}

/** Every place with what lies in it: as they stand, or in the order in which they are filled. */
export function Places({ upkeep, acts, chosen, onChoose }: Props) {
  const [order, setOrder] = useState('standing')
  const [name, setName] = useState('')
  const filled = useFilled(upkeep.space)
  const rows =
    order === 'filling' ? [...upkeep.places].sort((one, other) => one.order - other.order) : upkeep.places
  return (
    <>
      {upkeep.loose.length > 0 && upkeep.places.length > 0 && (
        <p className="misheard">
          Without a place: {upkeep.loose.map((one) => `${String(one.count)} ${one.name}`).join(', ')}.
        </p>
      )}
      {upkeep.differences.length > 0 && (
        <details>
          <summary>Not as planned: {upkeep.differences.length}</summary>
          <ul>
            {upkeep.differences.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      )}
      {upkeep.places.length > 1 && (
        <SegmentedControl
          className="no-print"
          size="xs"
          aria-label="Order of the places"
          value={order}
          onChange={setOrder}
          data={[
            { value: 'standing', label: 'as they stand' },
            { value: 'filling', label: 'as they are filled' },
          ]}
        />
      )}
      {filled.waiting > 0 && (
        <p className="quiet" role="status">
          {filled.waiting === 1 ? '1 tick waits' : `${String(filled.waiting)} ticks wait`} on this device
        </p>
      )}
      <ul className="places" aria-label="Places">
        {rows.map((place) => (
          <Row
            key={place.id}
            place={place}
            number={order === 'filling' ? place.order : null}
            upkeep={upkeep}
            acts={acts}
            open={place.id === chosen}
            filled={filled}
            onOpen={() => onChoose(place.id === chosen ? null : place.id)}
          />
        ))}
      </ul>
      <form
        className="row no-print"
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim()) void acts.add(name.trim()).then((done) => done && setName(''))
        }}
      >
        <TextInput
          size="xs"
          aria-label="A place that is there"
          placeholder="drawer by the door"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" size="compact-sm" variant="default" disabled={!name.trim()}>
          Add a place
        </Button>
      </form>
    </>
  )
}

interface RowProps {
  place: Place
  number: number | null
  upkeep: Upkeep
  acts: Acts
  open: boolean
  onOpen: () => void
  filled: Filled
}

function Row({ place, number, upkeep, acts, open, onOpen, filled }: RowProps) {
  const row = useRef<HTMLLIElement>(null)
  useEffect(() => {
    if (open) row.current?.scrollIntoView({ block: 'nearest' })
  }, [open])
  return (
    <li ref={row} className={open ? 'open' : ''}>
      {number !== null && (
        <Checkbox
          className="filled"
          label={number}
          aria-label={`${place.name} is filled`}
          checked={filled.is(place)}
          onChange={(event) => filled.say(place, event.currentTarget.checked)}
        />
      )}
      <button type="button" className="plain place-name" aria-expanded={open} onClick={onOpen}>
        <b>{place.name}</b>
        {place.height && <span className="quiet"> at {place.height}</span>}
        {place.outdated && <span className="misheard"> label out of date</span>}
      </button>
      {!open && (
        <span className="held">
          {place.stays.length === 0
            ? 'nothing'
            : place.stays
                .map(
                  (stay) =>
                    `${String(stay.count)} ${stay.name}${stay.lent_to ? `, lent to ${stay.lent_to}` : ''}`,
                )
                .join('; ')}
        </span>
      )}
      {open && <Inside place={place} upkeep={upkeep} acts={acts} />}
    </li>
  )
}

/** What lies in a place, to be changed as one finds it. */
function Inside({ place, upkeep, acts }: Pick<RowProps, 'place' | 'upkeep' | 'acts'>) {
  const [thing, setThing] = useState('')
  const here = new Set(place.stays.map((stay) => stay.thing))
  const others = new Map<string, string>()
  for (const one of upkeep.loose) others.set(one.thing, `${one.name} (${String(one.count)} without a place)`)
  for (const one of upkeep.places)
    for (const stay of one.stays)
      if (!others.has(stay.thing)) others.set(stay.thing, `${stay.name} (${one.name})`)
  const rest = [...others].filter(([key]) => !here.has(key))
  return (
    <div className="inside">
      {place.stays.map((stay) => (
        <div key={stay.thing} className="row">
          <NumberInput
            size="xs"
            w={84}
            aria-label={`How many ${stay.name} in ${place.name}`}
            key={stay.count}
            defaultValue={stay.count}
            min={0}
            max={10000}
            onBlur={(event) => {
              const next = Math.round(Number(event.currentTarget.value))
              if (Number.isFinite(next) && next !== stay.count)
                void acts.put(upkeep, place, stay.thing, next, stay.name)
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur()
            }}
          />
          <span className="grow">
            {stay.name}
            {stay.owner && <span className="quiet"> · {stay.owner}</span>}
          </span>
          <TextInput
            size="xs"
            w={150}
            aria-label={`${stay.name} lent to`}
            placeholder="lent to"
            key={stay.lent_to}
            defaultValue={stay.lent_to}
            maxLength={120}
            onBlur={(event) => {
              const next = event.currentTarget.value.trim()
              if (next !== stay.lent_to) void acts.lend(place, stay.thing, next, stay.lent_to)
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur()
            }}
          />
          {stay.lent_on && <span className="quiet">since {stay.lent_on}</span>}
        </div>
      ))}
      <div className="row">
        {rest.length > 0 && (
          <>
            <NativeSelect
              size="xs"
              aria-label={`Put into ${place.name}`}
              value={thing}
              data={[
                { value: '', label: 'put something else here' },
                ...rest.map(([value, label]) => ({ value, label })),
              ]}
              onChange={(event) => setThing(event.currentTarget.value)}
            />
            <Button
              size="compact-sm"
              variant="default"
              disabled={!thing}
              onClick={() => {
                const loose = upkeep.loose.find((one) => one.thing === thing)
                const name = others.get(thing) ?? thing
                void acts.put(upkeep, place, thing, loose?.count ?? 1, name).then(() => setThing(''))
              }}
            >
              Put it here
            </Button>
          </>
        )}
        <span className="quiet">called</span>
        <TextInput
          size="xs"
          aria-label={`Name of ${place.name}`}
          key={place.name}
          defaultValue={place.name}
          maxLength={120}
          onBlur={(event) => {
            const next = event.currentTarget.value.trim()
            if (next && next !== place.name) void acts.rename(place, next)
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur()
          }}
        />
        {place.part === '' && (
          <Button size="compact-sm" variant="subtle" onClick={() => void acts.drop(place.id)}>
            Take this place away
          </Button>
        )}
      </div>
    </div>
  )
}
