import { useQuery } from '@tanstack/react-query'

import { api, body, type Schemas } from '../api/client'
import { keys } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import { OwnedList } from './OwnedList'
import { Sessions } from './Sessions'
import { SpaceUses } from './SpaceUses'

/** The order of work, what each space is for, and what the house has already. */
export function Work({ house }: { house: Schemas['HouseView'] }) {
  const query = useQuery({
    queryKey: keys.work(house.id),
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/sessions', { params: { path: { household_id: house.id } } }),
      ),
  })
  return (
    <Fetched query={query} waiting="Fetching the plan of work">
      {(work) => (
        <>
          <Sessions houseId={house.id} work={work} />
          <SpaceUses houseId={house.id} work={work} />
          <OwnedList houseId={house.id} work={work} />
        </>
      )}
    </Fetched>
  )
}
