import { notifications } from '@mantine/notifications'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { useForget } from '../api/queries'

/** As wide as its panel, so that its letters are as large as everybody's. */
const WIDE = 560
const ROUND_IT = 76
const H = 230
const LEFT = 54
const BOTTOM = 40
const TICKS = 4

/** Cost against room left, the reach as the size of the mark; a point picked hangs in the gallery. */
export function TradeOffs({
  spaceId,
  solve,
  currency,
  onHung,
}: {
  spaceId: number
  solve: Schemas['SolveView']
  currency: string
  onHung: (id: number) => void
}) {
  const forget = useForget(spaceId)
  const [at, setAt] = useState<number | null>(null)
  const hang = useMutation({
    mutationFn: (index: number) =>
      body(
        api.POST('/api/solves/{solve_id}/hang/{index}', { params: { path: { solve_id: solve.id, index } } }),
      ),
    onSuccess: (card) => {
      forget('gallery')
      onHung(card.id)
    },
    onError: (error) => notifications.show({ color: 'red', message: said(error) }),
  })
  const W = Math.min(WIDE, window.innerWidth - ROUND_IT)
  const { points } = solve
  if (points.length === 0) return null
  const costs = axis(points.map((p) => p.cost))
  const rooms = axis(points.map((p) => 100 * p.room))
  const x = scale(costs.low, costs.high, LEFT, W - 20)
  const y = scale(rooms.low, rooms.high, H - BOTTOM, 22)
  const hardest = Math.max(...points.map((p) => p.reach), 1)
  const shown = points.find((point) => point.index === at)
  return (
    <figure className="trade-offs" aria-label="Cost against room left">
      <figcaption>
        To the right it costs more, upward more room is left, and the larger its mark the easier it is to
        reach. Pick one to hang it.
      </figcaption>
      <svg viewBox={`0 0 ${W} ${H}`}>
        {costs.ticks.map((tick) => (
          <g key={`x${tick}`}>
            <path className="trade-grid" d={`M${x(tick)} 22V${H - BOTTOM + 5}`} />
            <text x={x(tick)} y={H - BOTTOM + 18} textAnchor="middle" fontSize={12}>
              {tick}
            </text>
          </g>
        ))}
        {rooms.ticks.map((tick) => (
          <g key={`y${tick}`}>
            <path className="trade-grid" d={`M${LEFT - 5} ${y(tick)}H${W - 20}`} />
            <text x={LEFT - 9} y={y(tick) + 4} textAnchor="end" fontSize={12}>
              {tick}
            </text>
          </g>
        ))}
        <path className="trade-axis" d={`M${LEFT} 22V${H - BOTTOM}H${W - 20}`} />
        <text x={W - 20} y={H - 6} textAnchor="end" fontSize={12}>
          cost, {currency}
        </text>
        <text x={4} y={13} fontSize={12}>
          room left, %
        </text>
        {points.map((point) => (
          <g
            key={point.index}
            className={`trade-point${point.index === at ? ' is-shown' : ''}`}
            onPointerEnter={() => setAt(point.index)}
            onClick={() => hang.mutate(point.index)}
          >
            <circle cx={x(point.cost)} cy={y(100 * point.room)} r={6 + 6 * (1 - point.reach / hardest)} />
            <text x={x(point.cost)} y={y(100 * point.room) + 4} textAnchor="middle" fontSize={12}>
              {point.index + 1}
            </text>
          </g>
        ))}
      </svg>
      <ol className="trade-list">
        {points.map((point) => (
          <li key={point.index}>
            <button
              type="button"
              className={`plain link${shown?.index === point.index ? ' is-shown' : ''}`}
              disabled={hang.isPending}
              onFocus={() => setAt(point.index)}
              onPointerEnter={() => setAt(point.index)}
              onClick={() => hang.mutate(point.index)}
            >
              {point.name}
            </button>
          </li>
        ))}
      </ol>
    </figure>
  )
}

/** Round figures from below the least to above the most. */
function axis(values: readonly number[]): { low: number; high: number; ticks: number[] } {
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const rough = (most - least || Math.abs(most) || 1) / TICKS
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 2.5, 5, 10].map((n) => n * power).find((n) => n >= rough) ?? 10 * power
  const [low, high] = [Math.floor(least / step) * step, Math.ceil(most / step) * step || step]
  const ticks = Array.from({ length: Math.round((high - low) / step) + 1 }, (_, n) => round(low + n * step))
  return { low, high: high > low ? high : low + step, ticks }
}

const round = (value: number) => Number(value.toPrecision(6))

function scale(low: number, high: number, from: number, to: number): (value: number) => number {
  const span = high - low || 1
  return (value) => from + ((value - low) / span) * (to - from)
}
