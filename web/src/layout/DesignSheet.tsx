import { Loader } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useCallback, useMemo, useState } from 'react'

import { api, body, type Schemas } from '../api/client'
import { useKeys } from '../shell/useKeys'
import type { Lit } from '../sheet/Hands'
import type { Frame } from '../sheet/lettering'
import { Plate, type PlateZoom } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { PHONE } from '../sheet/ViewSwitch'
import { ActBar, BayActs, PartActs } from './ActBar'
import { CarryBar, Tray, useLandings } from './CarryBar'
import { inWords, lifted, type Carry } from './carrying'
import { isPlain, LookBar, PLAIN, ROUND, type DesignView, type Look } from './Look'
import { besideStrip, EDGES, SHIFTS, strips } from './edges'
import { bayOf, place } from './names'
import { usePlan } from './usePlan'
import { useDragged } from './useDragged'
import type { Command, DesignEdits } from './useDesignEdits'

const WalkRound = lazy(() => import('./WalkRound'))

export interface DesignSheetProps {
  design: Schemas['DesignView']
  edits: DesignEdits
  /** A part, or a bay as it is called on the drawing. */
  shown: string | null
  onShow: (id: string | null) => void
  families: readonly Schemas['FamilyView'][]
  busy: boolean
  onRest: () => void
}

const SLIDES = new Set(['drawer', 'basket', 'tray', 'hamper'])

const NEXT: Record<DesignView, DesignView> = {
  both: 'elevation',
  elevation: 'plan',
  plan: 'section',
  section: 'walk-round',
  'walk-round': 'both',
}
/** Round a wall that is shown by itself, so much of its height for its dimensions. */
const ROUND_A_WALL = 0.16

