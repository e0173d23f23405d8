import { Button, TextInput } from '@mantine/core'
import { useState } from 'react'

import type { Schemas } from '../api/client'
import { TakeOut } from '../shell/TakeOut'
import { asQuery, useBuying, useVariants, type Ask, type Purchase } from './usePurchase'

interface Props {
  houseId: number
  purchase: Purchase
  ask: Ask
  onAsk: (change: Partial<Ask>) => void
  shown: Schemas['Drawing'] | null
  onShow: (drawing: Schemas['Drawing']) => void
}

/** How whole sheets and boards are sawn: diagrams, cut lists, what is done already, and the papers for the saw. */
export function CutPlans({ houseId, purchase, ask, onAsk, shown, onShow }: Props) {
  const query = asQuery(ask)
  const path = `/api/households/${houseId}`
  const offered = (useVariants(houseId, ask).data?.variants ?? []).filter(
    (one) => one.cutting !== 'measure' && !/^(without|grade)/.test(one.key),
  )
  if (ask.cutting === 'measure')
    return offered.length === 0 ? (
      <p className="quiet">Nothing of this design is cut from sheets or boards.</p>
    ) : (
      <div className="row">
        <p>Everything is bought ready, or cut to measure by the supplier.</p>
        {offered.map((one) => (
          <Button
            key={one.key}
            size="compact-sm"
            variant="default"
            onClick={() => onAsk({ cutting: one.cutting })}
          >
            {one.name}
            {one.money && ` (${one.money})`}
          </Button>
        ))}
      </div>
    )
  return (
    <>
      <div className="row no-print saw-bar">
        <Said
          label="Kerf of the saw"
          value={ask.kerf}
          plain={purchase.kerf}
          onSay={(kerf) => onAsk({ kerf })}
        />
        <Said
          label="Longest that fits the car"
          value={ask.longest}
          plain="delivered"
          onSay={(longest) => onAsk({ longest })}
        />
        {purchase.plans.length > 0 && (
          <>
            <Button component="a" href={`${path}/cuts.pdf?${query}`} target="_blank" size="compact-sm">
              Cut sheets (PDF)
            </Button>
            <Button
              component="a"
              href={`${path}/labels.pdf?${query}`}
              target="_blank"
              size="compact-sm"
              variant="default"
            >
              Labels (PDF)
            </Button>
            {purchase.plans.some((plan) => plan.kind === 'sheet') && (
              <Button
                component="a"
                href={`${path}/cuts.dxf?${query}`}
                download
                size="compact-sm"
                variant="default"
              >
                Sheets (DXF)
              </Button>
            )}
          </>
        )}
      </div>
      {purchase.plans.map((plan) => (
        <Plan key={plan.name} houseId={houseId} plan={plan} ask={ask} shown={shown} onShow={onShow} />
      ))}
      <SawnList houseId={houseId} purchase={purchase} ask={ask} />
      {purchase.uncut.length > 0 && (
        <p className="quiet">
          Too large for what is sold, or for the car, so cut to measure: {purchase.uncut.join('; ')}.
        </p>
      )}
    </>
  )
}

/** A length that is kept when it is left or entered. */
function Said({
  label,
  value,
  plain,
  onSay,
}: {
  label: string
  value: string
  plain: string
  onSay: (text: string) => void
}) {
  const [text, setText] = useState(value)
  return (
    <TextInput
      size="xs"
      w={150}
      label={label}
      placeholder={plain}
      value={text}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => text.trim() !== value && onSay(text.trim())}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    />
  )
}

function Plan({
  houseId,
  plan,
  ask,
  shown,
  onShow,
}: Pick<Props, 'houseId' | 'ask' | 'shown' | 'onShow'> & { plan: Schemas['PlanView'] }) {
  const act = useBuying(houseId, ask)
  return (
    <section aria-label={plan.name} className="cuts">
      <h2>{plan.name}</h2>
      <p>
        {plan.bought && `Buy ${plan.bought}. `}
        {plan.says} <span className="quiet">{plan.rests}</span>
      </p>
      <ol className="sawing">
        {plan.diagrams.flatMap((diagram) =>
          diagram.labels.map((labels, n) => (
            <li key={labels.join(' ')}>
              <button
                type="button"
                className="plain"
                aria-pressed={shown?.title.sheet === diagram.drawing.title.sheet}
                onClick={() => onShow(diagram.drawing)}
              >
                {diagram.stock[n]}: {labels.join(', ')}
              </button>
              <Button
                size="compact-xs"
                variant="default"
                className="no-print"
                loading={act.isPending}
                aria-label={`Sawn: ${labels.join(', ')}`}
                onClick={() => act.tick(labels)}
              >
                Sawn
              </Button>
            </li>
          )),
        )}
      </ol>
      <table className="table">
        <thead>
          <tr>
            <th>Label</th>
            <th>Part</th>
            <th className="wide-only">For</th>
            <th>Finished</th>
            <th>Cut</th>
            <th className="n wide-only">Bands</th>
          </tr>
        </thead>
        <tbody>
          {plan.parts.map((part) => (
            <tr key={part.id}>
              <th scope="row">{part.label}</th>
              <td>
                {part.name}
                {part.shaped && <span className="quiet">, then to its shape</span>}
              </td>
              <td className="wide-only">{part.space}</td>
              <td>{part.finished}</td>
              <td>
                {part.cut}
                {!part.turns && plan.kind === 'sheet' && <span className="quiet"> along the grain</span>}
              </td>
              <td className="n wide-only">{part.bands || '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

function SawnList({ houseId, purchase, ask }: Pick<Props, 'houseId' | 'purchase' | 'ask'>) {
  const act = useBuying(houseId, ask)
  if (purchase.sawn.length === 0) return null
  return (
    <section aria-label="Sawn already" className="cuts">
      <h2>Sawn already</h2>
      <p className="quiet">What is spoiled is planned anew from what is left.</p>
      <ul className="sawing">
        {purchase.sawn.map((one) => (
          <li key={one.key}>
            <span>
              {one.name}, {one.size}:
            </span>
            {one.parts.map((part) =>
              part.spoiled ? (
                <s key={part.id} className="quiet">
                  {part.label}
                </s>
              ) : (
                <Button
                  key={part.id}
                  size="compact-xs"
                  variant="default"
                  title={`${part.size}: spoiled?`}
                  aria-label={`${part.label} is spoiled`}
                  loading={act.isPending}
                  onClick={() => act.spoil(part.id)}
                >
                  {part.label} spoiled
                </Button>
              ),
            )}
            <TakeOut
              label={`${one.name} ${one.size} was not sawn after all`}
              onClick={() => act.untick(one.key)}
            />
          </li>
        ))}
      </ul>
    </section>
  )
}
