import { Link } from 'react-router'

import type { Schemas } from '../api/client'
import { STAGES, type StageId } from './stages'

export interface SpineProps {
  houseId: number
  spaceId: number | null
  current: StageId
  states: Schemas['States'] | undefined
  people: number
  search: string
}

/** The stages in working order, each with its state in a few words. */
export function Spine({ houseId, spaceId, current, states, people, search }: SpineProps) {
  const words: Record<StageId, string> = {
    house: `${people} ${people === 1 ? 'person' : 'people'}`,
    survey: states?.survey ?? '',
    inventory: states?.inventory ?? '',
    layout: states?.layout ?? '',
    checks: states?.checks ?? '',
    materials: states?.materials ?? '',
    install: states?.install ?? '',
    upkeep: states?.upkeep ?? '',
  }
  return (
    <nav className="spine" aria-label="Stages">
      <Link to="/houses" className="mark">
        Pinakotheke
      </Link>
      {STAGES.map((stage) =>
        spaceId === null && stage.id !== 'house' ? null : (
          <Link
            key={stage.id}
            className="stage"
            to={{
              pathname: spaceId === null ? `/house/${houseId}` : `/house/${houseId}/${spaceId}/${stage.id}`,
              search,
            }}
            aria-current={stage.id === current ? 'page' : undefined}
          >
            <span className="digit" aria-hidden="true">
              {stage.digit}
            </span>
            <span className="name">{stage.name}</span>
            <span className="state">{words[stage.id]}</span>
          </Link>
        ),
      )}
    </nav>
  )
}
