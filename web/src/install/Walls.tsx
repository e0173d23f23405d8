import { Button, SegmentedControl } from '@mantine/core'

import type { Plan } from './useInstall'

interface Props {
  design: number
  plan: Plan
  shown: number
  onShow: (wall: number) => void
  onPoint: (parts: readonly string[]) => void
}

/** The drilling map of a wall: cautions first, then every hole. */
export function Walls({ design, plan, shown, onShow, onPoint }: Props) {
  const path = `/api/designs/${String(design)}`
  const at = Math.min(shown, plan.walls.length - 1)
  const wall = plan.walls[at]
  if (!wall) return <p className="quiet">Nothing of this design is screwed to a wall.</p>
  return (
    <>
      <div className="row no-print">
        {plan.walls.length > 1 && (
          <SegmentedControl
            size="xs"
            aria-label="Wall"
            value={String(at)}
            onChange={(value) => onShow(Number(value))}
            data={plan.walls.map((one, n) => ({ value: String(n), label: one.name }))}
          />
        )}
        <Button component="a" href={`${path}/strips.pdf`} target="_blank" size="compact-sm" variant="default">
          Strips, full size (PDF)
        </Button>
        <Button component="a" href={`${path}/holes.csv`} download size="compact-sm" variant="default">
          Holes (CSV)
        </Button>
        <Button component="a" href={`${path}/holes.dxf`} download size="compact-sm" variant="default">
          Holes (DXF)
        </Button>
      </div>
      <ul className="cautions">
        {wall.cautions.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <p className="quiet">
        {wall.instrument} Check: {wall.check}
      </p>
      <table className="table holes">
        <thead>
          <tr>
            <th className="n">Hole</th>
            <th>Part</th>
            <th className="n">From the left</th>
            <th className="n">From the line</th>
            <th>Into</th>
            <th className="n">Bit</th>
            <th className="n">Depth</th>
          </tr>
        </thead>
        <tbody>
          {wall.holes.map((hole) => (
            <tr
              key={hole.number}
              className={hole.refused ? 'refused' : ''}
              onPointerEnter={() => onPoint([`hole-${String(hole.number)}`, hole.part])}
              onPointerLeave={() => onPoint([])}
            >
              <td className="n">{hole.number}</td>
              <td>{hole.part_name}</td>
              <td className="n">{hole.along}</td>
              <td className="n">{hole.from_line}</td>
              <td>{hole.says}</td>
              <td className="n">{hole.bit}</td>
              <td className="n">{hole.depth}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
