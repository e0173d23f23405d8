import type { Schemas } from '../api/client'

/** A part as it is called. */
export function place(part: Schemas['PartView']): string {
  // In a drawer only a tray that stands on another one has a height worth telling.
  return part.role === 'compartment' && part.z === 0 ? part.name : `${part.name}, at ${part.height}`
}

/** The number of a bay by what it is called on a drawing; null for what is none. */
export function bayOf(id: string | null): number | null {
  const found = id?.match(/^bay-(\d+)$/)?.[1]
  return found === undefined ? null : Number(found)
}
