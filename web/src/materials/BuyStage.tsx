import { SegmentedControl } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { useDesign } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import { NoDesign } from '../shell/NoDesign'
import type { StageProps } from '../shell/StageProps'
import { useAsked } from '../shell/useAsked'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { BuyingList } from './BuyingList'
import { CutPlans } from './CutPlans'
import { Cuts } from './Cuts'
import { Money } from './Money'
import { Shops } from './Shops'
import { useAsk, usePurchase } from './usePurchase'

const VIEWS = [
  { value: 'list', label: 'List' },
  { value: 'cut', label: 'Cut' },
  { value: 'shops', label: 'Where to buy' },
  { value: 'money', label: 'Money' },
]

/** Buy: what the chosen designs take, how it is cut, where it is bought, what was spent. */
export default function BuyStage({ design, ...props }: StageProps) {
  if (design === null)
    return (
      <NoDesign
        says="A list comes from a design, and there is none yet."
        to={`/house/${props.house.id}/${props.space.id}/layout`}
      />
    )
  return <Buying {...props} design={design} />
}

function Buying({ house, space, design }: StageProps & { design: number }) {
  const query = useDesign(design)
  const [search, look] = useAsked()
  const view = VIEWS.find((one) => one.value === search.get('view'))?.value ?? 'list'
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  const [sheet, setSheet] = useState<Schemas['Drawing'] | null>(null)
  const [ask, change] = useAsk(design)
  const bought = usePurchase(house.id, ask, query.data?.version ?? 0)
  const show = (next: string) => {
    setSheet(null)
    look({ view: next })
  }
  return (
    <Fetched query={query} waiting="Writing the list">
      {({ elevation, title, id, version }) => {
        const drawing = view === 'cut' && sheet ? sheet : elevation
        return (
          <main className="room buy">
            <Sheet title={drawing.title}>
              <Plate
                key={drawing.title.sheet}
                drawing={drawing}
                label={drawing === elevation ? `${space.name}: ${title}` : drawing.title.shows}
                marked={marked}
              />
            </Sheet>
            <section className="bench" aria-label="Bench">
              <div className="bench-head no-print">
                <SegmentedControl
                  size="xs"
                  aria-label="What to see"
                  value={view}
                  onChange={show}
                  data={VIEWS}
                />
                {bought.data && view !== 'list' && (
                  <span className="quiet">
                    The list costs {bought.data.total} {bought.data.currency}
                  </span>
                )}
              </div>
              <Fetched query={bought} waiting="Adding up">
                {(purchase) => (
                  <>
                    {view === 'list' && (
                      <BuyingList
                        house={house}
                        purchase={purchase}
                        ask={ask}
                        onAsk={change}
                        onMark={(parts) => setMarked(new Set(parts))}
                      />
                    )}
                    {view === 'cut' && (
                      <>
                        <CutPlans
                          houseId={house.id}
                          purchase={purchase}
                          ask={ask}
                          onAsk={change}
                          shown={sheet}
                          onShow={setSheet}
                        />
                        <Cuts designId={id} version={version} />
                      </>
                    )}
                    {view === 'shops' && <Shops houseId={house.id} ask={ask} currency={purchase.currency} />}
                    {view === 'money' && <Money house={house} space={space.key} ask={ask} />}
                  </>
                )}
              </Fetched>
            </section>
          </main>
        )
      }}
    </Fetched>
  )
}
