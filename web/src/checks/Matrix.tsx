import { IconCheck } from '@tabler/icons-react'

import type { Schemas } from '../api/client'

/** What was found for one question at one place; null for all of it. */
export interface Cell {
  row: string
  kind: string
}

/** Questions against bays: how many findings there are, and the worst of them; a cell shows only its own. */
export function Matrix({
  checks,
  cell,
  onCell,
}: {
  checks: Schemas['ChecksView']
  cell: Cell | null
  onCell: (cell: Cell | null) => void
}) {
  // The space first: what holds for all of it stays in sight where there are many bays.
  const isBay = (row: { name: string }) => Number(row.name.startsWith('bay '))
  const rows = [...checks.rows].sort((a, b) => isBay(a) - isBay(b))
  return (
    <div
      className="matrix-scroll"
      data-scrolls-sideways
      tabIndex={0}
      role="group"
      aria-label="Questions by bay"
    >
      <table className="table matrix">
        <thead>
          <tr>
            <th>
              <span className="visually-hidden">Question</span>
            </th>
            {rows.map((row) => (
              <th key={row.name} scope="col">
                {row.name.replace('bay ', '')}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {checks.kinds.map((kind) => (
            <tr key={kind.id}>
              <th scope="row" title={kind.asks}>
                {kind.name}
              </th>
              {rows.map((row) => {
                const one = row.cells.find((c) => c.kind === kind.id)
                const is = cell?.row === row.name && cell.kind === kind.id
                return (
                  <td key={row.name}>
                    {one?.worst ? (
                      <button
                        type="button"
                        className={`plain matrix-cell severity-${one.worst}`}
                        aria-pressed={is}
                        aria-label={`${kind.name}, ${row.name}: ${one.findings.length}, the worst: ${one.worst}`}
                        onClick={() => onCell(is ? null : { row: row.name, kind: kind.id })}
                      >
                        {one.findings.length}
                      </button>
                    ) : (
                      <IconCheck size={14} className="quiet" aria-label="nothing found" />
                    )}
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
