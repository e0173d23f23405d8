import { Button, NativeSelect } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { keepAnswer, keys } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import { Findings } from '../shell/Findings'

type Home = Schemas['HomeView']

/** Every group's home in the whole house: which space, which height, and why; pin one and the rest flows on. */
export function Zones({ houseId }: { houseId: number }) {
  const query = useQuery({
    queryKey: keys.homes(houseId),
    queryFn: () =>
      body(api.GET('/api/households/{household_id}/homes', { params: { path: { household_id: houseId } } })),
  })
  return (
    <Fetched query={query} waiting="Finding homes">
      {(homes) => <Board houseId={houseId} homes={homes} />}
    </Fetched>
  )
}

function Board({ houseId, homes }: { houseId: number; homes: Schemas['HomesView'] }) {
  const client = useQueryClient()
  const [open, setOpen] = useState<number | null>(null)
  const settle = (next: Schemas['HomesView']) => {
    keepAnswer(client, keys.homes(houseId), next)
    void client.invalidateQueries({ queryKey: ['things'] })
    void client.invalidateQueries({ queryKey: ['ledger'] })
  }
  const attempt = (act: () => Promise<Schemas['HomesView']>) => {
    act()
      .then(settle)
      .catch((error: unknown) => notifications.show({ color: 'red', message: said(error) }))
  }
  const pin = (home: Home, space: string, band: Home['band'] | null) =>
    attempt(() =>
      body(
        api.POST('/api/things/{thing_id}/pin', {
          params: { path: { thing_id: home.id } },
          body: { version: home.version, space, band },
        }),
      ),
    )
  const go = (home: Home, space: string) =>
    attempt(() =>
      body(
        api.POST('/api/things/{thing_id}/go', {
          params: { path: { thing_id: home.id } },
          body: { version: home.version, space },
        }),
      ),
    )
  const names = homes.rooms.map((room) => ({ value: room.key, label: room.name }))
  return (
    <div className="zones">
      <p className="quiet">
        {homes.moves} groups would live better elsewhere.{' '}
        {homes.homeless.length > 0 && `No room for ${homes.homeless.join(', ')}.`}
      </p>
      {homes.findings.length > 0 && (
        <details className="zone-findings" open>
          <summary>{homes.findings.length} things to mind</summary>
          <Findings findings={homes.findings} />
        </details>
      )}
      <div className="rooms">
        {homes.rooms.map((room) => (
          <section key={room.key} className="panel room-card" aria-label={room.name}>
            <h2>{room.name}</h2>
            <p className="quiet small">
              {room.zones.join(', ')}; {room.where}
            </p>
            {room.bands.map(([band, heights, left]) => (
              <div key={band} className="band">
                <p className="band-name">
                  {band}{' '}
                  <span className="quiet">
                    {heights}; {left}
                  </span>
                </p>
                <ul>
                  {room.homes
                    .filter((home) => home.band === band)
                    .map((home) => (
                      <li key={home.key} className={home.current ? 'comes' : ''} data-home={home.key}>
                        <button
                          type="button"
                          className="plain"
                          aria-expanded={open === home.id}
                          onClick={() => setOpen(open === home.id ? null : home.id)}
                        >
                          {home.pinned && <span title="pinned">● </span>}
                          {home.count} {home.name}
                          {home.current && <span className="quiet"> from {home.current}</span>}
                        </button>
                        {open === home.id && (
                          <div className="home-why">
                            <p>{home.why}</p>
                            <div className="row">
                              <NativeSelect
                                size="xs"
                                aria-label={`Pin ${home.name} to a space`}
                                value=""
                                data={[{ value: '', label: 'pin to a space…' }, ...names]}
                                onChange={(event) =>
                                  event.currentTarget.value && pin(home, event.currentTarget.value, null)
                                }
                              />
                              <NativeSelect
                                size="xs"
                                aria-label={`Pin ${home.name} to a height`}
                                value=""
                                data={[
                                  { value: '', label: 'to a height…' },
                                  ...room.bands.map(([name]) => name),
                                ]}
                                onChange={(event) => {
                                  const chosen = room.bands.find(
                                    ([name]) => name === event.currentTarget.value,
                                  )
                                  if (chosen) pin(home, room.key, chosen[0])
                                }}
                              />
                              {home.pinned && (
                                <Button
                                  size="compact-xs"
                                  variant="default"
                                  onClick={() => pin(home, '', null)}
                                >
                                  Leave it to the tool
                                </Button>
                              )}
                              {home.current && (
                                <Button
                                  size="compact-xs"
                                  variant="default"
                                  onClick={() => go(home, room.key)}
                                >
                                  Move it here
                                </Button>
                              )}
                            </div>
                          </div>
                        )}
                      </li>
                    ))}
                </ul>
              </div>
            ))}
            {room.homes.length === 0 && <p className="quiet">Nothing lives here yet.</p>}
          </section>
        ))}
      </div>
    </div>
  )
}
