import { Button, Loader } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense } from 'react'
import { Link, useParams } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { DrawingSvg } from '../sheet/DrawingSvg'
import './shown.css'

const ShownDesign = lazy(() => import('./ShownDesign'))

/** What a client sees by a link, without an account: every space's designs, and one of them whole. */
export default function Shown() {
  const { token = '', designId } = useParams()
  const shown = useQuery({
    queryKey: ['shown', token],
    queryFn: () => body(api.GET('/api/shown/{token}', { params: { path: { token } } })),
    retry: false,
  })
  if (!shown.data)
    return (
      <main className="front">
        <div className="card">
          <h1>Pinakotheke</h1>
          {shown.isError ? (
            <>
              <p role="alert">{said(shown.error)}</p>
              <Button variant="default" onClick={() => void shown.refetch()}>
                Try again
              </Button>
            </>
          ) : (
            <Loader aria-label="Opening the designs" />
          )}
        </div>
      </main>
    )
  const view = shown.data
  return (
    <main className="shown">
      <header className="shown-head">
        <h1>{designId ? <Link to={`/shown/${token}`}>{view.household}</Link> : view.household}</h1>
        <p className="quiet">
          Designs for {view.for_whom}, shown by {view.by} until {view.expires}
        </p>
      </header>
      {designId ? (
        <Suspense fallback={<Loader aria-label="Opening the design" />}>
          <ShownDesign token={token} id={Number(designId)} who={view.for_whom} />
        </Suspense>
      ) : (
        <Spaces token={token} view={view} />
      )}
    </main>
  )
}

function Spaces({ token, view }: { token: string; view: Schemas['ShownView'] }) {
  if (view.spaces.length === 0)
    return <p>There is no design yet. {view.by} will tell you when there is one to look at.</p>
  return (
    <>
      <p>Open a design to look at it closely, say what you think of it, and choose one for each space.</p>
      {view.spaces.map((space) => (
        <section key={space.id} aria-label={space.name}>
          <h2>{space.name}</h2>
          <ul className="shown-designs">
            {space.designs.map((design) => (
              <li key={design.id}>
                <Link
                  to={`/shown/${token}/${String(design.id)}`}
                  className={`shown-card${design.chosen ? ' chosen' : ''}`}
                >
                  <DrawingSvg drawing={design.elevation} label={`${design.title}, small`} small />
                  <span className="title">{design.title}</span>
                  <span>
                    <b>{design.cost}</b> {view.currency} · {design.family}
                  </span>
                  <span className="quiet small">{design.says || design.reason}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  )
}
