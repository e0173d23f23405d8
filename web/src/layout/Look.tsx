import { Button, Checkbox, NativeSelect, Popover, SegmentedControl } from '@mantine/core'
import { IconArrowBackUp, IconArrowForwardUp, IconMaximize, IconMinus, IconPlus } from '@tabler/icons-react'

import type { Schemas } from '../api/client'
import { Tool } from '../shell/Tool'
import type { PlateZoom } from '../sheet/Plate'
import type { DesignEdits } from './useDesignEdits'

export type DesignView = 'both' | 'elevation' | 'plan' | 'section' | 'walk-round'

/** How the design is shown: which view, what of its insides, doors, dimensions, trial marks. */
export interface Look {
  view: DesignView
  inside: 'hatch' | 'silhouettes' | 'bare'
  doors: 'open' | 'shut'
  dimensions: boolean
  marks: boolean
  /** Where what slides or swings goes, on the plan. */
  ways: boolean
  bay: number
  /** The wall that is shown by itself; all of them where it is none of them. */
  wall: string
}

/** In the place of a wall: all of them, laid out round the plan. */
export const ROUND = 'round the plan'

export const PLAIN: Look = {
  view: 'both',
  inside: 'hatch',
  doors: 'open',
  dimensions: true,
  marks: false,
  ways: false,
  bay: 0,
  wall: '',
}

const VIEWS: readonly DesignView[] = ['both', 'elevation', 'plan', 'section', 'walk-round']

/** Whether the drawing that comes with the design will do, or another has to be asked for. */
export function isPlain(look: Look): boolean {
  return (
    look.inside === 'hatch' && look.doors === 'open' && look.dimensions && !look.marks && look.wall !== ROUND
  )
}

/** How the design is shown, and the way back: one row over the sheet. */
export function LookBar({
  look,
  both,
  hasDoors,
  bays,
  walls,
  room,
  zoom,
  design,
  edits,
  onChange,
}: {
  look: Look
  /** Whether there is room for two views at once. */
  both: boolean
  hasDoors: boolean
  bays: readonly string[]
  walls: readonly Schemas['Label'][]
  /** Whether they are walls of a room, and may be laid out round its plan. */
  room: boolean
  zoom: PlateZoom | null
  design: Schemas['DesignView']
  edits: DesignEdits
  onChange: (change: Partial<Look>) => void
}) {
  const flat = look.view === 'both' || look.view === 'elevation'
  return (
    <div className="look-bar no-print" role="group" aria-label="How it is shown">
      <SegmentedControl
        size="xs"
        aria-label="View"
        value={look.view}
        onChange={(value) => onChange({ view: VIEWS.find((view) => view === value) ?? 'elevation' })}
        data={VIEWS.filter((view) => both || view !== 'both')}
      />
      {flat && walls.length > 1 && walls.length <= MOST_SIDE_BY_SIDE && (
        <SegmentedControl
          size="xs"
          aria-label="Walls"
          value={look.wall === ROUND || walls.some((wall) => wall.of === look.wall) ? look.wall : ''}
          onChange={(wall) => onChange({ wall })}
          data={[
            ...walls.map((wall) => ({ value: wall.of, label: wall.of })),
            { value: '', label: 'all' },
            ...(room ? [ROUND] : []),
          ]}
        />
      )}
      {flat && walls.length > MOST_SIDE_BY_SIDE && (
        <NativeSelect
          size="xs"
          aria-label="Walls"
          value={look.wall}
          onChange={(event) => onChange({ wall: event.currentTarget.value })}
          data={[
            { value: '', label: 'all' },
            ...walls.map((wall) => ({ value: wall.of, label: wall.items[0] ?? wall.of })),
          ]}
        />
      )}
      {look.view === 'section' && (
        <NativeSelect
          size="xs"
          aria-label="Bay cut through"
          value={String(look.bay)}
          data={bays.map((name, n) => ({ value: String(n), label: name }))}
          onChange={(event) => onChange({ bay: Number(event.currentTarget.value) })}
        />
      )}
      {(flat || look.view === 'plan') && (
        <Shown look={look} flat={flat} hasDoors={hasDoors} onChange={onChange} />
      )}
      <span className="look-tools">
        <Tool label="Undo (u)" disabled={!design.can_undo} onClick={() => void edits.undo()}>
          <IconArrowBackUp size={17} />
        </Tool>
        <Tool label="Redo (Shift u)" disabled={!design.can_redo} onClick={() => void edits.redo()}>
          <IconArrowForwardUp size={17} />
        </Tool>
        {zoom && (
          <>
            <Tool label="Smaller (−)" onClick={zoom.further}>
              <IconMinus size={17} />
            </Tool>
            <output className="zoom-now" aria-label="Zoom">
              {zoom.percent}%
            </output>
            <Tool label="Larger (+)" onClick={zoom.nearer}>
              <IconPlus size={17} />
            </Tool>
            <Tool label="All of it (0)" onClick={zoom.fit}>
              <IconMaximize size={16} />
            </Tool>
          </>
        )}
      </span>
    </div>
  )
}

const MOST_SIDE_BY_SIDE = 4

/** What of the design is drawn: its insides, doors, sizes and trial marks. */
function Shown({
  look,
  flat,
  hasDoors,
  onChange,
}: {
  look: Look
  /** Whether the elevation is shown, with or without the plan. */
  flat: boolean
  hasDoors: boolean
  onChange: (change: Partial<Look>) => void
}) {
  return (
    <Popover position="bottom-start" shadow="md" trapFocus>
      <Popover.Target>
        <Button size="compact-sm" variant="default">
          Shown
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className="shown">
          {flat && (
            <>
              <NativeSelect
                size="xs"
                label="What is inside"
                value={look.inside}
                data={[
                  { value: 'hatch', label: 'things hatched' },
                  { value: 'silhouettes', label: 'piece by piece' },
                  { value: 'bare', label: 'parts alone' },
                ]}
                onChange={(event) => {
                  const wanted = event.currentTarget.value
                  onChange({
                    inside: wanted === 'silhouettes' ? 'silhouettes' : wanted === 'bare' ? 'bare' : 'hatch',
                  })
                }}
              />
              {hasDoors && (
                <NativeSelect
                  size="xs"
                  label="Doors drawn"
                  value={look.doors}
                  data={['open', 'shut']}
                  onChange={(event) =>
                    onChange({ doors: event.currentTarget.value === 'shut' ? 'shut' : 'open' })
                  }
                />
              )}
              <Checkbox
                size="xs"
                label="sizes"
                checked={look.dimensions}
                onChange={(event) => onChange({ dimensions: event.currentTarget.checked })}
              />
              <Checkbox
                size="xs"
                label="trial marks"
                checked={look.marks}
                onChange={(event) => onChange({ marks: event.currentTarget.checked })}
              />
            </>
          )}
          {look.view !== 'elevation' && (
            <Checkbox
              size="xs"
              label="ways out of drawers and doors"
              checked={look.ways}
              onChange={(event) => onChange({ ways: event.currentTarget.checked })}
            />
          )}
        </div>
      </Popover.Dropdown>
    </Popover>
  )
}
