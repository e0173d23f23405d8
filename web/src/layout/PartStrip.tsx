import { ActionIcon, Button, NativeSelect, NumberInput } from '@mantine/core'
import {
  IconArrowBackUp,
  IconArrowDown,
  IconArrowForwardUp,
  IconArrowUp,
  IconMinus,
  IconPlus,
  IconTrash,
} from '@tabler/icons-react'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import type { Command, DesignEdits } from './useDesignEdits'

type Design = Schemas['DesignView']
type Part = Schemas['PartView']
type Held = Schemas['HeldView']

export interface PartStripProps {
  design: Design
  selected: Part | null
  edits: DesignEdits
  onSelect: (id: string | null) => void
}

/** What is selected on the drawing, what lives in it, and everything that can be done with it. */
export function PartStrip({ design, selected, edits, onSelect }: PartStripProps) {
  const edit = (command: Command) => void edits.edit(command)
  return (
    <div className="part-strip no-print" role="group" aria-label="Selected part">
      <div className="row tight">
        <Tool label="Undo (u)" disabled={!design.can_undo} onClick={() => void edits.undo()}>
          <IconArrowBackUp size={17} />
        </Tool>
        <Tool label="Redo (Shift u)" disabled={!design.can_redo} onClick={() => void edits.redo()}>
          <IconArrowForwardUp size={17} />
        </Tool>
      </div>
      <div className="row tight part-of">
        <NativeSelect
          size="xs"
          aria-label="Part"
          value={selected?.id ?? ''}
          data={[
            { value: '', label: 'no part selected' },
            ...design.parts.map((part) => ({ value: part.id, label: place(part) })),
          ]}
          onChange={(event) => onSelect(event.currentTarget.value || null)}
        />
        {selected?.movable && (
          <>
            <Tool label="Move up (↑)" onClick={() => edit({ do: 'move', part: selected.id, steps: 1 })}>
              <IconArrowUp size={17} />
            </Tool>
            <Tool label="Move down (↓)" onClick={() => edit({ do: 'move', part: selected.id, steps: -1 })}>
              <IconArrowDown size={17} />
            </Tool>
            {selected.role === 'drawer' && (
              <>
                <Tool
                  label="Higher front (Shift ↑)"
                  onClick={() => edit({ do: 'resize', part: selected.id, steps: 1 })}
                >
                  <IconPlus size={17} />
                </Tool>
                <Tool
                  label="Lower front (Shift ↓)"
                  onClick={() => edit({ do: 'resize', part: selected.id, steps: -1 })}
                >
                  <IconMinus size={17} />
                </Tool>
              </>
            )}
            <Tool label="Take out (Delete)" onClick={() => edit({ do: 'remove', part: selected.id })}>
              <IconTrash size={17} />
            </Tool>
          </>
        )}
      </div>
      {selected ? (
        <p className="part-facts">
          {selected.size} <span className="quiet">holds</span>{' '}
          {selected.holds.length
            ? selected.holds.map((held) => `${held.count} ${held.name}`).join(', ')
            : 'nothing'}
        </p>
      ) : (
        <Adder key={design.id} design={design} onAdd={edit} />
      )}
      <Mover key={selected?.id ?? 'homeless'} design={design} from={selected} onMove={edit} />
    </div>
  )
}

function place(part: Part): string {
  return `${part.name}, at ${part.height}`
}

function Tool({
  label,
  onClick,
  disabled,
  children,
}: {
  label: string
  onClick: () => void
  disabled?: boolean
  children: React.ReactNode
}) {
  return (
    <ActionIcon
      variant="default"
      size={28}
      aria-label={label}
      title={label}
      disabled={disabled ?? false}
      onClick={onClick}
    >
      {children}
    </ActionIcon>
  )
}

const MIDDLE_MM = 900

/** Add an empty part to a bay, at hip height; the arrow keys take it from there. */
function Adder({ design, onAdd }: { design: Design; onAdd: (command: Command) => void }) {
  const [role, setRole] = useState('shelf')
  const [bay, setBay] = useState('0')
  const roles = (['shelf', 'rail', 'drawer', 'tray'] as const).filter((one) => design.addable.includes(one))
  const wanted = roles.find((one) => one === role) ?? roles[0]
  return (
    <form
      className="row tight"
      onSubmit={(event) => {
        event.preventDefault()
        if (wanted) onAdd({ do: 'add', role: wanted, bay: Number(bay), z: MIDDLE_MM })
      }}
    >
      <NativeSelect
        size="xs"
        aria-label="What to add"
        value={wanted}
        data={[...roles]}
        onChange={(event) => setRole(event.currentTarget.value)}
      />
      <NativeSelect
        size="xs"
        aria-label="Bay to add it to"
        value={bay}
        data={Array.from({ length: design.bays }, (_, n) => ({ value: String(n), label: `bay ${n + 1}` }))}
        onChange={(event) => setBay(event.currentTarget.value)}
      />
      <Button size="compact-sm" variant="default" type="submit">
        Add
      </Button>
    </form>
  )
}

/** Send pieces from the selected part, or those without a place, to another part. */
function Mover({
  design,
  from,
  onMove,
}: {
  design: Design
  from: Part | null
  onMove: (command: Command) => void
}) {
  const held: readonly Held[] = from ? from.holds : design.unplaced
  const [thing, setThing] = useState('')
  const [target, setTarget] = useState('')
  const [count, setCount] = useState<number | null>(null)
  const one = held.find((row) => row.thing === thing) ?? held[0]
  if (!one) return null
  const fitting = design.parts.filter(
    (part) => part.id !== from?.id && one.ways.some((way) => part.takes.includes(way)),
  )
  const to = fitting.find((part) => part.id === target)
  const pieces = Math.min(count ?? one.count, one.count)
  return (
    <form
      className="row tight mover"
      onSubmit={(event) => {
        event.preventDefault()
        const way = to ? one.ways.find((w) => to.takes.includes(w)) : one.ways[0]
        if (way)
          onMove({
            do: 'assign',
            thing: one.thing,
            way,
            count: pieces,
            source: from?.id ?? null,
            target: to?.id ?? null,
          })
        setTarget('')
        setCount(null)
      }}
    >
      <span className="quiet">{from ? 'send' : 'no place for'}</span>
      <NumberInput
        size="xs"
        aria-label="How many pieces"
        min={1}
        max={one.count}
        value={pieces}
        onChange={(value) => setCount(Number(value) || 1)}
        w={58}
      />
      <NativeSelect
        size="xs"
        aria-label="Which things"
        value={one.thing}
        data={held.map((row) => ({ value: row.thing, label: row.name }))}
        onChange={(event) => {
          setThing(event.currentTarget.value)
          setCount(null)
        }}
      />
      <NativeSelect
        size="xs"
        aria-label="To which part"
        value={to?.id ?? ''}
        data={[
          { value: '', label: from ? 'no place' : 'to…' },
          ...fitting.map((part) => ({ value: part.id, label: place(part) })),
        ]}
        onChange={(event) => setTarget(event.currentTarget.value)}
      />
      <Button size="compact-sm" variant="default" type="submit" disabled={!from && !to}>
        Send
      </Button>
    </form>
  )
}
