import { Button } from '@mantine/core'
import { notifications } from '@mantine/notifications'

import { said, type Schemas } from '../api/client'
import { inUnits } from '../shell/units'
import { useHouseChange } from './useHouseChange'

type Age = 'adult' | 'child' | 'older'

/** Usual statures: adults and older people as in the reach tables, a child of seven. */
const USUAL: readonly { age: Age; label: string; name: string; metric: string; imperial: string }[] = [
  { age: 'adult', label: 'An adult', name: 'Adult', metric: '1700 mm', imperial: `5' 7"` },
  { age: 'child', label: 'A child', name: 'Child', metric: '1220 mm', imperial: `4' 0"` },
  { age: 'older', label: 'An older person', name: 'Older person', metric: '1640 mm', imperial: `5' 5"` },
]

/** Who lives here, a click a person; name and stature are put right where they stand. */
export function QuickPeople({ house }: { house: Schemas['HouseView'] }) {
  const change = useHouseChange(house)
  const taken = new Set(house.people.map((person) => person.name))
  const free = (name: string) => {
    if (!taken.has(name)) return name
    let n = 2
    while (taken.has(`${name} ${n}`)) n += 1
    return `${name} ${n}`
  }
  return (
    <div className="row quick-people" role="group" aria-label="Add a person">
      {USUAL.map((usual) => (
        <Button
          key={usual.age}
          size="compact-sm"
          variant="default"
          onClick={() =>
            void change
              .person(null, {
                name: free(usual.name),
                stature: inUnits(house.units, usual.metric, usual.imperial),
                posture: 'standing',
                age: usual.age,
                hand: 'right',
                pronoun: '',
                kept_from: null,
              })
              .catch((error: unknown) => notifications.show({ color: 'red', message: said(error) }))
          }
        >
          + {usual.label}
        </Button>
      ))}
    </div>
  )
}
