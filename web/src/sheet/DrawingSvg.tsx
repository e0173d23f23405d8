import { useId, useRef, useState } from 'react'

import type { Schemas } from '../api/client'
import { Hatches } from './Hatches'
import { BayArea, Divider, type DividerHand, Edge, keepFinger, Landing, type Lit } from './Hands'
import type { Frame, Lettering, Numbered, Placed } from './lettering'
import { slotKey, type Slot } from './slot'
import { Figure, Words } from './Words'

type Drawing = Schemas['Drawing']
type Rect = Schemas['Rect']
type Dimension = Schemas['Dimension']

export interface DrawingProps extends DividerHand {
  drawing: Drawing
  label: string
  /** Part ids that can be selected; other shapes are only shown. */
  selectable?: ReadonlySet<string>
  selected?: string | null
  wrong?: ReadonlySet<string>
  /** Parts pointed at from a list. */
  marked?: ReadonlySet<string>
  nameOf?: (id: string) => string
  /** What is told of a part, and of what lies in it, under the pointer. */
  tellOf?: (id: string) => string
  onSelect?: (id: string) => void
  /** Parts that a person locked. */
  locked?: ReadonlySet<string>
  /** A part was dragged so many millimetres up. */
  onDrag?: (id: string, up: number) => void
  /** Given, dimension lines with a slot can be typed on. */
  onDimension?: (slot: Slot, label: string, at: Element) => void
  next?: Slot | null
  small?: boolean
  /** The stretch of the drawing in sight; all of it where none is given. */
  frame?: Frame
  /** Its words for the scale it is seen at; as on paper where none are given. */
  lettering?: Lettering
  /** Bays can be selected. */
  onBay?: (id: string) => void
  bayName?: (id: string) => string
  /** The right edge of the selected bay was dragged so many millimetres outward. */
  onEdge?: (bay: string, by: number) => void
  /** Whether the selected bay's edge can be dragged. */
  edged?: boolean
  /** Parts that would take what is in the hand, and whether all would be well there. */
  lit?: ReadonlyMap<string, Lit>
  /** The one of them that it is over. */
  aimed?: string | null
}

const BOARDS = new Set(['shelf', 'base', 'cover', 'plinth', 'filler', 'track', 'standard', 'bracket'])

/** A neutral drawing as SVG elements. It flips y and nothing else: all geometry was decided by the core. */
export function DrawingSvg(props: DrawingProps) {
  const { drawing, label, onDimension, small, lettering } = props
  const prefix = useId().replace(/[^a-zA-Z0-9]/g, '')
  const [x0, y0, x1, y1] = drawing.bounds
  const interactive = Boolean(onDimension ?? props.onSelect)
  const parts = drawing.rects.filter((rect) => rect.layer === 'part')
  const others = drawing.rects.filter((rect) => rect.layer !== 'part')
  const below = others.filter((rect) => rect.layer !== 'content')
  const contents = others.filter((rect) => rect.layer === 'content')
  return (
    <svg
      className="drawing"
      viewBox={
        props.frame
          ? `${props.frame.x} ${props.frame.y} ${props.frame.w} ${props.frame.h}`
          : `${x0} ${-y1} ${x1 - x0} ${y1 - y0}`
      }
      preserveAspectRatio="xMidYMid meet"
      role={interactive ? 'group' : 'img'}
      aria-label={label}
    >
      <Hatches prefix={prefix} scale={small ? 2.4 : 1.6} />
      {below.map((rect, n) => (
        <Box key={n} rect={rect} prefix={prefix} marked={props.marked} />
      ))}
      {drawing.lines
        .filter((line) => line.layer !== 'part')
        .map((line, n) => (
          <Line key={n} line={line} prefix={prefix} marked={props.marked} />
        ))}
      {props.onBay && drawing.bays.map((bay) => <BayArea key={bay.of} area={bay} {...props} />)}
      {contents.map((rect, n) => (
        <Box
          key={n}
          rect={rect}
          prefix={prefix}
          told={rect.lies_in ? props.tellOf?.(rect.lies_in) : undefined}
        />
      ))}
      {props.edged &&
        drawing.bays
          .filter((bay) => bay.of === props.selected)
          .map((bay) => <Edge key={bay.of} area={bay} {...props} />)}
      {props.lit && drawing.labels.map((area) => <Landing key={area.of} area={area} {...props} />)}
      {parts.map((rect) => (
        <Part key={rect.of} rect={rect} prefix={prefix} {...props} />
      ))}
      {props.onDivider &&
        parts
          .filter((rect) => props.dividers?.has(rect.of))
          .map((rect) => <Divider key={rect.of} rect={rect} {...props} />)}
      {drawing.lines
        .filter((line) => line.layer === 'part')
        .map((line, n) => (
          <Line key={n} line={line} prefix={prefix} />
        ))}
      {!small &&
        drawing.dimensions.map((dimension, n) => (
          <DimensionLine
            key={n}
            dimension={dimension}
            {...props}
            figure={lettering ? (lettering.figures[n] ?? null) : undefined}
          />
        ))}
      {!small && lettering && <Words lettering={lettering} />}
      {!small &&
        !lettering &&
        drawing.texts.map((text, n) => (
          <text
            key={n}
            className={[text.halo ? 'halo' : '', text.caption ? 'caption' : ''].join(' ').trim()}
            x={text.x}
            y={-text.y}
            fontSize={text.size}
            textAnchor={text.anchor}
            transform={turned(text)}
            pointerEvents="none"
          >
            {text.text}
          </text>
        ))}
    </svg>
  )
}

