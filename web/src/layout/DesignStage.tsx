import { Alert, Button, Loader } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { useMemo, useState } from 'react'

import { said, type Schemas } from '../api/client'
import { searching, useDesign, useGallery, useSpace } from '../api/queries'
import type { StageProps } from '../shell/HousePage'
import { useKeys } from '../shell/useKeys'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { Sheet } from '../sheet/Sheet'
import { PHONE, ViewSwitch, type View } from '../sheet/ViewSwitch'
import { Gallery } from './Gallery'
import { Mover } from './Mover'
import { PartStrip } from './PartStrip'
import { SearchBar } from './SearchBar'
import { useDesignEdits } from './useDesignEdits'

/** Design: the gallery of alternatives, and the chosen one on the sheet, part by part. */
export function DesignStage({ house, space, design, onChoose, shown, onShow }: StageProps) {
  const gallery = useGallery(space.id)
  const [comparing, setComparing] = useState(false)
  const cards = gallery.data?.designs ?? []
  const at = Math.max(
    0,
    cards.findIndex((card) => card.id === design),
  )
  const chosen = cards[at]
  const other = cards.length > 1 ? cards[(at + 1) % cards.length] : undefined
  const current = useDesign(chosen?.id ?? null)
  const edits = useDesignEdits(space.id, chosen?.id ?? null)

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

  if (gallery.isError) {
    return (
      <main className="room">
        <Alert color="red" variant="outline" role="alert">
          {said(gallery.error)}{' '}
          <Button size="compact-sm" variant="default" onClick={() => void gallery.refetch()}>
            Try again
          </Button>
        </Alert>
      </main>
    )
  }
  if (!gallery.data) {
    return (
      <main className="room">
        <Loader aria-label="Fetching the alternatives" />
      </main>
    )
  }
  const over = comparing ? other : undefined
  // A finding may point at a part; pointing at it selects it.
  const selected = current.data?.parts.find((part) => part.id === shown) ?? null
  return (
    <main className="room layout">
      {chosen ? (
        <Hung
          key={chosen.id}
          design={current.data}
          error={current.error}
          edits={edits}
          over={over?.elevation ?? null}
          selected={selected}
          onShow={onShow}
        />
      ) : (
        <Bare spaceId={space.id} />
      )}
      <section className="bench" aria-label="Bench">
        <div className="bench-head">
          <SearchBar houseId={house.id} spaceId={space.id} gallery={gallery.data} />
          {over && chosen && (
            <span className="quiet" role="status">
              Dashed: {over.title}, over {chosen.title}. <kbd>c</kbd> takes it away.
            </span>
          )}
          {other && !over && (
            <Button size="compact-sm" variant="subtle" onClick={() => setComparing(true)}>
              Compare with {other.title.toLowerCase()}
            </Button>
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
        {cards.length > 0 ? (
          <Gallery
            gallery={gallery.data}
            chosen={chosen?.id ?? null}
            compared={over?.id ?? null}
            onChoose={onChoose}
          />
        ) : (
          !searching(gallery.data.solve) && (
            <p className="teach">
              The space as measured and the things as sorted are enough: complete designs are searched for,
              each proven to fit.
            </p>
          )
        )}
      </section>
    </main>
  )
}

/** The space without a design yet. */
function Bare({ spaceId }: { spaceId: number }) {
  const space = useSpace(spaceId)
  return (
    <div className="sheet-holder">
      <Sheet title={space.data?.elevation.title ?? null}>
        {space.data ? (
          <DrawingSvg drawing={space.data.elevation} label="Elevation of the back wall, empty" />
        ) : (
          <Loader aria-label="Drawing" />
        )}
      </Sheet>
    </div>
  )
}

interface HungProps {
  design: Schemas['DesignView'] | undefined
  error: unknown
  edits: ReturnType<typeof useDesignEdits>
  over: Schemas['Drawing'] | null
  selected: Schemas['PartView'] | null
  onShow: (id: string | null) => void
}

/** The chosen design on the sheet, with the strip of its selected part. */
function Hung({ design, error, edits, over, selected, onShow }: HungProps) {
  const phone = useMediaQuery(PHONE) ?? false
  const [asked, setAsked] = useState<View>('both')
  const view: View = phone && asked === 'both' ? 'elevation' : asked
  const parts = useMemo(() => new Map(design?.parts.map((part) => [part.id, part])), [design])
  const wrong = useMemo(
    () => new Set(design?.ledger.findings.filter((f) => f.severity === 'stop').flatMap((f) => f.where)),
    [design],
  )
  const id = selected?.movable ? selected.id : null
  const move = (steps: number) => id !== null && void edits.edit({ do: 'move', part: id, steps })
  const resize = (steps: number) => id !== null && void edits.edit({ do: 'resize', part: id, steps })
  useKeys({
    ArrowUp: (event) => (event.shiftKey ? resize(1) : move(1)),
    ArrowDown: (event) => (event.shiftKey ? resize(-1) : move(-1)),
    Delete: () => id !== null && void edits.edit({ do: 'remove', part: id }),
    Backspace: () => id !== null && void edits.edit({ do: 'remove', part: id }),
    Escape: () => onShow(null),
    v: () => setAsked((was) => (was === 'both' ? 'elevation' : was === 'elevation' ? 'plan' : 'both')),
  })
  if (error) {
    return (
      <Alert color="red" variant="outline" role="alert">
        {said(error)}
      </Alert>
    )
  }
  if (!design) {
    return (
      <div className="sheet-holder">
        <Sheet title={null}>
          <Loader aria-label="Drawing" m="auto" />
        </Sheet>
      </div>
    )
  }
  const nameOf = (part: string) => {
    const one = parts.get(part)
    return one ? `${one.name}, at ${one.height}` : part
  }
  const selectable = new Set(parts.keys())
  return (
    <>
      <div className="sheet-holder">
        <Sheet title={(view === 'plan' ? design.plan : design.elevation).title}>
          {view !== 'plan' && (
            <DrawingSvg
              drawing={design.elevation}
              label={`Elevation, ${design.title}`}
              selectable={selectable}
              selected={selected?.id ?? null}
              wrong={wrong}
              nameOf={nameOf}
              onSelect={onShow}
              over={over}
            />
          )}
          {view !== 'elevation' && <DrawingSvg drawing={design.plan} label={`Plan, ${design.title}`} />}
        </Sheet>
        <ViewSwitch view={view} both={!phone} onChange={setAsked} />
      </div>
      <PartStrip design={design} selected={selected} edits={edits} onSelect={onShow} />
    </>
  )
}
