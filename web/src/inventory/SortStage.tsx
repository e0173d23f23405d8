import { Button, Loader } from '@mantine/core'
import { notifications } from '@mantine/notifications'

import { said } from '../api/client'
import { mainSection, useDesign, useSpace, useThings, useVocabulary } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/HousePage'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { Sheet } from '../sheet/Sheet'
import { DemandList } from './DemandList'
import { QuickAdd } from './QuickAdd'
import { ThingsTable } from './ThingsTable'
import { useThingsChange } from './useThingsChange'

/** Sort: what stays, how much of it, whose, how often. */
export function SortStage({ house, space, design }: StageProps) {
  const things = useThings(space.id)
  const vocabulary = useVocabulary()
  const change = useThingsChange(space.id)
  const failed = (error: unknown) => notifications.show({ color: 'red', message: said(error) })
  return (
    <main className="room sort">
      <SmallSheet spaceId={space.id} design={design} things={things.data} />
      <section className="bench" aria-label="Bench">
        <QuickAdd spaceId={space.id} people={house.people.map((person) => person.name)} onAdd={change.add} />
        <Fetched query={things} waiting="Fetching the things">
          {({ things: rows }) =>
            rows.length === 0 ? (
              <div className="empty">
                <p>Empty the closet, group like with like, and count. Name the first group above.</p>
                <Button
                  variant="default"
                  onClick={() => void change.add('1 short coat, daily').catch(failed)}
                >
                  Begin with one short coat
                </Button>
              </div>
            ) : (
              <Fetched query={vocabulary} waiting="Fetching the words">
                {(words) => (
                  <ThingsTable
                    rows={rows}
                    people={house.people}
                    vocabulary={words}
                    onChange={(row, fields) => void change.change(row, fields).catch(failed)}
                    onRemove={(row) => void change.remove(row).catch(failed)}
                  />
                )}
              </Fetched>
            )
          }
        </Fetched>
      </section>
    </main>
  )
}

/** The space as it stands, beside what is asked of it. */
function SmallSheet({
  spaceId,
  design,
  things,
}: {
  spaceId: number
  design: number | null
  things: ReturnType<typeof useThings>['data']
}) {
  const space = useSpace(spaceId)
  const current = useDesign(design)
  const drawing = current.data?.elevation ?? (space.data && mainSection(space.data)?.elevation)
  return (
    <Sheet title={null}>
      {drawing ? (
        <DrawingSvg drawing={drawing} label={`${drawing.title.space}: ${drawing.title.shows}`} small />
      ) : (
        <Loader aria-label="Drawing" />
      )}
      {things && things.demand.length > 0 && <DemandList things={things} />}
    </Sheet>
  )
}
