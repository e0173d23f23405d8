import type { Schemas } from '../api/client'

export type Slot = Schemas['SlotRef']

/** One text per place, for keys and comparison. */
export function slotKey(slot: { what: string; level?: unknown; face?: unknown; side?: unknown }): string {
  return [slot.what, slot.level, slot.face, slot.side].map((part) => part ?? '').join('|')
}

/** Just the place of what may say more, such as how to read it. */
export function placeOf({ what, level, face, side }: Slot): Slot {
  return { what, level: level ?? null, face: face ?? null, side: side ?? null }
}
