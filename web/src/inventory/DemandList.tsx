import type { Schemas } from '../api/client'
import { Why } from '../shell/Why'
import { Swatch } from '../sheet/Hatches'
import { Insights } from './Insights'

/** What the things that stay ask of storage, class by class. */
export function DemandList({ things }: { things: Schemas['ThingsView'] }) {
  return (
    <section className="demand" aria-label="Demand">
      <h2>Asked of storage</h2>
      <p className="quiet small">
        {things.pieces} pieces stay{things.undecided > 0 && `, ${things.undecided} groups undecided`}
        {things.leaving > 0 && `; ${things.leaving} pieces leave`}.
      </p>
      <table className="table">
        <tbody>
          {things.demand.map((line) => (
            <tr key={line.label}>
              <td>
                <Swatch storage={line.storage} />
                {line.label}
              </td>
              <td className="n">
                <Why slip={line.why} label={line.label}>
                  {line.asked}
                </Why>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Insights things={things} />
    </section>
  )
}
