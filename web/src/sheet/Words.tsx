import type { Schemas } from '../api/client'
import { badge, lineStep, type Lettering, type Numbered, type Placed } from './lettering'

/** The words of a drawing at the scale it is seen at, and the numbers of those that stand in the key. */
export function Words({ lettering }: { lettering: Lettering }) {
  return (
    <g pointerEvents="none">
      {lettering.placed.flatMap((words, n) =>
        words.lines.map((line, row) => (
          <text
            key={`${n}-${row}`}
            className={words.caption ? 'halo caption' : 'halo'}
            x={words.x}
            y={words.y + row * lineStep(words.size)}
            fontSize={words.size}
            textAnchor={words.anchor}
            transform={words.turn ? `rotate(${-words.turn} ${words.x} ${words.y})` : undefined}
            data-words={words.kind}
          >
            {line}
          </text>
        )),
      )}
      {lettering.numbered
        .filter((one) => !lettering.figures.includes(one))
        .map((one) => (
          <Badge key={one.number} one={one} />
        ))}
    </g>
  )
}

function Badge({ one }: { one: Numbered }) {
  return (
    <g className="number-badge" data-words="number">
      <circle cx={one.x} cy={one.y} r={badge(one.size) / 2} />
      <text x={one.x} y={one.y + one.size * 0.35} fontSize={one.size} textAnchor="middle">
        {one.number}
      </text>
    </g>
  )
}

/** The figure of a dimension: where the lettering puts it, or as on paper. */
export function Figure({
  dimension,
  figure,
}: {
  dimension: Schemas['Dimension']
  figure?: Placed | Numbered | null | undefined
}) {
  if (figure === null) return null
  if (figure && 'number' in figure) return <Badge one={figure} />
  const { x, y, size } = figure ?? { x: dimension.x, y: -dimension.y, size: dimension.size }
  return (
    <text
      className="halo"
      x={x}
      y={y}
      fontSize={size}
      textAnchor="middle"
      transform={dimension.turn ? `rotate(${-dimension.turn} ${x} ${y})` : undefined}
      data-words="dimension"
    >
      {dimension.text}
    </text>
  )
}
