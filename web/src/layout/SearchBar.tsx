import { Alert, Button, Progress } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { Link } from 'react-router'

import { api, body, Problem, said, type Schemas } from '../api/client'
import { keys, searching, useForget } from '../api/queries'

/** Ask for alternatives, watch the search, stop it; and what it says when not everything fits. */
export function SearchBar({
  houseId,
  spaceId,
  gallery,
}: {
  houseId: number
  spaceId: number
  gallery: Schemas['Gallery']
}) {
  const client = useQueryClient()
  const forget = useForget(spaceId)
  const { solve, designs } = gallery
  const running = searching(solve)
  const set = (next: Schemas['SolveView']) =>
    client.setQueryData<Schemas['Gallery']>(
      keys.gallery(spaceId),
      (before) => before && { ...before, solve: next },
    )
  const ask = useMutation({
    mutationFn: () =>
      body(api.POST('/api/spaces/{space_id}/solves', { params: { path: { space_id: spaceId } } })),
    onSuccess: set,
  })
  const cancel = useMutation({
    mutationFn: (id: number) =>
      body(api.POST('/api/solves/{solve_id}/cancel', { params: { path: { solve_id: id } } })),
    onSuccess: set,
  })
  const was = useRef(running)
  useEffect(() => {
    if (was.current && !running) forget('gallery', 'ledger', 'designs')
    was.current = running
  }, [forget, running])

  const toMeasure = <Link to={`/house/${houseId}/${spaceId}/survey`}>Go to Measure</Link>
  return (
    <div className="search-bar">
      {running && solve ? (
        <div className="row" role="status">
          <Progress value={100 * solve.progress} aria-label="Search" style={{ flex: '0 1 220px' }} animated />
          <span>{solve.message}</span>
          <Button
            size="compact-sm"
            variant="default"
            loading={cancel.isPending}
            onClick={() => cancel.mutate(solve.id)}
          >
            Cancel
          </Button>
        </div>
      ) : (
        <div className="row">
          <Button
            size="compact-md"
            variant={designs.length ? 'default' : 'filled'}
            loading={ask.isPending}
            onClick={() => ask.mutate()}
          >
            {designs.length ? 'Search again' : 'Find designs'}
          </Button>
          {solve?.status === 'cancelled' && <span className="quiet">Cancelled; what was found is kept.</span>}
        </div>
      )}
      {ask.isError && (
        <Alert color="red" variant="outline" role="alert" mt="xs">
          {said(ask.error)} {ask.error instanceof Problem && ask.error.status < 500 && toMeasure}
        </Alert>
      )}
      {solve?.problem && !running && (
        <Alert color="red" variant="outline" role="alert" mt="xs">
          {solve.problem}
        </Alert>
      )}
      {solve?.blocked && !running && <BlockedNote blocked={solve.blocked} />}
    </div>
  )
}

function BlockedNote({ blocked }: { blocked: Schemas['BlockedView'] }) {
  return (
    <div className="blocked" role="note" data-testid="blocked">
      <b>{blocked.sentence}</b>
      {blocked.relaxations.length > 0 && (
        <ul>
          {blocked.relaxations.map((relaxation) => (
            <li key={relaxation.sentence}>{relaxation.sentence}</li>
          ))}
        </ul>
      )}
    </div>
  )
}
