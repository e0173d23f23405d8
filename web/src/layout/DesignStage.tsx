import { Button, Loader, Menu, TextInput } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { notifications } from '@mantine/notifications'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useMemo, useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { keys, mainSection, searching, useDesign, useForget, useGallery, useSpace } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/StageProps'
import { useKeys } from '../shell/useKeys'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { Sheet } from '../sheet/Sheet'
import { PHONE } from '../sheet/ViewSwitch'
import { BayStrip } from './BayStrip'
import { CompareSlip } from './CompareSlip'
import { Frontier } from './Frontier'
import { Gallery } from './Gallery'
import { isPlain, LookBar, PLAIN, type DesignView, type Look } from './Look'
import { Mover } from './Mover'
import { PartStrip, place } from './PartStrip'
import { SearchBar } from './SearchBar'
import { useDesignEdits, type DesignEdits } from './useDesignEdits'

const WalkRound = lazy(() => import('./WalkRound'))

/** Design: the gallery of alternatives, and the chosen one on the sheet, part by part. */
export function DesignStage(props: StageProps) {
  const gallery = useGallery(props.space.id)
  return (
    <Fetched query={gallery} waiting="Fetching the alternatives">
      {(data) => <Hall {...props} gallery={data} />}
    </Fetched>
  )
}

function Hall({
  house,
  space,
  design,
  onChoose,
  shown,
  onShow,
  gallery,
}: StageProps & { gallery: Schemas['Gallery'] }) {
  const [comparing, setComparing] = useState(false)
  const cards = gallery.designs
  const at = Math.max(
    0,
    cards.findIndex((card) => card.id === design),
  )
  const chosen = cards[at]
  const other = cards.length > 1 ? cards[(at + 1) % cards.length] : undefined
  const over = comparing ? other : undefined
  const current = useDesign(chosen?.id ?? null)
  const edits = useDesignEdits(space.id, chosen?.id ?? null)
  const rest = useRest(space.id)
  // A finding may point at a part; pointing at it selects it.
  const selected = current.data?.parts.find((part) => part.id === shown) ?? null
  const busy = searching(gallery.solve)

  const step = (by: number) => {
    const next = cards[(at + by + cards.length) % Math.max(1, cards.length)]
    if (next) onChoose(next.id)
  }
  useKeys({
    '[': () => step(-1),
    ']': () => step(1),
    c: () => setComparing((was) => !was),
    u: () => void edits.undo(),
    U: () => void edits.redo(),
  })

  return (
    <main className="room layout">
      {chosen ? (
        <Fetched query={current} waiting="Drawing">
          {(data) => (
            <Hung
              design={data}
              edits={edits}
              over={over?.elevation ?? null}
              selected={selected}
              onShow={onShow}
            />
          )}
        </Fetched>
      ) : (
        <Bare spaceId={space.id} />
      )}
      <section className="bench" aria-label="Bench">
        <div className="bench-head">
          <SearchBar
            houseId={house.id}
            spaceId={space.id}
            gallery={gallery}
            design={current.data?.id === chosen?.id ? (current.data ?? null) : null}
          />
          {over && chosen && (
            <span className="quiet" role="status">
              Dashed: {over.title}, over {chosen.title}. <kbd>c</kbd> takes it away.
            </span>
          )}
          {current.data && chosen && (
            <BayStrip
              key={current.data.id}
              design={current.data}
              families={gallery.families}
              edits={edits}
              busy={busy || rest.isPending}
              onRest={() => rest.mutate(current.data)}
            />
          )}
          {chosen && (
            <Versions
              spaceId={space.id}
              card={chosen}
              onKept={onChoose}
              other={other && !over ? other.title : null}
              onCompare={() => setComparing(true)}
            />
          )}
          {current.data && (
            <Mover
              key={selected?.id ?? 'homeless'}
              design={current.data}
              from={selected}
              onMove={(command) => void edits.edit(command)}
            />
          )}
        </div>
        {over && chosen && current.data && (
          <CompareSlip here={chosen.id} there={over.id} version={current.data.version} />
        )}
        {cards.length > 0 ? (
          <Gallery
            gallery={gallery}
            chosen={chosen?.id ?? null}
            compared={over?.id ?? null}
            onChoose={onChoose}
          />
        ) : (
          !busy && (
            <p className="teach">
              The space as measured and the things as sorted are enough: complete designs are searched for,
              each proven to fit.
            </p>
          )
        )}
        {gallery.aside.length > 0 && <SetAside spaceId={space.id} aside={gallery.aside} />}
        {current.data && !busy && (
          <Proof design={current.data} gallery={gallery} spaceId={space.id} onHung={onChoose} />
        )}
      </section>
    </main>
  )
}

