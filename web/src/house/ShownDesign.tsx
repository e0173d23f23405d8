import { Button, Loader, SegmentedControl, Textarea, TextInput } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useMemo, useState } from 'react'

import { api, body, type Schemas } from '../api/client'
import { keepAnswer } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import { Refused } from '../shell/Refused'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { place } from '../layout/names'

const WalkRound = lazy(() => import('../layout/WalkRound'))

type Design = Schemas['ShownDesign']
type View = 'elevation' | 'plan' | 'walk-round'
const VIEWS: readonly View[] = ['elevation', 'plan', 'walk-round']
const SLIDES = new Set(['drawer', 'basket', 'tray', 'hamper'])

/** One design as a client looks at it: drawn, walked round, spoken of, chosen and signed off. */
export default function ShownDesign({ token, id, who }: { token: string; id: number; who: string }) {
  const path = { token, design_id: id }
  const key = ['shown', token, id] as const
  const client = useQueryClient()
  const design = useQuery({
    queryKey: key,
    queryFn: () => body(api.GET('/api/shown/{token}/designs/{design_id}', { params: { path } })),
  })
  const [part, setPart] = useState<string | null>(null)
  const keep = (answer: Design) => {
    keepAnswer(client, key, answer)
    void client.invalidateQueries({ queryKey: ['shown', token], exact: true })
  }
  return (
    <Fetched query={design} waiting="Opening the design">
      {(one) => (
        <div className="shown-design">
          <Views design={one} token={token} part={part} onPart={setPart} />
          <aside className="shown-side" aria-label="About this design">
            <h2>{one.title}</h2>
            <p className="quiet">{one.space}</p>
            <p>
              {one.reason} Costs <b>{one.cost}</b> {one.currency}, built of {one.family.toLowerCase()}.
              {one.unplaced > 0 && ` ${one.unplaced} pieces have no place in it.`}
            </p>
            {one.says && (
              <p className="shown-says" role="status">
                {one.says}
              </p>
            )}
            <Agree design={one} path={path} who={who} onAnswer={keep} />
            <Remarks design={one} path={path} part={part} onPart={setPart} onAnswer={keep} />
            <Button
              component="a"
              variant="default"
              href={`/api/shown/${token}/designs/${String(id)}/sheet.pdf`}
              target="_blank"
            >
              Print to scale
            </Button>
          </aside>
        </div>
      )}
    </Fetched>
  )
}

function Views({
  design,
  token,
  part,
  onPart,
}: {
  design: Design
  token: string
  part: string | null
  onPart: (id: string | null) => void
}) {
  const [view, setView] = useState<View>('elevation')
  const phone = useMediaQuery('(width <= 760px)') ?? false
  const parts = useMemo(() => new Map(design.parts.map((one) => [one.id, one])), [design])
  const drawers = useMemo(
    () => new Set(design.parts.filter((one) => SLIDES.has(one.role)).map((one) => one.id)),
    [design],
  )
  const nameOf = (id: string) => {
    const one = parts.get(id)
    return one ? place(one) : id
  }
  return (
    <div className="shown-sheet">
      <SegmentedControl
        size={phone ? 'sm' : 'xs'}
        aria-label="View"
        value={view}
        onChange={(value) => setView(VIEWS.find((one) => one === value) ?? 'elevation')}
        data={[...VIEWS]}
      />
      <Sheet title={view === 'plan' ? design.plan.title : design.elevation.title}>
        {view === 'elevation' && (
          <Plate
            drawing={design.elevation}
            label={`Elevation, ${design.title}`}
            selectable={new Set(parts.keys())}
            selected={part}
            nameOf={nameOf}
            onSelect={onPart}
          />
        )}
        {view === 'plan' && <Plate drawing={design.plan} label={`Plan, ${design.title}`} />}
        {view === 'walk-round' && (
          <Suspense fallback={<Loader aria-label="Fetching the view" />}>
            <WalkRound
              url={`/api/shown/${token}/designs/${String(design.id)}/model.glb`}
              label={design.title}
              eyes={design.eyes}
              drawers={drawers}
              fronts={false}
            />
          </Suspense>
        )}
      </Sheet>
    </div>
  )
}

