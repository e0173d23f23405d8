import { useRef, useState } from 'react'

import type { Schemas } from '../api/client'

interface BayAreaProps {
  area: Schemas['Area']
  onBay?: (id: string) => void
  bayName?: (id: string) => string
  selected?: string | null
}

/** The room of a bay: pointing at it where nothing else is selects the bay. */
export function BayArea({ area, onBay, bayName, selected }: BayAreaProps) {
  const is = selected === area.of
  return (
    <rect
      className={`bay-area${is ? ' is-selected' : ''}`}
      x={area.x}
      y={-area.y - area.h}
      width={area.w}
      height={area.h}
      role="button"
      tabIndex={0}
      aria-label={bayName?.(area.of) ?? area.of}
      aria-pressed={is}
      data-bay={area.of}
      onClick={() => onBay?.(area.of)}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault()
          onBay?.(area.of)
        }
      }}
    />
  )
}

const EDGE_MM = 36

/** The right edge of a bay, to be dragged to its next width. */
export function Edge({
  area,
  onEdge,
}: {
  area: Schemas['Area']
  onEdge?: (bay: string, by: number) => void
}) {
  const [by, setBy] = useState(0)
  const from = useRef<{ x: number; perPixel: number } | null>(null)
  const moved = (event: React.PointerEvent) =>
    from.current ? (event.clientX - from.current.x) * from.current.perPixel : 0
  return (
    <rect
      className="bay-edge"
      x={area.x + area.w - EDGE_MM / 2 + by}
      y={-area.y - area.h}
      width={EDGE_MM}
      height={area.h}
      ref={keepFinger}
      onPointerDown={(event) => {
        const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM()
        if (event.button !== 0 || !matrix) return
        from.current = { x: event.clientX, perPixel: 1 / matrix.a }
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={(event) => from.current && setBy(moved(event))}
      onPointerUp={(event) => {
        const far = moved(event)
        from.current = null
        setBy(0)
        onEdge?.(area.of, far)
      }}
      onPointerCancel={() => {
        from.current = null
        setBy(0)
      }}
    />
  )
}

const GRIP_MM = 5
/** Moved by less it was only pressed. */
const MEANT_MM = 2

export interface DividerHand {
  /** Dividers of drawers that a hand can move. */
  dividers?: ReadonlySet<string>
  /** It was pressed at a point of the drawing and dragged so many millimetres to the right and down. */
  onDivider?: (id: string, at: { x: number; y: number }, by: { x: number; y: number }) => void
}

/** A divider of a drawer, to be dragged sideways or to and fro. */
export function Divider({ rect, onDivider }: DividerHand & { rect: Schemas['Rect'] }) {
  const [by, setBy] = useState(0)
  const from = useRef<{ x: number; y: number; at: { x: number; y: number }; perPixel: number } | null>(null)
  const along = rect.h > rect.w
  const moved = (event: React.PointerEvent) => {
    if (!from.current) return { x: 0, y: 0 }
    const { x, y, perPixel } = from.current
    return along ? { x: (event.clientX - x) * perPixel, y: 0 } : { x: 0, y: (event.clientY - y) * perPixel }
  }
  const box = { x: rect.x, y: -rect.y - rect.h, width: rect.w, height: rect.h }
  return (
    <g
      className={`divider-hand ${along ? 'sideways' : 'to-and-fro'}`}
      transform={by ? `translate(${along ? by : 0} ${along ? 0 : by})` : undefined}
      ref={keepFinger}
      data-divider={rect.of}
      onPointerDown={(event) => {
        const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM()
        if (event.button !== 0 || !matrix) return
        const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
        from.current = {
          x: event.clientX,
          y: event.clientY,
          at: { x: at.x, y: -at.y },
          perPixel: 1 / matrix.a,
        }
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={(event) => {
        const far = moved(event)
        if (from.current) setBy(far.x + far.y)
      }}
      onPointerUp={(event) => {
        const [far, at] = [moved(event), from.current?.at]
        from.current = null
        setBy(0)
        if (at) onDivider?.(rect.of, at, Math.abs(far.x + far.y) < MEANT_MM ? { x: 0, y: 0 } : far)
      }}
      onPointerCancel={() => {
        from.current = null
        setBy(0)
      }}
    >
      <rect
        x={box.x - (along ? GRIP_MM : 0)}
        y={box.y - (along ? 0 : GRIP_MM)}
        width={box.width + (along ? 2 * GRIP_MM : 0)}
        height={box.height + (along ? 0 : 2 * GRIP_MM)}
        fill="transparent"
      />
      {by !== 0 && <rect className="divider-ghost" {...box} />}
    </g>
  )
}

export type Lit = 'well' | 'stops'

interface LandingProps {
  area: Schemas['Label']
  lit?: ReadonlyMap<string, Lit>
  aimed?: string | null
}

/** Where what is in the hand may be let go. */
export function Landing({ area, lit, aimed }: LandingProps) {
  const state = lit?.get(area.of)
  if (!state) return null
  return (
    <rect
      className={`landing ${state}${aimed === area.of ? ' is-aimed' : ''}`}
      x={area.x}
      y={-area.y - area.h}
      width={area.w}
      height={area.h}
      data-landing={area.of}
      pointerEvents="none"
    />
  )
}

/** A finger on a part drags it and does not scroll the page: no style says so of a shape inside a drawing. */
export function keepFinger(shape: SVGElement | null) {
  if (!shape) return
  const hold = (event: TouchEvent) => {
    if (event.touches.length === 1 && event.cancelable) event.preventDefault()
  }
  shape.addEventListener('touchmove', hold, { passive: false })
  return () => shape.removeEventListener('touchmove', hold)
}
