import { Button, Loader } from '@mantine/core'
import { lazy, Suspense } from 'react'
import { Navigate, Route, Routes } from 'react-router'

import { said } from './api/client'
import { useSession } from './api/queries'
import { Entrance } from './house/Entrance'
import { Houses } from './house/Houses'
import { Forgotten, NewPassword } from './house/NewPassword'

const Members = lazy(() => import('./house/Members'))
const Account = lazy(() => import('./house/Account'))
const Client = lazy(() => import('./house/Client'))
const Shown = lazy(() => import('./house/Shown'))
const Invited = lazy(() => import('./house/Invited'))
const PlaceLink = lazy(() => import('./upkeep/PlaceLink'))
const HousePage = lazy(() => import('./shell/HousePage'))

/** Who is signed in decides what there is to see. */
export function App() {
  const session = useSession()
  if (session.isPending) return <Opening />
  if (!session.data) {
    return (
      <main className="front">
        <div className="card" role="alert">
          <h1>Pinakotheke</h1>
          <p>{said(session.error)}</p>
          <Button onClick={() => void session.refetch()}>Try again</Button>
        </div>
      </main>
    )
  }
  if (session.data.user === null)
    return (
      <Suspense fallback={<Opening />}>
        <Routes>
          <Route path="/invited/:token" element={<Invited session={session.data} />} />
          <Route path="/shown/:token" element={<Shown />} />
          <Route path="/shown/:token/:designId" element={<Shown />} />
          <Route path="/forgotten" element={<Forgotten />} />
          <Route path="/new-password/:uid/:token" element={<NewPassword />} />
          <Route path="*" element={<Entrance demo={session.data.demo} />} />
        </Routes>
      </Suspense>
    )
  const first = session.data.households[0]
  return (
    <Suspense fallback={<Opening />}>
      <Routes>
        <Route path="/" element={<Navigate replace to={first ? `/house/${first.id}` : '/houses'} />} />
        <Route path="/houses" element={<Houses session={session.data} />} />
        <Route path="/account" element={<Account session={session.data} />} />
        <Route path="/invited/:token" element={<Invited session={session.data} />} />
        <Route path="/forgotten" element={<Forgotten />} />
        <Route path="/new-password/:uid/:token" element={<NewPassword />} />
        <Route path="/shown/:token" element={<Shown />} />
        <Route path="/shown/:token/:designId" element={<Shown />} />
        <Route path="/house/:houseId/members" element={<Members />} />
        <Route path="/house/:houseId/client" element={<Client />} />
        <Route path="/house/:houseId" element={<HousePage />} />
        <Route path="/house/:houseId/:spaceId/:stage" element={<HousePage />} />
        <Route path="/at/:placeId" element={<PlaceLink />} />
        <Route path="*" element={<Navigate replace to="/" />} />
      </Routes>
    </Suspense>
  )
}

function Opening() {
  return (
    <main className="front">
      <Loader aria-label="Opening" />
    </main>
  )
}
