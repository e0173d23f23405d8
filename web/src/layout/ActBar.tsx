import { Button, Menu, Popover } from '@mantine/core'
import {
  IconArrowDown,
  IconArrowUp,
  IconBorderOuter,
  IconHandMove,
  IconLock,
  IconLockOpen,
  IconMinus,
  IconPlus,
  IconRotateClockwise,
  IconTrash,
} from '@tabler/icons-react'
import { useLayoutEffect, useRef, useState } from 'react'

import type { Schemas } from '../api/client'
import { Tool } from '../shell/Tool'
import { EDGES, SHIFTS } from './edges'
import { place } from './names'
import type { Command } from './useDesignEdits'

type Design = Schemas['DesignView']
type Part = Schemas['PartView']
type Bay = Schemas['BayView']
type Role = Schemas['AddPart']['role']
type Edit = (command: Command) => void

/** A bar at what is selected, with what can be done there. It stands beside its part and never over it. */
export function ActBar({
  anchor,
  label,
  children,
}: {
  /** A selector of the shape it belongs to. */
  anchor: string
  label: string
  children: React.ReactNode
}) {
  const bar = useRef<HTMLDivElement>(null)
  const [at, setAt] = useState<{ left: number; top: number } | null>(null)
  useLayoutEffect(() => {
    let frame = 0
    const follow = () => {
      const holder = bar.current?.closest('.sheet-holder')
      const sheet = holder?.querySelector('.sheet')
      const shape = holder?.querySelector(anchor)
      if (bar.current && holder && sheet && shape) {
        const [room, paper, own, size] = [holder, sheet, shape, bar.current].map((e) =>
          e.getBoundingClientRect(),
        ) as [DOMRect, DOMRect, DOMRect, DOMRect]
        // On the paper alone, so that it never lies over what stands round it.
        const first = paper.top - room.top + 4
        const last = Math.max(first, paper.bottom - room.top - size.height - 4)
        const above = own.top - room.top - size.height - 8
        const below = Math.max(first, own.bottom - room.top + 8)
        const isLow = own.top - paper.top > paper.bottom - own.bottom
        const top = below <= last ? below : above >= first ? above : isLow ? first : last
        const middle = own.left + own.width / 2 - room.left - size.width / 2
        const left = Math.max(4, Math.min(middle, room.width - size.width - 4))
        setAt((was) =>
          was && Math.abs(was.left - left) < 0.5 && Math.abs(was.top - top) < 0.5 ? was : { left, top },
        )
      }
      frame = requestAnimationFrame(follow)
    }
    follow()
    return () => cancelAnimationFrame(frame)
  }, [anchor])
  return (
    <div
      ref={bar}
      className="act-bar no-print"
      role="toolbar"
      aria-label={label}
      style={at ? { left: at.left, top: at.top } : { visibility: 'hidden' }}
    >
      {children}
    </div>
  )
}

