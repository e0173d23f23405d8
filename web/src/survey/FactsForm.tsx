import { Alert, Button, Modal, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'

import { Problem, said, type Schemas } from '../api/client'
import type { SurveyChange } from './useSurveyChange'

const DOORS = ['none', 'hinged left', 'hinged right', 'double', 'sliding', 'curtain']
const LININGS = ['plasterboard', 'masonry', 'timber', 'unknown'] as const

/** The same facts as on the call-out line, by form: what it composes is a call-out. */
export function FactsForm({
  opened,
  space,
  change,
  onClose,
}: {
  opened: boolean
  space: Schemas['SpaceView']
  change: SurveyChange
  onClose: () => void
}) {
  const { door, lining } = space.survey
  const [error, setError] = useState('')
  const [stud, setStud] = useState('')
  const attempt = (act: () => Promise<unknown>) => {
    setError('')
    return act()
      .then(() => true)
      .catch((problem: unknown) => {
        setError(said(problem))
        return false
      })
  }
  const call = (line: string) =>
    attempt(async () => {
      const { heard } = await change.callOut(line)
      const wrong = heard.misheard[0]
      if (wrong) throw new Problem(422, { title: `${wrong.problem}.`, mend: wrong.mend })
    })
  const hung =
    door.kind === 'hinged' ? `hinged ${door.hinge}` : door.kind === 'double hinged' ? 'double' : door.kind
  return (
    <Modal opened={opened} onClose={onClose} title="Door, wall and obstacles" size="lg">
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
            if (next) void attempt(() => change.replace({ ...space.survey, lining: next }, `wall: ${next}`))
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
      </div>
      <form
        className="row"
        style={{ marginTop: 14, alignItems: 'flex-end' }}
        onSubmit={(event) => {
          event.preventDefault()
          void call(`stud ${stud}`).then((kept) => kept && setStud(''))
        }}
      >
        <TextInput
          label="A stud, from the left wall"
          value={stud}
          placeholder="112, or 112 then every 600"
          onChange={(event) => setStud(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={!stud.trim()}>
          Add stud
        </Button>
      </form>
      <ObstacleForm onCall={call} />
      {error && (
        <Alert color="red" variant="outline" role="alert" mt="sm">
          {error}
        </Alert>
      )}
    </Modal>
  )
}

const KINDS = [
  'socket',
  'switch',
  'vent',
  'hatch',
  'valve',
  'meter',
  'panel',
  'light',
  'heater',
  'pipe',
  'beam',
  'box',
]
const FIELDS = [
  ['x', 'From the left'],
  ['z', 'Up from the floor'],
  ['width', 'Width'],
  ['height', 'Height'],
  ['out', 'Stands out (optional)'],
] as const
const BLANK = { x: '', z: '', width: '', height: '', out: '' }

function ObstacleForm({ onCall }: { onCall: (line: string) => Promise<boolean> }) {
  const [kind, setKind] = useState('socket')
  const [size, setSize] = useState(BLANK)
  const ready = size.x && size.z && size.width && size.height
  return (
    <form
      style={{ marginTop: 18 }}
      onSubmit={(event) => {
        event.preventDefault()
        const out = size.out ? `, out ${size.out}` : ''
        void onCall(`${kind} at ${size.x}, ${size.z} up, ${size.width} x ${size.height}${out}`).then(
          (kept) => kept && setSize(BLANK),
        )
      }}
    >
      <div className="form-grid">
        <NativeSelect
          label="Obstacle"
          value={kind}
          data={KINDS}
          onChange={(event) => setKind(event.currentTarget.value)}
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
