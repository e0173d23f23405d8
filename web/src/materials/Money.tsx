import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { Fetched } from '../shell/Fetched'
import { TakeOut } from '../shell/TakeOut'
import { useBuying, useMoney, type Ask } from './usePurchase'

type Kind = Schemas['MoneyData']['kind']
const KINDS: readonly Kind[] = ['ordered', 'received', 'returned']

/** The ledger of money: estimate, ordered, received, returned, spent, space by space. */
interface Props {
  house: Schemas['HouseView']
  /** The key of the space one stands in. */
  space: string
  ask: Ask
}

export function Money({ house, space, ask }: Props) {
  const query = useMoney(house.id, ask)
  return (
    <Fetched query={query} waiting="Adding up">
      {(money) => (
        <>
          <Accounts money={money} />
          <WriteDown house={house} space={space} ask={ask} />
          <Entries money={money} houseId={house.id} ask={ask} />
        </>
      )}
    </Fetched>
  )
}

function Accounts({ money }: { money: Schemas['MoneyView'] }) {
  return (
    <table className="table bill cuts">
      <caption>In {money.currency}; a return costs a trip, and the trip is counted.</caption>
      <thead>
        <tr>
          <th>Space</th>
          <th className="n">Estimate</th>
          <th className="n wide-only">Ordered</th>
          <th className="n">Received</th>
          <th className="n wide-only">Returned</th>
          <th className="n wide-only">Trips</th>
          <th className="n wide-only">Still due</th>
          <th className="n">Spent</th>
        </tr>
      </thead>
      <tbody>
        {money.accounts.slice(0, -1).map((one) => (
          <Line key={one.space} one={one} />
        ))}
      </tbody>
      <tfoot>
        {money.accounts.slice(-1).map((one) => (
          <Line key="all" one={one} />
        ))}
      </tfoot>
    </table>
  )
}

function Line({ one }: { one: Schemas['AccountView'] }) {
  return (
    <tr>
      <td>{one.name}</td>
      <td className="n">{one.estimate}</td>
      <td className="n wide-only">{one.ordered}</td>
      <td className="n">{one.received}</td>
      <td className="n wide-only">{one.returned}</td>
      <td className="n wide-only">{one.trips || '–'}</td>
      <td className="n wide-only">{one.due}</td>
      <td className="n">{one.spent}</td>
    </tr>
  )
}

function WriteDown({ house, space, ask }: Props) {
  const act = useBuying(house.id, ask)
  const [entry, setEntry] = useState<Schemas['MoneyData']>({
    space,
    kind: 'ordered',
    amount: '',
    what: '',
  })
  return (
    <form
      className="row no-print"
      style={{ alignItems: 'flex-end' }}
      onSubmit={(event) => {
        event.preventDefault()
        act.writeDown(entry, () => setEntry((before) => ({ ...before, amount: '', what: '' })))
      }}
    >
      <NativeSelect
        size="xs"
        label="What happened"
        value={entry.kind}
        data={[...KINDS]}
        onChange={(event) =>
          setEntry({ ...entry, kind: KINDS.find((kind) => kind === event.currentTarget.value) ?? 'ordered' })
        }
      />
      <TextInput
        size="xs"
        w={110}
        label="Amount"
        value={entry.amount}
        onChange={(event) => setEntry({ ...entry, amount: event.currentTarget.value })}
      />
      <NativeSelect
        size="xs"
        label="For"
        value={entry.space}
        data={house.spaces.map((one) => ({ value: one.key, label: one.name }))}
        onChange={(event) => setEntry({ ...entry, space: event.currentTarget.value })}
      />
      <TextInput
        size="xs"
        label="What"
        placeholder="shelves, first half"
        value={entry.what ?? ''}
        onChange={(event) => setEntry({ ...entry, what: event.currentTarget.value })}
      />
      <Button
        type="submit"
        size="xs"
        variant="default"
        disabled={!entry.amount.trim()}
        loading={act.isPending}
      >
        Write it down
      </Button>
    </form>
  )
}

function Entries({ money, houseId, ask }: { money: Schemas['MoneyView']; houseId: number; ask: Ask }) {
  const act = useBuying(houseId, ask)
  if (money.entries.length === 0) return <p className="quiet">Nothing was ordered yet.</p>
  return (
    <table className="table">
      <tbody>
        {money.entries.map((one) => (
          <tr key={one.key}>
            <td>{one.on}</td>
            <td>{one.kind}</td>
            <td>{one.space}</td>
            <td>{one.what}</td>
            <td className="n">{one.amount}</td>
            <td>
              <TakeOut label={`Take out ${one.kind} ${one.amount}`} onClick={() => act.strikeOut(one.key)} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
