import { Checkbox, NativeSelect, Slider } from '@mantine/core'

import type { Schemas } from '../api/client'
import { useLimits } from '../api/queries'

export type Weights = Schemas['Weights']
export type Finish = Schemas['Finish']
export type Ask = Schemas['Ask']
type Card = Schemas['Card']

export const EVEN: Weights = { money: 5, room: 2, reach: 4, parts: 0, hours: 0, reuse: 1, order: 5 }

const NAMES: readonly (readonly [keyof Weights, string])[] = [
  ['money', 'money'],
  ['room', 'room left'],
  ['reach', 'easy reach'],
  ['parts', 'few parts'],
  ['hours', 'few hours'],
  ['reuse', 'what we have'],
  ['order', 'tidiness'],
]

/** Alternatives by what counts, the one that would lead first: the fewer points against it the better. */
export function ranked(cards: readonly Card[], weights: Weights): Card[] {
  const against = (card: Card) =>
    NAMES.reduce((sum, [key]) => sum + (weights[key] ?? 0) * card.merits[key], 0)
  return [...cards].sort((a, b) => against(a) - against(b))
}

/** What counts, from not at all to very much. */
export function WeightSliders({
  weights,
  onChange,
}: {
  weights: Weights
  onChange: (weights: Weights) => void
}) {
  return (
    <div className="sliders" role="group" aria-label="What counts">
      {NAMES.map(([key, name]) => (
        <label key={key} className="slider">
          <span>{name}</span>
          <Slider
            size="sm"
            min={0}
            max={10}
            step={1}
            label={null}
            thumbLabel={name}
            value={weights[key] ?? 0}
            onChange={(value) => onChange({ ...weights, [key]: value })}
          />
          <output>{weights[key] ?? 0}</output>
        </label>
      ))}
    </div>
  )
}

const DOORS = ['none', 'hinged', 'sliding', 'curtain'] as const
const BASES = ['plinth', 'legs'] as const
const FRONTS = ['solid', 'glass', 'mesh'] as const
const EXTRAS = [
  ['crown', 'crown strip'],
  ['lights', 'lights'],
  ['fascia', 'fascias'],
  ['ventilated', 'open wire'],
  ['sloped_shoes', 'sloped shoe shelves'],
] as const

/** Doors, base, fronts, crown, lights and fascias. */
export function FinishForm({ finish, onChange }: { finish: Finish; onChange: (finish: Finish) => void }) {
  return (
    <div className="row tight finish" role="group" aria-label="Finish">
      <NativeSelect
        size="xs"
        label="Doors"
        value={finish.doors ?? 'none'}
        data={DOORS.map((value) => ({ value, label: value }))}
        onChange={(event) =>
          onChange({ ...finish, doors: DOORS.find((d) => d === event.currentTarget.value) ?? 'none' })
        }
      />
      <NativeSelect
        size="xs"
        label="Base"
        value={finish.base ?? 'plinth'}
        data={BASES.map((value) => ({ value, label: value }))}
        onChange={(event) =>
          onChange({ ...finish, base: BASES.find((b) => b === event.currentTarget.value) ?? 'plinth' })
        }
      />
      <NativeSelect
        size="xs"
        label="Fronts"
        value={finish.fronts ?? 'solid'}
        data={FRONTS.map((value) => ({ value, label: value }))}
        onChange={(event) =>
          onChange({ ...finish, fronts: FRONTS.find((f) => f === event.currentTarget.value) ?? 'solid' })
        }
      />
      <Boards finish={finish} onChange={onChange} />
      {EXTRAS.map(([key, name]) => (
        <Checkbox
          key={key}
          size="xs"
          label={name}
          checked={finish[key] ?? false}
          onChange={(event) => onChange({ ...finish, [key]: event.currentTarget.checked })}
        />
      ))}
    </div>
  )
}

/** What shelves are cut from, where a family cuts them from boards, and whether a lipping stiffens their front. */
function Boards({ finish, onChange }: { finish: Finish; onChange: (finish: Finish) => void }) {
  const choices = useLimits().data?.each.find((row) => row.name === 'board')?.choices ?? []
  const { shelves } = finish
  return (
    <>
      <NativeSelect
        size="xs"
        label="Boards of shelves"
        className="boards"
        value={`${shelves.grade}-${shelves.thickness}`}
        data={choices.map(([value, label]) => ({ value, label }))}
        onChange={(event) => {
          const [grade, thickness] = splitAtLast(event.currentTarget.value)
          onChange({
            ...finish,
            shelves: { ...shelves, grade: grade as typeof shelves.grade, thickness: Number(thickness) },
          })
        }}
      />
      <Checkbox
        size="xs"
        label="lipping along shelves"
        checked={shelves.lipped}
        onChange={(event) =>
          onChange({ ...finish, shelves: { ...shelves, lipped: event.currentTarget.checked } })
        }
      />
    </>
  )
}

function splitAtLast(text: string): [string, string] {
  const at = text.lastIndexOf('-')
  return [text.slice(0, at), text.slice(at + 1)]
}
