import { Button, NumberInput, TextInput } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { BringList } from '../shell/BringList'
import { Fetched } from '../shell/Fetched'
import { TakeOut } from '../shell/TakeOut'
import { useBuying, useShops, type Ask } from './usePurchase'

/** Where to buy: the cheapest way from several suppliers, and each alone. */
export function Shops({ houseId, ask, currency }: { houseId: number; ask: Ask; currency: string }) {
  const query = useShops(houseId, ask)
  return (
    <Fetched query={query} waiting="Asking the suppliers">
      {(shopping) => (
        <>
          <Baskets shopping={shopping} currency={currency} />
          <Lists houseId={houseId} ask={ask} shopping={shopping} />
        </>
      )}
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

/** Suppliers' own lists, each with the day of its prices. */
function Lists({ houseId, ask, shopping }: { houseId: number; ask: Ask; shopping: Schemas['ShoppingView'] }) {
  const act = useBuying(houseId, ask)
  const [name, setName] = useState('')
  const [delivery, setDelivery] = useState('')
  const [days, setDays] = useState(1)
  const [bringing, setBringing] = useState(false)
  const withSupplier = (form: FormData) => {
    form.append('name', name)
    form.append('delivery', delivery)
    form.append('days', String(days))
    return form
  }
  return (
    <section aria-label="Suppliers’ lists" className="cuts no-print">
      <h2>Suppliers’ lists</h2>
      {shopping.lists.length === 0 && (
        <p className="quiet">
          Bring a supplier’s list as CSV or XLSX: articles with their sizes, prices, packs and stock. They are
          compared with the others.
        </p>
      )}
      <ul className="sawing">
        {shopping.lists.map((one) => (
          <li key={one.key}>
            {one.name}: {one.rows} {one.rows === 1 ? 'article' : 'articles'}, prices of {one.on}
            <TakeOut label={`Take the list of ${one.name} away`} onClick={() => act.dropPrices(one.key)} />
          </li>
        ))}
      </ul>
      <div className="row" style={{ alignItems: 'flex-end' }}>
        <TextInput
          size="xs"
          label="Supplier"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <TextInput
          size="xs"
          w={110}
          label="Delivery costs"
          placeholder="nothing"
          value={delivery}
          onChange={(event) => setDelivery(event.currentTarget.value)}
        />
        <NumberInput
          size="xs"
          w={90}
          label="Takes days"
          min={0}
          max={365}
          value={days}
          onChange={(value) => setDays(Number(value) || 0)}
        />
        <Button size="xs" variant="default" disabled={!name.trim()} onClick={() => setBringing(true)}>
          Bring its list…
        </Button>
      </div>
      {bringing && (
        <BringList
          title={`The list of ${name}`}
          about="One article a row, named as on the list to buy. A size that is left empty fits all."
          sample={
            'article\twidth\tdepth\theight\tprice\tpack\tstock\nParticleboard\t2440\t1220\t18\t31.90\t1\t12'
          }
          rows="articles"
          look={act.lookAtPrices}
          take={(form) => act.takePrices(withSupplier(form))}
          onClose={() => setBringing(false)}
        />
      )}
    </section>
  )
}
