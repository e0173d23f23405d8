import { Button, Checkbox } from '@mantine/core'

import type { Schemas } from '../api/client'
import { asQuery, useVariants, type Ask, type Purchase } from './usePurchase'

interface Props {
  house: Schemas['HouseView']
  purchase: Purchase
  ask: Ask
  onAsk: (change: Partial<Ask>) => void
  onMark: (parts: readonly string[]) => void
}

/** The list of all chosen spaces: against the budget, other ways to buy, articles, and its files. */
export function BuyingList({ house, purchase, ask, onAsk, onMark }: Props) {
  const query = asQuery(ask)
  const path = `/api/households/${house.id}/purchase`
  return (
    <>
      <div className="row list-head">
        <h2>
          {purchase.lines.length} articles for {ask.designs.length}{' '}
          {ask.designs.length === 1 ? 'space' : 'spaces'}, about {purchase.hours} h
        </h2>
        <div className="row no-print">
          {(['csv', 'xlsx', 'pdf'] as const).map((kind) => (
            <Button
              key={kind}
              component="a"
              href={`${path}.${kind}?${query}`}
              {...(kind === 'pdf' ? { target: '_blank' } : { download: true })}
              size="compact-sm"
              variant={kind === 'csv' ? 'filled' : 'default'}
            >
              {kind === 'pdf' ? 'Print (PDF)' : `Save as ${kind.toUpperCase()}`}
            </Button>
          ))}
        </div>
      </div>
      {purchase.budget && (
        <p role="status" className={purchase.over ? 'misheard' : 'quiet'}>
          {purchase.budget} {purchase.leave_out?.says}{' '}
          {purchase.leave_out && purchase.leave_out.keys.length > 0 && (
            <Button
              size="compact-sm"
              variant="default"
              className="no-print"
              onClick={() => onAsk({ without: [...ask.without, ...(purchase.leave_out?.keys ?? [])] })}
            >
              Leave it out
            </Button>
          )}
        </p>
      )}
      <Spaces purchase={purchase} ask={ask} onAsk={onAsk} />
      <Variants houseId={house.id} ask={ask} onAsk={onAsk} />
      <Articles purchase={purchase} onMark={onMark} />
      {purchase.uncut.length > 0 && (
        <p className="quiet">
          Too large for what is sold, or for the car, so cut to measure: {purchase.uncut.join('; ')}.
        </p>
      )}
    </>
  )
}

function Spaces({ purchase, ask, onAsk }: Pick<Props, 'purchase' | 'ask' | 'onAsk'>) {
  if (purchase.spaces.length < 2) return null
  return (
    <details className="spaces-to-buy no-print">
      <summary>
        For{' '}
        {purchase.spaces
          .filter((one) => one.chosen)
          .map((one) => one.name)
          .join(', ')}
        : add other spaces to the list
      </summary>
      <div className="row">
        {purchase.spaces.map((one) => (
          <Checkbox
            key={one.space}
            size="xs"
            label={`${one.name}${one.chosen ? `, ${one.share} ${purchase.currency}` : ''}`}
            title={one.title}
            checked={ask.designs.includes(one.design)}
            disabled={one.design === ask.shown}
            onChange={(event) =>
              onAsk({
                designs: event.currentTarget.checked
                  ? [...ask.designs, one.design]
                  : ask.designs.filter((id) => id !== one.design),
              })
            }
          />
        ))}
      </div>
    </details>
  )
}

function Variants({ houseId, ask, onAsk }: Pick<Props, 'ask' | 'onAsk'> & { houseId: number }) {
  const query = useVariants(houseId, ask)
  if (query.isPending) return <div className="variants waiting" aria-hidden="true" />
  const others = query.data?.variants ?? []
  if (others.length === 0) return null
  return (
    <div className="variants no-print" role="group" aria-label="Other ways to buy">
      {others.map((one) => (
        <button
          key={one.key}
          type="button"
          className="variant"
          aria-pressed={one.chosen}
          onClick={() => onAsk({ cutting: one.cutting, without: one.without, grade: one.grade })}
        >
          <b>{one.name}</b>
          <span>
            {one.chosen && one.key.startsWith('without') ? 'Buy it after all: ' : ''}
            {one.chosen && one.key.startsWith('grade') ? 'As designed: ' : ''}
            {[one.money, one.hours].filter(Boolean).join(', ') ||
              (one.chosen ? 'as it is' : 'costs the same')}
          </span>
          <span className="quiet">{one.look}</span>
        </button>
      ))}
    </div>
  )
}

function Articles({ purchase, onMark }: Pick<Props, 'purchase' | 'onMark'>) {
  const several = purchase.spaces.filter((one) => one.chosen).length > 1
  return (
    <table className="table bill">
      <thead>
        <tr>
          <th>Article</th>
          <th className="wide-only">Size</th>
          {several && <th className="wide-only">For</th>}
          <th className="n wide-only">Needed</th>
          <th className="n">Buy</th>
          <th className="n">Each</th>
          <th className="n">Total {purchase.currency}</th>
        </tr>
      </thead>
      <tbody>
        {purchase.lines.map((line) => (
          <tr
            key={`${line.item} ${line.name} ${line.size} ${line.each}`}
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
            {several && <td className="wide-only quiet">{line.spaces.join(', ')}</td>}
            <td className="n wide-only">{line.needed}</td>
            <td className="n">
              {line.bought} {line.unit}
              {line.bought === 1 ? '' : 's'}
              {line.spare > 0 && <span className="quiet">, {line.spare} spare</span>}
            </td>
            <td className="n">{line.each}</td>
            <td className="n">{line.total}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td>Total</td>
          <td className="wide-only" colSpan={several ? 3 : 2} />
          <td colSpan={2} />
          <td className="n" data-testid="bill-total">
            {purchase.total}
          </td>
        </tr>
      </tfoot>
    </table>
  )
}
