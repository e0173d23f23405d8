import { notifications } from '@mantine/notifications'
import { useMutation } from '@tanstack/react-query'

import { api, body, said, type Schemas } from '../api/client'
import { useForget } from '../api/queries'

const W = 300
const H = 150
const PAD = 34

/** Cost against room left, the trouble of reaching as the size of the mark; a point can be hung in the gallery. */
export function Frontier({
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
  const { points } = solve
  if (points.length === 0) return null
  const costs = points.map((p) => p.cost)
  const rooms = points.map((p) => p.room)
  const x = scale(Math.min(...costs), Math.max(...costs), PAD, W - 16)
  const y = scale(Math.min(...rooms), Math.max(...rooms), H - PAD, 14)
  const hardest = Math.max(...points.map((p) => p.reach), 1)
  return (
    <figure className="frontier" aria-label="Frontier: cost against room left">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label="Cost to the right, room left upward, larger marks reach easier"
      >
        <path className="frontier-axis" d={`M${PAD} 18V${H - PAD + 8}H${W - 6}`} />
        <text x={W - 8} y={H - 8} textAnchor="end" fontSize={12}>
          cost, {currency}
        </text>
        <text x={4} y={12} fontSize={12}>
          room left
        </text>
        {points.map((point) => (
          <g key={point.index}>
            <circle
              className="frontier-mark"
              cx={x(point.cost)}
              cy={y(point.room)}
              r={4 + 6 * (1 - point.reach / hardest)}
            />
            <text x={x(point.cost)} y={y(point.room) + 20} textAnchor="middle" fontSize={12}>
              {point.index + 1}
            </text>
          </g>
        ))}
      </svg>
      <ol className="frontier-list">
        {points.map((point) => (
          <li key={point.index}>
            <button
              type="button"
              className="plain link"
              disabled={hang.isPending}
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

function scale(low: number, high: number, from: number, to: number): (value: number) => number {
  const span = high - low || 1
  return (value) => from + ((value - low) / span) * (to - from)
}
