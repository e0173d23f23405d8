import { ActionIcon, Checkbox, FileButton, NativeSelect } from '@mantine/core'
import { IconCamera, IconCopy, IconX } from '@tabler/icons-react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef } from 'react'

import type { Schemas } from '../api/client'
import { Field } from '../shell/Field'
import { Mark } from './Mark'
import type { Change } from './useThingsChange'

type Row = Schemas['ThingView']

const ROW_HEIGHT = 38
const SHOWN_ABOVE = 12
const WAY_WORDS: Record<string, string> = {
  hang: 'hang',
  shelf: 'fold or stand',
  drawer: 'drawer',
  shoe: 'shoe shelf',
  box: 'shelf',
  hook: 'hook',
  floor: 'floor',
  overhead: 'overhead',
}

export interface ThingsTableProps {
  rows: readonly Row[]
  people: readonly Schemas['Person'][]
  vocabulary: Schemas['Vocabulary']
  photos: ReadonlyMap<string, string>
  selected: ReadonlySet<number>
  onSelect: (ids: ReadonlySet<number>) => void
  onChange: (row: Row, change: Change) => void
  onRemove: (row: Row) => void
  onDuplicate: (row: Row) => void
  onPhoto: (row: Row, file: File) => void
}

/** The sorting table: every cell is edited where it stands. Only the rows in sight are in the page. */
export function ThingsTable({ rows, selected, onSelect, ...props }: ThingsTableProps) {
  const scroller = useRef<HTMLDivElement>(null)
  // Its functions change with every scroll and may not be memoized: nothing here is.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: SHOWN_ABOVE,
    getItemKey: (n) => rows[n]?.id ?? n,
  })
  // What was just added is shown.
  const known = useRef(rows.length)
  useEffect(() => {
    if (rows.length > known.current) virtual.scrollToIndex(rows.length - 1)
    known.current = rows.length
  }, [rows.length, virtual])
  const items = virtual.getVirtualItems()
  const before = items[0]?.start ?? 0
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0)
  const all = rows.length > 0 && rows.every((row) => selected.has(row.id))
  const toggle = (id: number) => {
    const next = new Set(selected)
    if (!next.delete(id)) next.add(id)
    onSelect(next)
  }
  return (
    <div className="things-scroll" ref={scroller} tabIndex={-1}>
      <table className="table things" aria-rowcount={rows.length + 1}>
        <thead>
          <tr>
            <th>
              <Checkbox
                size="xs"
                aria-label="Select all"
                checked={all}
                indeterminate={selected.size > 0 && !all}
                onChange={() => onSelect(all ? new Set() : new Set(rows.map((row) => row.id)))}
              />
            </th>
            <th className="n">Count</th>
            <th>What</th>
            <th>Whose</th>
            <th>How often</th>
            <th>Decision</th>
            <th className="wide-only">Stored</th>
            <th className="wide-only">For</th>
            <th>
              <span className="visually-hidden">Acts</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {before > 0 && (
            <tr aria-hidden="true">
              <td style={{ height: before, padding: 0, border: 0 }} />
            </tr>
          )}
          {items.map((item) => {
            const row = rows[item.index]
            return row ? (
              <ThingRow
                key={row.id}
                row={row}
                index={item.index}
                checked={selected.has(row.id)}
                onToggle={() => toggle(row.id)}
                {...props}
              />
            ) : null
          })}
          {after > 0 && (
            <tr aria-hidden="true">
              <td style={{ height: after, padding: 0, border: 0 }} />
            </tr>
          )}
        </tbody>
      </table>
    </div>
  )
}

function ThingRow({
  row,
  index,
  people,
  vocabulary,
  photos,
  checked,
  onToggle,
  onChange,
  onRemove,
  onDuplicate,
  onPhoto,
}: Omit<ThingsTableProps, 'rows' | 'selected' | 'onSelect'> & {
  row: Row
  index: number
  checked: boolean
  onToggle: () => void
}) {
  const { thing } = row
  const leaves = !['keep', 'repair', 'undecided'].includes(thing.decision)
  const owners = [{ value: '', label: 'the house' }, ...people.map((p) => ({ value: p.id, label: p.name }))]
  const photo = photos.get(thing.id)
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
    <tr className={leaves ? 'leaving' : ''} data-thing={thing.id} aria-rowindex={index + 2}>
      <td>
        <Checkbox size="xs" aria-label={`Select ${thing.name}`} checked={checked} onChange={onToggle} />
      </td>
      <td className="n">
        <Field
          label={`Count of ${thing.name}`}
          text={String(thing.count)}
          numeric
          onKeep={(text) => onChange(row, { count: Number(text) })}
        />
      </td>
      <td title={[row.size, thing.note].filter(Boolean).join('; ')}>
        <span className="what">
          <Field
            label={`Name of ${thing.name}`}
            text={thing.name}
            onKeep={(name) => onChange(row, { name })}
          />
          <Mark row={row} onChange={(change) => onChange(row, change)} />
        </span>
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
      <td className="wide-only">
        <Field
          label={`What ${thing.name} are for`}
          text={thing.label}
          onKeep={(label) => onChange(row, { label })}
        />
      </td>
      <td className="acts">
        {photo ? (
          <a href={photo} target="_blank" rel="noreferrer">
            <img className="thumb" src={photo} alt={`Photo of ${thing.name}`} loading="lazy" />
          </a>
        ) : (
          <FileButton
            accept="image/*"
            onChange={(file) => file && onPhoto(row, file)}
            inputProps={{ 'aria-label': `Photo file of ${thing.name}` }}
          >
            {(button) => (
              <Act {...button} label={`Photograph ${thing.name}`}>
                <IconCamera size={14} />
              </Act>
            )}
          </FileButton>
        )}
        <Act label={`Duplicate ${thing.name}`} onClick={() => onDuplicate(row)}>
          <IconCopy size={14} />
        </Act>
        <Act label={`Take out ${thing.name}`} onClick={() => onRemove(row)}>
          <IconX size={14} />
        </Act>
      </td>
    </tr>
  )
}

function Act({
  label,
  onClick,
  children,
}: {
  label: string
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <ActionIcon size={24} variant="subtle" color="gray" aria-label={label} title={label} onClick={onClick}>
      {children}
    </ActionIcon>
  )
}
