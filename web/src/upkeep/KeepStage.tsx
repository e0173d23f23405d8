import { Button, NativeSelect, SegmentedControl } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { useMemo } from 'react'

import { useDesign } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/StageProps'
import { useAsked } from '../shell/useAsked'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { BeforeAfter } from './BeforeAfter'
import { Labels } from './Labels'
import { Log } from './Log'
import { MoveIn } from './MoveIn'
import { Places } from './Places'
import { Restock } from './Restock'
import { Review } from './Review'
import { Seasons } from './Seasons'
import { useActs, useUpkeep } from './useUpkeep'
import './upkeep.css'

const VIEWS = [
  { value: 'places', label: 'What is where' },
  { value: 'labels', label: 'Labels' },
  { value: 'restock', label: 'Restock' },
  { value: 'seasons', label: 'Seasons' },
  { value: 'review', label: 'Review' },
  { value: 'before-after', label: 'Before and after' },
  { value: 'log', label: 'Log' },
]
/** Those that are about the places of this space: its drawing stands beside them. */
const WITH_DRAWING = ['places', 'labels']

/** Keep: where everything was put, so that it is found again and goes back there. */
export default function KeepStage({ house, space, design }: StageProps) {
  const [search, set] = useAsked()
  const phone = useMediaQuery('(width <= 760px)')
  const view = VIEWS.find((one) => one.value === search.get('view'))?.value ?? 'places'
  const sheet = search.get('sheet') ?? (house.units === 'imperial' ? 'letter-3x10' : 'a4-3x7')
  const pictured = search.get('pictures') === 'yes'
  const query = useUpkeep(space.id, view === 'labels' ? sheet : '', pictured)
  const acts = useActs(space.id)
  const chosen = Number(search.get('place')) || null
  return (
    <Fetched query={query} waiting="Looking into the places">
      {(upkeep) => (
        <main className={WITH_DRAWING.includes(view) ? 'room keep' : 'room whole'}>
          {WITH_DRAWING.includes(view) && (
            <Picture
              design={upkeep.design ?? design}
              space={space.name}
              parts={upkeep.places.filter((one) => one.id === chosen && one.part).map((one) => one.part)}
            />
          )}
          <section className="bench" aria-label="Bench">
            <div className="bench-head no-print">
              {phone ? (
                <NativeSelect
                  aria-label="What to see"
                  value={view}
                  onChange={(event) => set({ view: event.currentTarget.value })}
                  data={VIEWS}
                />
              ) : (
                <SegmentedControl
                  size="xs"
                  aria-label="What to see"
                  value={view}
                  onChange={(next) => set({ view: next })}
                  data={VIEWS}
                />
              )}
              {view === 'places' && upkeep.places.length > 0 && (
                <>
                  <Button
                    component="a"
                    href={`/api/spaces/${String(space.id)}/map.pdf`}
                    target="_blank"
                    size="compact-sm"
                    variant="default"
                  >
                    Map for the door
                  </Button>
                  <Button
                    component="a"
                    href={`/api/spaces/${String(space.id)}/map.csv`}
                    download
                    size="compact-sm"
                    variant="default"
                  >
                    Map (CSV)
                  </Button>
                </>
              )}
            </div>
            {(view === 'places' || view === 'labels') && (
              <MoveIn upkeep={upkeep} design={design} acts={acts} />
            )}
            {view === 'log' && <Log house={house.id} />}
            {view === 'restock' && <Restock house={house.id} space={space} />}
            {view === 'seasons' && <Seasons house={house.id} space={space.id} />}
            {view === 'review' && (
              <Review
                space={space.id}
                upkeep={upkeep}
                school={search.get('school') === 'month' ? 'month' : 'fortnight'}
                onSchool={(school) => set({ school })}
                toDesign={`/house/${String(house.id)}/${String(space.id)}/layout`}
              />
            )}
            {view === 'before-after' && <BeforeAfter house={house.id} space={space.id} name={space.name} />}
            {view === 'places' && (
              <Places
                upkeep={upkeep}
                acts={acts}
                chosen={chosen}
                onChoose={(place) => set({ place: place === null ? null : String(place) })}
              />
            )}
            {view === 'labels' && (
              <Labels
                space={space.id}
                upkeep={upkeep}
                acts={acts}
                sheet={sheet}
                onSheet={(one) => set({ sheet: one })}
                pictured={pictured}
                onPictured={(next) => set({ pictures: next ? 'yes' : null })}
              />
            )}
          </section>
        </main>
      )}
    </Fetched>
  )
}

/** The design that is lived in, with the place in hand marked. */
function Picture({
  design,
  space,
  parts,
}: {
  design: number | null
  space: string
  parts: readonly string[]
}) {
  const query = useDesign(design)
  const marked = useMemo(() => new Set(parts), [parts])
  if (!query.data)
    return (
      <Sheet title={null}>
        <div className="empty">
          <p>{space} has no design to show its places on; they are listed below.</p>
        </div>
      </Sheet>
    )
  const { elevation, title } = query.data
  return (
    <Sheet title={elevation.title}>
      <Plate drawing={elevation} label={`${space}: ${title}`} marked={marked} />
    </Sheet>
  )
}
