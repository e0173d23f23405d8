import { Checkbox } from '@mantine/core'

import { useChoice, type Plan } from './useInstall'

interface Props {
  spaceId: number
  design: number
  version: number
  plan: Plan
}

/** Tools, bits and small things to lay ready before the first step; what is in the house already is ticked. */
export function Ready({ spaceId, design, version, plan }: Props) {
  const { say } = useChoice(spaceId, design, version, plan)
  const has = new Set(plan.choice.has)
  const lists = [
    { head: 'Tools', rows: plan.tools },
    { head: 'Bits', rows: plan.bits },
    { head: 'Into the wall and under the base, a tenth spare', rows: plan.small },
  ]
  const every = lists.flatMap((list) => list.rows)
  const missing = every.filter((row) => !has.has(row)).length
  return (
    <>
      <p>
        Tick what is in the house already.{' '}
        {missing === 0
          ? 'Everything is there.'
          : `${String(missing)} of ${String(every.length)} to borrow or buy.`}
      </p>
      <div className="ready">
        {lists
          .filter((list) => list.rows.length > 0)
          .map((list) => (
            <section key={list.head}>
              <h2>{list.head}</h2>
              {list.rows.map((row) => (
                <Checkbox
                  key={row}
                  size="sm"
                  label={row}
                  checked={has.has(row)}
                  onChange={(event) =>
                    say(
                      {
                        has: event.currentTarget.checked
                          ? [...has, row]
                          : [...has].filter((other) => other !== row),
                      },
                      `${row} is in the house`,
                    )
                  }
                />
              ))}
            </section>
          ))}
        {plan.lights.length > 0 && (
          <section>
            <h2>Lights</h2>
            <ul>
              {plan.lights.map((row) => (
                <li key={row}>{row}</li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </>
  )
}
