import { Button, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useState } from 'react'

import type { Plan, Step } from './useInstall'
import type { Found } from './useTicks'

interface Props {
  step: Step
  walls: Plan['walls']
  onKeep: (found: Partial<Found>) => void
  onLeave: () => void
}

type What = Found['what']

const ASKED: Record<Exclude<What, ''>, string> = {
  stud: 'Where it stands, from the left end of the wall',
  bow: 'How far, in the middle of the wall',
  hole: 'How far off it is',
  short: 'By how much it is short',
}

/** What is not as drawn, and what was read of it: the rest is planned anew from that. Anything else is kept in words. */
export function NotAsDrawn({ step, walls, onKeep, onLeave }: Props) {
  const [what, setWhat] = useState<What>('')
  const [which, setWhich] = useState('')
  const [way, setWay] = useState<Found['way']>('')
  const [at, setAt] = useState('')
  const [there, setThere] = useState('')
  const [note, setNote] = useState('')
  const rows = choices(what, step, walls)
  const ways = what === 'hole' ? HOLE : what === 'bow' ? BOW : []
  const [section, number] = (rows.length === 1 && !which ? (rows[0]?.value ?? '') : which).split('|')
  const known = what !== '' && (rows.length === 1 || which !== '') && (ways.length === 0 || way !== '')
  const whats = KINDS.filter((kind) => !kind.value || choices(kind.value, step, walls).length > 0)
  return (
    <form
      className="not-as-drawn"
      onSubmit={(event) => {
        event.preventDefault()
        const said = { note: note.trim() }
        if (!what) onKeep(said)
        else if (what === 'short')
          onKeep({ ...said, what, part: section ?? '', at: at.trim(), there: there || null })
        else
          onKeep({
            ...said,
            what,
            section: section ?? '',
            number: number ? Number(number) : null,
            at: at.trim(),
            way,
          })
      }}
    >
      <NativeSelect
        label="What is not as drawn"
        value={what}
        data={whats}
        onChange={(event) => {
          setWhat(event.currentTarget.value as What)
          setWhich('')
          setWay('')
        }}
      />
      {rows.length > 1 && (
        <NativeSelect
          label={what === 'short' ? 'Which part' : what === 'bow' ? 'Which wall' : `Which ${what}`}
          value={which}
          data={[{ value: '', label: 'choose' }, ...rows]}
          onChange={(event) => setWhich(event.currentTarget.value)}
        />
      )}
      {ways.length > 0 && (
        <NativeSelect
          label="Which way"
          value={way}
          data={[{ value: '', label: 'choose' }, ...ways]}
          onChange={(event) => setWay(event.currentTarget.value as Found['way'])}
        />
      )}
      {what && (
        <TextInput
          label={ASKED[what]}
          inputMode="text"
          value={at}
          onChange={(event) => setAt(event.currentTarget.value)}
        />
      )}
      {what === 'short' && (
        <TextInput
          type="date"
          label="If it is cut or bought anew: there on (in a week, unless you say)"
          value={there}
          onChange={(event) => setThere(event.currentTarget.value)}
        />
      )}
      <Textarea
        label={what ? 'More, in words' : 'In words'}
        value={note}
        autosize
        minRows={2}
        onChange={(event) => setNote(event.currentTarget.value)}
      />
      <div className="row">
        <Button type="submit" disabled={what ? !known || !at.trim() : !note.trim()}>
          Keep it
        </Button>
        <Button variant="default" onClick={onLeave}>
          Leave it
        </Button>
      </div>
    </form>
  )
}

const KINDS: { value: What; label: string }[] = [
  { value: '', label: 'something else, in words' },
  { value: 'stud', label: 'a stud stands elsewhere' },
  { value: 'bow', label: 'the wall bows' },
  { value: 'hole', label: 'a hole strayed' },
  { value: 'short', label: 'a part is short' },
]
const HOLE = [
  { value: 'left', label: 'too far left' },
  { value: 'right', label: 'too far right' },
  { value: 'up', label: 'too high' },
  { value: 'down', label: 'too low' },
]
const BOW = [
  { value: 'out', label: 'out, into the room' },
  { value: 'in', label: 'in, away from the room' },
]

/** What there is to choose from, as SECTION|NUMBER, or a part. */
function choices(what: What, step: Step, walls: Plan['walls']): { value: string; label: string }[] {
  const of = (wall: Plan['walls'][number]) => (walls.length > 1 ? `, ${wall.name}` : '')
  if (what === 'stud')
    return walls.flatMap((wall) =>
      wall.studs.map((at, n) => ({
        value: `${wall.section}|${String(n + 1)}`,
        label: `stud ${String(n + 1)} at ${at}${of(wall)}`,
      })),
    )
  if (what === 'bow') return walls.map((wall) => ({ value: `${wall.section}|`, label: wall.name }))
  if (what === 'hole')
    return walls.flatMap((wall) =>
      wall.holes
        .filter((hole) => step.parts.length === 0 || step.parts.includes(hole.part))
        .map((hole) => ({
          value: `${wall.section}|${String(hole.number)}`,
          label: `hole ${String(hole.number)}: ${hole.part_name}, ${hole.along} from the left${of(wall)}`,
        })),
    )
  if (what === 'short')
    return step.parts.map((part, n) => ({ value: part, label: step.part_names[n] ?? part }))
  return []
}
