import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, type Schemas } from '../api/client'
import { SeverityMark } from '../shell/Findings'

/** Every check that is made, with what it would say and by whose rule; fetched when it is opened. */
export function Registry({ units }: { units: Schemas['HouseView']['units'] }) {
  const [opened, setOpened] = useState(false)
  const { data } = useQuery({
    queryKey: ['checks', units],
    queryFn: () => body(api.GET('/api/checks', { params: { query: { units } } })),
    enabled: opened,
    staleTime: Infinity,
  })
  return (
    <details className="registry" onToggle={(event) => setOpened(event.currentTarget.open)}>
      <summary>All that is checked, and by whose rule</summary>
      {data?.kinds.map((kind) => (
        <section key={kind.id} aria-label={kind.name}>
          <h3>{kind.name}</h3>
          {data.rules
            .filter((rule) => rule.kind === kind.id)
            .map((rule) => (
              <div className="finding" key={rule.code} data-rule={rule.code}>
                <SeverityMark severity={rule.severity} />
                <div>
                  {rule.says} <span className="mend">{rule.remedy}</span>
                  <p className="finding-source">{[rule.basis, rule.source].filter(Boolean).join(': ')}</p>
                </div>
              </div>
            ))}
        </section>
      ))}
    </details>
  )
}
