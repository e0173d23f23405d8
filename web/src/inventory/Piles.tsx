import type { Schemas } from '../api/client'

type Decision = Schemas['Thing']['decision']

/** The piles by decision: how many lie in each and what storage they take or free. One click shows only one. */
export function Piles({
  piles,
  shown,
  onShow,
}: {
  piles: readonly Schemas['PileView'][]
  shown: Decision | null
  onShow: (decision: Decision | null) => void
}) {
  const stays = new Set(['keep', 'repair', 'undecided'])
  return (
    <div className="piles" role="group" aria-label="Piles">
      {piles.map((pile) => (
        <button
          key={pile.decision}
          type="button"
          className={`pile${stays.has(pile.decision) ? '' : ' leaves'}`}
          aria-pressed={shown === pile.decision}
          onClick={() => onShow(shown === pile.decision ? null : pile.decision)}
        >
          <b>{pile.decision}</b> {pile.pieces}{' '}
          <span className="quiet">
            {stays.has(pile.decision) ? '' : 'frees '}
            {pile.storage}
          </span>
        </button>
      ))}
    </div>
  )
}
