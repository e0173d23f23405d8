import type { Schemas } from '../api/client'
import { useHouse } from '../api/queries'

export type Units = Schemas['HouseView']['units']

/** An example as the household measures: the page computes no size, it only shows how one is written. */
export function inUnits(units: Units, metric: string, imperial: string): string {
  return units === 'metric' ? metric : imperial
}

/** How the household measures. */
export function useUnits(houseId: number): Units {
  return useHouse(houseId).data?.units ?? 'metric'
}