/** A text or a dimension turned about its own place; angles of the drawing go the other way round on the screen. */
function turned({ turn, x, y }: { turn: number; x: number; y: number }): string | undefined {
  return turn ? `rotate(${-turn} ${x} ${-y})` : undefined
}

function classes(rect: { layer: string; weight: string; dashed: boolean }): string {
  return `stroke ${rect.weight} layer-${rect.layer}${rect.dashed ? ' dashed' : ''}`
}

type Marked = ReadonlySet<string> | undefined

function Box({
  rect,
  prefix,
  marked,
  told,
}: {
  rect: Rect
  prefix: string
  marked?: Marked
  told?: string | undefined
}) {
  const content = rect.layer === 'content'
  const box = { x: rect.x, y: -rect.y - rect.h, width: rect.w, height: rect.h }
  const shape = (
    <rect
      className={`${classes(rect)}${marked?.has(rect.of) ? ' is-marked-shape' : ''}`}
      {...box}
      style={{
        ...(rect.hatch ? { fill: `url(#${prefix}-${rect.hatch})` } : {}),
        ...(content && rect.hatch ? { stroke: `var(--${rect.hatch})` } : {}),
      }}
      data-of={rect.of || undefined}
      data-layer={rect.layer}
      data-lies-in={rect.lies_in || undefined}
    >
      {told && <title>{told}</title>}
    </rect>
  )
  // Opaque: no stud shows through a coat.
  return content ? (
    <>
      <rect {...box} fill="var(--paper)" />
      {shape}
    </>
  ) : (
    shape
  )
}

function Line({ line, prefix, marked }: { line: Schemas['Polyline']; prefix: string; marked?: Marked }) {
  return (
    <polyline
      className={`${classes(line)}${marked?.has(line.of) ? ' is-marked-shape' : ''}`}
      points={line.points.map(([x, y]) => `${x},${-y}`).join(' ')}
      style={line.hatch ? { fill: `url(#${prefix}-${line.hatch})` } : undefined}
      data-of={line.of || undefined}
      data-layer={line.layer}
    />
  )
}

