import { ActionIcon, Button } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconX } from '@tabler/icons-react'

import { said, type Schemas } from '../api/client'
import { slotKey } from '../sheet/slot'

type Remove = (id: string, label: string) => Promise<unknown>

/** Everything read, place by place; nothing is dropped unless a person takes it back. */
export function Readings({
  space,
  onRemove,
  onForm,
}: {
  space: Schemas['SpaceView']
  onRemove: Remove
  onForm: () => void
}) {
  const read = space.slots.filter((slot) => slot.readings.length > 0)
  const studs = { label: 'studs', readings: space.studs }
  const rows = [...read.map((slot) => ({ key: slotKey(slot.slot), ...slot })), { key: 'studs', ...studs }]
  const remove: Remove = (id, label) =>
    onRemove(id, label).catch((error: unknown) => notifications.show({ color: 'red', message: said(error) }))
  return (
    <section className="readings" aria-label="Readings">
      <div className="row" style={{ justifyContent: 'space-between' }}>
        <h2>Readings</h2>
        <Button size="compact-sm" variant="default" onClick={onForm}>
          Door, wall, obstacles…
        </Button>
      </div>
      <table className="table">
        <tbody>
          {rows
            .filter((row) => row.readings.length > 0)
            .map((row) => (
              <tr key={row.key}>
                <th scope="row">{row.label}</th>
                <td>
                  {row.readings.map((reading) => (
                    <Taken
                      key={reading.id}
                      id={reading.id}
                      text={reading.text}
                      title={reading.by}
                      label={row.label}
                      onRemove={remove}
                    />
                  ))}
                </td>
              </tr>
            ))}
          {space.obstacles.map((obstacle) => (
            <tr key={obstacle.id}>
              <th scope="row">{obstacle.name}</th>
              <td>
                <Taken
                  id={obstacle.id}
                  text={obstacle.text}
                  title=""
                  label={obstacle.name}
                  onRemove={remove}
                />
              </td>
            </tr>
          ))}
          <tr>
            <th scope="row">door</th>
            <td>{space.door}</td>
          </tr>
        </tbody>
      </table>
    </section>
  )
}

function Taken({
  id,
  text,
  title,
  label,
  onRemove,
}: {
  id: string
  text: string
  title: string
  label: string
  onRemove: Remove
}) {
  return (
    <span className="taken" title={title}>
      {text}
      <ActionIcon
        size={24}
        variant="subtle"
        color="gray"
        className="no-print"
        aria-label={`Take back ${label} ${text}`}
        onClick={() => void onRemove(id, `take back ${label}`)}
      >
        <IconX size={13} />
      </ActionIcon>
    </span>
  )
}
