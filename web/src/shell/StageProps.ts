import type { Schemas } from '../api/client'

/** What every stage is given. */
export interface StageProps {
  house: Schemas['HouseView']
  space: Schemas['SpaceLine']
  /** The design the ledger speaks of. */
  design: number | null
  onChoose: (design: number) => void
  /** Id of what a finding points at. */
  shown: string | null
  onShow: (id: string | null) => void
}
