import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core'
import { useState } from 'react'
import { inUnits, useUnits } from '../shell/units'

import { api, body, type Schemas } from '../api/client'
import { TakeOut } from '../shell/TakeOut'
import { useWorkChange, type WorkPanelProps } from './useWorkChange'

type Kind = Schemas['OwnedData']['kind']
type Grade = Schemas['OwnedData']['grade']
const KINDS: readonly Kind[] = ['container', 'furniture', 'board']
const GRADES: Record<Grade, string> = {
  particleboard: 'Particleboard',
  mdf: 'MDF',
  'spruce-plywood': 'Spruce plywood',
  'birch-plywood': 'Birch plywood',
  pine: 'Pine',
  oak: 'Oak',
}

/** Boxes, baskets, jars, furniture and boards the house has already. */
export function OwnedList({ houseId, work }: WorkPanelProps) {
  const units = useUnits(houseId)
  const change = useWorkChange(houseId)
  const [name, setName] = useState('')
  const [count, setCount] = useState<number>(1)
  const [size, setSize] = useState('')
  const [kind, setKind] = useState<Kind>('container')
  const [grade, setGrade] = useState<Grade>('particleboard')
  const path = { household_id: houseId }
  return (
    <div className="panel">
      <h2>What the house has already</h2>
      <p className="quiet small">
        Boxes, baskets, jars, racks: offered to the plan before anything is bought. Boards and offcuts are cut
        first; old furniture can be taken apart into boards.
      </p>
      <table className="table">
        <tbody>
          {work.owned.map((row) => (
            <tr key={row.key}>
              <td className="n">{row.count}</td>
              <th scope="row">{row.name}</th>
              <td>{row.size}</td>
              <td>{row.kind === 'container' ? row.litres : row.made_of || 'furniture'}</td>
              <td>
                {row.kind === 'furniture' && <TakeApart houseId={houseId} row={row} />}
                <TakeOut
                  label={`Take ${row.name} off the list`}
                  onClick={() =>
                    change.mutate(() =>
                      body(
                        api.DELETE('/api/households/{household_id}/owned/{key}', {
                          params: { path: { ...path, key: row.key } },
                        }),
                      ),
                    )
                  }
                />
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
                  body: { name, count, size, kind, lid: 'none', grade },
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
          label={kind === 'board' ? 'Length, width, thickness' : 'Outside size'}
          placeholder={
            kind === 'board'
              ? inUnits(units, '900 x 300 x 18', '36 x 12 x 3/4')
              : inUnits(units, '320 x 380 x 220', '12 x 15 x 8 1/2')
          }
          value={size}
          onChange={(event) => setSize(event.currentTarget.value)}
        />
        <NativeSelect
          label="Kind"
          value={kind}
          data={[...KINDS]}
          onChange={(event) => setKind(KINDS.find((one) => one === event.currentTarget.value) ?? 'container')}
        />
        {kind === 'board' && (
          <NativeSelect
            label="Made of"
            value={grade}
            data={Object.entries(GRADES).map(([value, label]) => ({ value, label }))}
            onChange={(event) => setGrade(event.currentTarget.value as Grade)}
          />
        )}
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

/** Old furniture as boards: how many loose shelves, how thick, of what. */
function TakeApart({ houseId, row }: { houseId: number; row: Schemas['OwnedView'] }) {
  const change = useWorkChange(houseId)
  const [open, setOpen] = useState(false)
  const [shelves, setShelves] = useState(3)
  const [thickness, setThickness] = useState('18 mm')
  const [grade, setGrade] = useState<Grade>('particleboard')
  if (!open)
    return (
      <Button size="compact-xs" variant="default" onClick={() => setOpen(true)}>
        Take apart…
      </Button>
    )
  return (
    <form
      className="row"
      style={{ alignItems: 'flex-end' }}
      aria-label={`Take ${row.name} apart`}
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate(() =>
          body(
            api.POST('/api/households/{household_id}/owned/{key}/apart', {
              params: { path: { household_id: houseId, key: row.key } },
              body: { shelves, thickness, grade },
            }),
          ),
        )
      }}
    >
      <NumberInput
        size="xs"
        label="Loose shelves"
        w={96}
        min={0}
        max={40}
        value={shelves}
        onChange={(value) => setShelves(Number(value) || 0)}
      />
      <TextInput
        size="xs"
        label="Board thickness"
        w={110}
        value={thickness}
        onChange={(event) => setThickness(event.currentTarget.value)}
      />
      <NativeSelect
        size="xs"
        label="Made of"
        value={grade}
        data={Object.entries(GRADES).map(([value, label]) => ({ value, label }))}
        onChange={(event) => setGrade(event.currentTarget.value as Grade)}
      />
      <Button size="xs" type="submit" variant="default" loading={change.isPending}>
        Take it apart
      </Button>
    </form>
  )
}
