import type { Step } from './useInstall'

export interface Day {
  from: number
  wide: number
  label: string
  short: string
}

export interface Bar {
  from: number
  wide: number
  said: string
}

const MINUTE = 60_000
const GAP = 15

/** Days of work side by side, each as wide as work is done on it, and the bar of each step, in per cent of the whole. */
export function timeAxis(steps: readonly Step[]): { days: Day[]; bars: Map<string, Bar> } {
  const spans = new Map<string, { first: number; last: number }>()
  const timed = steps.filter((step) => step.starts && step.ends)
  for (const step of timed) {
    const [start, end] = [at(step.starts), at(step.ends)]
    for (const [day, from, to] of pieces(start, end)) {
      const before = spans.get(day)
      spans.set(day, { first: Math.min(before?.first ?? from, from), last: Math.max(before?.last ?? to, to) })
    }
  }
  const sorted = [...spans].sort(([a], [b]) => a.localeCompare(b))
  const total = sorted.reduce((sum, [, span]) => sum + (span.last - span.first) / MINUTE + GAP, 0) || 1
  let so = 0
  const begins = new Map<string, number>()
  const days = sorted.map(([day, span]) => {
    const minutes = (span.last - span.first) / MINUTE
    const date = new Date(span.first)
    const made = {
      from: (100 * so) / total,
      wide: (100 * (minutes + GAP)) / total,
      label: date.toLocaleDateString('en', { weekday: 'long', day: 'numeric', month: 'long' }),
      short: `${date.toLocaleDateString('en', { weekday: 'short' })} ${String(date.getDate())}`,
    }
    begins.set(day, so)
    so += minutes + GAP
    return made
  })
  const place = (moment: number) => {
    const day = dayOf(moment)
    const span = spans.get(day)
    return span ? (100 * ((begins.get(day) ?? 0) + (moment - span.first) / MINUTE)) / total : 0
  }
  const bars = new Map(
    timed.map((step) => {
      const [start, end] = [at(step.starts), at(step.ends)]
      const from = place(start)
      return [step.id, { from, wide: Math.max(place(end) - from, 0), said: spoken(start, end) }]
    }),
  )
  return { days, bars }
}

function at(text: string | null): number {
  return new Date(text ?? 0).getTime()
}

function dayOf(moment: number): string {
  const date = new Date(moment)
  return `${String(date.getFullYear())}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`
}

/** A long step goes over more than one day: what is known of it is its first and its last moment. */
function pieces(start: number, end: number): [string, number, number][] {
  const [first, last] = [dayOf(start), dayOf(end)]
  return first === last
    ? [[first, start, end]]
    : [
        [first, start, start + MINUTE],
        [last, end - MINUTE, end],
      ]
}

function spoken(start: number, end: number): string {
  const time: Intl.DateTimeFormatOptions = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }
  const day = new Date(start).toLocaleDateString('en', { weekday: 'long', day: 'numeric', month: 'long' })
  return `${day}, ${new Date(start).toLocaleTimeString('en', time)} to ${new Date(end).toLocaleTimeString('en', time)}`
}
