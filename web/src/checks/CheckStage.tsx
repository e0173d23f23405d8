import { Button } from '@mantine/core'
import { IconArrowBackUp, IconCheck } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'

import { api, body, type Schemas } from '../api/client'
import { useDesign } from '../api/queries'
import { useDesignEdits, type Command } from '../layout/useDesignEdits'
import { Fetched } from '../shell/Fetched'
import { SeverityMark } from '../shell/Findings'
import { NoDesign } from '../shell/NoDesign'
import type { StageProps } from '../shell/StageProps'
import { Tool } from '../shell/Tool'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { Mends } from './Mends'
import { Registry } from './Registry'

type Checks = Schemas['ChecksView']
type Checked = Schemas['CheckedView']

/** Check: what the design was asked, bay by bay, what was found, and the acts that mend it. */
export default function CheckStage({ house, space, design, shown, onShow }: StageProps) {
  const query = useDesign(design)
  if (design === null)
    return (
      <NoDesign
        says="What is checked is a design, and there is none yet."
        to={`/house/${house.id}/${space.id}/layout`}
      />
    )
  return (
    <Fetched query={query} waiting="Fetching the design">
      {(one) => (
        <Checking
          key={one.id}
          design={one}
          space={space}
          shown={shown}
          onShow={onShow}
          units={house.units}
          measure={`/house/${house.id}/${space.id}/survey`}
        />
      )}
    </Fetched>
  )
}

/** What was found for one question at one place; null for all of it. */
interface Cell {
  row: string
  kind: string
}

interface CheckingProps {
  design: Schemas['DesignView']
  space: Schemas['SpaceLine']
  units: Schemas['HouseView']['units']
  shown: string | null
  onShow: (id: string | null) => void
  /** Where readings are taken. */
  measure: string
}

function Checking({ design, space, units, shown, onShow, measure }: CheckingProps) {
  const edits = useDesignEdits(space.id, design.id)
  const [cell, setCell] = useState<Cell | null>(null)
  const [pointed, setPointed] = useState<readonly string[]>([])
  const query = useQuery({
    queryKey: ['design', design.id, 'checks', design.version],
    queryFn: () =>
      body(api.GET('/api/designs/{design_id}/checks', { params: { path: { design_id: design.id } } })),
    placeholderData: (before) => before,
  })
  const parts = useMemo(() => new Set(design.parts.map((part) => part.id)), [design])
  const wrong = useMemo(
    () =>
      new Set(
        query.data?.findings
          .filter((f) => f.severity === 'stop' || f.severity === 'fix')
          .flatMap((f) => f.where) ?? [],
      ),
    [query.data],
  )
  const mend = async (command: Command) => {
    await edits.edit(command)
  }
  return (
    <main className="room check">
      <Sheet title={{ ...design.elevation.title, shows: `Checked: ${design.title}` }}>
        <Plate
          drawing={design.elevation}
          label={`${space.name}: ${design.title}, with what was found`}
          selectable={parts}
          selected={shown}
          wrong={wrong}
          marked={new Set(pointed)}
          onSelect={onShow}
        />
      </Sheet>
      <section className="bench check-bench" aria-label="Bench">
        <Fetched query={query} waiting="Checking">
          {(checks) => (
            <>
              <div>
                <div className="row" style={{ justifyContent: 'space-between' }}>
                  <h2>What was asked</h2>
                  <span className="row tight">
                    <Button
                      component="a"
                      href={`/api/designs/${design.id}/checks.pdf`}
                      target="_blank"
                      size="compact-sm"
                      variant="default"
                      className="no-print"
                    >
                      Report (PDF)
                    </Button>
                    <Tool
                      label="Undo the last act on the design"
                      disabled={!design.can_undo}
                      onClick={() => void edits.undo()}
                    >
                      <IconArrowBackUp size={17} />
                    </Tool>
                  </span>
                </div>
                <Matrix checks={checks} cell={cell} onCell={setCell} />
                <Registry units={units} />
              </div>
              <div>
                <Found
                  checks={checks}
                  cell={cell}
                  designId={design.id}
                  measure={measure}
                  onAll={() => setCell(null)}
                  onPoint={setPointed}
                  onShow={onShow}
                  onMend={mend}
                />
              </div>
            </>
          )}
        </Fetched>
      </section>
    </main>
  )
}

/** Questions against bays: how many findings there are, and the worst of them; a cell shows only its own. */
function Matrix({
  checks,
  cell,
  onCell,
}: {
  checks: Checks
  cell: Cell | null
  onCell: (cell: Cell | null) => void
}) {
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
            {checks.rows.map((row) => (
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
              {checks.rows.map((row) => {
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

/** What was found, worst first, question by question; what could not be known stands by itself. */
function Found({
  checks,
  cell,
  designId,
  measure,
  onAll,
  onPoint,
  onShow,
  onMend,
}: {
  checks: Checks
  cell: Cell | null
  designId: number
  measure: string
  onAll: () => void
  onPoint: (parts: readonly string[]) => void
  onShow: (id: string | null) => void
  onMend: (command: Command) => Promise<void>
}) {
  const mine = checks.rows
    .find((row) => row.name === cell?.row)
    ?.cells.find((one) => one.kind === cell?.kind)?.findings
  const some = mine ? checks.findings.filter((f) => mine.includes(f.number)) : checks.findings
  const known = some.filter((f) => !f.unknown)
  const unknown = some.filter((f) => f.unknown)
  const kind = checks.kinds.find((one) => one.id === cell?.kind)
  const list = (findings: readonly Checked[]) =>
    findings.map((finding) => (
      <div
        className="finding"
        key={`${finding.code}-${finding.number}`}
        data-code={finding.code}
        onMouseEnter={() => onPoint(finding.where)}
        onMouseLeave={() => onPoint([])}
      >
        <SeverityMark severity={finding.severity} />
        <div>
          {finding.where[0] ? (
            <button type="button" className="plain" onClick={() => onShow(finding.where[0] ?? null)}>
              {finding.sentence}
            </button>
          ) : (
            finding.sentence
          )}{' '}
          <span className="mend">{finding.remedy}</span>
          <p className="finding-source">
            {finding.basis}: {finding.source}
          </p>
          {finding.unknown && (
            <Button component={Link} to={measure} size="compact-xs" variant="default">
              Take the reading
            </Button>
          )}
          {finding.mendable && (
            <Mends designId={designId} version={checks.version} number={finding.number} onMend={onMend} />
          )}
        </div>
      </div>
    ))
  return (
    <section aria-label="What was found">
      <h2>{kind && cell ? `${kind.name}: ${cell.row}` : 'What was found'}</h2>
      {kind && (
        <p className="quiet small">
          {kind.asks}{' '}
          <button type="button" className="plain small" onClick={onAll}>
            Show everything
          </button>
        </p>
      )}
      {known.length === 0 && <p className="quiet">Nothing is wrong that the tool knows of.</p>}
      {list(known)}
      {unknown.length > 0 && (
        <>
          <h2>Not known yet</h2>
          {list(unknown)}
        </>
      )}
      <p className="quiet small">
        A check warns and explains; it never permits. Local codes and a licensed electrician, plumber or
        builder decide.
      </p>
    </section>
  )
}
