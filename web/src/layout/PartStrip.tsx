import { ActionIcon, Button, NativeSelect, Popover } from '@mantine/core'
import {
  IconArrowBackUp,
  IconArrowDown,
  IconArrowForwardUp,
  IconArrowUp,
  IconLock,
  IconLockOpen,
  IconMinus,
  IconPlus,
  IconTrash,
} from '@tabler/icons-react'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import type { Command, DesignEdits } from './useDesignEdits'

type Design = Schemas['DesignView']
type Part = Schemas['PartView']
type Holder = Schemas['AddPart']['role']

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
            {selected.resizable && (
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
            <Tool
              label={selected.locked ? 'Unlock' : 'Lock'}
              onClick={() => edit({ do: 'lock', part: selected.id, locked: !selected.locked })}
            >
              {selected.locked ? <IconLock size={17} /> : <IconLockOpen size={17} />}
            </Tool>
            <NativeSelect
              size="xs"
              aria-label="Make it another part"
              value=""
              data={[{ value: '', label: 'make it…' }, ...selected.becomes]}
              onChange={(event) => {
                const role = selected.becomes.find((one) => one === event.currentTarget.value)
                if (role) edit({ do: 'swap', part: selected.id, role: role as Holder })
              }}
            />
          </>
        )}
      </div>
      {selected ? (
        <p className="part-facts">
          {selected.size} <span className="quiet">holds</span>{' '}
          {selected.holds.length
            ? selected.holds.map((held) => `${held.count} ${held.name}`).join(', ')
            : 'nothing'}{' '}
          {selected.because.length > 0 && <Because part={selected} />}
        </p>
      ) : (
        <Adder key={design.id} design={design} onAdd={edit} />
      )}
    </div>
  )
}

/** Which rules put a part where it is, and what it holds into it. */
function Because({ part }: { part: Part }) {
  return (
    <Popover width={340} position="bottom-start" trapFocus shadow="md" key={part.id}>
      <Popover.Target>
        <button type="button" className="why" aria-label={`${place(part)}: why is it so?`}>
          why so?
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <div tabIndex={0} role="note" aria-label="Why it is so">
          <p className="slip-title">Why it is so</p>
          <ul className="reasons">
            {part.because.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        </div>
      </Popover.Dropdown>
    </Popover>
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
  const [at, setAt] = useState(0)
  const bay = design.bays[at] ?? design.bays[0]
  if (!bay) return null
  const wanted = bay.addable.find((one) => one === role) ?? bay.addable[0]
  return (
    <form
      className="row tight"
      onSubmit={(event) => {
        event.preventDefault()
        if (wanted) {
          const z = Math.min(MIDDLE_MM, Math.round((bay.low + bay.high) / 2))
          onAdd({ do: 'add', role: wanted as Holder, bay: bay.index, z })
        }
      }}
    >
      <NativeSelect
        size="xs"
        aria-label="What to add"
        value={wanted ?? ''}
        data={[...bay.addable]}
        onChange={(event) => setRole(event.currentTarget.value)}
      />
      <NativeSelect
        size="xs"
        aria-label="Bay to add it to"
        value={String(bay.index)}
        data={design.bays.map((one) => ({ value: String(one.index), label: one.name }))}
        onChange={(event) => setAt(Number(event.currentTarget.value))}
      />
      <Button size="compact-sm" variant="default" type="submit">
        Add
      </Button>
    </form>
  )
}
