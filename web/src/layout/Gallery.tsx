import { HoverCard } from '@mantine/core'

import { type Schemas } from '../api/client'
import { SeverityMark } from '../shell/Findings'
import { DrawingSvg } from '../sheet/DrawingSvg'

type Card = Schemas['Card']

export interface GalleryProps {
  gallery: Schemas['Gallery']
  chosen: number | null
  /** The alternative that the chosen one is compared with. */
  compared: number | null
  onChoose: (id: number) => void
}

/** The alternatives side by side at one scale, whole in sight; the rest of a label opens under the pointer. */
export function Gallery({ gallery, chosen, compared, onChoose }: GalleryProps) {
  return (
    <div
      className={`gallery${gallery.designs.length > MOST_BESIDE ? ' many' : ''}`}
      role="group"
      aria-label="Gallery of alternatives"
      data-scrolls-sideways
    >
      {gallery.designs.map((card) => (
        <HoverCard key={card.id} position="top" width={320} openDelay={350} shadow="md" withinPortal>
          <HoverCard.Target>
            <button
              type="button"
              className="plain hung"
              aria-pressed={card.id === chosen}
              aria-label={`${card.title}, ${card.cost} ${gallery.currency}. ${card.reason} ${card.glance}`}
              onClick={() => onChoose(card.id)}
              data-design={card.key}
            >
              <DrawingSvg drawing={card.elevation} label={`${card.title}, small`} small />
              <span className="label">
                <span className="title">{card.title}</span>
                <span>
                  <b>{card.cost}</b> {gallery.currency}
                </span>
                <span className="quiet differs">
                  {[
                    card.id === compared ? 'compared' : '',
                    card.signed ? 'signed off' : card.agreed ? 'chosen' : '',
                    card.edits > 0 ? `${card.edits} by hand` : '',
                    card.family,
                  ]
                    .filter(Boolean)
                    .join('; ')}
                </span>
                {card.worst?.severity === 'stop' && <SeverityMark severity="stop" />}
              </span>
            </button>
          </HoverCard.Target>
          <HoverCard.Dropdown>
            <Label card={card} currency={gallery.currency} />
          </HoverCard.Dropdown>
        </HoverCard>
      ))}
    </div>
  )
}

/** So many labels have room for their words beside the picture. */
const MOST_BESIDE = 4

/** All that an alternative's label says. */
function Label({ card, currency }: { card: Card; currency: string }) {
  return (
    <div className="label-whole">
      <p className="title">{card.title}</p>
      <p className="reason">{card.reason}</p>
      <p>{facts(card, currency)}</p>
      <p className="quiet">{sentence(card.left)}</p>
      <p className="quiet">{card.glance}</p>
      {card.agreed && <p>{card.agreed}.</p>}
      <Worst card={card} />
    </div>
  )
}

/** The chosen alternative in a sentence or two. */
export function ChosenLine({ card, currency }: { card: Card; currency: string }) {
  return (
    <p className="chosen-line" aria-label="The chosen alternative">
      <b>{card.title}.</b> <i>{card.reason}</i> {facts(card, currency)}{' '}
      <span className="quiet">{sentence(card.left)}</span> <span className="quiet">{card.glance}</span>{' '}
      {card.agreed && <b>{card.agreed}.</b>}
    </p>
  )
}

function sentence(words: string): string {
  return words && `${words.charAt(0).toUpperCase()}${words.slice(1)}.`
}

function facts(card: Card, currency: string): string {
  return `Costs ${card.cost} ${currency}, takes ${card.hours.toFixed(1)} hours to put up, holds ${card.holds}, in ${card.family.toLowerCase()}.`
}

function Worst({ card }: { card: Card }) {
  if (!card.worst || card.worst.severity === 'note') return null
  return (
    <span className="worst">
      <SeverityMark severity={card.worst.severity} /> {card.worst.sentence}
    </span>
  )
}