/** What the search can say of its answer, what else could be had, and what one more or one less would change. */
function Proof({
  design,
  gallery,
  spaceId,
  onHung,
}: {
  design: Schemas['DesignView']
  gallery: Schemas['Gallery']
  spaceId: number
  onHung: (id: number) => void
}) {
  const { solve } = gallery
  return (
    <div className="proof">
      <div>
        <h2>How good it is</h2>
        <p>{design.asked}.</p>
        {design.unplaced.length > 0 && (
          <p>Without a place: {design.unplaced.map((held) => `${held.count} ${held.name}`).join(', ')}.</p>
        )}
        <p className="quiet">{design.outcome}</p>
        {design.run && <p className="quiet">{design.run}.</p>}
        {design.marks.length > 0 && (
          <p>
            Tape these heights on the wall first:{' '}
            {design.marks.map((mark) => `${mark.height} (${mark.what}, ${mark.where})`).join('; ')}.
          </p>
        )}
      </div>
      {solve && solve.told.length > 0 && (
        <div>
          <h2>One more, one less</h2>
          <ul className="told">
            {solve.told.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      )}
      {solve && solve.points.length > 0 && (
        <div>
          <h2>Frontier</h2>
          <Frontier spaceId={spaceId} solve={solve} currency={gallery.currency} onHung={onHung} />
        </div>
      )}
    </div>
  )
}

/** Designs that cannot be carried out any more, and why; the others hang on. */
function SetAside({ spaceId, aside }: { spaceId: number; aside: readonly Schemas['Aside'][] }) {
  const forget = useForget(spaceId)
  const drop = useMutation({
    mutationFn: (id: number) =>
      api.DELETE('/api/designs/{design_id}', { params: { path: { design_id: id } } }),
    onSuccess: () => forget('gallery', 'ledger'),
  })
  return (
    <ul className="aside" aria-label="Set aside">
      {aside.map((one) => (
        <li key={one.id}>
          <b>{one.title}</b> is set aside: {one.problem}{' '}
          <Button size="compact-xs" variant="default" onClick={() => drop.mutate(one.id)}>
            Take down
          </Button>
        </li>
      ))}
    </ul>
  )
}

/** Ask for everything that is not locked to be found anew. */
function useRest(spaceId: number) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (design: Schemas['DesignView']) =>
      body(
        api.POST('/api/designs/{design_id}/rest', {
          params: { path: { design_id: design.id } },
          body: { version: design.version },
        }),
      ),
    onSuccess: (solve) =>
      client.setQueryData<Schemas['Gallery']>(
        keys.gallery(spaceId),
        (before) => before && { ...before, solve },
      ),
    onError: (error) => notifications.show({ color: 'red', message: said(error) }),
  })
}

