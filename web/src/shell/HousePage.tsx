import {
  Button,
  Loader,
  Menu,
  Modal,
  ActionIcon,
  useMantineColorScheme,
  useComputedColorScheme,
} from '@mantine/core'
import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconKeyboard,
  IconMoon,
  IconPrinter,
  IconSearch,
  IconSun,
} from '@tabler/icons-react'
import { lazy, Suspense, useCallback, useMemo, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'

import { said, type Schemas } from '../api/client'
import { useHouse, useSpaceLedger } from '../api/queries'
import { QuickPeople } from '../house/QuickPeople'
import { NewPractice, NewSpace } from '../survey/NewSpace'
import { SpaceForm } from '../survey/SpaceForm'
import { FirstWalk, useFirstWalk } from './FirstWalk'
import { Find } from './Find'
import { KeysHelp } from './KeysHelp'
import { Ledger } from './Ledger'
import { Spine } from './Spine'
import type { StageProps } from './StageProps'
import { isStage, STAGES, type StageId } from './stages'
import { UndoProvider, useUndo } from './undo'
import { useKeys } from './useKeys'

const BriefStage = lazy(() => import('../house/BriefStage'))
const MeasureStage = lazy(() => import('../survey/MeasureStage'))
const SortStage = lazy(() => import('../inventory/SortStage'))
const DesignStage = lazy(() => import('../layout/DesignStage'))
const CheckStage = lazy(() => import('../checks/CheckStage'))
const BuyStage = lazy(() => import('../materials/BuyStage'))
const InstallStage = lazy(() => import('../install/InstallStage'))
const KeepStage = lazy(() => import('../upkeep/KeepStage'))

/** One household's page: a space and a stage of it. */
export default function HousePage() {
  const { houseId, spaceId, stage } = useParams()
  const id = Number(houseId)
  const house = useHouse(id)
  if (!house.data) {
    return (
      <main className="front">
        {house.isError ? (
          <div className="card" role="alert">
            <h1>Pinakotheke</h1>
            <p>{said(house.error)}</p>
            <Button component={Link} to="/houses">
              To your households
            </Button>
          </div>
        ) : (
          <Loader aria-label="Opening the house" />
        )}
      </main>
    )
  }
  const asked = house.data.spaces.find((space) => space.id === Number(spaceId))
  const space = asked ?? (spaceId === undefined ? house.data.spaces[0] : undefined)
  const at: StageId = isStage(stage) ? stage : 'survey'
  if (!space)
    return (
      <UndoProvider>
        <NoSpace house={house.data} />
      </UndoProvider>
    )
  return (
    <UndoProvider key={space.id}>
      <SpacePage house={house.data} space={space} stage={at} />
    </UndoProvider>
  )
}

function NoSpace({ house }: { house: Schemas['HouseView'] }) {
  const walk = useFirstWalk(true)
  return (
    <div className="page">
      <Spine
        houseId={house.id}
        spaceId={null}
        current="house"
        states={undefined}
        people={house.people.length}
        search=""
      />
      <header className="head">
        <h1 className="crumbs">
          <Link to="/houses">{house.name}</Link>
        </h1>
      </header>
      {walk.on && <FirstWalk stage="house" onGo={null} onLeave={walk.left} />}
      <main className="room" style={{ gridTemplateRows: 'minmax(0, 1fr)' }}>
        <section className="sheet">
          <div className="empty">
            <p>One space at a time. Name the space you stand before; its drawing will hang here.</p>
            <NewSpace houseId={house.id} />
            <section aria-label="Who lives here">
              <p className="quiet small">
                {house.people.length > 0
                  ? `${house.people.map((person) => person.name).join(', ')} live here; more is said in Brief.`
                  : 'Who lives here? Until somebody is named a typical adult is reckoned with.'}
              </p>
              <QuickPeople house={house} />
            </section>
          </div>
        </section>
      </main>
      <aside className="ledger" aria-label="Ledger" />
    </div>
  )
}

interface SpacePageProps {
  house: Schemas['HouseView']
  space: Schemas['SpaceLine']
  stage: StageId
}

function SpacePage({ house, space, stage }: SpacePageProps) {
  const [search, setSearch] = useSearchParams()
  const navigate = useNavigate()
  const undo = useUndo()
  const [dialog, setDialog] = useState<'keys' | 'find' | 'new' | 'space' | 'practice' | null>(null)
  const [shown, setShown] = useState<string | null>(null)
  const design = Number(search.get('design')) || null
  const ledger = useSpaceLedger(space.id, design)
  const query = search.toString()
  const walk = useFirstWalk(!house.is_demo)
  const go = useCallback(
    (to: StageId) => void navigate({ pathname: `/house/${house.id}/${space.id}/${to}`, search: query }),
    [house.id, navigate, query, space.id],
  )
  const keymap = useMemo(() => {
    return {
      ...Object.fromEntries(STAGES.map((s) => [s.digit, () => go(s.id)])),
      '/': () => setDialog('find'),
      '?': () => setDialog('keys'),
      p: () => window.print(),
      // The Design stage has the design's own history and takes these keys itself.
      ...(stage === 'layout' ? {} : { u: undo.undo, U: undo.redo }),
    }
  }, [go, stage, undo])
  useKeys(keymap)
  const choose = (id: number) => setSearch({ design: String(id) }, { replace: true })
  // The ledger says which design it speaks of: the one asked for may be gone since.
  const spoken = ledger.data?.ledger.design ?? null
  const current = ledger.isPlaceholderData ? (design ?? spoken) : spoken
  return (
    <div className="page">
      <Spine
        houseId={house.id}
        spaceId={space.id}
        current={stage}
        states={ledger.data?.states}
        people={house.people.length}
        search={query}
      />
      <header className="head">
        <h1 className="crumbs">
          <Link to="/houses">{house.name}</Link>
          <span aria-hidden="true">▸</span>
          <Menu position="bottom-start">
            <Menu.Target>
              <button type="button" className="plain">
                {space.name} <span aria-hidden="true">▾</span>
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              {house.spaces.map((other) => (
                <Menu.Item key={other.id} component={Link} to={`/house/${house.id}/${other.id}/${stage}`}>
                  {other.name}
                </Menu.Item>
              ))}
              <Menu.Divider />
              <Menu.Item onClick={() => setDialog('space')}>Rename or take away…</Menu.Item>
              <Menu.Item onClick={() => setDialog('new')}>Add a space…</Menu.Item>
              <Menu.Item onClick={() => setDialog('practice')}>Practise measuring…</Menu.Item>
              <Menu.Item onClick={walk.begin}>Walk through the stages</Menu.Item>
              <Menu.Item component={Link} to={`/house/${house.id}/members`}>
                Members and invitations…
              </Menu.Item>
              <Menu.Item component={Link} to={`/house/${house.id}/client`}>
                Client: links, remarks, choice…
              </Menu.Item>
              <Menu.Item component="a" href={`/api/households/${house.id}/house-file`} download>
                Save the house file
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </h1>
        <Tools
          onKeys={() => setDialog('keys')}
          onFind={() => setDialog('find')}
          undo={stage === 'layout' ? null : undo}
        />
      </header>
      {walk.on && <FirstWalk stage={stage} onGo={go} onLeave={walk.left} />}
      <StageRoom
        house={house}
        space={space}
        stage={stage}
        design={current}
        onChoose={choose}
        shown={shown}
        onShow={setShown}
      />
      <Ledger ledger={ledger.data?.ledger} error={ledger.error} onShow={setShown} />
      <KeysHelp opened={dialog === 'keys'} onClose={() => setDialog(null)} />
      {dialog === 'find' && (
        <Find house={house} spaceId={space.id} design={current} onClose={() => setDialog(null)} />
      )}
      {dialog === 'space' && <SpaceForm houseId={house.id} space={space} onClose={() => setDialog(null)} />}
      <Modal opened={dialog === 'practice'} onClose={() => setDialog(null)} title="Practise measuring">
        <NewPractice houseId={house.id} onDone={() => setDialog(null)} />
      </Modal>
      <Modal opened={dialog === 'new'} onClose={() => setDialog(null)} title="Add a space">
        <NewSpace houseId={house.id} onDone={() => setDialog(null)} />
      </Modal>
    </div>
  )
}

const ROOMS: Record<StageId, React.ComponentType<StageProps>> = {
  house: BriefStage,
  survey: MeasureStage,
  inventory: SortStage,
  layout: DesignStage,
  checks: CheckStage,
  materials: BuyStage,
  install: InstallStage,
  upkeep: KeepStage,
}

function StageRoom({ stage, ...props }: StageProps & { stage: StageId }) {
  const Room = ROOMS[stage]
  return (
    <Suspense
      fallback={
        <main className="room">
          <Loader aria-label="Opening the stage" />
        </main>
      }
    >
      <Room {...props} />
    </Suspense>
  )
}

function Tools({
  onKeys,
  onFind,
  undo,
}: {
  onKeys: () => void
  onFind: () => void
  undo: ReturnType<typeof useUndo> | null
}) {
  const { setColorScheme } = useMantineColorScheme()
  const scheme = useComputedColorScheme('light')
  const dark = scheme === 'dark'
  return (
    <div className="row tools" style={{ marginLeft: 'auto', flexWrap: 'nowrap', gap: 2 }}>
      {undo && (
        <>
          <Tool label="Undo (u)" onClick={undo.undo} disabled={!undo.canUndo}>
            <IconArrowBackUp size={18} />
          </Tool>
          <Tool label="Redo (Shift u)" onClick={undo.redo} disabled={!undo.canRedo}>
            <IconArrowForwardUp size={18} />
          </Tool>
        </>
      )}
      <Tool label="Find (/)" onClick={onFind}>
        <IconSearch size={18} />
      </Tool>
      <Tool label="Print (p)" onClick={() => window.print()} wide>
        <IconPrinter size={18} />
      </Tool>
      <Tool label={dark ? 'Light' : 'Dark'} onClick={() => setColorScheme(dark ? 'light' : 'dark')}>
        {dark ? <IconSun size={18} /> : <IconMoon size={18} />}
      </Tool>
      <Tool label="Keys (?)" onClick={onKeys} wide>
        <IconKeyboard size={18} />
      </Tool>
    </div>
  )
}

function Tool({
  label,
  onClick,
  disabled,
  wide,
  children,
}: {
  label: string
  onClick: () => void
  disabled?: boolean
  wide?: boolean
  children: React.ReactNode
}) {
  return (
    <ActionIcon
      variant="subtle"
      color="gray"
      size="lg"
      aria-label={label}
      title={label}
      onClick={onClick}
      disabled={disabled ?? false}
      {...(wide ? { className: 'wide-only' } : {})}
      style={{ color: disabled ? undefined : 'var(--ink)' }}
    >
      {children}
    </ActionIcon>
  )
}
