import type { Schemas } from '../api/client'

export type Slot = Schemas['SlotRef']

/** One text per place, for keys and comparison. */
export function slotKey(slot: Slot): string {
  return [slot.section, slot.what, slot.level, slot.face, slot.side, slot.at, slot.out]
    .map((part) => part ?? '')
    .join('|')
}
