import type { Schemas } from '../api/client'

type Drawing = Schemas['Drawing']

/** A stretch of a drawing in its own millimetres, y downwards as SVG has it. */
export interface Frame {
  x: number
  y: number
  w: number
  h: number
}

/** Words that have found their place: the middle of each line's base in millimetres, as high as `size`. */
export interface Placed {
  lines: readonly string[]
  x: number
  y: number
  size: number
  anchor: 'start' | 'middle' | 'end'
  turn: number
  kind: 'label' | 'note' | 'dimension'
  caption: boolean
  of: string
}

/** What did not go in where it belongs: a number there, and its words in the key beside the drawing. */
export interface Numbered {
  number: number
  x: number
  y: number
  size: number
  words: string
  of: string
}

export interface Lettering {
  /** Of every dimension, in the drawing's order, where its figure stands; null where it is not in sight. */
  figures: readonly (Placed | Numbered | null)[]
  placed: readonly Placed[]
  numbered: readonly Numbered[]
}

/** Height of letters on the screen, px: none is ever smaller, at any scale. */
export const LETTERS = 12.5
const LINE = 14.5
const BADGE = 17
const FACE = `${LETTERS}px "Source Sans 3 Variable", sans-serif`

interface Box {
  x0: number
  y0: number
  x1: number
  y1: number
}

let pen: CanvasRenderingContext2D | null | undefined

/** Width of words in px. */
function widthOf(words: string): number {
  pen ??= document.createElement('canvas').getContext('2d')
  if (!pen) return words.length * LETTERS * 0.5
  pen.font = FACE
  return pen.measureText(words).width
}