function Part({ rect, ...props }: DrawingProps & { rect: Rect; prefix: string }) {
  const { selectable, selected, wrong, marked, locked, nameOf, tellOf, onSelect, onDrag } = props
  const drag = useDrag(rect.of, onDrag)
  const can = selectable?.has(rect.of) ?? false
  const name = [
    'part-shape',
    can ? 'can-select' : '',
    can && onDrag ? 'can-drag' : '',
    selected === rect.of ? 'is-selected' : '',
    wrong?.has(rect.of) ? 'is-wrong' : '',
    marked?.has(rect.of) ? 'is-marked' : '',
    locked?.has(rect.of) ? 'is-locked' : '',
  ].join(' ')
  const grow = can && rect.h < 40 ? 14 : 0
  const shape = (
    <>
      {can && (
        <rect
          x={rect.x}
          y={-rect.y - rect.h - grow}
          width={rect.w}
          height={rect.h + 2 * grow}
          fill="transparent"
        />
      )}
      <rect
        className={`${classes(rect)}${BOARDS.has(rect.role) ? ' board' : ''}`}
        x={rect.x}
        y={-rect.y - rect.h}
        width={rect.w}
        height={rect.h}
        pointerEvents={can ? undefined : 'none'}
        data-of={rect.of}
        data-layer="part"
      />
    </>
  )
  if (!can) return <g className={name}>{shape}</g>
  return (
    <g
      className={name}
      role="button"
      tabIndex={0}
      aria-label={nameOf?.(rect.of) ?? rect.of}
      aria-pressed={selected === rect.of}
      data-part={rect.of}
      ref={onDrag ? keepFinger : undefined}
      onClick={() => onSelect?.(rect.of)}
      onFocus={() => onSelect?.(rect.of)}
      {...drag.handlers}
      transform={drag.up ? `translate(0 ${-drag.up})` : undefined}
    >
      {tellOf && <title>{tellOf(rect.of)}</title>}
      {shape}
    </g>
  )
}

/** Dragging a shape up or down in the drawing's own millimetres; nothing where it cannot be dragged. */
function useDrag(id: string, onDrag: DrawingProps['onDrag']) {
  const [up, setUp] = useState(0)
  const from = useRef<{ y: number; perPixel: number } | null>(null)
  if (!onDrag) return { up: 0, handlers: {} }
  const moved = (event: React.PointerEvent) =>
    from.current ? (from.current.y - event.clientY) * from.current.perPixel : 0
  const handlers = {
    onPointerDown: (event: React.PointerEvent<SVGGElement>) => {
      const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM()
      if (event.button !== 0 || !matrix) return
      from.current = { y: event.clientY, perPixel: 1 / matrix.d }
      event.currentTarget.setPointerCapture(event.pointerId)
    },
    onPointerMove: (event: React.PointerEvent) => {
      if (from.current) setUp(moved(event))
    },
    onPointerUp: (event: React.PointerEvent) => {
      const by = moved(event)
      from.current = null
      setUp(0)
      if (Math.abs(by) > 1) onDrag(id, by)
    },
    onPointerCancel: () => {
      from.current = null
      setUp(0)
    },
  }
  return { up, handlers }
}

function DimensionLine({
  dimension,
  onDimension,
  next,
  figure,
}: DrawingProps & { dimension: Dimension; figure?: Placed | Numbered | null | undefined }) {
  const { start, end, size, slot } = dimension
  const tick = size * 0.3
  const can = Boolean(onDimension && slot)
  const isNext = Boolean(slot && next && slotKey(slot) === slotKey(next))
  const said = `${dimension.label}: ${dimension.state === 'missing' ? 'not read' : dimension.text}`
  const open = (at: Element) => {
    if (onDimension && slot) onDimension(slot, dimension.label, at)
  }
  const lines = [...dimension.extensions, [start, end] as const]
  const inner = (
    <>
      {lines.map(([a, b], n) => (
        <path key={n} className="stroke fine layer-dimension" d={`M${a[0]} ${-a[1]}L${b[0]} ${-b[1]}`} />
      ))}
      {[start, end].map(([x, y], n) => (
        <path
          key={n}
          className="stroke medium layer-dimension"
          d={`M${x - tick} ${-y + tick}L${x + tick} ${-y - tick}`}
        />
      ))}
      {can && <path className="catch" d={`M${start[0]} ${-start[1]}L${end[0]} ${-end[1]}`} />}
      {can && (
        <rect
          x={dimension.x - size * 2.2}
          y={-dimension.y - size * 1.1}
          width={size * 4.4}
          height={size * 1.7}
          fill="transparent"
          transform={turned(dimension)}
        />
      )}
      <Figure dimension={dimension} figure={figure} />
    </>
  )
  const name = `dimension ${dimension.state}${can ? ' can-read' : ''}${isNext ? ' next' : ''}`
  if (!can) return <g className={name}>{inner}</g>
  return (
    <g
      className={name}
      role="button"
      tabIndex={0}
      aria-label={`${said}. Enter to type a reading.`}
      data-slot={slot ? slotKey(slot) : undefined}
      onClick={(event) => open(event.currentTarget)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault()
          open(event.currentTarget)
        }
      }}
    >
      {inner}
    </g>
  )
}
