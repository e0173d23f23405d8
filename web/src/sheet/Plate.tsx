import { useResizeObserver } from '@mantine/hooks'
import { select } from 'd3-selection'
import {
  zoom,
  zoomIdentity,
  zoomTransform,
  type D3ZoomEvent,
  type ZoomBehavior,
  type ZoomTransform,
} from 'd3-zoom'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'

import { useKeys } from '../shell/useKeys'
import { DrawingSvg, type DrawingProps } from './DrawingSvg'
import { letter, type Frame, type Numbered } from './lettering'

const NEAREST = 12
const STEP = 1.4
const KEY_WIDE = 190
/** From so wide the key stands beside the drawing, under it below that. */
const BESIDE_FROM = 520
const KEY_LINE = 17
const KEY_COLUMN = 210
const KEY_SHARE = 0.34

export interface PlateProps extends Omit<DrawingProps, 'frame' | 'lettering'> {
  /** The stretch of the drawing that fills the plate at first; all of it where none is given. */
  fit?: Frame | null
  /** What cannot be dragged to pan: what is dragged itself. */
  holds?: string
  /** Its zoom, by the buttons that stand elsewhere; the keys + − 0 belong to the plate that has them. */
  onZoom?: (zoom: PlateZoom) => void
}

export interface PlateZoom {
  percent: number
  nearer: () => void
  further: () => void
  fit: () => void
}

/** A drawing that can be zoomed (wheel, two fingers, `+` `-` `0`) and panned, its words readable at every scale; what
 * has no room for its words is numbered, with a key beside it.
 */
export function Plate({ fit, holds, onZoom, ...props }: PlateProps) {
  const { drawing } = props
  const [box, outer] = useResizeObserver<HTMLDivElement>()
  const holder = useRef<HTMLDivElement>(null)
  const whole = useMemo<Frame>(() => {
    const [x0, y0, x1, y1] = drawing.bounds
    return fit ?? { x: x0, y: -y1, w: x1 - x0, h: y1 - y0 }
  }, [drawing.bounds, fit])
  const [moved, setMoved] = useState<ZoomTransform>(zoomIdentity)

  const beside = outer.width >= BESIDE_FROM
  // How much room the key has is settled by the drawing as it is fitted, so that it does not come and go: beside a key
  // the drawing is smaller, and more of its words stand in the key.
  const [rows, high] = useMemo(() => {
    let [count, room] = [0, outer.height]
    for (let pass = 0; pass < 3; pass++) {
      const fitted = framed(whole, count && beside ? outer.width - KEY_WIDE : outer.width, room, zoomIdentity)
      count = fitted ? Math.max(count, letter(drawing, fitted.frame, fitted.k).numbered.length) : 0
      const lines = Math.ceil(count / Math.max(1, Math.floor(outer.width / KEY_COLUMN)))
      if (count && !beside) room = outer.height - Math.min(outer.height * KEY_SHARE, lines * KEY_LINE + 6)
    }
    return [count, room]
  }, [beside, drawing, outer, whole])
  const keyed = rows > 0
  const wide = keyed && beside ? outer.width - KEY_WIDE : outer.width
  const seen = useMemo(() => framed(whole, wide, high, moved), [whole, wide, high, moved])
  const lettering = useMemo(() => seen && letter(drawing, seen.frame, seen.k), [drawing, seen])

  const behaviour = useRef<ZoomBehavior<HTMLDivElement, unknown> | null>(null)
  useEffect(() => {
    const element = holder.current
    if (!element) return
    const made = zoom<HTMLDivElement, unknown>()
      .scaleExtent([1, NEAREST])
      .filter((event: MouseEvent | TouchEvent | WheelEvent) => {
        if (event.type === 'dblclick' || ('button' in event && event.button)) return false
        const fingers = 'touches' in event ? event.touches.length : 0
        // One finger on a drawing that is seen whole scrolls the page.
        if (fingers === 1 && zoomTransform(element).k === 1) return false
        return event.type === 'wheel' || fingers > 1 || !(holds && (event.target as Element).closest(holds))
      })
      .on('zoom', (event: D3ZoomEvent<HTMLDivElement, unknown>) => {
        setMoved(event.transform)
      })
    behaviour.current = made
    select(element).call(made).on('dblclick.zoom', null)
    return () => {
      select(element).on('.zoom', null)
    }
  }, [holds])
  useEffect(() => {
    behaviour.current?.translateExtent([
      [0, 0],
      [wide, high],
    ])
  }, [wide, high])

  const by = useCallback((factor: number) => {
    if (holder.current) behaviour.current?.scaleBy(select(holder.current), factor)
  }, [])
  const nearer = useCallback(() => by(STEP), [by])
  const further = useCallback(() => by(1 / STEP), [by])
  const all = useCallback(() => {
    if (holder.current) behaviour.current?.transform(select(holder.current), zoomIdentity)
  }, [])
  // Another stretch is seen whole.
  useEffect(() => {
    all()
  }, [all, whole])
  useEffect(
    () => onZoom?.({ percent: Math.round(moved.k * 100), nearer, further, fit: all }),
    [nearer, further, all, moved.k, onZoom],
  )
  useKeys(onZoom ? { '+': nearer, '=': nearer, '-': further, '0': all } : {})

  return (
    <div className={`plate${keyed && beside ? ' keyed' : ''}`} ref={box}>
      <div className="plate-view" ref={holder}>
        {seen && lettering && <DrawingSvg {...props} frame={seen.frame} lettering={lettering} />}
      </div>
      {keyed && lettering && <Key rows={lettering.numbered} high={outer.height - high} />}
    </div>
  )
}

/** What is in sight, and px to the millimetre: a stretch as it fits into a box, moved and enlarged. */
function framed(
  whole: Frame,
  wide: number,
  high: number,
  moved: ZoomTransform,
): { frame: Frame; k: number } | null {
  if (wide < 10 || high < 10) return null
  const k = Math.min(wide / whole.w, high / whole.h)
  const [left, top] = [whole.x - (wide / k - whole.w) / 2, whole.y - (high / k - whole.h) / 2]
  const near = k * moved.k
  return {
    frame: { x: left - moved.x / near, y: top - moved.y / near, w: wide / near, h: high / near },
    k: near,
  }
}

/** The words of the numbers. */
function Key({ rows, high }: { rows: readonly Numbered[]; high: number }) {
  return (
    <ol
      className="plate-key"
      aria-label="Key to the numbers"
      tabIndex={0}
      style={high ? { height: high } : {}}
    >
      {rows.map((row) => (
        <li key={row.number} value={row.number}>
          {row.words}
        </li>
      ))}
    </ol>
  )
}
