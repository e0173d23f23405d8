import { NativeSelect } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { Fragment } from 'react'

import type { Schemas } from '../api/client'
import { keys, useLimits } from '../api/queries'
import { Field } from '../shell/Field'
import type { HouseChange } from './useHouseChange'

/** What the house goes by where the trade leaves a choice: boards, when a sag shows, screws, lifting; each beside its usual
 *  value. */
export function Limits({
  house,
  change,
  failed,
}: {
  house: Schemas['HouseView']
  change: HouseChange
  failed: (error: unknown) => void
}) {
  const client = useQueryClient()
  const { data } = useLimits()
  const put = (name: string, text: string, label: string) =>
    void change
      .limit(name, text, label)
      .catch(failed)
      .finally(() => void client.invalidateQueries({ queryKey: keys.limits(house.id) }))
  return (
    <div className="panel across">
      <h2>What the house goes by</h2>
      <p className="quiet small">
        Boards, screws and lifting where the trade leaves a choice; checks reckon with them.
      </p>
      <div className="rules limits">
        {data?.each.map((row) => (
          <Fragment key={row.name}>
            <label htmlFor={`limit-${row.name}`} className="field-label">
              {row.label}
            </label>
            <div>
              {row.choices.length > 0 ? (
                <NativeSelect
                  id={`limit-${row.name}`}
                  value={row.text}
                  data={row.choices.map(([value, label]) => ({ value, label }))}
                  onChange={(event) => put(row.name, event.currentTarget.value, row.label)}
                />
              ) : (
                <Field
                  id={`limit-${row.name}`}
                  label={row.label}
                  text={row.text}
                  variant="default"
                  onKeep={(text) => put(row.name, text, row.label)}
                />
              )}
              <p className="quiet small">
                Usually {row.usual}. {row.about}
              </p>
            </div>
          </Fragment>
        ))}
      </div>
    </div>
  )
}
