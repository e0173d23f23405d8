import { Button, NativeSelect, NumberInput } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { place } from './PartStrip'
import type { Command } from './useDesignEdits'

type Design = Schemas['DesignView']
type Part = Schemas['PartView']
type Held = Schemas['HeldView']

/** Send pieces from the selected part, or those without a place, to another part. */
export function Mover({
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
