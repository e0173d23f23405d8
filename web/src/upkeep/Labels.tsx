import { Button, Checkbox, NativeSelect, NumberInput, Popover } from '@mantine/core'
import { useState } from 'react'

import { api, body } from '../api/client'
import { useTell } from './useTell'
import type { Acts, Upkeep } from './useUpkeep'

interface Props {
  space: number
  upkeep: Upkeep
  acts: Acts
  sheet: string
  onSheet: (sheet: string) => void
  pictured: boolean
  onPictured: (pictured: boolean) => void
}

/** Labels of the places that are chosen, on a sheet as it is sold; what changed since its label was printed comes first. */
export function Labels({ space, upkeep, acts, sheet, onSheet, pictured, onPictured }: Props) {
  const filled = upkeep.places.filter((place) => place.stays.length > 0)
  const [off, setOff] = useState<ReadonlySet<number>>(new Set())
  const [first, setFirst] = useState(1)
  const chosen = filled.filter((place) => !off.has(place.id))
  const stale = filled.filter((place) => place.outdated || !place.printed_on)
  if (filled.length === 0)
    return <p className="quiet">Nothing lies in a place yet that a label could name.</p>
  const most = upkeep.sheets.find((one) => one.id === sheet)?.count ?? 1
  const query = new URLSearchParams([
    ['sheet', sheet],
    ['first', String(Math.min(first, most) - 1)],
    ['pictured', String(pictured)],
    ...chosen.map((place) => ['places', String(place.id)]),
  ])
  return (
    <>
      <div className="row labels-head no-print">
        <NativeSelect
          size="xs"
          label="Label sheet"
          value={sheet}
          data={upkeep.sheets.map((one) => ({ value: one.id, label: one.name }))}
          onChange={(event) => onSheet(event.currentTarget.value)}
        />
        <NumberInput
          size="xs"
          w={130}
          label="First free label"
          value={first}
          min={1}
          max={most}
          onChange={(value) => setFirst(Math.min(Math.max(Number(value) || 1, 1), most))}
        />
        <Button
          component="a"
          href={`/api/spaces/${String(space)}/labels.pdf?${query.toString()}`}
          target="_blank"
          disabled={chosen.length === 0}
          onClick={() => void acts.printed(chosen.map((place) => place.id))}
        >
          {chosen.length === 1 ? 'Print 1 label' : `Print ${String(chosen.length)} labels`}
        </Button>
        <Strips space={space} places={chosen.map((place) => place.id)} />
        {stale.length > 0 && stale.length < filled.length && (
          <Button
            variant="default"
            onClick={() => setOff(new Set(filled.filter((one) => !stale.includes(one)).map((one) => one.id)))}
          >
            Only what changed: {stale.length}
          </Button>
        )}
      </div>
      <Checkbox
        className="no-print"
        size="xs"
        label="With a picture, for those who cannot read yet"
        checked={pictured}
        onChange={(event) => onPictured(event.currentTarget.checked)}
      />
      <p className="quiet small">
        Stick each level and centred on the face that is seen; on a shelf’s front edge under the middle of its
        things.
      </p>
      <ul className="labels" aria-label="Labels">
        {filled.map((place) => (
          <li key={place.id}>
            <Checkbox
              size="xs"
              checked={!off.has(place.id)}
              aria-label={`Label of ${place.name}`}
              onChange={(event) => {
                const next = new Set(off)
                if (event.currentTarget.checked) next.delete(place.id)
                else next.add(place.id)
                setOff(next)
              }}
            />
            <div className="label">
              <b>{place.title}</b>
              {place.lines.map((line) => (
                <span key={line}>{line}</span>
              ))}
              {place.title !== place.name && <small className="quiet">{place.name}</small>}
              {place.printed_on && (
                <small className={place.outdated ? 'misheard' : 'quiet'}>
                  {place.outdated
                    ? `out of date since it was printed on ${place.printed_on}`
                    : `printed on ${place.printed_on}`}
                </small>
              )}
              {place.stick && <small className="quiet">{place.stick}</small>}
              {place.left_out && <small className="misheard">does not go on: {place.left_out}</small>}
            </div>
          </li>
        ))}
      </ul>
    </>
  )
}

const TAPES = [
  { value: 'tape-9', label: '9 mm tape' },
  { value: 'tape-12', label: '12 mm tape' },
  { value: 'tape-18', label: '18 mm tape' },
  { value: 'tape-24', label: '24 mm tape' },
]

/** The same labels on tape, or as letters to cut from film. */
function Strips({ space, places }: { space: number; places: readonly number[] }) {
  const tell = useTell()
  const [tape, setTape] = useState('tape-12')
  const [said, setSaid] = useState('')
  const print = () =>
    tell(async () => {
      const answer = await body(
        api.POST('/api/spaces/{space_id}/strips', {
          params: { path: { space_id: space } },
          body: { places: [...places], tape },
        }),
      )
      const out = answer.strips.filter((one) => one.left_out).map((one) => `${one.name}: ${one.left_out}`)
      setSaid(
        `${String(answer.strips.length)} strips printed into ${answer.folder}${out.length > 0 ? `; not on them: ${out.join('; ')}` : ''}.`,
      )
    })
  const letters = new URLSearchParams(places.map((place) => ['places', String(place)])).toString()
  return (
    <Popover width={300} position="bottom-start" withinPortal>
      <Popover.Target>
        <Button variant="default" disabled={places.length === 0}>
          Tape or film
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className="inside">
          <div className="row labels-head">
            <NativeSelect
              size="xs"
              label="Label printer"
              value={tape}
              data={TAPES}
              onChange={(event) => setTape(event.currentTarget.value)}
            />
            <Button size="compact-sm" onClick={() => void print()}>
              Print strips
            </Button>
          </div>
          {said && <p role="status">{said}</p>}
          <div className="row">
            <Button
              component="a"
              download
              size="compact-sm"
              variant="default"
              href={`/api/spaces/${String(space)}/labels.svg?${letters}`}
            >
              Letters to cut (SVG)
            </Button>
            <Button
              component="a"
              download
              size="compact-sm"
              variant="default"
              href={`/api/spaces/${String(space)}/labels.svg?mirrored=true&${letters}`}
            >
              Mirrored
            </Button>
          </div>
        </div>
      </Popover.Dropdown>
    </Popover>
  )
}