/** Words in lines no wider than so many px; null where one word alone is wider. */
function wrapped(words: string, room: number): string[] | null {
  const lines: string[] = []
  for (const word of words.split(' ')) {
    if (widthOf(word) > room) return null
    const last = lines.at(-1)
    if (last !== undefined && widthOf(`${last} ${word}`) <= room) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

/** The box of upright or turned words whose base's middle stands at a point. */
function boxOf(x: number, y: number, wide: number, high: number, turn: number): Box {
  if (Math.abs(turn) < 1)
    return { x0: x - wide / 2, x1: x + wide / 2, y0: y - high * 0.8, y1: y + high * 0.22 }
  const angle = (turn * Math.PI) / 180
  const c = Math.abs(Math.cos(angle))
  const s = Math.abs(Math.sin(angle))
  // The middle of the words lies off their base, square to it.
  const up = high * 0.3
  const mx = x - up * Math.sin(angle)
  const my = y - up * Math.cos(angle)
  const [halfWide, halfHigh] = [(wide * c + high * s) / 2, (wide * s + high * c) / 2]
  return { x0: mx - halfWide, x1: mx + halfWide, y0: my - halfHigh, y1: my + halfHigh }
}

const meet = (a: Box, b: Box) => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1

/** Letter a drawing for the screen: every word readable, no two over each other. What has no room where it belongs
 * gets a number there. Sizes come first, then what is written at the walls, then what lives where, then the rest.
 */
export function letter(drawing: Drawing, frame: Frame, pxPerMm: number): Lettering {
  const k = pxPerMm
  const placed: Placed[] = []
  const numbered: Numbered[] = []
  const figures: (Placed | Numbered | null)[] = []
  const taken: Box[] = []
  const [right, bottom] = [frame.w * k, frame.h * k]
  const px = (x: number) => (x - frame.x) * k
  const py = (y: number) => (-y - frame.y) * k
  const mmX = (x: number) => x / k + frame.x
  const mmY = (y: number) => y / k + frame.y
  const size = LETTERS / k
  const isFree = (box: Box) => !taken.some((other) => meet(box, other))
  const isShown = (x: number, y: number) => x > -20 && y > -20 && x < right + 20 && y < bottom + 20
  const isInside = (box: Box) => box.x0 >= 0 && box.y0 >= 0 && box.x1 <= right && box.y1 <= bottom

  const number = (words: string, of: string, tries: readonly (readonly [number, number])[]) => {
    const half = BADGE / 2
    const at = tries.find(([x, y]) => isFree({ x0: x - half, x1: x + half, y0: y - half, y1: y + half }))
    const [x, y] = at ?? nearby(tries[0] ?? [0, 0], half)
    taken.push({ x0: x - half, x1: x + half, y0: y - half, y1: y + half })
    const one: Numbered = { number: numbered.length + 1, x: mmX(x), y: mmY(y), size, words, of }
    numbered.push(one)
    return one
  }
  /** The free place for a number that is nearest to a point. */
  const nearby = ([x, y]: readonly [number, number], half: number): readonly [number, number] => {
    for (let far = BADGE; far < 240; far += BADGE / 2)
      for (let n = 0; n < 12; n++) {
        const [a, b] = [x + far * Math.cos((n * Math.PI) / 6), y + far * Math.sin((n * Math.PI) / 6)]
        const box = { x0: a - half, x1: a + half, y0: b - half, y1: b + half }
        if (isFree(box) && isInside(box)) return [a, b]
      }
    return [x, y]
  }

  for (const d of drawing.dimensions) {
    const [x, y] = [px(d.x), py(d.y)]
    if (!isShown(x, y)) {
      figures.push(null)
      continue
    }
    const wide = widthOf(d.text) + 2
    // Along its own line it may step aside.
    const angle = (-d.turn * Math.PI) / 180
    const steps = [0, 0.4, -0.4, 0.8, -0.8].map((share) => share * wide)
    const spots = steps.map((step) => [x + step * Math.cos(angle), y + step * Math.sin(angle)] as const)
    const long = Math.hypot(d.end[0] - d.start[0], d.end[1] - d.start[1]) * k
    const spot = spots.find(([a, b], n) => {
      const box = boxOf(a, b, wide, LETTERS, d.turn)
      return (n === 0 || long > wide) && isFree(box) && isInside(box)
    })
    if (spot) {
      taken.push(boxOf(spot[0], spot[1], wide, LETTERS, d.turn))
      figures.push({
        ...{ lines: [d.text], x: mmX(spot[0]), y: mmY(spot[1]), size, anchor: 'middle', turn: d.turn },
        ...{ kind: 'dimension', caption: false, of: d.of },
      })
    } else figures.push(number(`${d.text} ${d.label}`, d.of, [[x, y - BADGE / 3]]))
  }

  const notes = drawing.texts.filter((text) => text.layer !== 'content')
  const note = (text: Schemas['Text']) => {
    const wide = widthOf(text.text) + 2
    const shift = text.anchor === 'start' ? wide / 2 : text.anchor === 'end' ? -wide / 2 : 0
    const [x, y] = [px(text.x) + shift, py(text.y)]
    if (!isShown(x, y)) return
    const aside = text.turn ? [0] : [0, -LINE, LINE, -2 * LINE, 2 * LINE]
    const lift = aside.find((by) => {
      const box = boxOf(x, y + by, wide, LETTERS, text.turn)
      return isFree(box) && isInside(box)
    })
    if (lift === undefined) {
      number(text.text, text.of, [[x, y - BADGE / 3]])
      return
    }
    taken.push(boxOf(x, y + lift, wide, LETTERS, text.turn))
    placed.push({
      ...{ lines: [text.text], x: mmX(x), y: mmY(y + lift), size, anchor: 'middle', turn: text.turn },
      ...{ kind: 'note', caption: text.caption, of: text.of },
    })
  }
  notes.filter((text) => text.caption).forEach(note)

  for (const label of drawing.labels) {
    const [x0, y0, wide, high] = [px(label.x), py(label.y + label.h), label.w * k, label.h * k]
    const [x, y] = [x0 + wide / 2, y0 + high / 2]
    if (!isShown(x, y)) continue
    const words = label.items.join(', ')
    const lines = wrapped(words, wide - 4)
    const tall = (lines?.length ?? 0) * LINE
    const spare = Math.max(0, (high - tall) / 2)
    const place = lines
      ? [0, spare, -spare]
          .map((by) => ({
            x0: x - wide / 2 + 2,
            x1: x + wide / 2 - 2,
            y0: y + by - tall / 2,
            y1: y + by + tall / 2,
          }))
          .find((box) => tall <= high + 3 && isFree(box))
      : undefined
    if (lines && place) {
      const widest = Math.max(...lines.map(widthOf))
      taken.push({ ...place, x0: x - widest / 2 - 1, x1: x + widest / 2 + 1 })
      placed.push({
        ...{ lines, x: mmX(x), y: mmY(place.y0 + LINE * 0.8), size, anchor: 'middle', turn: 0 },
        ...{ kind: 'label', caption: false, of: label.of },
      })
    } else {
      const side = Math.max(0, wide / 2 - BADGE)
      number(words, label.of, [[x, y], [x - side, y], [x + side, y]]) // prettier-ignore
    }
  }
  notes.filter((text) => !text.caption).forEach(note)
  return { figures, placed, numbered }
}

/** How far one line of a label stands under the one before it, in millimetres. */
export function lineStep(size: number): number {
  return (size * LINE) / LETTERS
}

/** How wide a number's badge is, in millimetres. */
export function badge(size: number): number {
  return (size * BADGE) / LETTERS
}
