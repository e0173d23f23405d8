import { Alert, Button, Checkbox, NativeSelect, Popover, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { Fragment, useState } from 'react'
import { Link } from 'react-router'

import { said, type Schemas } from '../api/client'
import { useVocabulary } from '../api/queries'
import type { StageProps } from '../shell/StageProps'
import { Field } from '../shell/Field'
import { TakeOut } from '../shell/TakeOut'
import { Catalogue } from '../systems/Catalogue'
import { Limits } from './Limits'
import { QuickPeople } from './QuickPeople'
import { stature } from './stature'
import { useHouseChange, type HouseChange } from './useHouseChange'
import { Work } from './Work'

type Rules = Schemas['HouseRules']

/** Brief: who lives here, by which rules, for how much, in which units. */
export default function BriefStage({ house }: StageProps) {
  const change = useHouseChange(house)
  return (
    <main className="room whole">
      <section className="bench brief" aria-label="Bench">
        <People house={house} change={change} />
        <RulesForm house={house} change={change} />
        <Limits house={house} change={change} failed={failed} />
        <Work house={house} />
        <Catalogue houseId={house.id} />
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
const PRONOUNS = [
  { value: '', label: 'by name' },
  { value: 'her', label: 'hers' },
  { value: 'his', label: 'his' },
  { value: 'their', label: 'theirs' },
]

function People({ house, change }: PanelProps) {
  const [name, setName] = useState('')
  const [tall, setTall] = useState('')
  const [error, setError] = useState('')
  const usual = house.units === 'metric' ? '1700' : `5' 7"`
  return (
    <div className="panel across">
      <h2>Who lives here</h2>
      <p className="quiet small">
        Stature and posture decide how high things may hang.
        {house.people.length === 0 &&
          ` Until somebody is named, a typical adult of ${usual}${house.units === 'metric' ? ' mm' : ''} is reckoned with.`}
      </p>
      <QuickPeople house={house} />
      <table className="table people">
        <thead>
          <tr>
            <th>Name</th>
            <th>Stature</th>
            <th>Reaches</th>
            <th>Age</th>
            <th>Hand</th>
            <th>Spoken of</th>
            <th>Kept from</th>
            <th>
              <span className="visually-hidden">Take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {house.people.map((person) => {
            const put = (fields: Partial<Schemas['PersonData']>) => {
              void change.person(person.id, { ...personData(person), ...fields }).catch(failed)
            }
            return (
              <tr key={person.id}>
                <td data-label="Name">
                  <Field
                    label={`Name of ${person.name}`}
                    text={person.name}
                    onKeep={(text) => put({ name: text })}
                  />
                </td>
                <td data-label="Stature">
                  <Field
                    label={`Stature of ${person.name}`}
                    text={stature(person.stature, house.units)}
                    onKeep={(text) => put({ stature: text })}
                  />
                </td>
                <td data-label="Reaches">
                  <NativeSelect
                    variant="unstyled"
                    aria-label={`Posture of ${person.name}`}
                    value={person.posture}
                    data={POSTURES}
                    onChange={(event) => put({ posture: event.currentTarget.value })}
                  />
                </td>
                <td data-label="Age">
                  <NativeSelect
                    variant="unstyled"
                    aria-label={`Age of ${person.name}`}
                    value={person.age}
                    data={AGES}
                    onChange={(event) => put({ age: event.currentTarget.value })}
                  />
                </td>
                <td data-label="Hand">
                  <NativeSelect
                    variant="unstyled"
                    aria-label={`Hand of ${person.name}`}
                    value={person.hand}
                    data={['right', 'left']}
                    onChange={(event) => put({ hand: event.currentTarget.value })}
                  />
                </td>
                <td data-label="Spoken of">
                  <NativeSelect
                    variant="unstyled"
                    aria-label={`How ${person.name} is spoken of`}
                    value={person.pronoun}
                    data={PRONOUNS}
                    onChange={(event) => put({ pronoun: event.currentTarget.value })}
                  />
                </td>
                <td data-label="Kept from">
                  <KeptFrom person={person} onKeep={(kept_from) => put({ kept_from })} />
                </td>
                <td className="n">
                  <TakeOut
                    label={`Take out ${person.name}`}
                    onClick={() => void change.removePerson(person).catch(failed)}
                  />
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
            .person(null, {
              name,
              stature: tall || usual,
              posture: 'standing',
              age: 'adult',
              hand: 'right',
              pronoun: '',
              kept_from: null,
            })
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

function personData(person: Schemas['Person']): Schemas['PersonData'] {
  const { name, posture, age, hand, pronoun, kept_from } = person
  return {
    name,
    posture,
    age,
    hand,
    pronoun,
    kept_from: kept_from ? [...kept_from] : null,
    stature: `${person.stature} mm`,
  }
}

type Hazard = NonNullable<Schemas['Person']['kept_from']>[number]

/** What someone may not reach: as usual for the age, or said one by one. */
function KeptFrom({
  person,
  onKeep,
}: {
  person: Schemas['Person']
  onKeep: (hazards: Hazard[] | null) => void
}) {
  const vocabulary = useVocabulary().data
  const all = (vocabulary?.hazards ?? []) as Hazard[]
  const usual = person.age === 'child' ? ((vocabulary?.kept_from_children ?? []) as Hazard[]) : []
  const kept = person.kept_from ?? null
  const words =
    kept === null ? (person.age === 'child' ? 'as usual' : 'nothing') : kept.join(', ') || 'nothing'
  return (
    <Popover position="bottom" withinPortal trapFocus returnFocus>
      <Popover.Target>
        <button type="button" className="plain" aria-label={`What ${person.name} is kept from`}>
          {words}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <Checkbox.Group
          value={[...(kept ?? usual)]}
          onChange={(chosen) => onKeep(all.filter((name) => chosen.includes(name)))}
        >
          {all.map((name) => (
            <Checkbox key={name} value={name} label={name} size="xs" mt={4} />
          ))}
        </Checkbox.Group>
        <Button size="compact-xs" variant="default" mt="xs" onClick={() => onKeep(null)}>
          As usual for the age
        </Button>
      </Popover.Dropdown>
    </Popover>
  )
}

function RulesForm({ house, change }: PanelProps) {
  const { rules } = house
  const schools = useVocabulary().data?.schools ?? []
  const put = (fields: Partial<Rules>, label: string) =>
    void change.house({ rules: { ...rules, ...fields } }, label).catch(failed)
  return (
    <div className="panel across">
      <h2>House rules</h2>
      <p className="quiet small">Where the trade disagrees, the house decides once; every number follows.</p>
      <div className="rules">
        {schools.map(({ rule: name, label, about, choices: pairs }) => {
          const rule = name as keyof Rules
          const value = String(rules[rule])
          const choices = pairs.map(([choice, words]) => ({ value: choice, label: words }))
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
                description={about}
                inputWrapperOrder={['input', 'description']}
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
          text={String(rules.budget ?? '')}
          variant="default"
          placeholder="none"
          onKeep={(text) => put({ budget: text || null }, 'budget')}
        />
      </div>
    </div>
  )
}

function Household({ house, change }: PanelProps) {
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
      <p style={{ marginTop: 12 }}>
        <Button component={Link} to={`/house/${house.id}/members`} variant="default">
          Members and invitations
        </Button>
      </p>
    </div>
  )
}
