import { useQuery } from '@tanstack/react-query'

import { api, body } from '../api/client'
import { Fetched } from '../shell/Fetched'

/** Two designs part by part: numbers, articles, and who lives elsewhere. */
export function CompareSlip({ here, there, version }: { here: number; there: number; version: number }) {
  const query = useQuery({
    queryKey: ['design', here, 'compare', there, version],
    queryFn: () =>
      body(
        api.GET('/api/designs/{design_id}/compare/{other_id}', {
          params: { path: { design_id: here, other_id: there } },
        }),
      ),
  })
  return (
    <Fetched query={query} waiting="Comparing">
      {(data) => (
        <section className="compare" aria-label="Comparison" tabIndex={0}>
          <table>
            <thead>
              <tr>
                <th />
                <th>{data.here}</th>
                <th>{data.there}</th>
              </tr>
            </thead>
            <tbody>
              {data.facts.map(([name, one, other]) => (
                <tr key={name} className={one === other ? 'quiet' : ''}>
                  <th scope="row">{name}</th>
                  <td>{one}</td>
                  <td>{other}</td>
                </tr>
              ))}
              {data.parts.map((part) => (
                <tr key={`${part.name} ${part.size}`}>
                  <th scope="row">
                    {part.name} <span className="quiet">{part.size}</span>
                  </th>
                  <td>{part.here || '–'}</td>
                  <td>{part.there || '–'}</td>
                </tr>
              ))}
              {data.homes.map((home) => (
                <tr key={home.name}>
                  <th scope="row">{home.name}</th>
                  <td>{home.here}</td>
                  <td>{home.there}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </Fetched>
  )
}