/** The chosen design on the sheet: what is selected has its acts beside it, what is taken up is let go where it is lit. */
export function DesignSheet(props: DesignSheetProps) {
  const { design, edits, shown, onShow } = props
  const phone = useMediaQuery(PHONE) ?? false
  const [asked, setLook] = useState<Look>(PLAIN)
  const [zoom, setZoom] = useState<PlateZoom | null>(null)
  const [carry, setCarry] = useState<Carry | null>(null)
  const [aimed, setAimed] = useState<string | null>(null)
  // Of several walls side by side each is small enough already.
  const single = phone || design.flat || design.elevation.walls.length > 1
  const look: Look = single && asked.view === 'both' ? { ...asked, view: 'elevation' } : asked
  const change = (more: Partial<Look>) => setLook((was) => ({ ...was, ...more }))
  const parts = useMemo(() => new Map(design.parts.map((part) => [part.id, part])), [design])
  const wrong = useMemo(
    () => new Set(design.ledger.findings.filter((f) => f.severity === 'stop').flatMap((f) => f.where)),
    [design],
  )
  const locked = useMemo(() => new Set(design.parts.filter((p) => p.locked).map((p) => p.id)), [design])
  const drawers = useMemo(
    () => new Set(design.parts.filter((p) => SLIDES.has(p.role)).map((p) => p.id)),
    [design],
  )
  const selected = (shown && parts.get(shown)) || null
  const bay = design.bays[bayOf(shown) ?? -1]
  const id = selected?.movable ? selected.id : null
  const cell = selected?.role === 'compartment' && selected.movable ? selected.id : null
  const edit = (command: Command) => void edits.edit(command)
  const arrow = (key: string) => {
    const row = EDGES.find(([one]) => one === key)
    const shift = SHIFTS.find(([one]) => one === key)
    if (cell && selected?.tray && shift) edit({ do: 'shift', part: cell, right: shift[1], front: shift[2] })
    else if (row && cell) edit({ do: 'edge', part: cell, side: row[1], steps: row[2] })
  }
  const move = (part: string, steps: number) => edit({ do: 'move', part, steps })

  const landings = useLandings(design, carry)
  const lit = useMemo(
    () => new Map<string, Lit>(landings.map(({ part, told }) => [part.id, told?.stops ? 'stops' : 'well'])),
    [landings],
  )
  const leave = useCallback(() => {
    setCarry(null)
    setAimed(null)
  }, [])
  const lift = (source: string | null, thing: string | null) => {
    setCarry(lifted(design, source, thing))
    setAimed(null)
  }
  const go = (command: Command) => {
    leave()
    edit(command)
  }
  const letGoAt = (part: string | null) => {
    const there = landings.find((row) => row.part.id === part)
    if (there) go(there.command)
  }
  const elevation = useElevation(design, look)
  const dragged = useDragged({
    drawing: elevation,
    lit,
    carrying: carry !== null,
    selected: selected?.id ?? null,
    onLift: lift,
    onSelect: onShow,
    onAim: setAimed,
    onLetGo: letGoAt,
    onLeave: leave,
  })

  useKeys({
    v: () => change({ view: NEXT[look.view] }),
    ...(carry
      ? {}
      : {
          ArrowUp: (event) => {
            if (cell) arrow('↑')
            else if (event.shiftKey && id) edit({ do: 'resize', part: id, steps: 1 })
            else if (id) move(id, 1)
          },
          ArrowDown: (event) => {
            if (cell) arrow('↓')
            else if (event.shiftKey && id) edit({ do: 'resize', part: id, steps: -1 })
            else if (id) move(id, -1)
          },
          ArrowRight: (event) => {
            if (cell) arrow('→')
            else if (event.shiftKey && bay?.widens) edit({ do: 'widen', bay: bay.index, steps: 1 })
          },
          ArrowLeft: (event) => {
            if (cell) arrow('←')
            else if (event.shiftKey && bay?.widens) edit({ do: 'widen', bay: bay.index, steps: -1 })
          },
          Delete: () => id !== null && edit({ do: 'remove', part: id }),
          Backspace: () => id !== null && edit({ do: 'remove', part: id }),
          Escape: () => onShow(null),
          r: () => cell && selected?.tray && edit({ do: 'turn', part: cell }),
          t: () => selected && lift(selected.id, null),
        }),
  })

  const nameOf = (part: string) => {
    const one = parts.get(part)
    return one ? place(one) : part
  }
  const tellOf = (part: string) => {
    const one = parts.get(part)
    return one ? [`${place(one)}.`, ...one.because].join('\n') : part
  }
  const cut = useSection(design, look)
  const plan = usePlan(design, look.ways && look.view !== 'elevation')
  const fit = useWall(elevation, look.wall)
  const drag = (part: string, up: number) => {
    const pitch = parts.get(part)?.pitch ?? 0
    const steps = pitch ? Math.round(up / pitch) : 0
    if (steps) move(part, steps)
  }
  // Strips stand beside compartments that can be moved; uprights of a wardrobe stand fixed.
  const cells = useMemo(
    () => new Set(design.parts.filter((part) => part.step > 0 && !part.tray).map((part) => part.id)),
    [design],
  )
  const movable = useMemo(() => strips(elevation, cells), [elevation, cells])
  const divide = (id: string, at: { x: number; y: number }, by: { x: number; y: number }) => {
    const found = besideStrip(elevation, id, at, cells)
    const step = (found && parts.get(found.cell)?.step) ?? 0
    const steps = step ? Math.round((by.x + by.y) / step) : 0
    const around = elevation.bays.find(
      (one) => at.x >= one.x && at.x <= one.x + one.w && at.y >= one.y && at.y <= one.y + one.h,
    )
    // A strip that is pressed and not dragged stands for its whole drawer.
    if (!by.x && !by.y && around) onShow(around.of)
    else if (found && steps) edit({ do: 'edge', part: found.cell, side: found.side, steps })
  }
  const paper = look.view === 'plan' ? plan : look.view === 'section' && cut ? cut : elevation
  const flat = look.view === 'both' || look.view === 'elevation'
  // What lies turned on the paper is carried and bent by its acts, not dragged up and down.
  const laidRound = look.wall === ROUND
  return (
    <div className="sheet-holder">
      <LookBar
        look={look}
        both={!single}
        hasDoors={(design.finish.doors ?? 'none') !== 'none'}
        bays={design.bays.map((one) => one.name)}
        walls={design.elevation.walls}
        room={design.room}
        zoom={look.view === 'walk-round' ? null : zoom}
        design={design}
        edits={edits}
        onChange={change}
      />
      <Sheet
        title={
          look.view === 'walk-round' && paper.title
            ? { ...paper.title, shows: `Walk-round: ${design.title}` }
            : paper.title
        }
        below={<Tray design={design} onLift={(thing) => lift(null, thing)} />}
        hold={flat ? dragged.handlers : undefined}
      >
        {flat && (
          <Plate
            drawing={elevation}
            fit={fit}
            onZoom={setZoom}
            holds=".can-drag, [data-lies-in], .bay-edge, .divider-hand"
            label={`Elevation, ${design.title}`}
            selectable={new Set(parts.keys())}
            selected={shown}
            wrong={wrong}
            locked={locked}
            nameOf={nameOf}
            tellOf={tellOf}
            onSelect={(part) => !carry && onShow(part)}
            onBay={(one) => !carry && onShow(one)}
            bayName={(one) => design.bays[bayOf(one) ?? -1]?.name ?? one}
            {...(laidRound
              ? {}
              : {
                  onDrag: (part: string, up: number) => !carry && parts.get(part)?.movable && drag(part, up),
                })}
            dividers={movable}
            {...(laidRound || carry ? {} : { onDivider: divide })}
            edged={!laidRound && (bay?.widens ?? false)}
            onEdge={(one, by) => {
              const index = bayOf(one)
              const steps = Math.sign(by) * Math.max(1, Math.round(Math.abs(by) / EDGE_STEP_MM))
              if (index !== null && Math.abs(by) > EDGE_LEAST_MM) edit({ do: 'widen', bay: index, steps })
            }}
            lit={lit}
            aimed={aimed}
          />
        )}
        {(look.view === 'both' || look.view === 'plan') && (
          <Plate
            drawing={plan}
            label={`Plan, ${design.title}`}
            {...(look.view === 'plan' ? { onZoom: setZoom } : {})}
          />
        )}
        {look.view === 'section' && cut && (
          <Plate drawing={cut} label={`Section, ${design.title}`} onZoom={setZoom} />
        )}
        {look.view === 'walk-round' && (
          <Suspense fallback={<Loader aria-label="Fetching the view" />}>
            <WalkRound
              url={`/api/designs/${design.id}/model.glb?version=${design.version}`}
              label={design.title}
              eyes={design.eyes}
              drawers={drawers}
              fronts={(design.finish.doors ?? 'none') !== 'none'}
              wrong={wrong}
            />
          </Suspense>
        )}
      </Sheet>
      {flat && !carry && selected && (
        <ActBar key={selected.id} anchor={`[data-part="${selected.id}"]`} label={`With ${selected.name}`}>
          <PartActs
            part={selected}
            design={design}
            onEdit={edit}
            onLift={() => lift(selected.id, null)}
            onShow={onShow}
          />
        </ActBar>
      )}
      {flat && !carry && bay && (
        <ActBar key={shown} anchor={`[data-bay="${shown}"]`} label={`With ${bay.name}`}>
          <BayActs
            bay={bay}
            design={design}
            families={props.families}
            busy={props.busy}
            onEdit={edit}
            onRest={props.onRest}
          />
        </ActBar>
      )}
      {carry && (
        <CarryBar
          design={design}
          carry={carry}
          landings={landings}
          aimed={aimed}
          onAim={setAimed}
          onChange={setCarry}
          onGo={go}
          onLeave={leave}
        />
      )}
      {dragged.ghost && carry && (
        <span className="in-hand" style={{ left: dragged.ghost.x, top: dragged.ghost.y }}>
          {inWords(carry)}
        </span>
      )}
    </div>
  )
}

