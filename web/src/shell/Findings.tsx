import { IconAlertOctagon, IconAlertTriangle, IconEye, IconNote } from '@tabler/icons-react'
import { useState } from 'react'

import type { Schemas } from '../api/client'

type Finding = Schemas['FindingView']

const SHAPES = { stop: IconAlertOctagon, fix: IconAlertTriangle, mind: IconEye, note: IconNote }
const SHOWN = 5

export function SeverityMark({ severity }: { severity: Finding['severity'] }) {
  const Shape = SHAPES[severity]
  return (
    <span className={`severity severity-${severity}`}>
      <Shape size={15} stroke={2} aria-hidden="true" />
      {severity}
    </span>
  )
}

/** Findings, worst first, each with its mend and source. */
export function Findings({
  findings,
  onShow,
}: {
  findings: readonly Finding[]
  onShow?: (where: string) => void
}) {
  const [all, setAll] = useState(false)
  if (findings.length === 0) return <p className="quiet">Nothing is wrong that the tool knows of.</p>
  const shown = all ? findings : findings.slice(0, SHOWN)
  return (
    <>
      {shown.map((finding, n) => (
        <div className="finding" key={`${finding.code}-${n}`} data-code={finding.code}>
          <SeverityMark severity={finding.severity} />
          <div>
            {onShow && finding.where[0] ? (
              <button type="button" className="plain" onClick={() => onShow(finding.where[0] ?? '')}>
                {finding.sentence}
              </button>
            ) : (
              finding.sentence
            )}{' '}
            <span className="mend" title={`${finding.basis}: ${finding.source}`}>
              {finding.remedy}
            </span>
          </div>
        </div>
      ))}
      {findings.length > SHOWN && (
        <button
          type="button"
          className="plain small"
          style={{ color: 'var(--accent)' }}
          onClick={() => setAll(!all)}
        >
          {all ? 'Show the worst only' : `Show all ${findings.length}`}
        </button>
      )}
    </>
  )
}