/** What can be done with a part: where it stands, what it is, what lives in it, and why. */
export function PartActs({
  part,
  design,
  onEdit,
  onLift,
  onShow,
}: {
  part: Part
  design: Design
  onEdit: Edit
  onLift: () => void
  onShow: (id: string) => void
}) {
  const { id } = part
  const bay = part.bay === null ? undefined : design.bays[part.bay]
  return (
    <>
      <p className="act-what">
        <b>{place(part)}</b> <span className="quiet">{part.size}</span>
        <br />
        {part.holds.length
          ? `holds ${part.holds.map((held) => `${held.count} ${held.name}`).join(', ')}`
          : 'holds nothing'}
        {part.room_for && `; room for ${part.room_for}`} {part.because.length > 0 && <Because part={part} />}
      </p>
      <div className="row tight">
        {part.tray &&
          SHIFTS.map(([key, right, front, label]) => (
            <Tool
              key={key}
              label={`${label} (${key})`}
              onClick={() => onEdit({ do: 'shift', part: id, right, front })}
            >
              <span aria-hidden>{key}</span>
            </Tool>
          ))}
        {part.tray && (
          <Tool label="Turn the tray (r)" onClick={() => onEdit({ do: 'turn', part: id })}>
            <IconRotateClockwise size={16} />
          </Tool>
        )}
        {part.role === 'compartment' &&
          !part.tray &&
          EDGES.map(([key, side, steps, label]) => (
            <Tool
              key={key}
              label={`${label} (${key})`}
              onClick={() => onEdit({ do: 'edge', part: id, side, steps })}
            >
              <span aria-hidden>{key}</span>
            </Tool>
          ))}
        {part.movable && part.role !== 'compartment' && (
          <>
            <Tool label="Move up (↑)" onClick={() => onEdit({ do: 'move', part: id, steps: 1 })}>
              <IconArrowUp size={16} />
            </Tool>
            <Tool label="Move down (↓)" onClick={() => onEdit({ do: 'move', part: id, steps: -1 })}>
              <IconArrowDown size={16} />
            </Tool>
          </>
        )}
        {part.resizable && part.movable && (
          <>
            <Tool label="Higher front (Shift ↑)" onClick={() => onEdit({ do: 'resize', part: id, steps: 1 })}>
              <IconPlus size={16} />
            </Tool>
            <Tool label="Lower front (Shift ↓)" onClick={() => onEdit({ do: 'resize', part: id, steps: -1 })}>
              <IconMinus size={16} />
            </Tool>
          </>
        )}
        {part.holds.length > 0 && (
          <Tool label="Take up what it holds (t)" onClick={onLift}>
            <IconHandMove size={16} />
          </Tool>
        )}
        {part.role === 'compartment' && part.bay !== null && (
          <Tool label="The whole drawer" onClick={() => onShow(`bay-${part.bay}`)}>
            <IconBorderOuter size={16} />
          </Tool>
        )}
        {part.movable && (
          <>
            <Tool
              label={part.locked ? 'Unlock' : 'Lock'}
              onClick={() => onEdit({ do: 'lock', part: id, locked: !part.locked })}
            >
              {part.locked ? <IconLock size={16} /> : <IconLockOpen size={16} />}
            </Tool>
            {(bay?.addable.length ?? 0) + part.becomes.length > 0 && (
              <More label="More with this part">
                {bay && <Menu.Label>add above it</Menu.Label>}
                {bay?.addable.map((role) => (
                  <Menu.Item
                    key={`add ${role}`}
                    onClick={() =>
                      onEdit({ do: 'add', role: role as Role, bay: bay.index, z: part.z + ADD_ABOVE_MM })
                    }
                  >
                    Add {role}
                  </Menu.Item>
                ))}
                <Menu.Label>make it another</Menu.Label>
                {part.becomes.map((role) => (
                  <Menu.Item
                    key={`make ${role}`}
                    onClick={() => onEdit({ do: 'swap', part: id, role: role as Role, ways: [] })}
                  >
                    Make it {role}
                  </Menu.Item>
                ))}
              </More>
            )}
            <Tool label="Take out (Delete)" onClick={() => onEdit({ do: 'remove', part: id })}>
              <IconTrash size={16} />
            </Tool>
          </>
        )}
      </div>
    </>
  )
}

const ADD_ABOVE_MM = 250
const MIDDLE_MM = 900

/** Some bays locked, or let go, as one act. */
function lockAll(design: Design, which: (bay: Bay) => boolean, locked = true): Command {
  const commands = design.bays
    .filter(which)
    .map((bay) => ({ do: 'lock bay' as const, bay: bay.index, locked }))
  return { do: 'several', commands }
}