/** An edge is dragged by about so much from one width to the next, and by less it was not meant. */
const EDGE_STEP_MM = 150
const EDGE_LEAST_MM = 15

/** The stretch of the elevation that one wall takes; null for all of them. */
function useWall(elevation: Schemas['Drawing'], wall: string): Frame | null {
  return useMemo(() => {
    const area = elevation.walls.find((one) => one.of === wall)
    if (!area) return null
    const round = area.h * ROUND_A_WALL
    return { x: area.x - round, y: -area.y - area.h - round, w: area.w + 2 * round, h: area.h + 2 * round }
  }, [elevation.walls, wall])
}

/** The elevation as the look asks for it; the one that comes with the design until another is here. */
function useElevation(design: Schemas['DesignView'], look: Look): Schemas['Drawing'] {
  const { inside, doors, dimensions, marks } = look
  const walls = look.wall === ROUND ? ROUND : 'unfolded'
  const query = useQuery({
    queryKey: ['design', design.id, 'drawing', design.version, inside, doors, dimensions, marks, walls],
    queryFn: () =>
      body(
        api.GET('/api/designs/{design_id}/drawing', {
          params: { path: { design_id: design.id }, query: { inside, doors, dimensions, marks, walls } },
        }),
      ),
    enabled: !isPlain(look),
    placeholderData: (before) => before,
  })
  return isPlain(look) ? design.elevation : (query.data ?? design.elevation)
}

function useSection(design: Schemas['DesignView'], look: Look): Schemas['Drawing'] | null {
  const bay = Math.min(look.bay, design.bays.length - 1)
  const query = useQuery({
    queryKey: ['design', design.id, 'section', design.version, bay],
    queryFn: () =>
      body(
        api.GET('/api/designs/{design_id}/section/{bay}', {
          params: { path: { design_id: design.id, bay } },
        }),
      ),
    enabled: look.view === 'section' && bay >= 0,
    placeholderData: (before) => before,
  })
  return query.data ?? null
}
