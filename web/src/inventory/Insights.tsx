import type { Schemas } from '../api/client'

/** What the demand would be otherwise, what the next purge would save, what lies over, what the house has already. */
export function Insights({ things }: { things: Schemas['ThingsView'] }) {
  return (
    <div className="insights">
      <Fold title="By person">
        {things.by_owner.map(([owner, lines]) => (
          <p key={owner}>
            <b>{owner}</b> {lines.map((line) => `${line.label} ${line.asked}`).join(', ')}
          </p>
        ))}
      </Fold>
      {things.by_zone.length > 1 && (
        <Fold title="By zone">
          {things.by_zone.map(([zone, lines]) => (
            <p key={zone}>
              <b>{zone}</b> {lines.map((line) => `${line.label} ${line.asked}`).join(', ')}
            </p>
          ))}
        </Fold>
      )}
      {things.purge.length > 0 && (
        <Fold title="One more purge">
          {things.purge.map((step) => (
            <p key={step.thing}>{step.says}</p>
          ))}
        </Fold>
      )}
      {things.schools.length > 0 && (
        <Fold title="Under other rules">
          {things.schools.map((school) => (
            <p key={school.rule + school.choice}>
              {school.rule}: {school.choice} <span className="quiet">{school.changes}</span>
            </p>
          ))}
        </Fold>
      )}
      {things.over_stock.length > 0 && (
        <Fold title={`Over the back stock: ${things.over_stock.length}`}>
          {things.over_stock.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </Fold>
      )}
      {things.offers.length > 0 && (
        <Fold title={`The house has boxes for ${things.offers.length}`}>
          {things.offers.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </Fold>
      )}
      {things.sockets > 0 && <p className="quiet">{things.sockets} groups want a socket.</p>}
    </div>
  )
}

function Fold({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <details>
      <summary>{title}</summary>
      {children}
    </details>
  )
}
