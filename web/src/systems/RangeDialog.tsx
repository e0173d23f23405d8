import { Alert, Anchor, Button, Modal, NumberInput, TextInput } from '@mantine/core'
import { useState } from 'react'

import { said, type Schemas } from '../api/client'
import type { OwnRange, RangeFields } from './useCatalogue'

type Rate = Schemas['Rate']
const RATES = [
  ['fixed', 'each'],
  ['per_m2', 'per m²'],
  ['per_m', 'per m'],
] as const

/** A range as it is edited: what is left empty stays as the family ships it. */
export function RangeDialog({
  houseId,
  own,
  currency,
  onKeep,
  onClose,
}: {
  houseId: number
  own: OwnRange
  currency: string
  onKeep: (fields: RangeFields) => Promise<void>
  onClose: () => void
}) {
  const [name, setName] = useState(own.name)
  const [about, setAbout] = useState(own.about)
  const [pitch, setPitch] = useState(own.pitch)
  const [sizes, setSizes] = useState(Object.fromEntries(own.sizes.map((size) => [size.name, size.own])))
  const [rates, setRates] = useState<Record<string, Partial<Rate>>>(
    Object.fromEntries(own.prices.flatMap((price) => (price.own ? [[price.kind, price.own]] : []))),
  )
  const [ratings, setRatings] = useState<Record<string, number>>(
    Object.fromEntries(own.ratings.flatMap((one) => (one.own ? [[one.role, one.own]] : []))),
  )
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const keep = () => {
    setBusy(true)
    setError('')
    onKeep({ name, about, pitch, sizes, rates: rates as Record<string, Rate>, ratings })
      .then(onClose)
      .catch((problem: unknown) => {
        setError(said(problem))
        setBusy(false)
      })
  }
  const setRate = (kind: string, part: keyof Rate, value: number | string) =>
    setRates((before) => {
      const { [kind]: old, ...others } = before
      const next = { ...old, [part]: value === '' ? 0 : Number(value) }
      return RATES.some(([one]) => next[one]) ? { ...others, [kind]: next } : others
    })
  const setRating = (role: string, value: number) =>
    setRatings((before) => {
      const others = Object.fromEntries(Object.entries(before).filter(([one]) => one !== role))
      return value ? { ...others, [role]: value } : others
    })
  return (
    <Modal opened onClose={onClose} size="xl" title={`${own.name}, made of ${own.family_name.toLowerCase()}`}>
      <form
        className="range-form"
        onSubmit={(event) => {
          event.preventDefault()
          keep()
        }}
      >
        <p className="quiet small">
          Grey figures are those that ship, all of them invented. What you leave empty stays so.
        </p>
        <div className="form-grid">
          <TextInput label="Name" value={name} onChange={(event) => setName(event.currentTarget.value)} />
          <TextInput
            label="In a sentence"
            value={about}
            placeholder={own.usual_about}
            onChange={(event) => setAbout(event.currentTarget.value)}
          />
          {own.sizes.map((size) => (
            <TextInput
              key={size.name}
              label={size.label.charAt(0).toUpperCase() + size.label.slice(1)}
              placeholder={size.usual || 'none'}
              value={sizes[size.name] ?? ''}
              onChange={(event) => {
                const { value } = event.currentTarget
                setSizes((before) => ({ ...before, [size.name]: value }))
              }}
            />
          ))}
          <TextInput
            label="Pitch"
            placeholder={own.usual_pitch}
            value={pitch}
            onChange={(event) => setPitch(event.currentTarget.value)}
          />
        </div>
        <h3>Prices, {currency}</h3>
        <div className="list-columns">
          <table className="table">
            <thead>
              <tr>
                <th>Article</th>
                {RATES.map(([part, words]) => (
                  <th key={part} className="n">
                    {words}
                  </th>
                ))}
                <th className="n">Listed</th>
              </tr>
            </thead>
            <tbody>
              {own.prices.map((price) => (
                <tr key={price.kind}>
                  <th scope="row">
                    {price.name}
                    {price.usual?.pack ? <span className="quiet">, {price.usual.pack} a pack</span> : null}
                  </th>
                  {RATES.map(([part, words]) => (
                    <td key={part} className="n">
                      {price.usual && (
                        <NumberInput
                          size="xs"
                          hideControls
                          min={0}
                          decimalScale={2}
                          aria-label={`${price.name}, ${words}`}
                          placeholder={price.usual[part] ? price.usual[part].toFixed(2) : ''}
                          value={rates[price.kind]?.[part] || ''}
                          onChange={(value) => setRate(price.kind, part, value)}
                        />
                      )}
                    </td>
                  ))}
                  <td className="n">{price.listed || '–'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {own.listed > 0 && (
          <p className="small">
            {own.listed} articles come from a supplier’s list and give the sizes; a listed price goes before
            these.{' '}
            <Anchor href={`/api/households/${houseId}/ranges/${own.key}/articles.csv`} download>
              The list as CSV
            </Anchor>
          </p>
        )}
        {own.reckoned.length > 0 && (
          <p className="quiet small">
            Without a price of its own, and reckoned as it ships: {own.reckoned.join(', ').toLowerCase()}.
          </p>
        )}
        <h3>What they carry, {own.mass_unit}</h3>
        <div className="form-grid narrow">
          {own.ratings.map((one) => (
            <NumberInput
              key={one.role}
              size="xs"
              hideControls
              min={0}
              decimalScale={1}
              label={`${one.role}${one.a_metre ? ', a metre' : ''}`}
              placeholder={String(one.usual)}
              value={ratings[one.role] ?? ''}
              onChange={(value) => setRating(one.role, Number(value))}
            />
          ))}
        </div>
        <div className="range-foot">
          {error && (
            <Alert color="red" variant="outline" role="alert">
              {error}
            </Alert>
          )}
          <Button type="submit" loading={busy}>
            Keep the range
          </Button>
          <Button variant="subtle" onClick={onClose}>
            Leave it as it was
          </Button>
        </div>
      </form>
    </Modal>
  )
}