/** What can be done with a bay, its row, and the finish of all rows. */
export function BayActs({
  bay,
  design,
  families,
  busy,
  onEdit,
  onRest,
}: {
  bay: Bay
  design: Design
  families: readonly Schemas['FamilyView'][]
  busy: boolean
  onEdit: Edit
  onRest: () => void
}) {
  const { index } = bay
  const isDrawer = families.some((family) => family.in_drawers && family.name === bay.family)
  const others = design.bays.filter((one) => one.index !== index && one.family === bay.family)
  const item = (label: string, command: Command) => (
    <Menu.Item key={label} onClick={() => onEdit(command)}>
      {label}
    </Menu.Item>
  )
  const middle = Math.min(MIDDLE_MM, Math.round((bay.low + bay.high) / 2))
  return (
    <>
      <p className="act-what">
        <b>{bay.name}</b> <span className="quiet">{bay.family}</span>
      </p>
      <div className="row tight">
        {bay.widens && (
          <>
            <Button
              size="compact-sm"
              variant="default"
              title="Shift ←"
              onClick={() => onEdit({ do: 'widen', bay: index, steps: -1 })}
            >
              Narrower
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              title="Shift →"
              onClick={() => onEdit({ do: 'widen', bay: index, steps: 1 })}
            >
              Wider
            </Button>
          </>
        )}
        <Button
          size="compact-sm"
          variant="default"
          aria-pressed={bay.locked}
          onClick={() => onEdit({ do: 'lock bay', bay: index, locked: !bay.locked })}
        >
          {`${bay.locked ? 'Unlock' : 'Lock'} ${isDrawer ? 'drawer' : 'bay'}`}
        </Button>
        {[...design.bays, ...design.parts].some((one) => one.locked) && (
          <Button
            size="compact-sm"
            variant="default"
            loading={busy}
            title="What is locked stays; everything else is found anew"
            onClick={onRest}
          >
            Find the rest
          </Button>
        )}
        {bay.addable.length > 0 && (
          <More label="Add to this bay" words="Add">
            {bay.addable.map((role) =>
              item(`Add ${role}`, { do: 'add', role: role as Role, bay: index, z: middle }),
            )}
          </More>
        )}
        <More label="More with this bay">
          {!isDrawer && (
            <>
              <Menu.Label>its row</Menu.Label>
              {item('Taller', { do: 'reshape', bay: index, taller: 1, deeper: 0 })}
              {item('Lower', { do: 'reshape', bay: index, taller: -1, deeper: 0 })}
              {item('Deeper', { do: 'reshape', bay: index, taller: 0, deeper: 1 })}
              {item('Less deep', { do: 'reshape', bay: index, taller: 0, deeper: -1 })}
              {item('Mirror', { do: 'mirror', bay: index })}
            </>
          )}
          <Menu.Label>lock</Menu.Label>
          {item(
            isDrawer ? 'Lock the first up to this one' : 'Lock from the left up to here',
            lockAll(design, (one) => one.index <= index),
          )}
          {item(
            isDrawer ? 'Lock this one and those after it' : 'Lock from here to the right',
            lockAll(design, (one) => one.index >= index),
          )}
          {item(
            isDrawer ? 'Unlock every drawer' : 'Unlock every bay',
            lockAll(design, () => true, false),
          )}
          {others.length > 0 && <Menu.Label>give its parts to</Menu.Label>}
          {others.map((one) =>
            item(`Copy onto ${one.name}`, { do: 'copy bay', bay: index, onto: one.index }),
          )}
          {!isDrawer && <Menu.Label>stand it anew</Menu.Label>}
          {families
            .filter((family) => !isDrawer && family.name !== bay.family && !family.in_drawers)
            .map((family) =>
              item(`in ${family.name.toLowerCase()}`, { do: 'swap family', bay: index, family: family.id }),
            )}
        </More>
      </div>
    </>
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

function More({ label, words, children }: { label: string; words?: string; children: React.ReactNode }) {
  return (
    <Menu position="bottom-end" shadow="md" withinPortal>
      <Menu.Target>
        <Button size="compact-sm" variant="default" aria-label={label}>
          {words ?? 'More'}
        </Button>
      </Menu.Target>
      <Menu.Dropdown className="act-menu">{children}</Menu.Dropdown>
    </Menu>
  )
}
