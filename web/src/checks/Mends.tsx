import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said } from '../api/client'
import type { Command } from '../layout/useDesignEdits'

/** The acts that would mend a finding, looked for when they are asked for; one click does one. */
export function Mends({
  designId,
  version,
  number,
  onMend,
}: {
  designId: number
  version: number
  number: number
  onMend: (command: Command) => Promise<void>
}) {
  const [asked, setAsked] = useState(false)
  const { data, error } = useQuery({
    queryKey: ['design', designId, 'mends', version, number],
    queryFn: () =>
      body(
        api.POST('/api/designs/{design_id}/mends', {
          params: { path: { design_id: designId } },
          body: { version, number },
        }),
      ),
    enabled: asked,
    staleTime: Infinity,
    retry: false,
  })
  if (!asked)
    return (
      <Button size="compact-xs" variant="default" onClick={() => setAsked(true)}>
        What would mend it?
      </Button>
    )
  if (error) return <p role="alert">{said(error)}</p>
  if (!data)
    return (
      <p className="quiet small" role="status">
        Trying what a hand could do…
      </p>
    )
  if (data.each.length === 0)
    return (
      <p className="quiet small" role="status">
        No single act mends it without harm elsewhere.
      </p>
    )
  return (
    <ul className="mends" aria-label="What would mend it">
      {data.each.map((mend) => (
        <li key={mend.says}>
          <Button size="compact-xs" onClick={() => void onMend(mend.command)}>
            {mend.says.replace(/\.$/, '')}
          </Button>
          <span className="quiet small">
            {' '}
            {[mend.costs, ...mend.brings].filter(Boolean).join(' ') || 'Costs nothing.'}
          </span>
        </li>
      ))}
    </ul>
  )
}
