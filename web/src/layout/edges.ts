import type { Schemas } from '../api/client'

/** How a compartment in a drawer is changed by its dividers: the key, the divider, which way it goes, and what that does. */
export const EDGES = [
  ['↓', 'front', 1, 'Front divider away'],
  ['↑', 'front', -1, 'Front divider nearer'],
  ['→', 'right', 1, 'Right divider away'],
  ['←', 'right', -1, 'Right divider nearer'],
] as const

/** How a tray in a drawer is shifted: the key, steps to the right and to the front, and what that does. */
export const SHIFTS = [
  ['←', -1, 0, 'Shift left'],
  ['→', 1, 0, 'Shift right'],
  ['↓', 0, 1, 'Shift to the front'],
  ['↑', 0, -1, 'Shift to the back'],
] as const

type Rect = Schemas['Rect']
type Side = 'right' | 'front'

/** At which side of a compartment a strip stands; null where it does not. */
function sideOf(strip: Rect, cell: Rect): Side | null {
  const upright = strip.h > strip.w
  const meets = (from: number, long: number, other: number, otherLong: number) =>
    from < other + otherLong && other < from + long
  if (upright && Math.abs(cell.x + cell.w - strip.x) < 1 && meets(strip.y, strip.h, cell.y, cell.h))
    return 'right'
  if (!upright && Math.abs(cell.y - strip.y - strip.h) < 1 && meets(strip.x, strip.w, cell.x, cell.w))
    return 'front'
  return null
}

/** The strips between compartments that a hand can move; uprights of a wardrobe are none. */
export function strips(drawing: Schemas['Drawing'], cells: ReadonlySet<string>): ReadonlySet<string> {
  const boxes = drawing.rects.filter((rect) => cells.has(rect.of))
  const found = drawing.rects.filter(
    (rect) => rect.role === 'divider' && boxes.some((cell) => sideOf(rect, cell)),
  )
  return new Set(found.map((rect) => rect.of))
}

/** The compartment at the left of a strip, or behind it, at a point of the drawing, and the side of it where it stands. */
export function besideStrip(
  drawing: Schemas['Drawing'],
  strip: string,
  at: { x: number; y: number },
  cells: ReadonlySet<string>,
): { cell: string; side: Side } | null {
  const one = drawing.rects.find((rect) => rect.of === strip)
  for (const cell of one ? drawing.rects.filter((rect) => cells.has(rect.of)) : []) {
    const side = one ? sideOf(one, cell) : null
    const here =
      side === 'right' ? at.y >= cell.y && at.y <= cell.y + cell.h : at.x >= cell.x && at.x <= cell.x + cell.w
    if (side && here) return { cell: cell.of, side }
  }
  return null
}
