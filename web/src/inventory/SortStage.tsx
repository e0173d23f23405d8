import { Button, Loader, Menu, SegmentedControl } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { keys, mainSection, useDesign, useSpace, useThings, useVocabulary } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/StageProps'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { Sheet } from '../sheet/Sheet'
import { shrunk } from '../survey/shrunk'
import { BulkBar } from './BulkBar'
import { DemandList } from './DemandList'
import { ListDialog } from './ListDialog'
import { NoteDialog } from './NoteDialog'
import { Piles } from './Piles'
import { QuickAdd } from './QuickAdd'
import { ThingsTable } from './ThingsTable'
import { useThingsChange } from './useThingsChange'
import { WordsDialog } from './WordsDialog'
import { Zones } from './Zones'

const failed = (error: unknown) => notifications.show({ color: 'red', message: said(error) })

/** The dialog that is open; a note with what was pasted. */
type Open = 'list' | 'words' | { note: string } | null

/** Sort: what stays, how much of it, whose, how often; and where in the house it is to live. */
export default function SortStage({ house, space, design }: StageProps) {
  const [view, setView] = useState<'things' | 'zones'>('things')
  const [open, setOpen] = useState<Open>(null)
  return (
    <main className={`room sort${view === 'zones' ? ' whole' : ''}`}>
      {view === 'things' && <SmallSheet spaceId={space.id} design={design} />}
      <section className="bench" aria-label="Bench">
        <div className="row sort-tools">
          <SegmentedControl
            size="xs"
            aria-label="Sort"
            value={view}
            data={[
              { value: 'things', label: 'This space' },
              { value: 'zones', label: 'Zones of the house' },
            ]}
            onChange={(value) => setView(value === 'zones' ? 'zones' : 'things')}
          />
          {view === 'things' && <Lists spaceId={space.id} onOpen={setOpen} />}
        </div>
        {view === 'zones' ? (
          <Zones houseId={house.id} />
        ) : (
          <Things house={house} spaceId={space.id} open={open} onOpen={setOpen} />
        )}
      </section>
    </main>
  )
}

/** Lists in and out. */
function Lists({ spaceId, onOpen }: { spaceId: number; onOpen: (open: Open) => void }) {
  return (
    <span className="row" style={{ gap: 6 }}>
      <Button size="compact-sm" variant="default" onClick={() => onOpen({ note: '' })}>
        Paste a note…
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => onOpen('list')}>
        Bring a list…
      </Button>
      <Menu>
        <Menu.Target>
          <Button size="compact-sm" variant="default">
            More…
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {['csv', 'xlsx'].map((form) => (
            <Menu.Item key={form} component="a" href={`/api/spaces/${spaceId}/things.${form}`} download>
              Save the list as {form.toUpperCase()}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item onClick={() => onOpen('words')}>Words of this house…</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </span>
  )
}

function Things({
  house,
  spaceId,
  open,
  onOpen,
}: {
  house: Schemas['HouseView']
  spaceId: number
  open: Open
  onOpen: (open: Open) => void
}) {
  const things = useThings(spaceId)
  const vocabulary = useVocabulary()
  const change = useThingsChange(spaceId, house.id)
  return (
    <>
      <QuickAdd
        spaceId={spaceId}
        units={house.units}
        people={house.people.map((person) => person.name)}
        rows={things.data?.things ?? []}
        onAdd={change.add}
        onChange={change.change}
        onNote={(note) => onOpen({ note })}
      />
      <Fetched query={things} waiting="Fetching the things">
        {(data) =>
          data.things.length === 0 ? (
            <div className="empty">
              <p>Empty the space, group like with like, and count. Name the first group above.</p>
              <Button variant="default" onClick={() => void change.add('1 short coat, daily').catch(failed)}>
                Begin with one short coat
              </Button>
            </div>
          ) : (
            <Fetched query={vocabulary} waiting="Fetching the words">
              {(words) => (
                <Sorted house={house} spaceId={spaceId} data={data} words={words} change={change} />
              )}
            </Fetched>
          )
        }
      </Fetched>
      {open === 'list' && (
        <ListDialog spaceId={spaceId} onTaken={change.taken} onClose={() => onOpen(null)} />
      )}
      {open === 'words' && <WordsDialog houseId={house.id} onClose={() => onOpen(null)} />}
      {open !== null && typeof open === 'object' && (
        <NoteDialog
          spaceId={spaceId}
          people={house.people}
          units={house.units}
          text={open.note}
          onTake={change.takeNote}
          onClose={() => onOpen(null)}
        />
      )}
    </>
  )
}

function Sorted({
  house,
  spaceId,
  data,
  words,
  change,
}: {
  house: Schemas['HouseView']
  spaceId: number
  data: Schemas['ThingsView']
  words: Schemas['Vocabulary']
  change: ReturnType<typeof useThingsChange>
}) {
  const client = useQueryClient()
  const space = useSpace(spaceId)
  const [pile, setPile] = useState<Schemas['Thing']['decision'] | null>(null)
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set())
  const rows = useMemo(
    () => (pile ? data.things.filter((row) => row.thing.decision === pile) : data.things),
    [data.things, pile],
  )
  const photos = useMemo(
    () => new Map((space.data?.photos ?? []).filter((p) => p.thing).map((p) => [p.thing, p.url])),
    [space.data],
  )
  const chosen = data.things.filter((row) => selected.has(row.id))
  const photograph = async (thing: number, file: File) => {
    const form = new FormData()
    form.append('file', await shrunk(file), 'photo.jpg')
    form.append('thing', String(thing))
    await body(
      api.POST('/api/spaces/{space_id}/photos', {
        params: { path: { space_id: spaceId } },
        body: { file: '', note: '', moment: 'thing', thing },
        bodySerializer: () => form,
      }),
    )
    await client.invalidateQueries({ queryKey: keys.space(spaceId) })
  }
  return (
    <>
      <Piles piles={data.piles} shown={pile} onShow={setPile} />
      {chosen.length > 0 && (
        <BulkBar
          count={chosen.length}
          people={house.people}
          vocabulary={words}
          onChange={(fields) => void change.changeMany(chosen, fields).catch(failed)}
          onClear={() => setSelected(new Set())}
        />
      )}
      <ThingsTable
        rows={rows}
        people={house.people}
        vocabulary={words}
        photos={photos}
        selected={selected}
        onSelect={setSelected}
        onChange={(row, fields) => void change.change(row, fields).catch(failed)}
        onRemove={(row) => void change.remove(row).catch(failed)}
        onDuplicate={(row) => void change.duplicate(row).catch(failed)}
        onPhoto={(row, file) => void photograph(row.id, file).catch(failed)}
      />
    </>
  )
}

/** The space as it stands, beside what is asked of it. */
function SmallSheet({ spaceId, design }: { spaceId: number; design: number | null }) {
  const space = useSpace(spaceId)
  const things = useThings(spaceId).data
  const current = useDesign(design)
  const drawing = current.data?.elevation ?? (space.data && mainSection(space.data)?.elevation)
  return (
    <Sheet title={null}>
      {drawing ? (
        <DrawingSvg drawing={drawing} label={`${drawing.title.space}: ${drawing.title.shows}`} small />
      ) : (
        <Loader aria-label="Drawing" />
      )}
      {things && things.demand.length > 0 && <DemandList things={things} />}
    </Sheet>
  )
}
