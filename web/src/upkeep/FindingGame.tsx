import { Button, SegmentedControl } from '@mantine/core'
import { useEffect, useState } from 'react'

import { api, type Schemas } from '../api/client'
import { newKey } from '../survey/waiting'
import { useTell } from './useTell'

type View = Schemas['BeforeAfterView']
type Find = Schemas['Find']
type Moment = Schemas['HuntData']['moment']

/** Ten things against time: before the work, and after it. */
export function FindingGame({ house, space, view }: { house: number; space: number; view: View }) {
  const tell = useTell()
  const [moment, setMoment] = useState<Moment>(view.hunts.length > 0 ? 'after' : 'before')
  const [things, setThings] = useState<readonly string[]>([])
  const [finds, setFinds] = useState<readonly Find[]>([])
  const [since, setSince] = useState(0)
  const thing = things[finds.length]
  const found = (seconds: number | null) => {
    if (thing === undefined) return
    const next = [...finds, { thing, seconds }]
    setFinds(next)
    setSince(performance.now())
    if (next.length < things.length) return
    void tell(() =>
      api.POST('/api/spaces/{space_id}/hunts', {
        params: { path: { space_id: space } },
        body: { key: newKey(), moment, finds: next },
      }),
    ).then((done) => {
      if (!done) return
      setThings([])
      setFinds([])
    })
  }
  return (
    <section aria-label="Finding things" className="no-print">
      <h3>Finding things</h3>
      {thing !== undefined && (
        <div className="game" role="status">
          <p>
            {finds.length + 1} of {things.length}: find <b>{thing}</b>
          </p>
          <Clock since={since} />
          <div className="row">
            <Button size="md" onClick={() => found(Math.round((performance.now() - since) / 100) / 10)}>
              Here it is
            </Button>
            <Button size="md" variant="default" onClick={() => found(null)}>
              Cannot find it
            </Button>
            <Button
              size="md"
              variant="subtle"
              onClick={() => {
                setThings([])
                setFinds([])
              }}
            >
              Stop
            </Button>
          </div>
        </div>
      )}
      {things.length === 0 && (
        <div className="row">
          <SegmentedControl
            size="xs"
            aria-label="Before or after"
            value={moment}
            onChange={(next) => setMoment(next as Moment)}
            data={[
              { value: 'before', label: 'before' },
              { value: 'after', label: 'after' },
            ]}
          />
          <Button
            size="compact-sm"
            variant="default"
            disabled={view.to_find.length === 0}
            onClick={() => {
              setThings(view.to_find)
              setFinds([])
              setSince(performance.now())
            }}
          >
            Find {view.to_find.length} things against time
          </Button>
        </div>
      )}
      {view.hunts.length > 0 && (
        <ul>
          {view.hunts.map((one) => (
            <li key={one.key}>
              {one.on}, {one.moment}: {one.says}{' '}
              <Button
                size="compact-xs"
                variant="subtle"
                aria-label={`The game of ${one.on} does not count`}
                onClick={() =>
                  void tell(() =>
                    api.DELETE('/api/households/{household_id}/hunts/{key}', {
                      params: { path: { household_id: house, key: one.key } },
                    }),
                  )
                }
              >
                Does not count
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}

/** Seconds since a thing was asked for. */
function Clock({ since }: { since: number }) {
  const [now, setNow] = useState(since)
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), 200)
    return () => clearInterval(timer)
  }, [])
  return <p className="clock">{Math.max(0, Math.floor((now - since) / 1000))} s</p>
}
