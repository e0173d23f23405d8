import { Button, NativeSelect, SegmentedControl, Slider } from '@mantine/core'
import { useElementSize } from '@mantine/hooks'
import { useMemo, useState } from 'react'

import type { Schemas } from '../api/client'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { letter, type Frame } from '../sheet/lettering'
import { Sheet } from '../sheet/Sheet'

type Card = Schemas['Card']
type How = 'beside' | 'over'

/** From so wide two drawings stand beside each other at first. */
const BESIDE_FROM = 700
const GAP = 16

/** Two alternatives at one scale, what only one of them has drawn in colour: side by side, or one over the other with a
 * slider between them.
 */
export function Compared({
  cards,
  here,
  there,
  onThere,
  onLeave,
}: {
  cards: readonly Card[]
  here: Card
  there: Card
  onThere: (id: number) => void
  onLeave: () => void
}) {
  const { ref, width, height } = useElementSize()
  const [chosen, setHow] = useState<How | null>(null)
  const [share, setShare] = useState(50)
  const how = chosen ?? (width >= BESIDE_FROM ? 'beside' : 'over')
  const whole = useMemo(() => both(here.elevation, there.elevation), [here, there])
  const room = how === 'beside' ? (width - GAP) / 2 : width
  const differs = useMemo(
    () => [onlyIn(here.elevation, there.elevation), onlyIn(there.elevation, here.elevation)] as const,
    [here, there],
  )
  const drawn = (card: Card, mine: ReadonlySet<string>) => (
    <One card={card} whole={whole} wide={room} high={height} differs={mine} />
  )
  const rail = (
    <div className="curtain-rail no-print">
      <span>{here.title}</span>
      <Slider
        value={share}
        onChange={setShare}
        thumbLabel={`How much of ${here.title} lies over ${there.title}`}
        label={null}
      />
      <span>{there.title}</span>
    </div>
  )
  return (
    <div className="sheet-holder">
      <div className="look-bar no-print" role="group" aria-label="How they are compared">
        <b>{here.title}</b>
        <NativeSelect
          size="xs"
          aria-label="Compared with"
          value={String(there.id)}
          onChange={(event) => onThere(Number(event.currentTarget.value))}
          data={cards
            .filter((card) => card.id !== here.id)
            .map((card) => ({ value: String(card.id), label: `with ${card.title.toLowerCase()}` }))}
        />
        <SegmentedControl
          size="xs"
          aria-label="Side by side or one over the other"
          value={how}
          onChange={(value) => setHow(value === 'over' ? 'over' : 'beside')}
          data={[
            { value: 'beside', label: 'side by side' },
            { value: 'over', label: 'one over the other' },
          ]}
        />
        <span className="look-tools">
          <Button size="compact-sm" variant="default" onClick={onLeave}>
            Done
          </Button>
        </span>
      </div>
      <Sheet title={null} below={how === 'over' && rail}>
        <div className={`compared ${how}`} ref={ref} data-testid="compared">
          {how === 'beside' ? (
            [here, there].map((card, n) => (
              <figure key={card.id}>
                {drawn(card, differs[n] ?? new Set())}
                <figcaption>
                  {card.title}, {differs[n]?.size ?? 0} parts of its own
                </figcaption>
              </figure>
            ))
          ) : (
            <div className="curtain">
              <div>{drawn(there, differs[1])}</div>
              <div className="drawn-over" style={{ clipPath: `inset(0 ${100 - share}% 0 0)` }}>
                {drawn(here, differs[0])}
              </div>
              <div className="rod" style={{ left: `${share}%` }} aria-hidden />
            </div>
          )}
        </div>
      </Sheet>
    </div>
  )
}

function One({
  card,
  whole,
  wide,
  high,
  differs,
}: {
  card: Card
  whole: Frame
  wide: number
  high: number
  differs: ReadonlySet<string>
}) {
  const k = Math.min(wide / whole.w, (high - CAPTION) / whole.h)
  // Words that find no room are left out here: the list under the drawings says them all.
  const lettering = useMemo(
    () => (k > 0 ? { ...letter(card.elevation, whole, k), numbered: [] } : undefined),
    [card, whole, k],
  )
  if (!lettering) return null
  return (
    <div style={{ width: whole.w * k, height: whole.h * k }}>
      <DrawingSvg
        drawing={card.elevation}
        label={card.title}
        frame={whole}
        lettering={lettering}
        marked={differs}
      />
    </div>
  )
}

/** Px under a drawing for its name. */
const CAPTION = 24

/** A frame in which both drawings are whole. */
function both(one: Schemas['Drawing'], other: Schemas['Drawing']): Frame {
  const [x0, y0] = [0, 1].map((n) => Math.min(one.bounds[n] ?? 0, other.bounds[n] ?? 0)) as [number, number]
  const [x1, y1] = [2, 3].map((n) => Math.max(one.bounds[n] ?? 0, other.bounds[n] ?? 0)) as [number, number]
  return { x: x0, y: -y1, w: x1 - x0, h: y1 - y0 }
}

/** Parts of a drawing where the other has none of the same kind and size. */
function onlyIn(one: Schemas['Drawing'], other: Schemas['Drawing']): ReadonlySet<string> {
  const place = (rect: Schemas['Rect']) =>
    [rect.role, ...[rect.x, rect.y, rect.w, rect.h].map((mm) => Math.round(mm / SAME_MM))].join(' ')
  const known = new Set(partsOf(other).map(place))
  return new Set(
    partsOf(one)
      .filter((rect) => !known.has(place(rect)))
      .map((rect) => rect.of),
  )
}

function partsOf(drawing: Schemas['Drawing']): Schemas['Rect'][] {
  return drawing.rects.filter((rect) => rect.layer === 'part' && rect.role !== 'bracket')
}

const SAME_MM = 4
