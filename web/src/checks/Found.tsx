import { Button } from '@mantine/core'
import { Link } from 'react-router'

import type { Schemas } from '../api/client'
import type { Command } from '../layout/useDesignEdits'
import { SeverityMark } from '../shell/Findings'
import { Asked } from './Asked'
import type { Cell } from './Matrix'
import { Mends } from './Mends'

/** What was found, worst first, question by question; what could not be known stands by itself. */
export function Found({
  checks,
  cell,
  designId,
  spaceId,
  measure,
  onAll,
  onPoint,
  onShow,
  onMend,
}: {
  checks: Schemas['ChecksView']
  cell: Cell | null
  designId: number
  spaceId: number
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
  const unread = some.filter((f) => f.unknown && !f.asks)
  const asked = some.filter((f) => f.unknown && f.asks)
  const kind = checks.kinds.find((one) => one.id === cell?.kind)
  const list = (findings: readonly Schemas['CheckedView'][]) =>
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
          {finding.asks && (
            <Asked
              asks={finding.asks}
              spaceId={spaceId}
              spaceVersion={checks.space_version}
              designId={designId}
            />
          )}
          {finding.unknown && !finding.asks && (
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
      {unread.length > 0 && (
        <>
          <h2>Not known yet</h2>
          {list(unread)}
        </>
      )}
      {asked.length > 0 && (
        <>
          <h2>Asked of you</h2>
          {list(asked)}
        </>
      )}
      <p className="quiet small">
        A check warns and explains; it never permits. Local codes and a licensed electrician, plumber or
        builder decide.
      </p>
    </section>
  )
}
