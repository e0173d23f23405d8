import { ActionIcon, Button, NativeSelect } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { Field } from '../shell/Field'
import type { Change } from './useThingsChange'

type Row = Schemas['ThingView']

const SHOWN = 150
const WAY_WORDS: Record<string, string> = {
  hang: 'hang',
  shelf: 'fold',
  drawer: 'drawer',
  shoe: 'shoe shelf',
  box: 'shelf',
}

export interface ThingsTableProps {
  rows: readonly Row[]
  people: readonly Schemas['Person'][]
  vocabulary: Schemas['Vocabulary']
  onChange: (row: Row, change: Change) => void
  onRemove: (row: Row) => void
}

/** The sorting table: every cell is edited where it stands. */
export function ThingsTable({ rows, ...props }: ThingsTableProps) {
  const [most, setMost] = useState(SHOWN)
  return (
    <>
      <table className="table things">
        <thead>
          <tr>
            <th className="n">Count</th>
            <th>What</th>
            <th>Whose</th>
            <th>How often</th>
            <th>Decision</th>
            <th className="wide-only">Stored</th>
            <th>
              <span className="visually-hidden">Take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, most).map((row) => (
            <ThingRow key={row.id} row={row} {...props} />
          ))}
        </tbody>
      </table>
      {rows.length > most && (
        <Button variant="default" size="compact-sm" mt="xs" onClick={() => setMost(most + SHOWN)}>
          Show {Math.min(SHOWN, rows.length - most)} more of {rows.length}
        </Button>
      )}
    </>
  )
}

function ThingRow({
  row,
  people,
  vocabulary,
  onChange,
  onRemove,
}: Omit<ThingsTableProps, 'rows'> & { row: Row }) {
  const { thing } = row
  const leaves = !['keep', 'repair', 'undecided'].includes(thing.decision)
  const owners = [{ value: '', label: 'the house' }, ...people.map((p) => ({ value: p.id, label: p.name }))]
  const select = (
    label: string,
    value: string,
    data: readonly (string | { value: string; label: string })[],
    keep: (value: string) => Change,
  ) => (
    <NativeSelect
      variant="unstyled"
      size="sm"
      aria-label={`${label} of ${thing.name}`}
      value={value}
      data={[...data]}
      onChange={(event) => onChange(row, keep(event.currentTarget.value))}
    />
  )
  return (
    <tr className={leaves ? 'leaving' : ''} data-thing={thing.id}>
      <td className="n">
        <Field
          label={`Count of ${thing.name}`}
          text={String(thing.count)}
          numeric
          onKeep={(text) => onChange(row, { count: Number(text) })}
        />
      </td>
      <td>
        <Field label={`Name of ${thing.name}`} text={thing.name} onKeep={(name) => onChange(row, { name })} />
      </td>
      <td>{select('Owner', thing.owner, owners, (owner) => ({ owner }))}</td>
      <td>
        {select('Frequency', thing.frequency, vocabulary.frequencies, (value) => ({
          frequency: value as Schemas['Thing']['frequency'],
        }))}
      </td>
      <td>
        {select('Decision', thing.decision, vocabulary.decisions, (value) => ({
          decision: value as Schemas['Thing']['decision'],
        }))}
      </td>
      <td className="wide-only">
        {select(
          'Way of storing',
          thing.way ?? '',
          [
            { value: '', label: 'as it fits' },
            ...row.ways.map((way) => ({ value: way, label: WAY_WORDS[way] ?? way })),
          ],
          (value) => ({ way: (value || null) as NonNullable<Schemas['Thing']['way']> | null }),
        )}
      </td>
      <td className="n">
        <ActionIcon
          size={24}
          variant="subtle"
          color="gray"
          aria-label={`Take out ${thing.name}`}
          onClick={() => onRemove(row)}
        >
          <IconX size={14} />
        </ActionIcon>
      </td>
    </tr>
  )
}
