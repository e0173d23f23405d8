import { Button, Menu, TextInput } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import type { Change } from './useThingsChange'

type Row = Schemas['ThingView']

const SAYS: Record<string, string> = { count: 'how many?', owner: 'whose?', size: 'size it' }
const WHY: Record<string, string> = {
  count: 'Nobody said how many there are: write the number in the first column, or say it is right.',
  owner: 'That could be several of the people here: choose one beside it, or leave it to the house.',
  size: 'Nobody here knows this yet. Give the size of one, or say what it is like; it is known from then on.',
  kind: 'This was guessed from the name. What you choose is known from then on.',
}

/** What of a group a person has yet to look at, and the ways to put it right. */
export function Mark({ row, onChange }: { row: Row; onChange: (change: Change) => void }) {
  const [size, setSize] = useState('')
  const { unsure, name } = row.thing
  if (!unsure) return null
  const says = SAYS[unsure] ?? `${row.kind_name}?`
  return (
    <Menu position="bottom-start" width={260} withinPortal>
      <Menu.Target>
        <button type="button" className="unsure-mark" aria-label={`${name}: ${says}`} title={says}>
          {says}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label className="unsure-why">{WHY[unsure]}</Menu.Label>
        {unsure === 'size' && (
          <form
            className="row unsure-size"
            onSubmit={(event) => {
              event.preventDefault()
              if (size.trim()) onChange({ size })
            }}
          >
            <TextInput
              size="xs"
              aria-label={`Size of one of ${name}`}
              placeholder={row.size.replace(/ mm$/, '')}
              value={size}
              onChange={(event) => setSize(event.currentTarget.value)}
              onKeyDown={(event) => event.stopPropagation()}
            />
            <Button type="submit" size="compact-xs" disabled={!size.trim()}>
              Keep
            </Button>
          </form>
        )}
        {row.others.map((kind) => (
          <Menu.Item key={kind.id} onClick={() => onChange({ kind: kind.id })}>
            {kind.name}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <Menu.Item onClick={() => onChange({ unsure: '' })}>
          {unsure === 'size' ? `About ${row.size} is right` : 'It is right as it is'}
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}
