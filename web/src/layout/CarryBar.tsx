import { Button, Checkbox, NumberInput } from '@mantine/core'
import { useEffect, useMemo, useRef } from 'react'

import type { Schemas } from '../api/client'
import { useKeys } from '../shell/useKeys'
import { inWords, letGo, places, type Carry } from './carrying'
import { place } from './names'
import { consequence, useConsequences } from './useConsequences'
import type { Command } from './useDesignEdits'

type Design = Schemas['DesignView']

/** Where what is in the hand could go, and what it would bring there. */
export function useLandings(design: Design, carry: Carry | null) {
  const rows = useMemo(() => (carry ? places(carry, design) : []), [carry, design])
  const commands = useMemo(() => rows.map((row) => row.command), [rows])
  const told = useConsequences(design, commands)
  return useMemo(
    () =>
      rows
        .map((row, n) => ({ ...row, told: told.data?.each[n] ?? null }))
        .filter((row) => !row.told?.refused),
    [rows, told.data],
  )
}

export type Landing = ReturnType<typeof useLandings>[number]

/** What is in the hand: how many of it, in exchange or not, and what the place it is over would make of it. The arrow
 * keys step through the places, `Enter` lets go, `Escape` puts it back.
 */
export function CarryBar({
  design,
  carry,
  landings,
  aimed,
  onAim,
  onChange,
  onGo,
  onLeave,
}: {
  design: Design
  carry: Carry
  landings: readonly Landing[]
  aimed: string | null
  onAim: (part: string) => void
  onChange: (carry: Carry) => void
  onGo: (command: Command) => void
  onLeave: () => void
}) {
  const at = landings.findIndex((row) => row.part.id === aimed)
  const over = landings[at]
  const step = (by: number) => {
    const next =
      landings[(Math.max(at, by > 0 ? -1 : 0) + by + landings.length) % Math.max(1, landings.length)]
    if (next) onAim(next.part.id)
  }
  // Whoever works by keys steps on from here, and goes on from where it was put.
  const bar = useRef<HTMLDivElement>(null)
  useEffect(() => bar.current?.focus(), [])
  const put = (landing: Landing) => {
    onGo(landing.command)
    focusPart(landing.part.id)
  }
  useKeys({
    ArrowRight: () => step(1),
    ArrowUp: () => step(1),
    ArrowLeft: () => step(-1),
    ArrowDown: () => step(-1),
    Enter: () => over && put(over),
    Escape: () => {
      onLeave()
      focusPart(carry.source)
    },
  })
  const [only] = carry.rows
  const one = carry.rows.length === 1 ? only : undefined
  const source = design.parts.find((part) => part.id === carry.source)
  const most = (source ? source.holds : design.unplaced).find((row) => row.thing === one?.thing)?.count ?? 1
  const nowhere = carry.source ? letGo(carry, design, null) : null
  return (
    <div className="carry-bar no-print" role="group" aria-label="In the hand" ref={bar} tabIndex={-1}>
      <p className="carry-what">
        {one && most > 1 ? (
          <NumberInput
            size="xs"
            w={64}
            min={1}
            max={most}
            aria-label="How many pieces"
            value={one.count}
            onChange={(value) => {
              const count = Math.min(most, Math.max(1, Number(value) || 1))
              onChange({ ...carry, rows: [{ ...one, count }] })
            }}
          />
        ) : null}
        <b>{one && most > 1 ? `of ${most} ${one.name}` : inWords(carry)}</b>
      </p>
      <p className="carry-told" role="status">
        {over
          ? `${place(over.part)}: ${over.told ? consequence(over.told) : 'looking what that brings'}`
          : landings.length
            ? 'Point at a lit place, or step with the arrow keys and press Enter.'
            : 'No other part takes that.'}
      </p>
      <div className="row tight">
        {carry.source && (
          <Checkbox
            size="xs"
            label="in exchange"
            checked={carry.exchange}
            onChange={(event) => onChange({ ...carry, exchange: event.currentTarget.checked })}
          />
        )}
        {over && (
          <Button size="compact-sm" onClick={() => put(over)}>
            Put it there
          </Button>
        )}
        {nowhere && (
          <Button size="compact-sm" variant="default" onClick={() => onGo(nowhere)}>
            Lay it aside
          </Button>
        )}
        <Button size="compact-sm" variant="subtle" onClick={onLeave}>
          Put back
        </Button>
      </div>
    </div>
  )
}

function focusPart(id: string | null) {
  if (id) document.querySelector<SVGElement>(`[data-part="${id}"]`)?.focus()
}

/** What has no place: taken up from here. */
export function Tray({ design, onLift }: { design: Design; onLift: (thing: string) => void }) {
  if (design.unplaced.length === 0) return null
  const pieces = design.unplaced.reduce((sum, row) => sum + row.count, 0)
  return (
    <div className="tray no-print" role="group" aria-label="Without a place">
      <span className="quiet">Without a place ({pieces}):</span>
      {design.unplaced.map((row) => (
        <button
          key={row.thing}
          type="button"
          className="plain tray-thing"
          data-tray={row.thing}
          onClick={() => onLift(row.thing)}
        >
          {row.count} {row.name}
        </button>
      ))}
    </div>
  )
}