/** Keep the design as it stands under a name; take a named one down; print to scale; carry away as glTF. */
function Versions({
  spaceId,
  card,
  other,
  onCompare,
  onKept,
}: {
  spaceId: number
  card: Schemas['Card']
  /** The title of the alternative beside it; null while it is compared already. */
  other: string | null
  onCompare: () => void
  onKept: (id: number) => void
}) {
  const forget = useForget(spaceId)
  const [name, setName] = useState<string | null>(null)
  const path = { design_id: card.id }
  const fail = (error: Error) => notifications.show({ color: 'red', message: said(error) })
  const keep = useMutation({
    mutationFn: (wanted: string) =>
      body(api.POST('/api/designs/{design_id}/versions', { params: { path }, body: { name: wanted } })),
    onSuccess: (kept) => {
      setName(null)
      forget('gallery')
      onKept(kept.id)
    },
    onError: fail,
  })
  const drop = useMutation({
    mutationFn: () => api.DELETE('/api/designs/{design_id}', { params: { path } }),
    onSuccess: () => forget('gallery', 'ledger'),
    onError: fail,
  })
  if (name !== null) {
    return (
      <form
        className="row tight"
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim()) keep.mutate(name.trim())
        }}
      >
        <TextInput
          size="xs"
          aria-label="Name of this version"
          placeholder="name of this version"
          value={name}
          autoFocus
          onChange={(event) => setName(event.currentTarget.value)}
          onKeyDown={(event) => event.key === 'Escape' && setName(null)}
        />
        <Button size="compact-sm" type="submit" loading={keep.isPending}>
          Keep
        </Button>
      </form>
    )
  }
  return (
    <Menu position="top-start" shadow="md">
      <Menu.Target>
        <Button size="compact-sm" variant="subtle">
          This design
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {other !== null && <Menu.Item onClick={onCompare}>Compare with {other.toLowerCase()}</Menu.Item>}
        <Menu.Item onClick={() => setName('')}>Keep a version</Menu.Item>
        {card.kept && <Menu.Item onClick={() => drop.mutate()}>Take down</Menu.Item>}
        <Menu.Item component="a" href={`/api/designs/${card.id}/sheet.pdf?scale=20`} target="_blank">
          Print to scale
        </Menu.Item>
        <Menu.Item component="a" href={`/api/designs/${card.id}/model.glb`} download>
          Carry away as glTF
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}

/** The space without a design yet. */
function Bare({ spaceId }: { spaceId: number }) {
  const space = useSpace(spaceId)
  const elevation = space.data && mainSection(space.data)?.elevation
  return (
    <div className="sheet-holder">
      <Sheet title={elevation?.title ?? null}>
        {elevation ? (
          <DrawingSvg drawing={elevation} label="Elevation of the back wall, empty" />
        ) : (
          <Loader aria-label="Drawing" />
        )}
      </Sheet>
    </div>
  )
}

interface HungProps {
  design: Schemas['DesignView']
  edits: DesignEdits
  over: Schemas['Drawing'] | null
  selected: Schemas['PartView'] | null
  onShow: (id: string | null) => void
}

const NEXT: Record<DesignView, DesignView> = {
  both: 'elevation',
  elevation: 'plan',
  plan: 'section',
  section: 'walk-round',
  'walk-round': 'both',
}

