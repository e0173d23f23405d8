import { Button, Loader } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { useMemo, useState } from 'react'

import type { Schemas } from '../api/client'
import { mainSection, searching, useDesign, useGallery, useSpace } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/HousePage'
import { useKeys } from '../shell/useKeys'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { Sheet } from '../sheet/Sheet'
import { PHONE, ViewSwitch, type View } from '../sheet/ViewSwitch'
import { Gallery } from './Gallery'
import { Mover } from './Mover'
import { PartStrip, place } from './PartStrip'
import { SearchBar } from './SearchBar'
import { useDesignEdits, type DesignEdits } from './useDesignEdits'

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
  // A finding may point at a part; pointing at it selects it.
  const selected = current.data?.parts.find((part) => part.id === shown) ?? null

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
          <SearchBar houseId={house.id} spaceId={space.id} gallery={gallery} />
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
            gallery={gallery}
            chosen={chosen?.id ?? null}
            compared={over?.id ?? null}
            onChoose={onChoose}
          />
        ) : (
          !searching(gallery.solve) && (
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

/** The chosen design on the sheet, with the strip of its selected part. */
function Hung({ design, edits, over, selected, onShow }: HungProps) {
  const phone = useMediaQuery(PHONE) ?? false
  const [asked, setAsked] = useState<View>('both')
  const view: View = phone && asked === 'both' ? 'elevation' : asked
  const parts = useMemo(() => new Map(design.parts.map((part) => [part.id, part])), [design])
  const wrong = useMemo(
    () => new Set(design.ledger.findings.filter((f) => f.severity === 'stop').flatMap((f) => f.where)),
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
  const nameOf = (part: string) => {
    const one = parts.get(part)
    return one ? place(one) : part
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
