import { Button, SegmentedControl } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { useMemo, useState } from 'react'

import { useDesign } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import { NoDesign } from '../shell/NoDesign'
import type { StageProps } from '../shell/StageProps'
import { useAsked } from '../shell/useAsked'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { AtTheWall } from './AtTheWall'
import { Bases } from './Bases'
import { Order } from './Order'
import { Ready } from './Ready'
import { useInstall } from './useInstall'
import { usePhotos } from './usePhotos'
import { isDone, useTicks } from './useTicks'
import { Walls } from './Walls'
import './install.css'

const VIEWS = [
  { value: 'order', label: 'Order of work' },
  { value: 'walls', label: 'Holes' },
  { value: 'base', label: 'Base' },
  { value: 'ready', label: 'To lay ready' },
  { value: 'wall', label: 'At the wall' },
]

/** Install: from a list of parts to a wall that is level, step by step. */
export default function InstallStage({ design, ...props }: StageProps) {
  if (design === null)
    return (
      <NoDesign
        says="What is put up is a design, and there is none yet."
        to={`/house/${props.house.id}/${props.space.id}/layout`}
      />
    )
  return <Installing key={design} {...props} design={design} />
}

function Installing({ space, design }: StageProps & { design: number }) {
  const query = useDesign(design)
  const version = query.data?.version ?? 0
  const plan = useInstall(design, version)
  const ticks = useTicks(space.id, design)
  const photos = usePhotos(space.id, design)
  const phone = useMediaQuery('(width <= 760px)')
  const [search, ask] = useAsked()
  const asked = VIEWS.find((one) => one.value === search.get('view'))?.value
  const view = asked ?? (phone ? 'wall' : 'order')
  const [pointed, setPointed] = useState<readonly string[]>([])
  const [wall, setWall] = useState(0)
  const done = useMemo(
    () => new Set(plan.data?.steps.filter((step) => isDone(step, ticks.waiting)).map((step) => step.id)),
    [plan.data, ticks.waiting],
  )
  const path = `/api/designs/${design}`
  return (
    <Fetched query={query} waiting="Fetching the design">
      {({ elevation, title }) => (
        <Fetched query={plan} waiting="Planning the work">
          {(made) => {
            const map =
              view === 'walls' ? made.walls[Math.min(wall, made.walls.length - 1)]?.drawing : undefined
            const drawing = map ?? elevation
            const seen = view === 'base' && made.bases.length === 0 ? 'order' : view
            return (
              <main className={`room install${seen === 'wall' ? ' at-the-wall' : ''}`}>
                <Sheet title={drawing.title}>
                  <Plate
                    key={drawing.title.shows}
                    drawing={drawing}
                    label={map ? drawing.title.shows : `${space.name}: ${title}`}
                    marked={new Set(pointed)}
                  />
                </Sheet>
                <section className="bench" aria-label="Bench">
                  <div className="bench-head no-print">
                    <SegmentedControl
                      size="xs"
                      aria-label="What to see"
                      value={seen}
                      onChange={(next) => ask({ view: next })}
                      data={VIEWS.filter((one) => one.value !== 'base' || made.bases.length > 0)}
                    />
                    <Button component="a" href={`${path}/install.pdf`} target="_blank" size="compact-sm">
                      Booklet (PDF)
                    </Button>
                    {made.steps.some((step) => step.starts) && (
                      <Button
                        component="a"
                        href={`${path}/install.ics`}
                        download
                        size="compact-sm"
                        variant="default"
                      >
                        Calendar
                      </Button>
                    )}
                  </div>
                  {ticks.refused && (
                    <p className="misheard" role="alert">
                      {ticks.refused}
                    </p>
                  )}
                  {seen === 'order' && (
                    <Order
                      spaceId={space.id}
                      design={design}
                      version={version}
                      plan={made}
                      done={done}
                      ticks={ticks}
                      onPoint={setPointed}
                    />
                  )}
                  {seen === 'walls' && (
                    <Walls design={design} plan={made} shown={wall} onShow={setWall} onPoint={setPointed} />
                  )}
                  {seen === 'base' && <Bases plan={made} design={design} />}
                  {seen === 'ready' && (
                    <Ready spaceId={space.id} design={design} version={version} plan={made} />
                  )}
                  {seen === 'wall' && (
                    <AtTheWall plan={made} done={done} ticks={ticks} photos={photos} onPoint={setPointed} />
                  )}
                </section>
              </main>
            )
          }}
        </Fetched>
      )}
    </Fetched>
  )
}
