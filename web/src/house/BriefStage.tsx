import { ActionIcon, Alert, Button, NativeSelect, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconX } from '@tabler/icons-react'
import { Fragment, useState } from 'react'

import { said, type Schemas } from '../api/client'
import type { StageProps } from '../shell/HousePage'
import { Field } from '../shell/Field'
import { stature } from './stature'
import { useHouseChange, type HouseChange } from './useHouseChange'

type Rules = Schemas['HouseRules']

/** Brief: who lives here, by which rules, for how much, in which units. */
export function BriefStage({ house }: StageProps) {
  const change = useHouseChange(house)
  return (
    <main className="room whole">
      <section className="bench brief" aria-label="Bench">
        <People house={house} change={change} />
        <RulesForm house={house} change={change} />
        <Household house={house} change={change} />
      </section>
    </main>
  )
}

const failed = (error: unknown) => notifications.show({ color: 'red', message: said(error) })

interface PanelProps {
  house: Schemas['HouseView']
  change: HouseChange
}

const POSTURES = [
  { value: 'standing', label: 'standing' },
  { value: 'seated', label: 'seated' },
  { value: 'both', label: 'both' },
]
const AGES = ['child', 'adult', 'older']

function People({ house, change }: PanelProps) {
  const [name, setName] = useState('')
  const [tall, setTall] = useState('')
  const [error, setError] = useState('')
  const usual = house.units === 'metric' ? '1700' : `5' 7"`
  return (
    <div className="panel">
      <h2>Who lives here</h2>
      <p className="quiet small">Stature and posture decide how high things may hang.</p>
      <table className="table people">
        <thead>
          <tr>
            <th>Name</th>
            <th>Stature</th>
            <th>Reaches</th>
            <th>Age</th>
            <th>
              <span className="visually-hidden">Take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {house.people.map((person) => {
            const put = (fields: Partial<Schemas['PersonData']>) => {
              const { name: called, posture, age } = person
              void change
                .person(person.id, { name: called, posture, age, stature: `${person.stature} mm`, ...fields })
                .catch(failed)
            }
            return (
              <tr key={person.id}>
                <td>
                  <Field
                    label={`Name of ${person.name}`}
                    text={person.name}
                    onKeep={(text) => put({ name: text })}
                  />
                </td>
                <td>
                  <Field
                    label={`Stature of ${person.name}`}
                    text={stature(person.stature, house.units)}
                    onKeep={(text) => put({ stature: text })}
                  />
                </td>
                <td>
                  <NativeSelect
                    variant="unstyled"
                    aria-label={`Posture of ${person.name}`}
                    value={person.posture}
                    data={POSTURES}
                    onChange={(event) => put({ posture: event.currentTarget.value })}
                  />
                </td>
                <td>
                  <NativeSelect
                    variant="unstyled"
                    aria-label={`Age of ${person.name}`}
                    value={person.age}
                    data={AGES}
                    onChange={(event) => put({ age: event.currentTarget.value })}
                  />
                </td>
                <td className="n">
                  <ActionIcon
                    size={24}
                    variant="subtle"
                    color="gray"
                    aria-label={`Take out ${person.name}`}
                    onClick={() => void change.removePerson(person).catch(failed)}
                  >
                    <IconX size={14} />
                  </ActionIcon>
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      <form
        className="row"
        style={{ alignItems: 'flex-end', marginTop: 10 }}
        onSubmit={(event) => {
          event.preventDefault()
          setError('')
          change
            .person(null, { name, stature: tall || usual, posture: 'standing', age: 'adult' })
            .then(() => {
              setName('')
              setTall('')
            })
            .catch((problem: unknown) => setError(said(problem)))
        }}
      >
        <TextInput
          label="Name"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
          w={140}
        />
        <TextInput
          label="Stature"
          placeholder={usual}
          value={tall}
          onChange={(event) => setTall(event.currentTarget.value)}
          w={100}
        />
        <Button type="submit" variant="default" disabled={!name.trim()}>
          Add person
        </Button>
      </form>
      {error && (
        <Alert color="red" variant="outline" role="alert" mt="sm">
          {error}
        </Alert>
      )}
    </div>
  )
}

/** The schools of the trade between which a household chooses, each in its own words. */
const SCHOOLS: readonly {
  rule: keyof Rules
  label: string
  choices: readonly { value: string; label: string }[]
}[] = [
  {
    rule: 'fit',
    label: 'Fit',
    choices: [
      { value: 'easy', label: 'easy: room to slide it in' },
      { value: 'every-inch', label: 'every inch, scribed tight' },
    ],
  },
  {
    rule: 'reserve',
    label: 'Room to grow',
    choices: ['0', '0.1', '0.15', '0.2', '0.3'].map((share) => ({
      value: share,
      label: share === '0' ? 'none' : `${Math.round(Number(share) * 100)} % left free`,
    })),
  },
  {
    rule: 'access',
    label: 'Access',
    choices: [
      { value: 'single-touch', label: 'single touch, one movement' },
      { value: 'dense', label: 'dense: rows behind rows' },
    ],
  },
  {
    rule: 'floor',
    label: 'Floor',
    choices: [
      { value: 'purposeful', label: 'used with purpose' },
      { value: 'clear', label: 'kept clear' },
    ],
  },
  {
    rule: 'hang',
    label: 'Hang',
    choices: [
      { value: 'what-creases', label: 'what creases' },
      { value: 'all-that-can', label: 'all that can hang' },
    ],
  },
  {
    rule: 'hangers',
    label: 'Hangers',
    choices: ['slim', 'ordinary', 'padded'].map((value) => ({ value, label: value })),
  },
  {
    rule: 'fixing',
    label: 'Fixing',
    choices: [
      { value: 'studs-first', label: 'into studs first' },
      { value: 'as-drilled', label: 'as drilled by the maker' },
    ],
  },
]

function RulesForm({ house, change }: PanelProps) {
  const { rules } = house
  const put = (fields: Partial<Rules>, label: string) =>
    void change.house({ rules: { ...rules, ...fields } }, label).catch(failed)
  return (
    <div className="panel">
      <h2>House rules</h2>
      <p className="quiet small">Where the trade disagrees, the house decides once; every number follows.</p>
      <div className="rules">
        {SCHOOLS.map(({ rule, label, choices }) => {
          const value = String(rules[rule])
          const known = choices.some((choice) => choice.value === value)
          return (
            <Fragment key={rule}>
              <label htmlFor={`rule-${rule}`} className="field-label">
                {label}
              </label>
              <NativeSelect
                id={`rule-${rule}`}
                value={value}
                data={[...choices, ...(known ? [] : [{ value, label: value }])]}
                onChange={(event) => {
                  const next = event.currentTarget.value
                  put({ [rule]: rule === 'reserve' ? Number(next) : next }, label.toLowerCase())
                }}
              />
            </Fragment>
          )
        })}
        <label htmlFor="budget" className="field-label">
          Budget
        </label>
        <Field
          id="budget"
          label={`Budget, ${house.currency}`}
          text={rules.budget ?? ''}
          variant="default"
          placeholder="none"
          onKeep={(text) => put({ budget: text || null }, 'budget')}
        />
      </div>
    </div>
  )
}

function Household({ house, change }: PanelProps) {
  const [member, setMember] = useState('')
  return (
    <div className="panel">
      <h2>Household</h2>
      <div className="form-grid">
        <div>
          <label htmlFor="house-name" className="field-label">
            Name
          </label>
          <Field
            id="house-name"
            label="Name of the household"
            text={house.name}
            variant="default"
            onKeep={(name) => void change.house({ name }, 'name').catch(failed)}
          />
        </div>
        <NativeSelect
          label="Units"
          value={house.units}
          data={[
            { value: 'metric', label: 'millimetres' },
            { value: 'imperial', label: 'feet and inches' },
          ]}
          onChange={(event) => {
            const units = event.currentTarget.value === 'imperial' ? 'imperial' : 'metric'
            void change.house({ units }, 'units').catch(failed)
          }}
        />
      </div>
      <form
        className="row"
        style={{ alignItems: 'flex-end', marginTop: 12 }}
        onSubmit={(event) => {
          event.preventDefault()
          change
            .addMember(member)
            .then(() => {
              notifications.show({ message: `${member} may enter this household now.` })
              setMember('')
            })
            .catch(failed)
        }}
      >
        <TextInput
          label="Let someone in"
          placeholder="the name they sign in with"
          value={member}
          onChange={(event) => setMember(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={!member.trim()}>
          Let in
        </Button>
      </form>
    </div>
  )
}
