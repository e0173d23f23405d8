import type { Schemas } from '../api/client'
import { Fetched } from '../shell/Fetched'
import { useShops, type Ask } from './usePurchase'

/** Where to buy: the cheapest way from several suppliers, and each alone. */
export function Shops({ houseId, ask, currency }: { houseId: number; ask: Ask; currency: string }) {
  const query = useShops(houseId, ask)
  return (
    <Fetched query={query} waiting="Asking the suppliers">
      {(shopping) => <Baskets shopping={shopping} currency={currency} />}
    </Fetched>
  )
}

function Baskets({ shopping, currency }: { shopping: Schemas['ShoppingView']; currency: string }) {
  return (
    <>
      <h2>The cheapest way: {shopping.says}</h2>
      <p className="quiet">
        Prices and stock of {shopping.day}, from the simulated suppliers that ship with this program.
      </p>
      {shopping.lacking.length > 0 && (
        <p className="misheard">
          Nobody has enough today of: {shopping.lacking.join(', ')}. Ask again another day, or change the
          design.
        </p>
      )}
      {shopping.baskets.map((basket) => (
        <table key={basket.name} className="table cuts">
          <caption>
            {basket.name}: {basket.total} {currency}, there in {basket.days}{' '}
            {basket.days === 1 ? 'day' : 'days'}
          </caption>
          <tbody>
            {basket.lines.map((line) => (
              <tr key={`${line.name} ${line.size}`}>
                <td>{line.name}</td>
                <td className="wide-only">{line.size}</td>
                <td className="n">{line.pieces}</td>
                <td className="n">{line.total}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      <section className="cuts" aria-label="Everything from one">
        <h2>Everything from one</h2>
        <table className="table">
          <tbody>
            {shopping.alone.map((one) => (
              <tr key={one.name}>
                <th scope="row">{one.name}</th>
                <td>{one.says}</td>
                <td>
                  {one.lacks > 0
                    ? `lacks ${one.lacks} ${one.lacks === 1 ? 'article' : 'articles'}`
                    : 'has all of it'}
                </td>
                <td className="n">{one.more}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  )
}