/** The chosen design on the sheet, with the strip of its selected part. */
function Hung({ design, edits, over, selected, onShow }: HungProps) {
  const phone = useMediaQuery(PHONE) ?? false
  const [asked, setLook] = useState<Look>(PLAIN)
  const single = phone || design.flat
  const look: Look = single && asked.view === 'both' ? { ...asked, view: 'elevation' } : asked
  const change = (more: Partial<Look>) => setLook((was) => ({ ...was, ...more }))
  const parts = useMemo(() => new Map(design.parts.map((part) => [part.id, part])), [design])
  const wrong = useMemo(
    () => new Set(design.ledger.findings.filter((f) => f.severity === 'stop').flatMap((f) => f.where)),
    [design],
  )
  const locked = useMemo(() => new Set(design.parts.filter((p) => p.locked).map((p) => p.id)), [design])
  const id = selected?.movable ? selected.id : null
  const move = (part: string, steps: number) => void edits.edit({ do: 'move', part, steps })
  const resize = (steps: number) => id !== null && void edits.edit({ do: 'resize', part: id, steps })
  useKeys({
    ArrowUp: (event) => (event.shiftKey ? resize(1) : id !== null && move(id, 1)),
    ArrowDown: (event) => (event.shiftKey ? resize(-1) : id !== null && move(id, -1)),
    Delete: () => id !== null && void edits.edit({ do: 'remove', part: id }),
    Backspace: () => id !== null && void edits.edit({ do: 'remove', part: id }),
    Escape: () => onShow(null),
    v: () => change({ view: NEXT[look.view] }),
  })
  const nameOf = (part: string) => {
    const one = parts.get(part)
    return one ? place(one) : part
  }
  const elevation = useElevation(design, look)
  const cut = useSection(design, look)
  const drag = (part: string, up: number) => {
    const pitch = parts.get(part)?.pitch ?? 0
    const steps = pitch ? Math.round(up / pitch) : 0
    if (steps) move(part, steps)
  }
  const shown = look.view === 'plan' ? design.plan : look.view === 'section' && cut ? cut : elevation
  return (
    <>
      <div className="sheet-holder">
        <Sheet
          title={
            look.view === 'walk-round' && shown.title
              ? { ...shown.title, shows: `Walk-round: ${design.title}` }
              : shown.title
          }
        >
          {(look.view === 'both' || look.view === 'elevation') && (
            <DrawingSvg
              drawing={elevation}
              label={`Elevation, ${design.title}`}
              selectable={new Set(parts.keys())}
              selected={selected?.id ?? null}
              wrong={wrong}
              locked={locked}
              nameOf={nameOf}
              onSelect={onShow}
              onDrag={(part, up) => parts.get(part)?.movable && drag(part, up)}
              over={over}
            />
          )}
          {(look.view === 'both' || look.view === 'plan') && (
            <DrawingSvg drawing={design.plan} label={`Plan, ${design.title}`} />
          )}
          {look.view === 'section' && cut && <DrawingSvg drawing={cut} label={`Section, ${design.title}`} />}
          {look.view === 'walk-round' && (
            <Suspense fallback={<Loader aria-label="Fetching the view" />}>
              <WalkRound
                url={`/api/designs/${design.id}/model.glb?version=${design.version}`}
                label={design.title}
              />
            </Suspense>
          )}
        </Sheet>
        <LookBar
          look={look}
          both={!single}
          hasDoors={(design.finish.doors ?? 'none') !== 'none'}
          bays={design.bays.map((bay) => bay.name)}
          onChange={change}
        />
      </div>
      <PartStrip design={design} selected={selected} edits={edits} onSelect={onShow} />
    </>
  )
}

/** The elevation as the look asks for it; the one that comes with the design until another is here. */
function useElevation(design: Schemas['DesignView'], look: Look): Schemas['Drawing'] {
  const { inside, doors, dimensions, marks } = look
  const query = useQuery({
    queryKey: ['design', design.id, 'drawing', design.version, inside, doors, dimensions, marks],
    queryFn: () =>
      body(
        api.GET('/api/designs/{design_id}/drawing', {
          params: { path: { design_id: design.id }, query: { inside, doors, dimensions, marks } },
        }),
      ),
    enabled: !isPlain(look),
    placeholderData: (before) => before,
  })
  return isPlain(look) ? design.elevation : (query.data ?? design.elevation)
}

function useSection(design: Schemas['DesignView'], look: Look): Schemas['Drawing'] | null {
  const bay = Math.min(look.bay, design.bays.length - 1)
  const query = useQuery({
    queryKey: ['design', design.id, 'section', design.version, bay],
    queryFn: () =>
      body(
        api.GET('/api/designs/{design_id}/section/{bay}', {
          params: { path: { design_id: design.id, bay } },
        }),
      ),
    enabled: look.view === 'section' && bay >= 0,
    placeholderData: (before) => before,
  })
  return query.data ?? null
}
