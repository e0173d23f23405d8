import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { api, body, type Schemas } from '../api/client'
import { keys } from '../api/queries'

/** The households one may enter, by client, each with where the work stands and what comes next. */
export function Standing({ households }: { households: readonly Schemas['HouseholdName'][] }) {
  const standing = useQuery({
    queryKey: keys.standing,
    queryFn: () => body(api.GET('/api/session/standing')),
  })
  const told = new Map(standing.data?.each.map((one) => [one.id, one]))
  // By client as soon as it is told whose they are; until then as they are.
  const order = standing.data?.each.map((one) => one.id) ?? []
  const rows = [...households].sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id))
  const clients = [...new Set(rows.map((house) => told.get(house.id)?.client ?? ''))]
  return clients.map((client) => (
    <section key={client} aria-label={client || 'Own households'} className="standing">
      {clients.length > 1 && <h2>{client || 'Your own'}</h2>}
      {rows
        .filter((house) => (told.get(house.id)?.client ?? '') === client)
        .map((house) => {
          const one = told.get(house.id)
          return (
            <Link key={house.id} to={`/house/${house.id}`} className="standing-row">
              <span>
                {house.name}
                {house.is_demo && ' (demo)'}
                {house.role !== 'owner' && <span className="quiet small"> · {house.role}</span>}
              </span>
              {one && (
                <span className="quiet small">
                  {one.state}
                  {one.next && (
                    <>
                      . Next: <b>{one.next}</b>
                    </>
                  )}
                </span>
              )}
            </Link>
          )
        })}
    </section>
  ))
}
