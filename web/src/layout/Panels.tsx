import { Button, Popover } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { FinishForm } from './Wishes'
import { TradeOffs } from './TradeOffs'
import type { DesignEdits } from './useDesignEdits'

/** A panel that opens over the bench, wholly on the screen, and covers no drawing it is about. */
function Panel({
  name,
  wide,
  children,
}: {
  name: string
  wide: number
  children: (close: () => void) => React.ReactNode
}) {
  const [opened, setOpened] = useState(false)
  return (
    <Popover
      position="top"
      width={`min(${wide}px, calc(100vw - 24px))`}
      shadow="md"
      trapFocus
      opened={opened}
      onChange={setOpened}
    >
      <Popover.Target>
        <Button size="compact-sm" variant="subtle" onClick={() => setOpened(!opened)}>
          {name}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className="proof" role="region" aria-label={name} tabIndex={0}>
          {children(() => setOpened(false))}
        </div>
      </Popover.Dropdown>
    </Popover>
  )
}

/** How full a design is, what the search can say of it, and what to tape on the wall first. */
export function HowGood({
  design,
  solve,
}: {
  design: Schemas['DesignView']
  solve: Schemas['SolveView'] | null
}) {
  return (
    <Panel name="How good it is" wide={520}>
      {() => (
        <>
          <p>{design.asked}.</p>
          {design.marks.length > 0 && (
            <p>
              Tape these heights on the wall first:{' '}
              {design.marks.map((mark) => `${mark.height} (${mark.what}, ${mark.where})`).join('; ')}.
            </p>
          )}
          {solve && solve.told.length > 0 && (
            <>
              <h2>One more, one less</h2>
              <ul className="told">
                {solve.told.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </>
          )}
          <h2>How it was found</h2>
          <p className="quiet">{design.outcome}</p>
          {design.run && <p className="quiet">{design.run}.</p>}
        </>
      )}
    </Panel>
  )
}

/** What else could be had: cost against room left, to be picked from. */
export function TradeOffsPanel({
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
  return (
    <Panel name="Trade-offs" wide={620}>
      {(close) => (
        <TradeOffs
          spaceId={spaceId}
          solve={solve}
          currency={currency}
          onHung={(id) => {
            close()
            onHung(id)
          }}
        />
      )}
    </Panel>
  )
}

/** Doors, base, crown, lights and fascias of the design in hand. */
export function FinishPanel({ design, edits }: { design: Schemas['DesignView']; edits: DesignEdits }) {
  return (
    <Panel name="Finish" wide={470}>
      {() => (
        <FinishForm finish={design.finish} onChange={(finish) => void edits.edit({ do: 'finish', finish })} />
      )}
    </Panel>
  )
}
