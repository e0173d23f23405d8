import { ActionIcon, Button, NativeSelect } from '@mantine/core'
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
    </div>
  )
}

/** A part as it is called in lists. */
export function place(part: Part): string {
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
