import { Loader } from '@mantine/core'

import { said, type Schemas } from '../api/client'
import { Swatch } from '../sheet/Hatches'
import { Findings } from './Findings'
import { Why } from './Why'

export interface LedgerProps {
  ledger: Schemas['LedgerView'] | undefined
  error: unknown
  onShow?: (where: string) => void
}

/** The same on every stage: asked, given, spare; money and hours; what is wrong. */
export function Ledger({ ledger, error, onShow }: LedgerProps) {
  return (
    <aside className="ledger" aria-label="Ledger" tabIndex={0}>
      {error ? (
        <p role="alert">{said(error)}</p>
      ) : ledger ? (
        <Accounts ledger={ledger} {...(onShow ? { onShow } : {})} />
      ) : (
        <Loader size="sm" aria-label="Adding up" />
      )}
    </aside>
  )
}

function Accounts({ ledger, onShow }: { ledger: Schemas['LedgerView']; onShow?: (where: string) => void }) {
  return (
    <>
      <section>
        <h2>Ledger</h2>
        {ledger.lines.length === 0 ? (
          <p className="quiet">Nothing is asked for yet. Add things in Sort.</p>
        ) : (
          <>
            <div className="account-row small quiet" aria-hidden="true">
              <span>{ledger.design_title || 'no design yet'}</span>
              <span className="n">asked</span>
              <span className="n">given</span>
              <span className="n">spare</span>
            </div>
            {ledger.lines.map((line) => (
              <Line key={line.storage} line={line} />
            ))}
            {ledger.unplaced > 0 && (
              <p style={{ color: 'var(--stop)', margin: '6px 0 0' }}>
                {ledger.unplaced === 1 ? '1 piece has' : `${ledger.unplaced} pieces have`} no place.
              </p>
            )}
          </>
        )}
      </section>
      {ledger.cost !== null && (
        <section aria-label="Money and hours">
          <dl className="facts" style={{ fontSize: 14.5 }}>
            <dt>Cost</dt>
            <dd style={{ textAlign: 'right' }} data-testid="cost">
              {ledger.cost} {ledger.currency}
            </dd>
            {ledger.budget !== null && (
              <>
                <dt>Budget</dt>
                <dd style={{ textAlign: 'right' }}>
                  {ledger.budget} {ledger.currency}
                </dd>
              </>
            )}
            {ledger.hours !== null && ledger.hours_why && (
              <>
                <dt>To install</dt>
                <dd style={{ textAlign: 'right' }}>
                  <Why slip={ledger.hours_why} label="Hours">
                    {ledger.hours.toFixed(1)} h
                  </Why>
                </dd>
              </>
            )}
          </dl>
        </section>
      )}
      <section>
        <h2>What is wrong</h2>
        <Findings findings={ledger.findings} {...(onShow ? { onShow } : {})} />
      </section>
    </>
  )
}

function Line({ line }: { line: Schemas['LedgerLineView'] }) {
  const whole = Math.max(line.given ?? 0, line.asked, 1)
  const name = `${line.storage}, ${line.unit}`
  return (
    <div className="account-row" data-storage={line.storage}>
      <span>
        <Swatch storage={line.storage} />
        {line.storage}
      </span>
      <span className="n">
        <Why slip={line.why} label={name}>
          {line.asked_text}
        </Why>
      </span>
      <span className="n">{line.given_text}</span>
      <span
        className="n"
        style={line.spare !== null && line.spare < 0 ? { color: 'var(--stop)' } : undefined}
      >
        {line.spare_text}
      </span>
      <span className="unit">{line.unit}</span>
      <span
        className="bar"
        role="img"
        aria-label={`${name}: asked ${line.asked_text}, given ${line.given_text}`}
        style={{ color: `var(--${line.storage})` }}
      >
        <i style={{ width: `${(100 * line.asked) / whole}%` }} />
      </span>
    </div>
  )
}
