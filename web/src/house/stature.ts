import type { Schemas } from '../api/client'

const MM_PER_INCH = 25.4

/** A person's height as people say it: whole millimetres, or feet and whole inches. */
export function stature(mm: number, units: Schemas['HouseView']['units']): string {
  if (units === 'metric') return `${Math.round(mm)} mm`
  const inches = Math.round(mm / MM_PER_INCH)
  return `${Math.floor(inches / 12)}' ${inches % 12}"`
}
