import { UnstyledButton } from '@mantine/core'

import type { Schemas } from '../api/client'
import { Why } from '../shell/Why'

/** What the readings of a section mean: sizes clear for parts, what is closed and why, level and square. */
export function ClearSizes({
  space,
  section,
  pointed,
  onPoint,
}: {
  space: Schemas['SpaceView']
  section: Schemas['SectionView']
  pointed: string | null
  onPoint: (id: string | null) => void
}) {
  const { clear, problem, closed, means } = section
  const many = space.sections.length > 1 ? `: ${section.label}` : ''
  return (
    <section aria-label="Clear sizes">
      <h2>Clear for parts{many}</h2>
      {!clear && <p className="quiet">{problem}</p>}
      <dl className="facts">
        {clear && (
          <>
            <dt>width</dt>
            <dd>
              <Why slip={clear.why} label="Clear width">
                {clear.width}
              </Why>
            </dd>
            <dt>depth</dt>
            <dd>{clear.depth}</dd>
            <dt>height</dt>
            <dd>{clear.height}</dd>
            {section.at_wall && (
              <>
                <dt>for what slides out</dt>
                <dd>{clear.opening}</dd>
              </>
            )}
            {clear.uncertain && (
              <>
                <dt>taken off, uncertain</dt>
                <dd>{clear.uncertain}</dd>
              </>
            )}
          </>
        )}
        {means.map(([name, value]) => (
          <Fact key={name} name={name} value={value} />
        ))}
      </dl>
      {closed.length > 0 && (
        <>
          <h2>Closed, and why</h2>
          <ul className="closed">
            {closed.map((region) => (
              <li key={`${region.of}${region.why}`}>
                <UnstyledButton
                  aria-pressed={pointed === region.of}
                  onClick={() => onPoint(pointed === region.of ? null : region.of)}
                >
                  {region.why}
                  {region.loose && <em> (a basket may stand there)</em>}
                </UnstyledButton>
                <span className="quiet">{region.where}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{value}</dd>
    </>
  )
}
