import { Button } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { useDesign } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import { NoDesign } from '../shell/NoDesign'
import type { StageProps } from '../shell/StageProps'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { Cuts } from './Cuts'

/** Buy: the priced list of the chosen design, and its file. */
export default function BuyStage({ house, space, design }: StageProps) {
  const query = useDesign(design)
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  if (design === null)
    return (
      <NoDesign
        says="A list comes from a design, and there is none yet."
        to={`/house/${house.id}/${space.id}/layout`}
      />
    )
  return (
    <Fetched query={query} waiting="Writing the list">
      {({ bill, elevation, title, id, version }) => (
        <main className="room buy">
          <Sheet title={elevation.title}>
            <Plate drawing={elevation} label={`${space.name}: ${title}`} marked={marked} />
          </Sheet>
          <section className="bench" aria-label="Bench">
            <div className="row" style={{ justifyContent: 'space-between' }}>
              <h2>
                {title}: {bill.lines.length} articles
              </h2>
              <Button
                component="a"
                href={`/api/designs/${id}/bill.csv`}
                download
                className="no-print"
                size="compact-md"
              >
                Save as CSV
              </Button>
            </div>
            <BillTable bill={bill} onMark={(parts) => setMarked(new Set(parts))} />
            <Cuts designId={id} version={version} />
          </section>
        </main>
      )}
    </Fetched>
  )
}

function BillTable({
  bill,
  onMark,
}: {
  bill: Schemas['BillView']
  onMark: (parts: readonly string[]) => void
}) {
  return (
    <table className="table bill">
      <thead>
        <tr>
          <th>Article</th>
          <th className="wide-only">Size</th>
          <th className="n wide-only">Needed</th>
          <th className="n">Buy</th>
          <th className="n">Each</th>
          <th className="n">Total {bill.currency}</th>
        </tr>
      </thead>
      <tbody>
        {bill.lines.map((line) => (
          <tr
            key={`${line.item} ${line.size}`}
            onMouseEnter={() => onMark(line.parts)}
            onMouseLeave={() => onMark([])}
          >
            <td>
              {line.parts.length > 0 ? (
                <button
                  type="button"
                  className="plain"
                  onFocus={() => onMark(line.parts)}
                  onBlur={() => onMark([])}
                >
                  {line.name}
                </button>
              ) : (
                line.name
              )}
              <span className="quiet phone-only">{line.size}</span>
            </td>
            <td className="wide-only">{line.size}</td>
            <td className="n wide-only">{line.needed}</td>
            <td className="n">
              {line.bought} {line.unit}
              {line.bought === 1 ? '' : 's'}
            </td>
            <td className="n">{line.each}</td>
            <td className="n">{line.total}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td>Total</td>
          <td className="wide-only" colSpan={2} />
          <td colSpan={2} />
          <td className="n" data-testid="bill-total">
            {bill.total}
          </td>
        </tr>
      </tfoot>
    </table>
  )
}
