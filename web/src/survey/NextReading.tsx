import { Button } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'

import { said, type Schemas } from '../api/client'
import type { Tool } from './Practice'

/** The reading to take now: what for, how to take it, and how many are left. */
export function NextReading({
  space,
  onType,
  take,
}: {
  space: Schemas['SpaceView']
  onType: () => void
  /** In a practice room: the instrument at hand. */
  take: { tool: Tool; act: () => Promise<unknown> } | null
}) {
  const { next, missing } = space
  const [busy, setBusy] = useState(false)
  const read = () => {
    if (!take) return
    setBusy(true)
    take
      .act()
      .catch((error: unknown) => notifications.show({ color: 'red', message: said(error) }))
      .finally(() => setBusy(false))
  }
  return (
    <section className="next-reading" aria-label="Next reading">
      <h2>
        {next ? (missing > 0 ? 'Next reading' : 'Nothing more is needed; still useful') : 'All is read'}
      </h2>
      {next && (
        <>
          <div className="row" style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
            <b>{next.label}</b>
            <span className="row" style={{ flexWrap: 'nowrap', gap: 6 }}>
              {take && (
                <Button size="compact-sm" loading={busy} onClick={read}>
                  Take it: {take.tool}
                </Button>
              )}
              <Button size="compact-sm" variant="default" onClick={onType}>
                Read it <kbd>n</kbd>
              </Button>
            </span>
          </div>
          <p className="quiet">
            {next.says} {next.how}
          </p>
          {next.left > 1 && <p className="quiet">{next.left - 1} more needed after it.</p>}
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
