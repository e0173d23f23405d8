import { Button } from '@mantine/core'

import type { Schemas } from '../api/client'

/** The reading to take now, how to take it, and how many are left. */
export function NextReading({ space, onTake }: { space: Schemas['SpaceView']; onTake: () => void }) {
  const { next, missing } = space
  return (
    <section className="next-reading" aria-label="Next reading">
      <h2>
        {next ? (missing > 0 ? 'Next reading' : 'Nothing more is needed; still useful') : 'All is read'}
      </h2>
      {next && (
        <>
          <div className="row" style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
            <b>{next.label}</b>
            <Button size="compact-sm" variant="default" onClick={onTake}>
              Read it <kbd>n</kbd>
            </Button>
          </div>
          <p className="quiet">{next.how}</p>
          {missing > 1 && <p className="quiet">{missing - 1} more after it.</p>}
        </>
      )}
      {space.doubts.map((doubt) => (
        <p key={doubt} className="misheard">
          {doubt}
        </p>
      ))}
    </section>
  )
}
