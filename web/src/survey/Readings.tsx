import { Button, Menu } from '@mantine/core'
import { notifications } from '@mantine/notifications'

import { said, type Schemas } from '../api/client'
import { slotKey } from '../sheet/slot'
import { TakeOut } from '../shell/TakeOut'

type Remove = (id: string, label: string) => Promise<unknown>

/** Everything read, place by place; nothing is dropped unless a person takes it back. */
export function Readings({
  space,
  onRemove,
  onForm,
  onSheet,
}: {
  space: Schemas['SpaceView']
  onRemove: Remove
  onForm: () => void
  /** Type in a filled field sheet. */
  onSheet: () => void
}) {
  const read = space.slots.filter((slot) => slot.readings.length > 0)
  const studs = { label: 'studs', readings: space.studs, spread: '' }
  const rows = [...read.map((slot) => ({ key: slotKey(slot.slot), ...slot })), { key: 'studs', ...studs }]
  const remove: Remove = (id, label) =>
    onRemove(id, label).catch((error: unknown) => notifications.show({ color: 'red', message: said(error) }))
  return (
    <section className="readings" aria-label="Readings">
      <div className="row" style={{ justifyContent: 'space-between', gap: '2px 10px' }}>
        <h2>Readings</h2>
        <span className="row" style={{ gap: 6 }}>
          <Papers
            spaceId={space.id}
            drawers={space.sections.some((section) => section.kind === 'drawer')}
            onSheet={onSheet}
          />
          <Button size="compact-sm" variant="default" onClick={onForm}>
            Walls, doors, obstacles…
          </Button>
        </span>
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
                  {row.spread && <span className="quiet"> {row.spread}</span>}
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
          {space.facts.map(([name, value]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td>{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

const SCALES = [
  ['10', '1:10'],
  ['20', '1:20'],
  ['12', '1 in to the foot'],
  ['24', '1/2 in to the foot'],
] as const

/** Paper: the blank field sheet, the filled one typed in, and the drawings to scale. */
function Papers({ spaceId, drawers, onSheet }: { spaceId: number; drawers: boolean; onSheet: () => void }) {
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Button size="compact-sm" variant="default">
          Paper…
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item component="a" href={`/api/spaces/${spaceId}/field-sheet.pdf`} target="_blank">
          Blank field sheet (PDF)
        </Menu.Item>
        <Menu.Item onClick={onSheet}>Type in a filled field sheet…</Menu.Item>
        {drawers && (
          <Menu.Item component="a" href={`/api/spaces/${spaceId}/floors.pdf`} target="_blank">
            Floors of the drawers, full size (PDF)
          </Menu.Item>
        )}
        <Menu.Divider />
        {SCALES.map(([scale, name]) => (
          <Menu.Item
            key={scale}
            component="a"
            href={`/api/spaces/${spaceId}/drawing.pdf?scale=${scale}`}
            target="_blank"
          >
            Drawings at {name} (PDF)
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
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
      <TakeOut label={`Take back ${label} ${text}`} onClick={() => void onRemove(id, `take back ${label}`)} />
    </span>
  )
}
