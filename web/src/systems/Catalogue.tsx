import { Alert, Button, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'

import { said, type Schemas } from '../api/client'
import { BringList } from '../shell/BringList'
import { Fetched } from '../shell/Fetched'
import { TakeOut } from '../shell/TakeOut'
import { inUnits, useUnits } from '../shell/units'
import { RangeDialog } from './RangeDialog'
import { useCatalogue, useCatalogueChange, type CatalogueChange, type OwnRange } from './useCatalogue'

type Shown = { houseId: number; catalogue: Schemas['CatalogueView']; change: CatalogueChange }
const LIDS = ['none', 'lift', 'screw', 'flap'] as const

/** What the house can buy: its own ranges of parts, and containers. */
export function Catalogue({ houseId }: { houseId: number }) {
  const query = useCatalogue(houseId)
  const change = useCatalogueChange(houseId)
  return (
    <Fetched query={query} waiting="Fetching what can be bought">
      {(catalogue) => (
        <>
          <Containers houseId={houseId} catalogue={catalogue} change={change} />
          <Ranges houseId={houseId} catalogue={catalogue} change={change} />
        </>
      )}
    </Fetched>
  )
}

/** Runs an act, says what was wrong with it, and tells whether it is under way. */
function useAct() {
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const act = (what: () => Promise<unknown>, then?: () => void) => {
    setBusy(true)
    setError('')
    what()
      .then(then)
      .catch((problem: unknown) => setError(said(problem)))
      .finally(() => setBusy(false))
  }
  return { act, busy, error }
}

function Wrong({ error }: { error: string }) {
  if (!error) return null
  return (
    <Alert color="red" variant="outline" role="alert" mt="sm">
      {error}
    </Alert>
  )
}

function Ranges({ houseId, catalogue, change }: Shown) {
  const { act, busy, error } = useAct()
  const [family, setFamily] = useState('carcase')
  const [name, setName] = useState('')
  const [edited, setEdited] = useState<string | null>(null)
  const [listing, setListing] = useState<OwnRange | null>(null)
  const open = catalogue.ranges.find((own) => own.key === edited)
  return (
    <div className="panel across" data-testid="ranges">
      <h2>Own ranges of parts</h2>
      <p className="quiet small">
        Sizes, prices and ratings of what you really buy. A range stands in the place of the family it is made
        of, in every search from then on; designs keep what they were made of.
      </p>
      {catalogue.ranges.length > 0 && (
        <table className="table">
          <thead>
            <tr>
              <th>Range</th>
              <th>Made of</th>
              <th>Sizes</th>
              <th className="n">Listed</th>
              <th>
                <span className="visually-hidden">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {catalogue.ranges.map((own) => (
              <tr key={own.key}>
                <th scope="row">{own.name}</th>
                <td>{own.family_name}</td>
                <td>{own.summary}</td>
                <td className="n">{own.listed || '–'}</td>
                <td>
                  <div className="row tight end">
                    <Button size="compact-xs" variant="default" onClick={() => setEdited(own.key)}>
                      Change<span className="visually-hidden"> {own.name}</span>
                    </Button>
                    <Button size="compact-xs" variant="default" onClick={() => setListing(own)}>
                      Supplier’s list<span className="visually-hidden"> for {own.name}</span>
                    </Button>
                    <TakeOut label={`Take out ${own.name}`} onClick={() => act(() => change.remove(own))} />
                  </div>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <form
        className="row foot"
        onSubmit={(event) => {
          event.preventDefault()
          act(
            async () => {
              const next = await change.make(family, name)
              setEdited(next.ranges.at(-1)?.key ?? null)
            },
            () => setName(''),
          )
        }}
      >
        <NativeSelect
          label="Made of"
          value={family}
          data={catalogue.families.map((one) => ({ value: one.id, label: one.name }))}
          onChange={(event) => setFamily(event.currentTarget.value)}
        />
        <TextInput
          label="Name of the range"
          placeholder="as the supplier calls it"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" loading={busy} disabled={!name.trim()}>
          Make a range
        </Button>
      </form>
      <Wrong error={error} />
      {open && (
        <RangeDialog
          key={`${open.key}-${open.version}`}
          houseId={houseId}
          own={open}
          currency={catalogue.currency}
          onKeep={(fields) => change.change(open, fields)}
          onClose={() => setEdited(null)}
        />
      )}
      {listing && (
        <BringList
          title={`Supplier’s list for ${listing.name}`}
          about={`One article a row, with its price and sizes. Articles: ${listing.prices
            .map((price) => price.name.toLowerCase())
            .join(', ')}.`}
          sample={'article\twidth\tdepth\theight\tprice\nshelf\t800\t400\t\t12.50'}
          rows="articles"
          look={change.look}
          take={(form) => change.takeArticles(listing.key, form)}
          onClose={() => setListing(null)}
        />
      )}
    </div>
  )
}

function Containers({ houseId, catalogue, change }: Shown) {
  const units = useUnits(houseId)
  const { act, busy, error } = useAct()
  const [name, setName] = useState('')
  const [size, setSize] = useState('')
  const [price, setPrice] = useState('')
  const [lid, setLid] = useState<(typeof LIDS)[number]>('none')
  const [bringing, setBringing] = useState(false)
  return (
    <div className="panel" data-testid="containers">
      <h2>Containers you can buy</h2>
      <p className="quiet small">
        {catalogue.containers.length
          ? 'Designs choose among these, and no longer among those that come with the program.'
          : 'List what your shop has, and designs choose among that; until then they use invented bins and boxes.'}
      </p>
      <table className="table">
        <tbody>
          {catalogue.containers.map((box) => (
            <tr key={box.key}>
              <th scope="row">{box.name}</th>
              <td>{box.size}</td>
              <td>{box.litres}</td>
              <td>{box.lid === 'none' ? 'open' : `${box.lid} lid`}</td>
              <td className="n">{box.price}</td>
              <td>
                <TakeOut
                  label={`Take ${box.name} off the list of containers`}
                  onClick={() => act(() => change.dropContainer(box.key))}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <form
        className="row foot"
        onSubmit={(event) => {
          event.preventDefault()
          act(
            () => change.listContainer({ name, size, price, lid }),
            () => {
              setName('')
              setSize('')
              setPrice('')
            },
          )
        }}
      >
        <TextInput
          label="Container"
          placeholder="felt bin"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <TextInput
          label="Outside size"
          placeholder={inUnits(units, '320 x 380 x 220', '12 x 15 x 8 1/2')}
          value={size}
          onChange={(event) => setSize(event.currentTarget.value)}
        />
        <TextInput
          label={`Price, ${catalogue.currency}`}
          w={90}
          value={price}
          inputMode="decimal"
          onChange={(event) => setPrice(event.currentTarget.value)}
        />
        <NativeSelect
          label="Lid"
          value={lid}
          data={LIDS}
          onChange={(event) => setLid(LIDS.find((one) => one === event.currentTarget.value) ?? 'none')}
        />
        <Button
          type="submit"
          variant="default"
          loading={busy}
          disabled={!name.trim() || !size.trim() || !price.trim()}
        >
          List it
        </Button>
        <Button variant="subtle" onClick={() => setBringing(true)}>
          Bring a list
        </Button>
      </form>
      <Wrong error={error} />
      {bringing && (
        <BringList
          title="Containers from a supplier’s list"
          sample={'name\twidth\tdepth\theight\tprice\tlid\nfelt bin\t300\t300\t280\t9.00\tnone'}
          rows="containers"
          look={change.look}
          take={change.takeContainers}
          onClose={() => setBringing(false)}
        />
      )}
    </div>
  )
}
