import { Button, Loader } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { keys, mainSection, searching, useDesign, useForget, useGallery, useSpace } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/StageProps'
import { useKeys } from '../shell/useKeys'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { Sheet } from '../sheet/Sheet'
import { Compared } from './Compared'
import { CompareSlip } from './CompareSlip'
import { DesignSheet } from './DesignSheet'
import { ChosenLine, Gallery } from './Gallery'
import { FinishPanel, HowGood, TradeOffsPanel } from './Panels'
import { SearchBar } from './SearchBar'
import { useDesignEdits } from './useDesignEdits'
import { Versions } from './Versions'

/** Design: the chosen alternative on the sheet, to be bent by hand; under it the gallery of all. */
export default function DesignStage(props: StageProps) {
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
  const [beside, setBeside] = useState<number | null>(null)
  const cards = gallery.designs
  const at = Math.max(
    0,
    cards.findIndex((card) => card.id === design),
  )
  const chosen = cards[at]
  const next = cards.length > 1 ? cards[(at + 1) % cards.length] : undefined
  const other = cards.find((card) => card.id === beside && card.id !== chosen?.id) ?? next
  const over = comparing ? other : undefined
  const current = useDesign(chosen?.id ?? null)
  const edits = useDesignEdits(space.id, chosen?.id ?? null)
  const rest = useRest(space.id)
  const busy = searching(gallery.solve)

  const step = (by: number) => {
    const to = cards[(at + by + cards.length) % Math.max(1, cards.length)]
    if (to) onChoose(to.id)
  }
  useKeys({
    '[': () => step(-1),
    ']': () => step(1),
    c: () => setComparing((was) => !was),
    u: () => void edits.undo(),
    U: () => void edits.redo(),
  })

  const hung = current.data?.id === chosen?.id ? (current.data ?? null) : null
  return (
    <main className="room layout">
      {chosen && over ? (
        <Compared
          cards={cards}
          here={chosen}
          there={over}
          onThere={setBeside}
          onLeave={() => setComparing(false)}
        />
      ) : chosen ? (
        <Fetched query={current} waiting="Drawing">
          {(data) => (
            <DesignSheet
              design={data}
              edits={edits}
              shown={shown}
              onShow={onShow}
              families={gallery.families}
              busy={busy || rest.isPending}
              onRest={() => rest.mutate(data)}
            />
          )}
        </Fetched>
      ) : (
        <Bare spaceId={space.id} />
      )}
      <section className="bench" aria-label="Bench">
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
        {chosen && <ChosenLine card={chosen} currency={gallery.currency} />}
        <div className="bench-head">
          <SearchBar
            houseId={house.id}
            spaceId={space.id}
            gallery={gallery}
            design={hung}
            onChoose={onChoose}
          />
          {hung && chosen && (
            <>
              {!hung.flat && <FinishPanel design={hung} edits={edits} />}
              {!busy && <HowGood design={hung} solve={gallery.solve} />}
              {!busy && gallery.solve && gallery.solve.points.length > 0 && (
                <TradeOffsPanel
                  spaceId={space.id}
                  solve={gallery.solve}
                  currency={gallery.currency}
                  onHung={onChoose}
                />
              )}
            </>
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
        </div>
        {over && chosen && current.data && (
          <CompareSlip here={chosen.id} there={over.id} version={current.data.version} />
        )}
        {gallery.aside.length > 0 && <SetAside spaceId={space.id} aside={gallery.aside} />}
      </section>
    </main>
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