interface Answering {
  design: Design
  path: { token: string; design_id: number }
  onAnswer: (answer: Design) => void
}

/** To choose the design, and to sign it off with a name. */
function Agree({ design, path, who, onAnswer }: Answering & { who: string }) {
  const [signing, setSigning] = useState(false)
  const [name, setName] = useState(who)
  const choose = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/shown/{token}/designs/{design_id}/choose', { params: { path }, body: { by: who } }),
      ),
    onSuccess: onAnswer,
  })
  const sign = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/shown/{token}/designs/{design_id}/sign-off', {
          params: { path },
          body: { by: name, version: design.version },
        }),
      ),
    onSuccess: (answer) => {
      setSigning(false)
      onAnswer(answer)
    },
  })
  if (design.signed) return null
  if (!signing)
    return (
      <div className="stacked">
        <div className="row tight">
          {!design.chosen && (
            <Button loading={choose.isPending} onClick={() => choose.mutate()}>
              Choose this one
            </Button>
          )}
          <Button variant={design.chosen ? 'filled' : 'default'} onClick={() => setSigning(true)}>
            Sign it off…
          </Button>
        </div>
        <Refused error={choose.error} />
      </div>
    )
  return (
    <form
      className="stacked"
      onSubmit={(event) => {
        event.preventDefault()
        sign.mutate()
      }}
    >
      <p>
        Signed off, this design stays as it is drawn here, and is bought and built so. The day is written
        beside your name.
      </p>
      <TextInput
        label="Your name"
        value={name}
        autoFocus
        maxLength={120}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Refused error={sign.error} />
      <div className="row tight">
        <Button type="submit" loading={sign.isPending} disabled={name.trim() === ''}>
          Sign off
        </Button>
        <Button variant="subtle" onClick={() => setSigning(false)}>
          Not yet
        </Button>
      </div>
    </form>
  )
}

/** What was said of the design; to say more, of all of it or of the part that is selected. */
function Remarks({
  design,
  path,
  part,
  onPart,
  onAnswer,
}: Answering & { part: string | null; onPart: (id: string | null) => void }) {
  const [text, setText] = useState('')
  const chosen = design.parts.find((one) => one.id === part)
  const say = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/shown/{token}/designs/{design_id}/remarks', {
          params: { path },
          body: { text, part: chosen?.id ?? '' },
        }),
      ),
    onSuccess: (answer) => {
      setText('')
      onPart(null)
      onAnswer(answer)
    },
  })
  return (
    <section aria-label="Remarks" className="stacked">
      <h3>What you say of it</h3>
      {design.remarks.length > 0 && (
        <ul className="remarks">
          {design.remarks.map((one) => (
            <li key={one.id}>
              <span className="quiet small">
                {one.by}, {one.on}
                {one.about && `, of ${one.about}`}
                {one.settled && ' · settled'}
              </span>
              <p>{one.text}</p>
            </li>
          ))}
        </ul>
      )}
      <form
        className="stacked"
        onSubmit={(event) => {
          event.preventDefault()
          say.mutate()
        }}
      >
        <Textarea
          label={chosen ? `Of the ${place(chosen)}` : 'Of the whole design'}
          description={
            chosen
              ? 'Select it again to speak of the whole.'
              : 'Select a part in the elevation to speak of it.'
          }
          value={text}
          autosize
          minRows={2}
          maxLength={1000}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        {chosen && (
          <Button variant="subtle" size="compact-sm" onClick={() => onPart(null)}>
            Speak of the whole design
          </Button>
        )}
        <Refused error={say.error} />
        <Button type="submit" variant="default" loading={say.isPending} disabled={text.trim() === ''}>
          Say it
        </Button>
      </form>
    </section>
  )
}
