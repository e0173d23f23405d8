import { Button, Loader, SegmentedControl } from '@mantine/core'
import { IconArrowBackUp } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useMemo, useState } from 'react'

import { api, body, type Schemas } from '../api/client'
import { useDesign } from '../api/queries'
import { usePlan } from '../layout/usePlan'
import { useDesignEdits, type Command } from '../layout/useDesignEdits'
import { Fetched } from '../shell/Fetched'
import { NoDesign } from '../shell/NoDesign'
import type { StageProps } from '../shell/StageProps'
import { Tool } from '../shell/Tool'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { Found } from './Found'
import { Matrix, type Cell } from './Matrix'
import { Registry } from './Registry'

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

interface CheckingProps {
  design: Schemas['DesignView']
  space: Schemas['SpaceLine']
  units: Schemas['HouseView']['units']
  shown: string | null
  onShow: (id: string | null) => void
  /** Where readings are taken. */
  measure: string
}

const WalkRound = lazy(() => import('../layout/WalkRound'))
const VIEWS = ['elevation', 'plan', 'walk-round'] as const
type View = (typeof VIEWS)[number]
const NONE: ReadonlySet<string> = new Set()

function Checking({ design, space, units, shown, onShow, measure }: CheckingProps) {
  const edits = useDesignEdits(space.id, design.id)
  const [cell, setCell] = useState<Cell | null>(null)
  const [view, setView] = useState<View>('elevation')
  const plan = usePlan(design, view === 'plan')
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
      <div className="sheet-holder">
        <div className="look-bar no-print">
          <SegmentedControl
            size="xs"
            aria-label="View"
            value={view}
            onChange={(value) => setView(VIEWS.find((one) => one === value) ?? 'elevation')}
            data={[...VIEWS]}
          />
          {view === 'plan' && (
            <span className="quiet small">Dashed: where drawers and doors go, and room to stand.</span>
          )}
        </div>
        <Sheet title={{ ...design.elevation.title, shows: `Checked: ${design.title}` }}>
          {view === 'walk-round' ? (
            <Suspense fallback={<Loader aria-label="Fetching the view" />}>
              <WalkRound
                url={`/api/designs/${design.id}/model.glb?version=${design.version}`}
                label={design.title}
                eyes={design.eyes}
                drawers={NONE}
                fronts={false}
                wrong={pointed.length > 0 ? new Set(pointed) : wrong}
              />
            </Suspense>
          ) : (
            <Plate
              drawing={view === 'plan' ? plan : design.elevation}
              label={`${space.name}: ${design.title}, with what was found`}
              selectable={parts}
              selected={shown}
              wrong={wrong}
              marked={new Set(pointed)}
              onSelect={onShow}
            />
          )}
        </Sheet>
      </div>
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
                <Mended acts={checks.mended} />
                <Registry units={units} />
              </div>
              <div>
                <Found
                  checks={checks}
                  cell={cell}
                  designId={design.id}
                  spaceId={space.id}
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

/** What acts took away that was to be fixed, the latest first. */
function Mended({ acts }: { acts: readonly Schemas['MendedView'][] }) {
  if (acts.length === 0) return null
  return (
    <section aria-label="Mended" className="mended">
      <h2>Mended</h2>
      <ul>
        {acts.map((act, n) => (
          <li key={n}>
            {act.says} <span className="mend">Gone: {act.took_away.join(' ')}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}
