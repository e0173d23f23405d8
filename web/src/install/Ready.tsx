import type { Plan } from './useInstall'

/** Tools, bits and small things to lay ready before the first step. */
export function Ready({ plan }: { plan: Plan }) {
  return (
    <div className="ready">
      <List head="Tools" rows={plan.tools} />
      {plan.bits.length > 0 && <List head="Bits" rows={plan.bits} />}
      {plan.small.length > 0 && (
        <List head="Into the wall and under the base, a tenth spare" rows={plan.small} />
      )}
      {plan.lights.length > 0 && <List head="Lights" rows={plan.lights} />}
    </div>
  )
}

function List({ head, rows }: { head: string; rows: readonly string[] }) {
  return (
    <section>
      <h2>{head}</h2>
      <ul>
        {rows.map((row) => (
          <li key={row}>{row}</li>
        ))}
      </ul>
    </section>
  )
}
