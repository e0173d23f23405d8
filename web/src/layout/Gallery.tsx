import { type Schemas } from '../api/client'
import { SeverityMark } from '../shell/Findings'
import { DrawingSvg } from '../sheet/DrawingSvg'

export interface GalleryProps {
  gallery: Schemas['Gallery']
  chosen: number | null
  /** The alternative laid over the chosen one. */
  compared: number | null
  onChoose: (id: number) => void
}

/** The alternatives side by side at one scale, each with its label. */
export function Gallery({ gallery, chosen, compared, onChoose }: GalleryProps) {
  return (
    <div className="gallery" role="group" aria-label="Gallery of alternatives">
      {gallery.designs.map((card) => (
        <button
          key={card.id}
          type="button"
          className="plain hung"
          aria-pressed={card.id === chosen}
          onClick={() => onChoose(card.id)}
          data-design={card.key}
        >
          <DrawingSvg drawing={card.elevation} label={`${card.title}, small`} small />
          <Label card={card} currency={gallery.currency} over={card.id === compared} />
        </button>
      ))}
    </div>
  )
}

function Label({ card, currency, over }: { card: Schemas['Card']; currency: string; over: boolean }) {
  return (
    <span className="label">
      <span className="title">{card.title}</span>
      <span className="reason">{card.reason}</span>
      <span className="label-facts">
        <b>
          {card.cost} {currency}
        </b>{' '}
        · {card.hours.toFixed(1)} h
        <br />
        {card.family}, {card.holds}
        <br />
        <span className="quiet">{card.left}</span>
        <br />
        <span className="quiet">{card.glance}</span>
      </span>
      {(over || card.edits > 0) && (
        <span className="quiet">
          {[over ? 'laid over, dashed' : '', card.edits > 0 ? `${card.edits} by hand` : '']
            .filter(Boolean)
            .join('; ')}
        </span>
      )}
      {card.worst && card.worst.severity !== 'note' && (
        <span className="worst" title={card.worst.sentence}>
          <SeverityMark severity={card.worst.severity} /> {card.worst.sentence}
        </span>
      )}
    </span>
  )
}
