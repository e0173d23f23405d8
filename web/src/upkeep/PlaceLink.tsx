import { Loader } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link, Navigate, useParams } from 'react-router'

import { api, body, said } from '../api/client'

/** Where the code of a label leads: to its place, with it marked. */
export default function PlaceLink() {
  const id = Number(useParams().placeId)
  const place = useQuery({
    queryKey: ['place', id],
    queryFn: () => body(api.GET('/api/places/{place_id}', { params: { path: { place_id: id } } })),
  })
  if (place.data) {
    const { household, space } = place.data
    return (
      <Navigate
        replace
        to={`/house/${String(household)}/${String(space)}/upkeep?place=${String(place.data.place)}`}
      />
    )
  }
  return (
    <main className="front">
      {place.error ? (
        <div className="card" role="alert">
          <h1>Pinakotheke</h1>
          <p>{said(place.error)} The label may be of a place that was taken away since.</p>
          <Link to="/houses">To the houses</Link>
        </div>
      ) : (
        <Loader aria-label="Opening" />
      )}
    </main>
  )
}
