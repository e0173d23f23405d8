import { Button, Menu, NativeSelect } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { FinishForm } from './Wishes'
import type { Command, DesignEdits } from './useDesignEdits'

type Design = Schemas['DesignView']

/** Everything that can be done with a whole bay, its row, or the finish of all rows. */
export function BayStrip({
  design,
  families,
  edits,
  busy,
  onRest,
}: {
  design: Design
  families: readonly Schemas['FamilyView'][]
  edits: DesignEdits
  busy: boolean
  onRest: () => void
}) {
  const [at, setAt] = useState(0)
  const bay = design.bays[at] ?? design.bays[0]
  if (!bay) return null
  const edit = (command: Command) => void edits.edit(command)
  const others = design.bays.filter((one) => one.index !== bay.index && one.family === bay.family)
  const item = (label: string, command: Command) => (
    <Menu.Item key={label} onClick={() => edit(command)}>
      {label}
    </Menu.Item>
  )
  return (
    <div className="row tight bay-strip no-print" role="group" aria-label="Bays">
      <NativeSelect
        size="xs"
        aria-label="Bay"
        value={String(bay.index)}
        data={design.bays.map((one) => ({
          value: String(one.index),
          label: `${one.name}${one.locked ? ', locked' : ''}`,
        }))}
        onChange={(event) => setAt(Number(event.currentTarget.value))}
      />
      <Button
        size="compact-sm"
        variant="default"
        aria-pressed={bay.locked}
        onClick={() => edit({ do: 'lock bay', bay: bay.index, locked: !bay.locked })}
      >
        {bay.locked ? 'Unlock bay' : 'Lock bay'}
      </Button>
      <Menu position="top-start" shadow="md">
        <Menu.Target>
          <Button size="compact-sm" variant="default">
            Change bay
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Label>{bay.name}</Menu.Label>
          {item('Next wider', { do: 'widen', bay: bay.index, steps: 1 })}
          {item('Next narrower', { do: 'widen', bay: bay.index, steps: -1 })}
          {others.map((one) =>
            item(`Copy onto ${one.name}`, { do: 'copy bay', bay: bay.index, onto: one.index }),
          )}
          <Menu.Divider />
          <Menu.Label>its row</Menu.Label>
          {item('Taller', { do: 'reshape', bay: bay.index, taller: 1, deeper: 0 })}
          {item('Lower', { do: 'reshape', bay: bay.index, taller: -1, deeper: 0 })}
          {item('Deeper', { do: 'reshape', bay: bay.index, taller: 0, deeper: 1 })}
          {item('Less deep', { do: 'reshape', bay: bay.index, taller: 0, deeper: -1 })}
          {item('Mirror', { do: 'mirror', bay: bay.index })}
          <Menu.Divider />
          <Menu.Label>stand it anew</Menu.Label>
          {families
            .filter((family) => family.name !== bay.family)
            .map((family) =>
              item(`in ${family.name.toLowerCase()}`, {
                do: 'swap family',
                bay: bay.index,
                family: family.id,
              }),
            )}
        </Menu.Dropdown>
      </Menu>
      <Menu position="top-start" shadow="md" closeOnItemClick={false}>
        <Menu.Target>
          <Button size="compact-sm" variant="default">
            Finish
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <FinishForm finish={design.finish} onChange={(finish) => edit({ do: 'finish', finish })} />
        </Menu.Dropdown>
      </Menu>
      <Button
        size="compact-sm"
        variant="default"
        loading={busy}
        title="What is locked stays; everything else is found anew"
        onClick={onRest}
      >
        Find the rest
      </Button>
    </div>
  )
}
