import { Button } from '@mantine/core'

import type { Plan } from './useInstall'

/** How what stands is brought to level: packing, plinth, the line to scribe, feet, fillers. */
export function Bases({ plan, design }: { plan: Plan; design: number }) {
  return (
    <>
      {plan.bases.map((base) => (
        <section key={base.section} className="base">
          <h2>{base.name}</h2>
          {base.known ? (
            <p>
              The floor is highest {base.highest} from the left and {base.out_by} lower at its lowest. Begin
              at the highest point.
            </p>
          ) : (
            <p className="misheard">
              The floor was not read: how high to pack the base is not known. Read the falls in Measure before
              anything stands on it.
            </p>
          )}
          <div className="row tables">
            {base.packing.length > 0 && (
              <Places
                head={['From the left', 'Pack', '']}
                caption="Shims, in pairs"
                rows={base.packing}
                joints
              />
            )}
            {base.scribe.some((one) => Number.parseFloat(one.height) > 0) && (
              <Places
                head={['From the left', 'Cut off']}
                caption="Scribe line of the plinth"
                rows={base.scribe}
              />
            )}
            {base.feet.length > 0 && (
              <Places head={['From the left', 'Turns out']} caption="Feet" rows={base.feet} />
            )}
            <div>
              {base.plinth.length > 0 && (
                <p>
                  Plinth in{' '}
                  {base.plinth.length === 1 ? 'one length' : `${String(base.plinth.length)} lengths`}:{' '}
                  {base.plinth.join(', ')}.{' '}
                  {base.plinth.length > 1 && 'Each joint lies where two carcases meet.'}
                </p>
              )}
              {base.fillers.map((filler) => (
                <p key={filler.side}>
                  Filler at the {filler.side}: {filler.foot} wide at its foot, {filler.top} at its top,{' '}
                  {filler.height} high{filler.scribed ? '; scribed to the wall' : ''}.
                </p>
              ))}
              {base.scribe.length > 0 && (
                <Button
                  component="a"
                  href={`/api/designs/${String(design)}/strips.pdf`}
                  target="_blank"
                  size="compact-sm"
                  variant="default"
                >
                  Scribe line, full size (PDF)
                </Button>
              )}
            </div>
          </div>
        </section>
      ))}
    </>
  )
}

interface PlacesProps {
  caption: string
  head: readonly string[]
  rows: Plan['bases'][number]['packing']
  joints?: boolean
}

function Places({ caption, head, rows, joints }: PlacesProps) {
  return (
    <table className="table places">
      <caption>{caption}</caption>
      <thead>
        <tr>
          {head.map((text) => (
            <th key={text} className="n">
              {text}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.at}>
            <td className="n">{row.at}</td>
            <td className="n">{row.height}</td>
            {joints && <td className="quiet">{row.joint ? 'joint' : ''}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
