import type { Schemas } from '../api/client'
import type { Command } from './useDesignEdits'

type Design = Schemas['DesignView']
type Part = Schemas['PartView']
type Held = Schemas['HeldView']

/** What is in the hand: so many pieces of one thing, or all that a part holds. */
export interface Carry {
  /** The part it comes from; null for what has no place. */
  source: string | null
  rows: readonly Held[]
  /** What the other part holds comes back in its stead. */
  exchange: boolean
}

type Sent = Extract<Command, { do: 'assign' }>

/** Everything a part holds, or one thing of it. */
export function lifted(design: Design, source: string | null, thing: string | null): Carry | null {
  const held = source ? design.parts.find((part) => part.id === source)?.holds : design.unplaced
  const rows = (held ?? []).filter((row) => thing === null || row.thing === thing)
  return rows.length ? { source, rows, exchange: false } : null
}

/** What is in the hand, in words. */
export function inWords(carry: Carry): string {
  return carry.rows.map((row) => `${row.count} ${row.name}`).join(', ')
}

function sent(rows: readonly Held[], source: string | null, target: Part | null): Sent[] | null {
  const found: Sent[] = []
  for (const row of rows) {
    const way = target ? row.ways.find((one) => target.takes.includes(one)) : row.ways[0]
    if (!way) return null
    found.push({ do: 'assign', thing: row.thing, way, count: row.count, source, target: target?.id ?? null })
  }
  return found
}

/** The edit that lets it go into a part (null: nowhere for now); null where that part does not take it. */
export function letGo(carry: Carry, design: Design, target: Part | null): Command | null {
  const mine = sent(carry.rows, carry.source, target)
  if (!mine?.length) return null
  const [one, more] = mine
  if (!carry.exchange || !target || !carry.source || target.holds.length === 0)
    return one && more === undefined ? one : { do: 'several', commands: mine }
  const source = design.parts.find((part) => part.id === carry.source)
  const theirs = source && sent(target.holds, target.id, source)
  if (!theirs) return null
  const away = mine.map((row) => ({ ...row, target: null }))
  const back = mine.map((row) => ({ ...row, source: null }))
  return { do: 'several', commands: [...away, ...theirs, ...back] }
}

/** Parts that take what is in the hand, as they stand from left to right and from the floor up, each with its edit. */
export function places(carry: Carry, design: Design): { part: Part; command: Command }[] {
  return design.parts
    .filter((part) => part.id !== carry.source)
    .map((part) => ({ part, command: letGo(carry, design, part) }))
    .filter((row): row is { part: Part; command: Command } => row.command !== null)
    .slice(0, MOST)
}

const MOST = 60

/** Which part takes what is let go at a point of the drawing: that whose box it is in, or else in that bay the shelf
 * under it or the rail over it.
 */
export function partAt(
  drawing: Schemas['Drawing'],
  x: number,
  y: number,
  takes: ReadonlySet<string>,
): string | null {
  const inside = (area: Schemas['Area']) =>
    x >= area.x && x <= area.x + area.w && y >= area.y && y <= area.y + area.h
  const label = drawing.labels.find((area) => takes.has(area.of) && inside(area))
  if (label) return label.of
  const bay = drawing.bays.find(inside)
  if (!bay) return null
  let best: string | null = null
  let nearest = Infinity
  for (const rect of drawing.rects) {
    const middle = rect.x + rect.w / 2
    if (rect.layer !== 'part' || !takes.has(rect.of) || middle < bay.x || middle > bay.x + bay.w) continue
    if (rect.y + rect.h < bay.y - 30 || rect.y > bay.y + bay.h + 30) continue
    const hangs = rect.role === 'rail' || rect.role === 'hooks'
    const far = hangs ? rect.y - y : y - rect.y - rect.h
    const off = y >= rect.y && y <= rect.y + rect.h ? 0 : far
    if (off >= 0 && off < nearest) {
      nearest = off
      best = rect.of
    }
  }
  return best
}
