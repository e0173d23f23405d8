import { Alert, Button, Modal, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'

import { api, body, Problem, said, type Schemas } from '../api/client'
import { useMeasureVocabulary } from '../api/queries'
import { inUnits, type Units } from '../shell/units'
import type { SurveyChange } from './useSurveyChange'

const DOORS = ['none', 'hinged left', 'hinged right', 'double', 'sliding', 'curtain']
const LININGS = ['plasterboard', 'masonry', 'timber', 'unknown'] as const
const NEW = ['wall', 'level', 'drawer', 'door back', 'void']

type Call = (line: string) => Promise<boolean>
type TypedObstacle = Omit<Schemas['TypedObstacle'], 'version'>

/** The same facts as on the call-out line, by form: what it composes is a call-out. */
export function FactsForm({
  opened,
  space,
  section,
  change,
  onClose,
}: {
  opened: boolean
  space: Schemas['SpaceView']
  section: Schemas['SectionView']
  change: SurveyChange
  onClose: () => void
}) {
  const { door, lining } = space.survey
  const [error, setError] = useState('')
  const attempt = (act: () => Promise<unknown>) => {
    setError('')
    return act()
      .then(() => true)
      .catch((problem: unknown) => {
        setError(said(problem))
        return false
      })
  }
  const call: Call = (line) =>
    attempt(async () => {
      const answer = await change.callOut(line, section.id)
      const wrong = answer?.heard.misheard[0]
      if (wrong) throw new Problem(422, { title: `${wrong.problem}.`, mend: wrong.mend })
    })
  const hung =
    door.kind === 'hinged' ? `hinged ${door.hinge}` : door.kind === 'double hinged' ? 'double' : door.kind
  const many = space.sections.length > 1 ? ` of ${section.label}` : ''
  return (
    <Modal opened={opened} onClose={onClose} title="Walls, doors and obstacles" size="lg">
      <KindSelect
        space={space}
        onChange={(kind) => void attempt(() => change.replace({ ...space.survey, kind }, kind))}
      />
      {section.at_wall && (
        <>
          <div className="form-grid">
            <NativeSelect
              label="Door"
              value={hung}
              data={DOORS}
              onChange={(event) => void call(`door ${event.currentTarget.value}`)}
            />
            <NativeSelect
              label="Swings"
              value={door.swings}
              data={['out', 'in']}
              disabled={door.kind !== 'hinged' && door.kind !== 'double hinged'}
              onChange={(event) => void call(`door ${hung} ${event.currentTarget.value}`)}
            />
            <NativeSelect
              label="Wall behind"
              value={lining}
              data={[...LININGS]}
              onChange={(event) => {
                const next = LININGS.find((name) => name === event.currentTarget.value)
                if (next)
                  void attempt(() => change.replace({ ...space.survey, lining: next }, `wall: ${next}`))
              }}
            />
            <NativeSelect
              label="Skirting"
              value={space.survey.skirting}
              data={['stand forward', 'remove']}
              onChange={(event) => {
                const skirting = event.currentTarget.value === 'remove' ? 'remove' : 'stand forward'
                void attempt(() => change.replace({ ...space.survey, skirting }, `skirting: ${skirting}`))
              }}
            />
            <NativeSelect
              label={`Ceiling${many}`}
              value={slopeOf(space, section.id)}
              data={['level', 'slopes along', 'falls toward back']}
              onChange={(event) =>
                void call(
                  { 'slopes along': 'slope along', 'falls toward back': 'slope toward back' }[
                    event.currentTarget.value
                  ] ?? 'no slope',
                )
              }
            />
            <NativeSelect
              label="Air"
              value={space.survey.damp ? 'damp' : 'dry'}
              data={['dry', 'damp']}
              onChange={(event) => void call(event.currentTarget.value)}
            />
          </div>
          {space.sections.length > 1 && (
            <NativeSelect
              label={`Corner right of ${section.label}, filled by`}
              value={cornerOf(space, section.id)}
              data={['none', 'mine', 'theirs']}
              disabled={cornerOf(space, section.id) === 'none'}
              mt="sm"
              onChange={(event) => void call(`corner ${event.currentTarget.value}`)}
            />
          )}
          <LineForm
            label={`A stud${many}, from the left end`}
            placeholder={inUnits(space.units, '112, or 112 then every 600', '4 1/2, or 4 1/2 then every 16')}
            button="Add stud"
            compose={(text) => `stud ${text}`}
            onCall={call}
          />
          <LineForm
            label={`Ceiling height${many} at a place`}
            placeholder={inUnits(space.units, '2100 at 500', '82 at 20')}
            button="Add ceiling"
            compose={(text) => `ceiling ${text}`}
            onCall={call}
          />
        </>
      )}
      {section?.kind === 'level' && (
        <>
          <NativeSelect
            label={`The shelf of ${section.label}`}
            description="A design may move shelves that lie on pins, and take the levels between them as one."
            value={section.movable ? 'movable' : 'fixed'}
            data={[
              { value: 'fixed', label: 'is fixed' },
              {
                value: 'movable',
                label: `lies on pins${section.holes ? `, holes every ${section.holes}` : ''}`,
              },
            ]}
            onChange={(event) => void call(`shelf ${event.currentTarget.value}`)}
          />
          {section.movable && (
            <LineForm
              label="How far the holes are apart"
              placeholder={inUnits(space.units, '32', '1 1/4')}
              button="Keep"
              compose={(text) => `shelf movable every ${text}`}
              onCall={call}
            />
          )}
        </>
      )}
      <ObstacleForm
        section={many}
        here={section.id}
        onAdd={(obstacle) =>
          attempt(() =>
            change.act(`add ${obstacle.called ?? obstacle.kind}`, (version) =>
              body(
                api.POST('/api/spaces/{space_id}/obstacles', {
                  params: { path: { space_id: space.id } },
                  body: { ...obstacle, version },
                }),
              ),
            ),
          )
        }
      />
      {space.kind === 'garage bay' && <GarageForm onCall={call} units={space.units} />}
      <div className="row" style={{ marginTop: 18 }}>
        <span>Another part of this space:</span>
        {NEW.map((name) => (
          <Button key={name} size="compact-sm" variant="default" onClick={() => void call(`new ${name}`)}>
            new {name}
          </Button>
        ))}
      </div>
      {error && (
        <Alert color="red" variant="outline" role="alert" mt="sm">
          {error}
        </Alert>
      )}
    </Modal>
  )
}

/** Another kind of space: its places change with it; what was read stays where the sections are the same. */
function KindSelect({
  space,
  onChange,
}: {
  space: Schemas['SpaceView']
  onChange: (kind: Schemas['SpaceView']['kind']) => void
}) {
  const kinds = useMeasureVocabulary().data?.spaces ?? []
  return (
    <NativeSelect
      label="Kind of space"
      value={space.kind}
      data={kinds.length > 0 ? kinds.map((row) => row.kind) : [space.kind]}
      mb="sm"
      onChange={(event) => {
        const chosen = kinds.find((row) => row.kind === event.currentTarget.value)
        if (chosen) onChange(chosen.kind)
      }}
    />
  )
}

function slopeOf(space: Schemas['SpaceView'], section: string): string {
  const said = space.facts.find(
    ([name]) => name.startsWith('slope') && name.endsWith(labelOf(space, section)),
  )?.[1]
  return said === 'along' ? 'slopes along' : said === 'toward back' ? 'falls toward back' : 'level'
}

function cornerOf(space: Schemas['SpaceView'], section: string): string {
  return space.corners.find(([id]) => id === section)?.[1] ?? 'none'
}

function labelOf(space: Schemas['SpaceView'], section: string): string {
  return space.sections.find((one) => one.id === section)?.label ?? section
}

/** One text that becomes a call-out. */
function LineForm({
  label,
  placeholder,
  button,
  compose,
  onCall,
}: {
  label: string
  placeholder: string
  button: string
  compose: (text: string) => string
  onCall: Call
}) {
  const [text, setText] = useState('')
  return (
    <form
      className="row"
      style={{ marginTop: 14, alignItems: 'flex-end' }}
      onSubmit={(event) => {
        event.preventDefault()
        void onCall(compose(text)).then((kept) => kept && setText(''))
      }}
    >
      <TextInput
        label={label}
        value={text}
        placeholder={placeholder}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <Button type="submit" variant="default" disabled={!text.trim()}>
        {button}
      </Button>
    </form>
  )
}

const FIELDS = [
  ['x', 'From the left'],
  ['z', 'Up from the floor'],
  ['width', 'Width'],
  ['height', 'Height'],
  ['out', 'Stands out (optional)'],
  ['off', 'Off the wall (optional)'],
  ['access', 'Access in front (optional)'],
  ['clear', 'Clear around (optional)'],
  ['swing', 'Swings by (optional)'],
  ['called', 'Called (optional)'],
] as const
const BLANK = {
  x: '',
  z: '',
  width: '',
  height: '',
  out: '',
  off: '',
  access: '',
  clear: '',
  swing: '',
  called: '',
}

function ObstacleForm({
  onAdd,
  section,
  here,
}: {
  onAdd: (obstacle: TypedObstacle) => Promise<boolean>
  section: string
  here: string
}) {
  const vocabulary = useMeasureVocabulary()
  const [kind, setKind] = useState<TypedObstacle['kind']>('socket')
  const [size, setSize] = useState(BLANK)
  const ready = size.x && size.z && size.width && size.height
  const kinds = (vocabulary.data?.obstacles ?? [kind]) as TypedObstacle['kind'][]
  return (
    <form
      style={{ marginTop: 18 }}
      aria-label={`An obstacle${section}`}
      onSubmit={(event) => {
        event.preventDefault()
        void onAdd({ ...size, kind, section: here }).then((kept) => kept && setSize(BLANK))
      }}
    >
      <div className="form-grid">
        <NativeSelect
          label={`Obstacle${section}`}
          value={kind}
          data={kinds}
          onChange={(event) => setKind(kinds.find((one) => one === event.currentTarget.value) ?? kind)}
        />
        {FIELDS.map(([field, label]) => (
          <TextInput
            key={field}
            label={label}
            value={size[field]}
            onChange={(event) => {
              const { value } = event.currentTarget
              setSize((before) => ({ ...before, [field]: value }))
            }}
          />
        ))}
      </div>
      <Button type="submit" variant="default" mt="sm" disabled={!ready}>
        Add obstacle
      </Button>
    </form>
  )
}

function GarageForm({ onCall, units }: { onCall: Call; units: Units }) {
  return (
    <>
      <LineForm
        label="Parked car: length x width x height at left, gap from the back"
        placeholder={inUnits(
          units,
          '4300 x 1790 x 1480 at 900, 500 from the back, doors 700',
          '170 x 70 x 58 at 36, 20 from the back, doors 28',
        )}
        button="Set the car"
        compose={(text) => `car ${text}`}
        onCall={onCall}
      />
      <LineForm
        label="Door overhead: sectional or up-and-over, track, reach"
        placeholder={inUnits(units, 'sectional, track 2150, reach 2600', 'sectional, track 84, reach 102')}
        button="Set the door"
        compose={(text) => `overhead door ${text}`}
        onCall={onCall}
      />
    </>
  )
}
